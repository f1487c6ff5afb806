"""Constants of heat, cooling and fats together."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["FatParameters"]

BAILEY = "Bailey's Industrial Oil and Fat Products, from memory"


@dataclass(frozen=True, slots=True)
class FatParameters:
    """Constants of the heat in a bowl and of blends of fats."""

    fat_cp_j_gk: float = parameter(2.0, "heat capacity of fat", "J/(g K)", BAILEY, "high", (1.8, 2.2))
    liquid_cp_j_gk: float = parameter(2.3, "heat capacity of the other liquids", "J/(g K)", "estimate between glycerin 2.4 and oil 2.0", "medium", (2.0, 3.0))
    latent_j_g: float = parameter(150.0, "heat of melting of a butter", "J/g", BAILEY, "medium", (120.0, 180.0))
    bowl_mass_kg: float = parameter(1.1, "batch a bowl is sized for", "kg", PRACTICE, "medium", (0.8, 1.5))
    bowl_power: float = parameter(0.75, "how a bowl's heat capacity grows with its batch", "-", ESTIMATE, "low", (0.5, 1.0))
    transfer_w_m2k: float = parameter(9.0, "heat lost by an open bowl to still air", "W/(m2 K)", "estimate, free convection and radiation", "low", (5.0, 14.0))
    area_m2: float = parameter(0.09, "surface of bowl and dough", "m2", ESTIMATE, "low", (0.06, 0.14))
    loss_per_product: float = parameter(1.0, "solid fat lost by cocoa-like and lauric fats together", "-", ESTIMATE, "low", (0.6, 1.4))
    eutectic_that_matters: float = parameter(0.04, "product of the fat shares from which a test piece comes first", "-", ESTIMATE, "low", (0.02, 0.08))
