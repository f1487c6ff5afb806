"""Fizz lost on the shelf (practice)."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import exp

__all__ = ["WRAPS", "acid_loss_pct_day"]

WRAPS = {"open": 1.0, "film": 0.05, "jar": 0.02}
"""Share of the room's damp that reaches the piece [-]; estimate."""
LEAST_ACID_SHARE = 0.01  # below this there is no fizz to speak of [-]
LOSS_AT_50_PCT = 0.5  # acid lost a day by a naked piece of 16 mm at 50 % and 21 °C [%/day]; fitted to common practice
DAMP_SCALE_PCT = 8.0  # more damp by this much multiplies the loss by e [%]
DOUBLES_PER_C = 10.0  # [°C]
FAT_SHIELDS, HUMECTANT_DRAWS = 6.0, 5.0  # [-]


def acid_loss_pct_day(mix: Mix, half_thickness_mm: float, room_c: float, humidity_pct: float, wrap: str) -> float | None:
    """Return the fast acid a piece loses a day.

    .. math:: L = 0.5\\, e^{(RH-50)/8}\\, 2^{(T-21)/10}\\, \\frac{16}{h}\\, e^{-6 f} (1 + 5 g)\\, wrap

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
        One of ``WRAPS``

    Returns
    -------
    float or None
        Loss [%/day], at most 100; None below 1 % fast acid or without carbonate; within a factor of 3
    """
    if mix.fast_acid_share < LEAST_ACID_SHARE or not mix.fizzes:
        return None
    damp = exp((humidity_pct - 50) / DAMP_SCALE_PCT) * 2 ** ((room_c - 21) / DOUBLES_PER_C)
    shield = exp(-FAT_SHIELDS * mix.oily_share) * (1 + HUMECTANT_DRAWS * mix.humectant_share)
    return min(100.0, LOSS_AT_50_PCT * damp * 16 / half_thickness_mm * shield * WRAPS[wrap])
