"""Fizz lost on the shelf (practice)."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import exp

__all__ = ["acid_loss_pct_day"]


def acid_loss_pct_day(mix: Mix, half_thickness_mm: float, room_c: float, humidity_pct: float, wrap: str) -> float | None:
    """Return the fast acid a piece loses a day.

    .. math:: L = L_0\\, e^{(RH-RH_0)/RH_e}\\, 2^{(T-T_0)/T_2}\\, \\frac{h_0}{h}\\, e^{-k_f f} (1 + k_g g)\\, wrap

    L_0, RH_0, RH_e, T_0, T_2, h_0, k: ``loss_pct_day``, ``reference_humidity_pct``, ``damp_scale_pct``, ``reference_c``,
    ``doubles_per_c``, ``reference_half_mm``, ``fat_shields``, ``humectant_draws``.

    Parameters
    ----------
    mix : Mix
        The formula
    half_thickness_mm : float
        Half thickness of the piece [mm]
    room_c : float
        Temperature of the shelf [°C]
    humidity_pct : float
        Relative humidity [%]
    wrap : str
        open, film or jar

    Returns
    -------
    float or None
        Loss [%/day], at most 100; None below 1 % fast acid or without carbonate; within a factor of 3

    References
    ----------
    .. [1] Fitted to common practice, no published source.
    """
    p = mix.parameters.shelf
    if mix.fast_acid_share < p.least_acid_share or not mix.fizzes:
        return None
    damp = exp((humidity_pct - p.reference_humidity_pct) / p.damp_scale_pct) * 2 ** ((room_c - p.reference_c) / p.doubles_per_c)
    shield = exp(-p.fat_shields * mix.oily_share) * (1 + p.humectant_draws * mix.humectant_share)
    return min(100.0, p.loss_pct_day * damp * p.reference_half_mm / half_thickness_mm * shield * p.wraps[wrap])
