"""One maker's sense: what a maker never does to a formula, asked by everything that changes one."""

from rosy_kettle.core.change.sense.figures import FIGURES, LABELS, WATER_ON_ACID, figure_at
from rosy_kettle.core.change.sense.rules import RULES, End, Rule, ends_beside, ends_of
from rosy_kettle.core.change.sense.size import ANOTHER_FORMULA, MASS_KEPT, moved_share

__all__ = [
    "ANOTHER_FORMULA",
    "FIGURES",
    "LABELS",
    "MASS_KEPT",
    "RULES",
    "WATER_ON_ACID",
    "End",
    "Rule",
    "ends_beside",
    "ends_of",
    "figure_at",
    "moved_share",
]
