"""The mass of one line that brings one reading to a value: Newton's method on the true model, held in bounds."""

from __future__ import annotations

import math

from rosy_kettle.core.change.balance.aims import Aims
from rosy_kettle.core.mixing.palette import FloatArray

__all__ = ["mass_for"]

NEWTON_STEPS = 10
LEAST_STEP_G = 0.02  # less than a scale shows [g]


def mass_for(
    aims: Aims, mass_g: FloatArray, index: int, wish: float, bounds_g: tuple[float, float], tolerance: float
) -> tuple[float, float]:
    """Return the mass of one line at which the first reading of the aims comes nearest to a wish.

    Parameters
    ----------
    aims : Aims
        The reading asked for comes first
    mass_g : FloatArray
        Masses now, shape (n,) [g]
    index : int
        The line that may move [-]
    wish : float
        Value wanted [reading's unit]
    bounds_g : tuple
        Least and most of that line [g]
    tolerance : float
        Near enough [reading's unit]

    Returns
    -------
    tuple
        Mass of the line [g] and the reading there, NaN where it cannot be said [reading's unit]
    """
    trial, now = mass_g.copy(), float(mass_g[index])
    found, slopes = aims.at(trial)
    value, rise = float(found[0]), float(slopes[0, index])
    for _ in range(NEWTON_STEPS):
        if abs(value - wish) <= tolerance or rise == 0 or math.isnan(value):
            break
        step_g = min(bounds_g[1], max(bounds_g[0], now + (wish - value) / rise))
        if abs(step_g - now) < LEAST_STEP_G:
            break
        now, trial[index] = step_g, step_g
        found, slopes = aims.at(trial)
        value, rise = float(found[0]), float(slopes[0, index])
    return now, value
