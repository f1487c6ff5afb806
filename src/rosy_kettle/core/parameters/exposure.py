"""Figures an exposure sheet rests on; the assessor replaces each of them by the product's own."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import parameter

__all__ = ["ExposureParameters"]

SCCS = "SCCS Notes of Guidance, 12th revision, from memory"
EPA = "US EPA Exposure Factors Handbook 2011, chapters 7 and 8, from memory"


@dataclass(frozen=True, slots=True)
class ExposureParameters:
    """Baths a day, what stays on the skin, weight and skin by age."""

    baths_a_day: float = parameter(1.0, "baths a day", "1/d", "project default, on the high side", "medium", (0.1, 1.0))
    retained_share: float = parameter(0.01, "share that stays on the skin of what is rinsed off", "-", SCCS, "high", (0.001, 0.01))
    retained_on_share: float = parameter(1.0, "share that stays of what is left on", "-", SCCS, "high", (0.1, 1.0))
    minutes: float = parameter(20.0, "time in the bath", "min", "project default", "medium", (5.0, 40.0))
    adult_kg: float = parameter(60.0, "weight of an adult", "kg", SCCS, "high", (60.0, 80.0))
    adult_skin_cm2: float = parameter(17500.0, "skin of an adult", "cm2", SCCS, "high", (16000.0, 20000.0))
    child_3_kg: float = parameter(18.6, "weight from 3 to 6 years", "kg", EPA, "medium", (14.0, 22.0))
    child_3_skin_cm2: float = parameter(7600.0, "skin from 3 to 6 years", "cm2", EPA, "medium", (6600.0, 8800.0))
    child_1_kg: float = parameter(11.4, "weight from 1 to 2 years", "kg", EPA, "medium", (9.0, 13.8))
    child_1_skin_cm2: float = parameter(5300.0, "skin from 1 to 2 years", "cm2", EPA, "medium", (4500.0, 6100.0))
