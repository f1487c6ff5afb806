"""Rules of safety and labelling: typed facts in, findings out. Nothing here says that a product is safe."""

from rosy_kettle.core.safety.rules.engine import STAGES, Finding, run_rules
from rosy_kettle.core.safety.rules.facts import ColourFacts, Facts, Fragrance, Preservative

__all__ = ["STAGES", "ColourFacts", "Facts", "Finding", "Fragrance", "Preservative", "run_rules"]
