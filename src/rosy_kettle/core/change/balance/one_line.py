"""The mass of one line that brings one reading to a value: the crossing nearest to what the line weighs, on the true model."""

from __future__ import annotations

import math
from collections.abc import Callable

from rosy_kettle.core.change.balance.aims import Aims
from rosy_kettle.core.mixing.palette import FloatArray

__all__ = ["mass_for"]

LOOKS_EACH_WAY = 5  # from what the line weighs to each bound, closer together near it [-]
CLOSING_STEPS = 14
LEAST_STEP_G = 0.02  # less than a scale shows [g]

Value = Callable[[float], float]


def mass_for(
    aims: Aims, mass_g: FloatArray, index: int, wish: float, bounds_g: tuple[float, float], tolerance: float
) -> tuple[float, float]:
    """Return the mass of one line at which the first reading of the aims comes nearest to a wish.

    The whole way to both bounds is looked at before one crossing is closed in on, so that a reading that rises and falls again
    is not answered by the wrong side of it (bracketing and regula falsi: Press et al., Numerical Recipes, 3rd ed., 9.2).

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
    trial = mass_g.copy()

    def value(line_g: float) -> float:
        trial[index] = line_g
        return float(aims.at(trial, sloped=False)[0][0])

    start_g = min(bounds_g[1], max(bounds_g[0], float(mass_g[index])))
    seen = {start_g: value(start_g)}
    best: tuple[float, float] | None = None
    for end_g in bounds_g:
        crossing = _outwards(value, seen, start_g, end_g, wish)
        if crossing is not None:
            found = _closed_in(value, *crossing, wish, tolerance)
            if best is None or abs(found[0] - start_g) < abs(best[0] - start_g):
                best = found
    if best is not None:
        return best
    known = {line_g: said for line_g, said in seen.items() if not math.isnan(said)}
    return min(known.items(), key=lambda each: (abs(each[1] - wish), abs(each[0] - start_g))) if known else (start_g, math.nan)


def _outwards(
    value: Value, seen: dict[float, float], start_g: float, end_g: float, wish: float
) -> tuple[tuple[float, float], tuple[float, float]] | None:
    """Walk from what the line weighs to a bound until the wish is passed; return the two masses it lies between."""
    before = (start_g, seen[start_g])
    for step in range(1, LOOKS_EACH_WAY + 1):
        here_g = start_g + (end_g - start_g) * (step / LOOKS_EACH_WAY) ** 2
        if abs(here_g - before[0]) < LEAST_STEP_G:
            continue
        here = (here_g, seen.setdefault(here_g, value(here_g)))
        if math.isnan(here[1]):
            return None  # beyond it nothing can be said
        if not math.isnan(before[1]) and (before[1] - wish) * (here[1] - wish) <= 0:
            return before, here
        before = here
    return None


def _closed_in(
    value: Value, one: tuple[float, float], other: tuple[float, float], wish: float, tolerance: float
) -> tuple[float, float]:
    """Close in on a crossing: by the straight line between its ends, and by half where that does not halve it."""
    (a_g, a), (b_g, b) = one, other
    here_g, here = (a_g, a) if abs(a - wish) < abs(b - wish) else (b_g, b)
    for step in range(CLOSING_STEPS):
        if abs(here - wish) <= tolerance or abs(b_g - a_g) < LEAST_STEP_G:
            break
        straight = a_g + (wish - a) * (b_g - a_g) / (b - a) if b != a and step % 2 == 0 else (a_g + b_g) / 2
        here_g = min(max(a_g, b_g), max(min(a_g, b_g), straight))
        here = value(here_g)
        if math.isnan(here):
            break
        if (a - wish) * (here - wish) <= 0:
            b_g, b = here_g, here
        else:
            a_g, a = here_g, here
    return here_g, here
