"""When a piece is dry, told by weighing it: an exponential with a prior, and an interval that says how sure it is."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from rosy_kettle.core.making.rack.drying_curve import NOISE_STEPS, Curve, Prior, fit_curve
from rosy_kettle.core.making.rack.drying_state import READY_SHARE, TIMED, DryingState, again_at, gains, state_of
from rosy_kettle.core.making.rack.set_aside import SetAside, set_aside
from rosy_kettle.core.words.rack import drying_words

__all__ = ["READY_SHARE", "DryingFit", "WeighIn", "fit_drying"]

PAN_STEPS = 350  # steps of the scale the pan must hold, or the 0.3 % drown in them [-]; from READY_SHARE
LOW, MIDDLE, HIGH = 0.055, 0.5, 0.945  # quantiles of the interval and its middle; a grid of shapes makes it a little wide [-]


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

    state: DryingState
    noise_g: float
    """By how much a weighing of the pan scatters, estimated."""
    again_h: float | None
    """When another weighing can tell; only where these cannot."""
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
    gaining = gains(kept, scale_step_g, prior)
    if not gaining and len(weigh_ins) - 1 in {each.index for each in out}:
        # Damp that came after the piece was dry does not go with the curve; two such weighings are no slip.
        gaining = gains(_in_time(weigh_ins), scale_step_g, prior) and len(weigh_ins) - 2 in {each.index for each in out}
        out = [each for each in out if each.code == "time_back"] if gaining else out
        kept = _without(weigh_ins, out)
    curve = fit_curve(kept, scale_step_g, prior)
    now_h = kept[-1].hours
    told = _told(curve, now_h)
    state: DryingState = "gaining" if gaining else state_of(kept, curve, scale_step_g, prior, told.dry_chance)
    told = told if state in TIMED else _NOTHING
    again_h = again_at(kept, curve, scale_step_g, prior) if state == "cannot-tell" else None
    facts = drying_words(
        state, counted=len(kept), ready_h=told.ready_h, low_h=told.low_h, high_h=told.high_h, again_h=again_h,
        pan_needed_g=None if good else needed_g, by_model=prior.hours is not None,
        humid_pct=_humid_pct(kept), damp=prior.damp, clock_back=any(each.code == "time_back" for each in out),
    )  # fmt: skip
    tau, lasting = curve.middle()
    loses = state in TIMED
    return DryingFit(
        state=state, noise_g=NOISE_STEPS * scale_step_g * curve.scatter, again_h=again_h,
        tau_h=tau if loses else None, lasting_g=lasting if loses else None, to_lose_g=told.to_lose_g,
        ready_h=told.ready_h, low_h=told.low_h, high_h=told.high_h, ready=state == "dry", gaining=gaining,
        scale_good_enough=good, pan_needed_g=needed_g, excluded=tuple(out), weighed=len(kept), from_model=prior.hours,
        message=facts, curve=() if told.high_h is None else curve.drawn(max(now_h, told.high_h)),
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Told:
    ready_h: float | None = None
    low_h: float | None = None
    high_h: float | None = None
    to_lose_g: float | None = None
    dry_chance: float = 0.0
    """How likely it is dry by the last weighing [-]."""


_NOTHING = _Told()


def _told(curve: Curve, now_h: float) -> _Told:
    """Quantiles over every curve that may be true, each by its weight."""
    ready = curve.ready_h(READY_SHARE)
    still = np.maximum(0.0, curve.still_g(now_h))
    low, middle, high = (curve.quantile(ready, share) for share in (LOW, MIDDLE, HIGH))
    return _Told(middle, low, high, curve.quantile(still, MIDDLE), float(curve.weight[ready <= now_h].sum()))


def _without(weigh_ins: Sequence[WeighIn], out: Sequence[SetAside]) -> list[WeighIn]:
    left = {each.index for each in out}
    return [each for index, each in enumerate(weigh_ins) if index not in left]


def _in_time(weigh_ins: Sequence[WeighIn]) -> list[WeighIn]:
    return [each for at, each in enumerate(weigh_ins) if all(before.hours <= each.hours for before in weigh_ins[:at])]


def _scale(weigh_ins: Sequence[WeighIn], step_g: float) -> tuple[bool, float]:
    needed_g = PAN_STEPS * step_g
    return all(each.mass_g >= needed_g for each in weigh_ins), needed_g


def _humid_pct(kept: Sequence[WeighIn]) -> float | None:
    """Return the mean of the air's humidity where it was noted [%]."""
    noted = [each.humidity_pct for each in kept if each.humidity_pct is not None]
    return sum(noted) / len(noted) if noted else None
