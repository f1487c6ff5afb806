"""Constants of foam."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["LatherParameters"]


@dataclass(frozen=True, slots=True)
class LatherParameters:
    """Constants of the foam in the tub."""

    litres_per_gram: float = parameter(15.0, "foam of a gram of sodium lauryl sulfate", "L/g", PRACTICE, "medium", (8.0, 25.0))
    rim_l_per_m2: float = parameter(250.0, "foam that goes over the rim", "L/m2", ESTIMATE, "low", (150.0, 400.0))
    synergy: float = parameter(0.25, "most that amphoteric and anionic lift each other", "-", PRACTICE, "low", (0.1, 0.5))
    synergy_ratio: float = parameter(0.33, "of the one to the other for the full lift", "-", PRACTICE, "low", (0.2, 0.5))
    oil_half: float = parameter(6.0, "oil per active that halves the foam", "g/g", PRACTICE, "low", (3.0, 10.0))
    emulsifier_for_oil: float = parameter(0.11, "emulsifier per oil that takes its share of the harm away", "g/g", PRACTICE, "low", (0.05, 0.2))
    eased_by_emulsifier: float = parameter(0.5, "share of the harm that emulsifier takes away", "-", PRACTICE, "low", (0.3, 0.8))
    hidden_fat_counts: float = parameter(0.5, "how much of the fat in milk and cocoa breaks foam", "-", ESTIMATE, "low", (0.2, 0.8))
    hardness_from_mg_l: float = parameter(90.0, "hardness from which foam suffers", "mg/L", ESTIMATE, "low", (50.0, 130.0))
    hardness_span_mg_l: float = parameter(160.0, "hardness over which the loss grows", "mg/L", ESTIMATE, "low", (100.0, 250.0))
    citrate_softens_mg_mmol: float = parameter(50.0, "hardness bound by a mmol of citrate", "mg/mmol", ESTIMATE, "medium", (30.0, 100.0))
    whole_way: float = parameter(0.35, "foam of a piece dropped in whole", "-", PRACTICE, "low", (0.2, 0.6))
    brisk_for_full_mol: float = parameter(0.10, "brisk gas that stirs a whole piece up fully", "mol/100 g", ESTIMATE, "low", (0.05, 0.2))
    score_scale_l: float = parameter(60.0, "foam that scores 63 in 150 L", "L", PRACTICE, "medium", (40.0, 90.0))
    reference_bath_l: float = parameter(150.0, "bath of that score", "L", "by definition", "high")
    creamy_by_oil: float = parameter(60.0, "points of character that oil takes", "of 100", PRACTICE, "low", (30.0, 90.0))
    creamy_by_synergy: float = parameter(10.0, "points of character that mixed kinds take", "of 100", PRACTICE, "low", (0.0, 25.0))
    half_life_min: float = parameter(30.0, "foam half gone, creamy and without oil, at 38 °C", "min", PRACTICE, "low", (15.0, 60.0))
    fluff_shortens: float = parameter(0.006, "life a point of fluff takes", "-", PRACTICE, "low", (0.003, 0.009))
    synergy_lengthens: float = parameter(0.3, "life that mixed kinds add", "-", PRACTICE, "low", (0.1, 0.6))
    half_life_reference_c: float = parameter(38.0, "temperature of that life", "°C", "by definition", "high")
    half_life_halves_per_c: float = parameter(10.0, "warming that halves it", "°C", PRACTICE, "low", (6.0, 15.0))
    fill_min: float = parameter(8.0, "a tub fills in", "min", PRACTICE, "medium", (5.0, 12.0))
    score_band: float = parameter(12.0, "90 % band of the foam score", "of 100", ESTIMATE, "medium", (8.0, 20.0))
