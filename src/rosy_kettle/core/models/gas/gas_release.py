"""Carbon dioxide from acid and (bi)carbonate: exact stoichiometry."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.amounts.units import ZERO_CELSIUS_K
from rosy_kettle.core.mixing.mix import Mix, once_per_mix
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.gas import GasParameters

__all__ = ["GasRelease", "brisk_per_100_g", "co2_volume_l", "gas_release"]


@dataclass(frozen=True, slots=True)
class GasRelease:
    """Gas and leftovers when all acid has met all base."""

    co2_mol: float
    brisk_co2_mol: float
    acid_mol: float
    """Acid equivalents [mol]"""
    base_mol: float
    """Base equivalents [mol]"""
    limiting: str | None
    base_to_acid: float | None
    """Base to acid by mass [g/g]; ready-mixed baking powder left out of both"""
    bicarbonate_left_g: float


def co2_volume_l(co2_mol: float, temperature_c: float, p: GasParameters = USUAL.gas) -> float:
    """Return the volume of carbon dioxide at 1 atm as an ideal gas.

    .. math:: V = n R T / p

    Parameters
    ----------
    co2_mol : float
        Amount of gas [mol]
    temperature_c : float
        Temperature [°C]
    p : GasParameters
        For the gas constant

    Returns
    -------
    float
        Volume [L]

    References
    ----------
    .. [1] Ideal gas, molar gas constant of CODATA 2018.

    Examples
    --------
    One mole in a 38 °C bath:

    >>> co2_volume_l(1.0, 38.0)
    25.53
    """
    return co2_mol * p.gas_constant_l_atm * (temperature_c + ZERO_CELSIUS_K)


@once_per_mix
def gas_release(mix: Mix) -> GasRelease:
    """Return the gas and the leftovers when all acid has met all base.

    .. math:: n_{CO_2} = \\min\\left(\\sum C,\\; \\max(0,\\; n_{acid} - (n_{base} - \\sum C))\\right)

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    GasRelease
        Gas [mol], equivalents [mol], limiting side, leftovers [g]

    Notes
    -----
    Carbonate takes its first proton without giving gas; the second one frees it. Brisk gas counts each
    acid's equivalents times its speed.

    References
    ----------
    .. [1] Stoichiometry; molar masses by the IUPAC standard atomic weights; speeds of the acids: estimates from their solubility.
    """
    palette = mix.palette
    acid_mol = mix.of(palette.acid_mol_g)
    brisk_mol = mix.of(palette.acid_mol_g * palette.acid_speed)
    base_mol = mix.of(palette.base_mol_g)
    carbon_mol = mix.of(palette.carbon_mol_g)
    carbonate_mol = base_mol - carbon_mol
    co2_mol = _free_gas(acid_mol, carbonate_mol, carbon_mol)
    carbonate_left_mol = max(0.0, carbonate_mol - acid_mol)
    return GasRelease(
        co2_mol=co2_mol,
        brisk_co2_mol=_free_gas(brisk_mol, carbonate_mol, carbon_mol),
        acid_mol=acid_mol,
        base_mol=base_mol,
        limiting=_limiting(acid_mol, base_mol, mix.parameters.gas.balanced_within),
        base_to_acid=_base_to_acid(mix),
        bicarbonate_left_g=max(0.0, carbon_mol - co2_mol - carbonate_left_mol) * mix.parameters.gas.sodium_bicarbonate_g_mol,
    )


def brisk_per_100_g(mix: Mix) -> float:
    """Return the brisk gas of 100 g.

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    float
        Gas [mol/100 g]
    """
    return 100 * gas_release(mix).brisk_co2_mol / mix.total_g


def _free_gas(acid_mol: float, carbonate_mol: float, carbon_mol: float) -> float:
    return min(carbon_mol, max(0.0, acid_mol - carbonate_mol))


def _limiting(acid_mol: float, base_mol: float, within: float) -> str | None:
    larger = max(acid_mol, base_mol)
    if larger == 0:
        return None
    if abs(acid_mol - base_mol) <= within * larger:
        return "balanced"
    return "acid" if acid_mol < base_mol else "base"


def _base_to_acid(mix: Mix) -> float | None:
    acid_g = mix.of(mix.palette.is_acid)
    return mix.of(mix.palette.is_plain_base) / acid_g if acid_g > 0 else None
