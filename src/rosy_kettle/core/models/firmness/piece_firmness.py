"""Firmness of a dried or set piece (practice, 0 to 98)."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import clip, exp, log1p
from rosy_kettle.core.records import Ingredient

__all__ = ["piece_firmness"]

# Weights of the hardness sum; all fitted to what makers say of common recipes, no published source.
BASE, SOLID_FAT, POWDERS, WATER, MUCH_WATER = 0.9, 12.0, 4.0, 9.0, 4.0
HUMECTANT, LIQUID_OIL, MOLTEN_FAT = 7.2, 5.0, 4.0
SPRAY_CRUST, MUCH_SPRAY, COARSE = 60.0, 30.0, 2.0
WATER_THAT_BINDS, WATER_THAT_SOFTENS = 0.10, 0.15  # shares of the mass [-]
SPRAY_THAT_BINDS, SPRAY_THAT_SOFTENS = 0.015, 0.06  # shares of the mass [-]
ACID_FOR_FULL_CRUST, SODA_FOR_FULL_CRUST, COARSE_ALLOWED = 0.10, 0.05, 0.10  # shares of the mass [-]
POWDER_RISE = 0.45  # how soon the powder scale fills [-]
FAT_RISE = 6.0  # hardness grows with a power of solid fat; after Narine and Marangoni, from memory [-]
UNBOUND_SATURATION, BOUND_SATURATION = (
    0.10,
    0.55,
)  # a kneaded piece is crumbs below, bound from the second on [-]; common practice
LEAN_SATURATION_THAT_FLOWS = 2.2  # with this much other liquid nothing holds [-]
HIGHEST = 98.0  # nothing is rock [of 100]
TEN_BODY_C = 38.0  # warmest the dough is worked at [°C]
PACKING_FACTOR = {"loose": 0.85, "press": 1.15}
GROUP_CAP = {"tartar": 0.20, "clay": 0.25, "starch": 0.25, "surfactant": 0.35, "milk": 0.20}
"""Beyond this share more of a hardener hardly hardens [-]."""


def piece_firmness(
    mix: Mix, temperature_c: float, room_c: float, packing: str, *, kneaded: bool, solid_loss: float = 0.0
) -> float:
    """Return the firmness of a finished piece.

    .. math:: F = (1-c)\\,100(1-e^{-0.45\\,sp(x)}) + c\\,100(1-e^{-6 s^3}),\\quad sp(x) = \\ln(1+e^{4x})/4

    Parameters
    ----------
    mix : Mix
        The formula
    temperature_c : float
        Temperature of the piece [°C]
    room_c : float
        Temperature of the room it was made in [°C]
    packing : str
        loose, hand, press, dough or poured
    kneaded : bool
        Whether the method kneads
    solid_loss : float
        Solid share taken off fat and oil, for the low edge of the band [-]

    Returns
    -------
    float
        Firmness from 0 to 98 [-]; band 12 either way

    Notes
    -----
    x sums what hardens less what softens, by share of the mass. s is the solid share of fat and oil.
    """
    if mix.lean_saturation > LEAN_SATURATION_THAT_FLOWS:
        return 0.0
    solid_of_fat = max(0.0, mix.firm_share(temperature_c) - solid_loss)
    solid = min(mix.fat_share, solid_of_fat * mix.oily_share)
    x = (
        BASE
        + SOLID_FAT * solid
        + POWDERS * _hardeners(mix)
        + WATER * min(mix.water_share, WATER_THAT_BINDS)
        - MUCH_WATER * max(0.0, mix.water_share - WATER_THAT_SOFTENS)
        - HUMECTANT * mix.humectant_share
        - LIQUID_OIL * mix.liquid_oil_g / mix.total_g
        - MOLTEN_FAT * max(0.0, mix.fat_share - solid)
        + SPRAY_CRUST * min(SPRAY_THAT_BINDS, mix.spray_share) * _crust_acid(mix)
        - MUCH_SPRAY * max(0.0, mix.spray_share - SPRAY_THAT_SOFTENS)
        - COARSE * max(0.0, mix.coarse_share - COARSE_ALLOWED)
    )
    soft_plus = log1p(exp(4 * x)) / 4
    powder = 100 * (1 - exp(-POWDER_RISE * soft_plus))
    fat = 100 * (1 - exp(-FAT_RISE * solid_of_fat**3))
    firmness = (1 - mix.carried) * powder + mix.carried * fat
    if kneaded:
        wettest = mix.saturation(max(room_c, TEN_BODY_C))
        firmness *= 1.0 if wettest is None else clip((wettest - UNBOUND_SATURATION) / (BOUND_SATURATION - UNBOUND_SATURATION))
    return min(HIGHEST, firmness * PACKING_FACTOR.get(packing, 1.0))


def _crust_acid(mix: Mix) -> float:
    soda_share = mix.of(mix.palette.carbon_mol_g > 0) / mix.total_g
    return min(1.0, mix.fast_acid_share / ACID_FOR_FULL_CRUST) * min(1.0, soda_share / SODA_FOR_FULL_CRUST)


def _hardeners(mix: Mix) -> float:
    groups: dict[str, list[tuple[float, float]]] = {}
    for item, mass_g in mix.items():
        if item.firmness_weight and mass_g > 0:
            groups.setdefault(_group(item), []).append((item.firmness_weight, mass_g / mix.total_g))
    total = 0.0
    for name, members in groups.items():
        share = sum(member[1] for member in members)
        capped = min(1.0, GROUP_CAP.get(name, 1.0) / share)
        total += capped * sum(weight * part for weight, part in members)
    return total


def _group(item: Ingredient) -> str:
    return "tartar" if item.has("hardener") else item.role
