"""Constants of firmness."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["FirmnessParameters"]


@dataclass(frozen=True, slots=True)
class FirmnessParameters:
    """Weights of the hardness sum and where it ends; shares are of the mass."""

    base: float = parameter(0.9, "base of the hardness sum", "-", PRACTICE, "medium", (0.5, 1.3))
    solid_fat: float = parameter(12.0, "weight of solid fat", "-", PRACTICE, "medium", (8.0, 16.0))
    powders: float = parameter(4.0, "weight of hardening powders", "-", PRACTICE, "medium", (2.5, 6.0))
    water: float = parameter(9.0, "weight of water that binds", "-", PRACTICE, "medium", (6.0, 12.0))
    much_water: float = parameter(4.0, "weight of water that softens", "-", PRACTICE, "low", (2.0, 8.0))
    humectant: float = parameter(7.2, "weight of humectants", "-", PRACTICE, "medium", (4.0, 10.0))
    liquid_oil: float = parameter(5.0, "weight of liquid oil", "-", PRACTICE, "medium", (3.0, 8.0))
    molten_fat: float = parameter(4.0, "weight of molten fat", "-", PRACTICE, "medium", (2.0, 6.0))
    spray_crust: float = parameter(60.0, "weight of a sprayed crust", "-", PRACTICE, "low", (30.0, 90.0))
    oil_that_spares_crust: float = parameter(0.05, "fat and oil beside which a crust still grows wholly", "-", ESTIMATE, "low", (0.03, 0.08))
    oil_without_crust: float = parameter(0.20, "fat and oil in which no crust grows", "-", ESTIMATE, "low", (0.1, 0.3))
    much_spray: float = parameter(30.0, "weight of too much spray", "-", PRACTICE, "low", (15.0, 60.0))
    coarse: float = parameter(2.0, "weight of coarse crystals", "-", PRACTICE, "low", (1.0, 4.0))
    water_that_binds: float = parameter(0.10, "water up to which it binds", "-", PRACTICE, "medium", (0.06, 0.14))
    water_that_softens: float = parameter(0.15, "water from which it softens", "-", PRACTICE, "medium", (0.1, 0.2))
    spray_that_binds: float = parameter(0.015, "spray up to which it binds", "-", PRACTICE, "medium", (0.008, 0.03))
    spray_that_softens: float = parameter(0.06, "spray from which it softens", "-", PRACTICE, "medium", (0.03, 0.1))
    acid_for_full_crust: float = parameter(0.10, "fast acid of a full crust", "-", PRACTICE, "low", (0.05, 0.2))
    soda_for_full_crust: float = parameter(0.05, "soda of a full crust", "-", PRACTICE, "low", (0.02, 0.1))
    coarse_allowed: float = parameter(0.10, "coarse crystals that do no harm", "-", PRACTICE, "low", (0.05, 0.2))
    powder_rise: float = parameter(0.45, "how soon the powder scale fills", "-", PRACTICE, "medium", (0.3, 0.6))
    bend: float = parameter(4.0, "how sharply the sum bends at nothing", "-", PRACTICE, "low", (2.0, 8.0))
    fat_rise: float = parameter(6.0, "rise of hardness with the power of solid fat", "-", "after Narine and Marangoni, from memory", "medium", (4.0, 8.0))
    fat_power: float = parameter(3.0, "power of solid fat", "-", "after Narine and Marangoni, from memory", "medium", (2.0, 4.0))
    unbound_saturation: float = parameter(0.10, "S below which a kneaded piece is crumbs", "-", PRACTICE, "medium", (0.05, 0.2))
    bound_saturation: float = parameter(0.55, "S from which a kneaded piece is bound", "-", PRACTICE, "medium", (0.4, 0.7))
    lean_saturation_that_flows: float = parameter(2.2, "S without fat at which nothing holds", "-", PRACTICE, "medium", (1.8, 2.6))
    worked_at_c: float = parameter(38.0, "warmest a dough is worked at", "°C", PRACTICE, "medium", (32.0, 42.0))
    offset: float = parameter(0.0, "points a studio's pieces are harder than the sums say", "of 98", "none until a studio has learnt its own", "medium", (-20.0, 20.0))
    highest: float = parameter(98.0, "firmest a piece gets", "of 98", "by definition", "high")
    loose_packing: float = parameter(0.85, "a loosely filled piece is softer by", "×", PRACTICE, "low", (0.7, 1.0))
    press_packing: float = parameter(1.15, "a pressed piece is harder by", "×", PRACTICE, "low", (1.0, 1.3))
    most_tartar: float = parameter(0.20, "tartar beyond which more hardly hardens", "-", PRACTICE, "low", (0.1, 0.3))
    most_clay: float = parameter(0.25, "clay beyond which more hardly hardens", "-", PRACTICE, "low", (0.15, 0.4))
    most_starch: float = parameter(0.25, "starch beyond which more hardly hardens", "-", PRACTICE, "low", (0.15, 0.4))
    most_surfactant: float = parameter(0.35, "surfactant beyond which more hardly hardens", "-", PRACTICE, "low", (0.2, 0.5))
    most_milk: float = parameter(0.20, "milk powder beyond which more hardly hardens", "-", PRACTICE, "low", (0.1, 0.3))
    band: float = parameter(12.0, "90 % band, carried by powder", "of 98", ESTIMATE, "medium", (8.0, 20.0))
    band_by_fat: float = parameter(15.0, "90 % band, carried by fat", "of 98", ESTIMATE, "medium", (10.0, 25.0))
    cool_room_c: float = parameter(20.0, "temperature of the first figure", "°C", "by definition", "high")
    warm_shelf_c: float = parameter(30.0, "temperature of the second figure", "°C", "by definition", "high")

    @property
    def packing_factors(self) -> dict[str, float]:
        """How firm a piece is by the way it is packed; dough and hand-packed pieces stay as they are [-]."""
        return {"loose": self.loose_packing, "press": self.press_packing}

    @property
    def most_of_group(self) -> dict[str, float]:
        """Share beyond which more of a group of powders hardly hardens [-]."""
        return {
            "tartar": self.most_tartar, "clay": self.most_clay, "starch": self.most_starch, "surfactant": self.most_surfactant,
            "milk": self.most_milk,
        }  # fmt: skip
