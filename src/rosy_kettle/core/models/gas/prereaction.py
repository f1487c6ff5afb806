"""Fizz before the bath: acid spent while making, and the lift its gas gives the dough (practice)."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import exp

__all__ = ["Puff", "prereaction_share", "puff"]


@dataclass(frozen=True, slots=True)
class Puff:
    """Lift of a resting dough [%], as it stands and once stirred down."""

    standing_pct: float
    stirred_pct: float


def prereaction_share(mix: Mix, *, dried_first: bool) -> float | None:
    """Return the share of the fast acid that is spent in the bowl.

    .. math:: x = 1 - e^{-m_{water}/m_{acid}}

    Parameters
    ----------
    mix : Mix
        The formula
    dried_first : bool
        Whether the surfactants' water is dried off before the acid goes in; what is sprayed later counts

    Returns
    -------
    float or None
        Share [-]; None without fast acid or without carbonate

    References
    ----------
    .. [1] Fitted to common practice, no published source.
    """
    if mix.fast_acid_share <= 0 or not mix.fizzes:
        return None
    wet = mix.wet_share(dried_first=dried_first) + mix.parameters.gas.wept_from_salt * _weeping_share(mix)
    return 1 - exp(-wet / mix.fast_acid_share)


def _weeping_share(mix: Mix) -> float:
    """Salts that melt in ordinary air, such as magnesium chloride flakes: some of their own water comes onto the acid."""
    ordinary = mix.parameters.gas.ordinary_air
    kinds = ((item.traits.deliquescence_share, mass_g) for item, mass_g in mix.kinds)
    return sum(mass_g for point, mass_g in kinds if point is not None and point < ordinary) / mix.total_g


def puff(mix: Mix, *, dried_first: bool) -> Puff:
    """Return how far a dough lifts while resting.

    .. math:: L = highest\\, (1 - e^{-a/a_{scale}})(1 - e^{-w/w_{scale}})

    highest, a_scale, w_scale: ``highest_lift_pct``, ``acid_scale_pct``, ``water_scale_pct``.

    Parameters
    ----------
    mix : Mix
        The formula
    dried_first : bool
        Whether the surfactants' water is dried off before the acid goes in; what is sprayed later counts

    Returns
    -------
    Puff
        Lift [%]; a is fast acid as citric acid, at most the bicarbonate [%], w is free water [%]

    References
    ----------
    .. [1] Fitted to common practice, no published source.
    """
    palette, p = mix.palette, mix.parameters.gas
    acid_pct = 100 * p.citric_g_per_eq * mix.of(palette.acid_mol_g * palette.is_fast_acid) / mix.total_g
    soda_pct = 100 * mix.of(palette.carbon_mol_g > 0) / mix.total_g
    water_pct = 100 * mix.wet_share(dried_first=dried_first)
    lift = p.highest_lift_pct * (1 - exp(-min(acid_pct, soda_pct) / p.acid_scale_pct)) * (1 - exp(-water_pct / p.water_scale_pct))
    return Puff(lift, p.stirred_down * lift)
