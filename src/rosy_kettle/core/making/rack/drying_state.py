"""What pieces on a pan do: they dry, are dry, lose nothing, gain, or it cannot be told yet."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from rosy_kettle.core.making.rack.drying_curve import Curve, Prior, Weighed, fit_curve, noise_of

__all__ = ["READY_SHARE", "TIMED", "DryingState", "again_at", "gains", "state_of"]

FloatArray = NDArray[np.float64]
DryingState = Literal["drying", "dry", "not-losing", "gaining", "cannot-tell"]
TIMED: frozenset[DryingState] = frozenset({"drying", "dry"})
"""States in which an hour can be told."""

READY_SHARE = 0.003  # a piece is dry when what is still to lose is under this share of it [-]; project default
SURELY = 0.8  # how likely it must be dry before it is called so [-]; project default
FALL_NOISES = 3.0  # a fall of so many spreads between two weighings is one [-]; project default
FALLING_COUNT = 3  # weighings of which each is lighter than the one before fall, however little [-]; project default
FOLLOWING_NOISES = 10.0  # a weighing so many noises off is not on the curve [-]; project default
GAINING_NOISES = 8.0  # a rise of so many noises is no noise [-]; project default
STEADY_NOISES = 4.0  # half of that is enough where every weighing rises [-]; project default
WAVERING = 2.0  # times a rise before the lowest that a gain must be [-]; project default
KNOWN_SCATTER = 4  # weighings from which their own scatter is estimated [-]
AGAIN_AT_LEAST_H, AGAIN_AT_MOST_H = 1.0, 24.0  # when to weigh again [h]; common practice


def state_of(kept: Sequence[Weighed], curve: Curve, step_g: float, prior: Prior, dry_chance: float) -> DryingState:
    """Return what pieces that do not gain do.

    Parameters
    ----------
    kept : sequence of Weighed
        The weighings that count
    curve : Curve
        What may be behind them
    step_g : float
        Step of the scale [g]
    prior : Prior
        What the formula says
    dry_chance : float
        How likely they are dry by the last weighing, by the curve [-]

    Returns
    -------
    DryingState
        Drying or dry only where they were seen to lose, or where the formula says that what can leave has left
    """
    now_h = kept[-1].hours
    if len(kept) == 1:
        return "cannot-tell" if prior.hours is None else "drying"
    if _fell(kept, curve, step_g):
        if not _follows(kept, curve, step_g) and not _always_fell(kept):
            return "cannot-tell"
        return "dry" if dry_chance >= SURELY else "drying"
    begun, ended = (prior.still_share(hours) for hours in (kept[0].hours, now_h))
    if prior.hours is not None and begun <= 2 * READY_SHARE and ended <= READY_SHARE:
        return "dry"  # nothing was left to lose when it was first weighed
    due_g = (begun - ended) * kept[0].mass_g / kept[0].pieces
    return "cannot-tell" if due_g < 2 * FALL_NOISES * _spread_g(kept, curve, step_g) else "not-losing"


def again_at(kept: Sequence[Weighed], curve: Curve, step_g: float, prior: Prior) -> float:
    """Return when another weighing can tell: once a piece has lost what cannot be scatter, by what is known beforehand.

    Parameters
    ----------
    kept : sequence of Weighed
        The weighings that count
    curve : Curve
        What may be behind them
    step_g : float
        Step of the scale [g]
    prior : Prior
        What the formula says; without one, what is usual

    Returns
    -------
    float
        Since the pieces were set out [h]; in an hour at the soonest, in a day at the latest
    """
    fresh_g, begun_h, now_h = kept[0].mass_g / kept[0].pieces, kept[0].hours, kept[-1].hours
    left = prior.still_share(begun_h) - 2 * FALL_NOISES * _spread_g(kept, curve, step_g) / fresh_g
    shows_h = prior.tau_h * float(np.log(prior.share / left)) if left > 0 and prior.share > 0 else np.inf
    return float(np.clip(shows_h, now_h + AGAIN_AT_LEAST_H, now_h + AGAIN_AT_MOST_H))


def gains(kept: Sequence[Weighed], step_g: float, prior: Prior) -> bool:
    """Return whether the last weighings rise from the lowest by more than the scale, and the hand at it, can err.

    Parameters
    ----------
    kept : sequence of Weighed
        The weighings that count
    step_g : float
        Step of the scale [g]
    prior : Prior
        What the formula says

    Returns
    -------
    bool
        How far they scatter is taken from the weighings before the lowest, where there are enough
    """
    if len(kept) < 2:  # noqa: PLR2004 - one weighing has no direction
        return False
    mass: FloatArray = np.array([each.mass_g / each.pieces for each in kept])
    noise, lowest = noise_of(kept[-1].pieces, step_g), int(np.argmin(mass))
    since = mass[lowest:]
    rise, rises = since[-1] - since[0], np.diff(since)
    steadily = since.size == mass.size and rises.size > 1 and bool(np.all(rises > 0)) and bool(rise > STEADY_NOISES * noise)
    if steadily:
        return True
    if not (bool(rise > GAINING_NOISES * noise) and bool(np.all(rises > -STEADY_NOISES * noise))):
        return False
    wavered = float(np.diff(mass[: lowest + 1]).max(initial=0.0))
    if rise < WAVERING * wavered:
        return False  # they rose by as much while they dried: the hand shakes
    if lowest + 1 < KNOWN_SCATTER:
        return True
    return bool(rise > GAINING_NOISES / 2 * noise * fit_curve(kept[: lowest + 1], step_g, prior).scatter)


def _spread_g(kept: Sequence[Weighed], curve: Curve, step_g: float) -> float:
    """Spread of the difference of two weighings, of one piece [g]."""
    return float(np.sqrt(2)) * curve.scatter * noise_of(kept[-1].pieces, step_g)


def _fell(kept: Sequence[Weighed], curve: Curve, step_g: float) -> bool:
    """Whether the pieces were seen to lose: more than weighings scatter, or a little each time."""
    mass = np.array([each.mass_g / each.pieces for each in kept])
    lowest = float(np.sort(mass[1:])[: 2 if mass.size > FALLING_COUNT else 1].mean())
    fallen = float(mass[0]) - lowest > FALL_NOISES * _spread_g(kept, curve, step_g)
    return fallen or (mass.size >= FALLING_COUNT and _always_fell(kept))


def _always_fell(kept: Sequence[Weighed]) -> bool:
    return bool(np.all(np.diff([each.mass_g / each.pieces for each in kept]) < 0))


def _follows(kept: Sequence[Weighed], curve: Curve, step_g: float) -> bool:
    """Whether the weighings lie on the curve, within what they scatter and what a piece may still lose."""
    off = [abs(each.mass_g / each.pieces - curve.mean_g(each.hours)) for each in kept]
    spread = max(1.0, curve.scatter / 2)
    most = [
        max(FOLLOWING_NOISES * spread * noise_of(each.pieces, step_g), READY_SHARE / 2 * each.mass_g / each.pieces)
        for each in kept
    ]
    return all(one <= limit for one, limit in zip(off, most, strict=True))
