"""Foam over the minutes of a bath (practice)."""

from __future__ import annotations

from rosy_kettle.core.models.lather.foam import Foam
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.lather import LatherParameters

__all__ = ["foam_after", "share_after"]


def foam_after(made: Foam, minutes: float, p: LatherParameters = USUAL.lather) -> float:
    """Return the foam a while after the tap was opened.

    .. math:: F(t) = F t/t_{fill} \\;(t \\le t_{fill}),\\quad F\\, 2^{-(t-t_{fill})/t_{1/2}} \\;(t > t_{fill})

    t_fill: ``fill_min``; the half-life is that of the bath [min].

    Parameters
    ----------
    made : Foam
        Foam at the end of the fill
    minutes : float
        Time since the tap was opened [min]
    p : LatherParameters
        How long a tub fills

    Returns
    -------
    float
        Foam [L]

    References
    ----------
    .. [1] Fitted to common practice, no published source.
    """
    return made.litres * share_after(minutes, made.half_life_min, p)


def share_after(minutes: float, half_life_min: float, p: LatherParameters = USUAL.lather) -> float:
    """Return which share of its height foam has some minutes after the tap was opened.

    Parameters
    ----------
    minutes : float
        Time since the tap was opened [min]
    half_life_min : float
        Half-life of the foam [min]
    p : LatherParameters
        How long a tub fills

    Returns
    -------
    float
        Rising over the fill, halved by each half-life after it [-]
    """
    if minutes <= p.fill_min:
        return max(0.0, minutes) / p.fill_min
    return float(2 ** (-(minutes - p.fill_min) / half_life_min)) if half_life_min > 0 else 0.0
