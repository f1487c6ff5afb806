"""When a piece is dry, told by weighing it: an exponential with a prior, and an interval that says how sure it is."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from rosy_kettle.core.making.rack.drying_curve import Curve, Prior, fit_curve, noise_of
from rosy_kettle.core.making.rack.set_aside import SetAside, set_aside
from rosy_kettle.core.words.rack import drying_words

__all__ = ["READY_SHARE", "DryingFit", "WeighIn", "fit_drying"]

READY_SHARE = 0.003  # a piece is dry when what is still to lose is under this share of it [-]; project default
PAN_STEPS = 350  # steps of the scale the pan must hold, or the 0.3 % drown in them [-]; from READY_SHARE
GAINING_NOISES = 8.0  # a rise of so many noises is no noise [-]; project default
STEADY_NOISES = 4.0  # half of that is enough where every weighing rises [-]; project default
FOLLOWING_NOISES = 10.0  # a weighing so many noises off is not on the curve [-]; project default
LOW, MIDDLE, HIGH = 0.05, 0.5, 0.95  # quantiles of the interval and its middle [-]


@dataclass(frozen=True, slots=True)
class WeighIn:
    """The pan with some pieces, a while after they were set out."""

    hours: float
    mass_g: float
    pieces: int
    temperature_c: float | None = None
    humidity_pct: float | None = None


@dataclass(frozen=True, slots=True)
class DryingFit:
    """What weighing tells of one piece; masses of one piece [g], times since it was set out [h]."""

    tau_h: float | None
    lasting_g: float | None
    to_lose_g: float | None
    ready_h: float | None
    low_h: float | None
    high_h: float | None
    ready: bool
    gaining: bool
    scale_good_enough: bool
    pan_needed_g: float
    excluded: tuple[SetAside, ...]
    weighed: int
    from_model: float | None
    message: str
    curve: tuple[tuple[float, float], ...] = field(default=())
    """The fitted mass of one piece over the hours: (h, g)."""


def fit_drying(weigh_ins: Sequence[WeighIn], scale_step_g: float, prior: Prior, tare_g: float = 0.0) -> DryingFit:
    """Return when the pieces are dry, by what their pan weighed.

    .. math:: m(t) = m_\\infty + \\Delta e^{-t/\\tau}

    with the model's hours and water as prior; ready when :math:`\\Delta e^{-t/\\tau}` is under 0.3 % of the piece.

    Parameters
    ----------
    weigh_ins : sequence of WeighIn
        In the order in which they were made, at least one
    scale_step_g : float
        What the scale shows at the least [g]
    prior : Prior
        What the formula says before anything was weighed
    tare_g : float
        The pan; only to recognise a weighing whose tare was forgotten [g]

    Returns
    -------
    DryingFit
        Times [h], masses of one piece [g]

    References
    ----------
    .. [1] Gelman et al., Bayesian Data Analysis, 3rd ed., ch. 14 (a linear model with a conjugate prior), here for each
       time constant and each noise on a grid.
    """
    out = set_aside(weigh_ins, scale_step_g, prior, tare_g)
    kept = _without(weigh_ins, out)
    good, needed_g = _scale(weigh_ins, scale_step_g)
    gaining = _gaining(kept, scale_step_g)
    if not gaining and len(weigh_ins) - 1 in {each.index for each in out}:
        # Damp that came after the piece was dry does not go with the curve; two such weighings are no slip.
        gaining = _gaining(_in_time(weigh_ins), scale_step_g) and len(weigh_ins) - 2 in {each.index for each in out}
        out = [each for each in out if each.code == "time_back"] if gaining else out
        kept = _without(weigh_ins, out)
    hours = np.array([each.hours for each in kept])
    curve = fit_curve(kept, scale_step_g, prior)
    now_h = float(hours[-1])
    told = _NOTHING if gaining else _told(curve, now_h)
    follows = gaining or _follows(kept, curve, scale_step_g)
    ready = told.ready_h is not None and len(kept) > 1 and told.ready_h <= now_h and follows
    facts = drying_words(
        ready=ready, gaining=gaining, counted=len(kept),
        ready_h=told.ready_h, low_h=told.low_h, high_h=told.high_h,
        pan_needed_g=None if good else needed_g, by_model=prior.hours is not None, follows=follows,
        clock_back=any(each.code == "time_back" for each in out),
    )  # fmt: skip
    tau, lasting = curve.middle()
    return DryingFit(
        tau_h=None if gaining else tau, lasting_g=None if gaining else lasting, to_lose_g=told.to_lose_g,
        ready_h=told.ready_h, low_h=told.low_h, high_h=told.high_h, ready=ready, gaining=gaining,
        scale_good_enough=good, pan_needed_g=needed_g, excluded=tuple(out), weighed=len(kept), from_model=prior.hours,
        message=facts, curve=() if told.high_h is None else curve.drawn(max(now_h, told.high_h)),
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Told:
    ready_h: float | None = None
    low_h: float | None = None
    high_h: float | None = None
    to_lose_g: float | None = None


_NOTHING = _Told()


def _told(curve: Curve, now_h: float) -> _Told:
    """Quantiles over every curve that may be true, each by its weight."""
    folds = np.log(np.maximum(1e-12, curve.to_lose_g / curve.lasting_g) * (1 - READY_SHARE) / READY_SHARE)
    ready = curve.tau_h * np.maximum(0.0, folds)
    still = np.maximum(0.0, curve.to_lose_g) * np.exp(-now_h / curve.tau_h)
    low, middle, high = (curve.quantile(ready, share) for share in (LOW, MIDDLE, HIGH))
    return _Told(middle, low, high, curve.quantile(still, MIDDLE))


def _follows(kept: Sequence[WeighIn], curve: Curve, step_g: float) -> bool:
    """Whether the weighings lie on the curve, within what the scale errs and what a piece may still lose."""
    off = [abs(each.mass_g / each.pieces - curve.mean_g(each.hours)) for each in kept]
    most = [max(FOLLOWING_NOISES * noise_of(each.pieces, step_g), READY_SHARE / 2 * each.mass_g / each.pieces) for each in kept]
    return all(one <= limit for one, limit in zip(off, most, strict=True))


def _without(weigh_ins: Sequence[WeighIn], out: Sequence[SetAside]) -> list[WeighIn]:
    left = {each.index for each in out}
    return [each for index, each in enumerate(weigh_ins) if index not in left]


def _in_time(weigh_ins: Sequence[WeighIn]) -> list[WeighIn]:
    return [each for at, each in enumerate(weigh_ins) if all(before.hours <= each.hours for before in weigh_ins[:at])]


def _scale(weigh_ins: Sequence[WeighIn], step_g: float) -> tuple[bool, float]:
    needed_g = PAN_STEPS * step_g
    return all(each.mass_g >= needed_g for each in weigh_ins), needed_g


def _gaining(kept: Sequence[WeighIn], step_g: float) -> bool:
    """Whether the last weighings rise from the lowest by more than the scale can err."""
    if len(kept) < 2:  # noqa: PLR2004 - one weighing has no direction
        return False
    mass: NDArray[np.float64] = np.array([each.mass_g / each.pieces for each in kept])
    noise = noise_of(kept[-1].pieces, step_g)
    since = mass[int(np.argmin(mass)) :]
    rise, rises = since[-1] - since[0], np.diff(since)
    steadily = since.size == mass.size and rises.size > 1 and bool(np.all(rises > 0)) and bool(rise > STEADY_NOISES * noise)
    return steadily or (bool(rise > GAINING_NOISES * noise) and bool(np.all(rises > -STEADY_NOISES * noise)))
