"""Letter heights a label's texts must have, by market, and what the fixed words are."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import parameter

__all__ = ["LabelParameters"]

INCH = "1/16 inch; 21 CFR 701.3(b), 740.2(a)"
AREA = "by the area of the principal panel; 21 CFR 701.13(i)"
MASS = "by nominal mass; Directive 76/211/EEC, Annex I, 3.1"


@dataclass(frozen=True, slots=True)
class LabelParameters:
    """Millimetres; heights are of a capital in all-capital text, of the lower-case o else."""

    us_text_mm: float = parameter(1.588, "US ingredient list and warnings", "mm", INCH, "high", (1.588, 1.588))
    us_small_text_mm: float = parameter(0.794, "US ingredient list where less than 12 square inches can be labelled", "mm", "1/32 inch; 21 CFR 701.3(b)", "high", (0.794, 0.794))
    us_small_area_mm2: float = parameter(7741.9, "area below which that holds", "mm2", "12 square inches; 21 CFR 701.3(b)", "high", (7741.9, 7741.9))
    us_net_5_mm: float = parameter(1.588, "US net quantity, panel up to 5 square inches", "mm", AREA, "high", (1.588, 1.588))
    us_net_25_mm: float = parameter(3.175, "US net quantity, panel up to 25 square inches", "mm", AREA, "high", (3.175, 3.175))
    us_net_100_mm: float = parameter(4.763, "US net quantity, panel up to 100 square inches", "mm", AREA, "high", (4.763, 4.763))
    us_net_more_mm: float = parameter(6.35, "US net quantity, larger panels", "mm", AREA, "high", (6.35, 6.35))
    eu_net_50_mm: float = parameter(2.0, "EU and UK net quantity up to 50 g", "mm", MASS, "high", (2.0, 2.0))
    eu_net_200_mm: float = parameter(3.0, "EU and UK net quantity over 50 to 200 g", "mm", MASS, "high", (3.0, 3.0))
    eu_net_1000_mm: float = parameter(4.0, "EU and UK net quantity over 200 to 1000 g", "mm", MASS, "high", (4.0, 4.0))
    eu_net_more_mm: float = parameter(6.0, "EU and UK net quantity over 1000 g", "mm", MASS, "high", (6.0, 6.0))
    eu_text_mm: float = parameter(1.0, "EU and UK other texts, which have to be legible", "mm", "project default; no height in Reg. (EC) 1223/2009 Art. 19", "low", (0.8, 1.2))
    identity_mm: float = parameter(2.4, "what it is, in a size that stands out", "mm", "project default; 21 CFR 701.11 asks for prominence", "low", (2.0, 4.0))
