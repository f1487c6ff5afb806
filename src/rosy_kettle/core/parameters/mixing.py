"""Constants of what a mix is made of: fats, pores, gel, and what sticks to the bowl."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["MixingParameters"]

BAILEY = "Bailey's Industrial Oil and Fat Products, from memory"
SOLUBILITY = "ideal solubility of cetyl alcohol"


@dataclass(frozen=True, slots=True)
class MixingParameters:
    """Constants every model of a dough shares."""

    soft_fat_density_g_ml: float = parameter(0.90, "density of fat in a dough", "g/mL", "Bailey, 0.895 to 0.915 at 40 °C", "high", (0.88, 0.93))
    usual_powder_cp_j_gk: float = parameter(1.1, "heat capacity of a powder where none is listed", "J/(g K)", "most powders lie at 0.9 to 1.3", "medium", (0.9, 1.3))
    fast_acid_from_speed: float = parameter(0.5, "speed from which an acid counts as fast", "-", PRACTICE, "medium", (0.3, 0.8))
    watery_from: float = parameter(0.05, "water from which a liquid stays apart from fat", "-", PRACTICE, "medium", (0.02, 0.2))
    hardness_loss_low: float = parameter(0.08, "foam a hardy surfactant loses in very hard water", "-", ESTIMATE, "low", (0.02, 0.15))
    hardness_loss_medium: float = parameter(0.20, "foam a middling surfactant loses in very hard water", "-", ESTIMATE, "low", (0.1, 0.3))
    hardness_loss_high: float = parameter(0.40, "foam a tender surfactant loses in very hard water", "-", ESTIMATE, "low", (0.25, 0.6))
    wax_solubility_at_10_c: float = parameter(0.017, "wax that oil dissolves at 10 °C", "g/g", SOLUBILITY, "medium", (0.008, 0.035))
    wax_solubility_growth_per_c: float = parameter(0.087, "growth of that with temperature", "1/°C", SOLUBILITY, "medium", (0.07, 0.1))
    wax_solubility_limit: float = parameter(0.6, "most wax a solution holds", "g/g", ESTIMATE, "low", (0.4, 0.8))
    wax_reference_c: float = parameter(10.0, "temperature of that solubility", "°C", "by definition", "high")
    fat_table_ends_c: float = parameter(40.0, "last temperature of the solid fat tables", "°C", "by definition", "high")
    fat_gone_from_c: float = parameter(42.0, "where a fat without a melting range is molten at the soonest", "°C", ESTIMATE, "medium", (41.0, 45.0))
    gel_strength: float = parameter(1.12, "share that a network of all wax would carry", "-", PRACTICE, "low", (0.8, 1.5))
    carried_from_saturation: float = parameter(2.0, "S with every fat molten from which fat begins to carry", "-", PRACTICE, "medium", (1.5, 2.5))
    carried_over_saturation: float = parameter(0.6, "S over which it comes to carry wholly", "-", PRACTICE, "low", (0.3, 1.0))
    carried_from_fat: float = parameter(0.4, "fat among the liquids from which it begins to carry", "-", PRACTICE, "low", (0.3, 0.5))
    carried_over_fat: float = parameter(0.2, "fat over which it comes to carry wholly", "-", PRACTICE, "low", (0.1, 0.3))
    reference_batch_kg: float = parameter(1.1, "batch whose loss the method states", "kg", PRACTICE, "medium", (0.8, 1.5))
    fixed_loss_share: float = parameter(0.4, "share of the loss that does not grow with the surface", "-", ESTIMATE, "low", (0.2, 0.6))
    most_loss: float = parameter(0.5, "most that sticks to the bowl", "-", ESTIMATE, "medium", (0.3, 0.6))

    @property
    def hardness_loss(self) -> dict[str, float]:
        """Foam lost in very hard water by how tender a surfactant is [-]."""
        return {"low": self.hardness_loss_low, "medium": self.hardness_loss_medium, "high": self.hardness_loss_high}
