"""Foam over the minutes of a bath (practice)."""

from __future__ import annotations

from rosy_kettle.core.models.lather.foam import Foam

__all__ = ["FILL_MIN", "foam_after"]

FILL_MIN = 8.0  # a tub fills in about eight minutes [min]; common practice


def foam_after(made: Foam, minutes: float) -> float:
    """Return the foam a while after the tap was opened.

    .. math:: F(t) = F t/8 \\;(t \\le 8),\\quad F\\, 2^{-(t-8)/t_{1/2}} \\;(t > 8)

    Parameters
    ----------
    made : Foam
        Foam at the end of the fill
    minutes : float
        Time since the tap was opened [min]

    Returns
    -------
    float
        Foam [L]
    """
    if minutes <= FILL_MIN:
        return made.litres * max(0.0, minutes) / FILL_MIN
    return made.litres * 2 ** (-(minutes - FILL_MIN) / made.half_life_min) if made.half_life_min > 0 else 0.0
