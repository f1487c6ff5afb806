"""Firmness of a dried or set piece (practice, 0 to 98)."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix, once_per_mix
from rosy_kettle.core.mixing.sloped import clip, exp, log1p
from rosy_kettle.core.records import Ingredient

__all__ = ["piece_firmness"]


def piece_firmness(
    mix: Mix, temperature_c: float, room_c: float, packing: str, *, kneaded: bool, solid_loss: float = 0.0
) -> float:
    """Return the firmness of a finished piece.

    .. math:: F = (1-c)\\,100(1-e^{-r_p\\,sp(x)}) + c\\,100(1-e^{-r_f s^k}),\\quad sp(x) = \\ln(1+e^{bx})/b

    r_p, r_f, k, b: ``powder_rise``, ``fat_rise``, ``fat_power``, ``bend``.

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
    x sums what hardens less what softens, by share of the mass. s is the solid share of fat and oil. Points a studio has learnt
    are added at the end, within 0 to 98.

    References
    ----------
    .. [1] Fitted to common practice; the power of solid fat after Narine and Marangoni, from memory.
    """
    p = mix.parameters.firmness
    if mix.lean_saturation > p.lean_saturation_that_flows:
        return 0.0
    solid_of_fat = max(0.0, mix.firm_share(temperature_c) - solid_loss)
    solid = min(mix.fat_share, solid_of_fat * mix.oily_share)
    x = (
        p.base
        + p.solid_fat * solid
        + p.powders * _hardeners(mix)
        + p.water * min(mix.water_share, p.water_that_binds)
        - p.much_water * max(0.0, mix.water_share - p.water_that_softens)
        - p.humectant * mix.humectant_share
        - p.liquid_oil * mix.liquid_oil_g / mix.total_g
        - p.molten_fat * max(0.0, mix.fat_share - solid)
        + p.spray_crust * min(p.spray_that_binds, mix.spray_share) * _crust_acid(mix)
        - p.much_spray * max(0.0, mix.spray_share - p.spray_that_softens)
        - p.coarse * max(0.0, mix.coarse_share - p.coarse_allowed)
    )
    soft_plus = log1p(exp(p.bend * x)) / p.bend
    powder = 100 * (1 - exp(-p.powder_rise * soft_plus))
    fat = 100 * (1 - exp(-p.fat_rise * solid_of_fat**p.fat_power))
    firmness = (1 - mix.carried) * powder + mix.carried * fat
    if kneaded:
        wettest = mix.saturation(max(room_c, p.worked_at_c))
        firmness *= (
            1.0 if wettest is None else clip((wettest - p.unbound_saturation) / (p.bound_saturation - p.unbound_saturation))
        )
    return clip(firmness * p.packing_factors.get(packing, 1.0) + p.offset, 0.0, p.highest)


@once_per_mix
def _crust_acid(mix: Mix) -> float:
    p = mix.parameters.firmness
    soda_share = mix.of(mix.palette.carbon_mol_g > 0) / mix.total_g
    # A crust grows between crystals; in fat there is none, and alcohol hardens nothing there.
    between_crystals = 1 - clip((mix.oily_share - p.oil_that_spares_crust) / (p.oil_without_crust - p.oil_that_spares_crust))
    return min(1.0, mix.fast_acid_share / p.acid_for_full_crust) * min(1.0, soda_share / p.soda_for_full_crust) * between_crystals


@once_per_mix
def _hardeners(mix: Mix) -> float:
    groups: dict[str, list[tuple[float, float]]] = {}
    for item, mass_g in mix.items():
        if item.firmness_weight and mass_g > 0:
            groups.setdefault(_group(item), []).append((item.firmness_weight, mass_g / mix.total_g))
    caps, total = mix.parameters.firmness.most_of_group, 0.0
    for name, members in groups.items():
        share = sum(member[1] for member in members)
        capped = min(1.0, caps.get(name, 1.0) / share)
        total += capped * sum(weight * part for weight, part in members)
    return total


def _group(item: Ingredient) -> str:
    return "tartar" if item.has("hardener") else item.role
