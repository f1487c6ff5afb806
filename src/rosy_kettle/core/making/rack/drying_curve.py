"""Every exponential that could be behind some weighings, each with its weight."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

__all__ = ["Curve", "Prior", "Weighed", "fit_curve", "noise_of", "prior_of"]

FloatArray = NDArray[np.float64]

TAU_SPREAD = 0.4  # of the logarithm of the model's time constant [-]; project default
TO_LOSE_SPREAD = 0.25  # of the water the model knows of, as a share of it [-]; project default
LEAST_SPREAD_SHARE = 0.004  # least spread of what leaves, as a share of the piece [-]; estimate
WIDE_TAU_H = 14.0  # time constant when no formula is known [h]; common practice, half a day to a day
WIDE_TAU_SPREAD = 0.9  # of its logarithm [-]; estimate
WIDE_SHARE, WIDE_SHARE_SPREAD = 0.04, 0.05  # what leaves of a piece when no formula is known, and its spread [-]; estimate
DOUBT = 0.1  # how likely a formula says little of its own pieces: water not weighed in, another mould [-]; estimate
NOISE_STEPS = 0.45  # spread of a weighing, in steps of the scale [-]; rounding and a little shaking
NOISE_GRID = np.array([0.65, 1.0, 1.6, 2.6, 4.2])  # the spread may be so much larger or smaller [-]
NOISE_WEIGHT = np.array([0.10, 0.30, 0.30, 0.24, 0.06])  # how likely each is beforehand [-]; estimate
OTHER_COUNT_SPREAD = 0.05  # pieces differ by so much of their mass, which counts when their number on the pan changes [-]
TAU_STEPS, TO_LOSE_STEPS = 81, 21  # of the grid
CLOSING_IN = 3  # times the grid of time constants closes in
LITTLE = 14.0  # logarithm of how much less likely what is left out may be [-]
LEAST_WEIGHT = 1e-4  # curves less likely than this share of the likeliest are left away [-]
TAU_REACH = 4.0  # spreads to both sides
CURVE_POINTS = 61


class Weighed(Protocol):
    """A pan with pieces, a while after they were set out."""

    @property
    def hours(self) -> float:
        """Since they were set out [h]."""

    @property
    def mass_g(self) -> float:
        """All pieces together [g]."""

    @property
    def pieces(self) -> int:
        """How many lay on the pan."""


@dataclass(frozen=True, slots=True)
class Prior:
    """What is known before anything was weighed."""

    tau_h: float = WIDE_TAU_H
    tau_spread: float = WIDE_TAU_SPREAD
    share: float = WIDE_SHARE
    """What leaves, as a share of the fresh piece."""
    share_spread: float = WIDE_SHARE_SPREAD
    hours: float | None = None
    """The model's hours until dry; null where there is no formula or it says the piece does not dry."""


def prior_of(hours: float | None, leaving_share: float, ready_share: float) -> Prior:
    """Return the prior that the model's hours and water make.

    Parameters
    ----------
    hours : float or None
        The model's hours until dry [h]
    leaving_share : float
        Water and alcohol that dry off, as a share of the piece [-]
    ready_share : float
        What may still be to lose of a dry piece [-]

    Returns
    -------
    Prior
        Wide in time where the model knows no hours
    """
    spread = max(TO_LOSE_SPREAD * leaving_share, LEAST_SPREAD_SHARE)
    if hours is None:
        return Prior(share=leaving_share, share_spread=spread)
    folds = np.log(max(2.0, leaving_share / ready_share))  # what leaves has to shrink so many times by e
    return Prior(float(hours / folds), TAU_SPREAD, leaving_share, spread, hours)


def noise_of(pieces: int, step_g: float) -> float:
    """Return the spread of a weighing, of one piece.

    Parameters
    ----------
    pieces : int
        How many lie on the pan [-]
    step_g : float
        Step of the scale [g]

    Returns
    -------
    float
        Standard deviation of one piece's mass [g]
    """
    return NOISE_STEPS * step_g / pieces


@dataclass(frozen=True, slots=True)
class Curve:
    """Curves on a grid; all arrays of shape (n,)."""

    tau_h: FloatArray
    lasting_g: FloatArray
    to_lose_g: FloatArray
    """What left since the pieces were set out when nothing more leaves."""
    weight: FloatArray
    evidence: float
    """Logarithm of how well all of them together foretell the weighings."""

    def quantile(self, values: FloatArray, share: float) -> float:
        """Return the value under which a share of the weight lies."""
        order = np.argsort(values)
        along = np.cumsum(self.weight[order])
        return float(np.interp(share * along[-1], along, values[order]))

    def middle(self) -> tuple[float, float]:
        """Time constant [h] and lasting mass [g] in the middle of all curves."""
        return self.quantile(self.tau_h, 0.5), self.quantile(self.lasting_g, 0.5)

    def drawn(self, until_h: float) -> tuple[tuple[float, float], ...]:
        """Return the mean of all curves: (h, g of one piece)."""
        hours = np.linspace(0.0, until_h, CURVE_POINTS)
        return tuple((float(h), self.mean_g(float(h))) for h in hours)

    def mean_g(self, hours: float) -> float:
        """Return the mean of all curves after some hours [g of one piece]."""
        return float(self.weight @ (self.lasting_g + self.to_lose_g * np.exp(-hours / self.tau_h)))


def fit_curve(kept: Sequence[Weighed], step_g: float, prior: Prior) -> Curve:
    """Return every curve that may be behind the weighings, by weight.

    A formula may be wrong about its pieces: where the weighings contradict it, a wide guess takes over.

    Parameters
    ----------
    kept : sequence of Weighed
        At least one
    step_g : float
        Step of the scale [g]
    prior : Prior
        What was known before

    Returns
    -------
    Curve
        Some ten thousands of them
    """
    believed = _curves(kept, step_g, prior)
    if prior == Prior():
        return believed
    doubted = _curves(kept, step_g, replace(prior, tau_spread=WIDE_TAU_SPREAD, share=WIDE_SHARE, share_spread=WIDE_SHARE_SPREAD))
    best = max(believed.evidence, doubted.evidence)
    shares = (1 - DOUBT) * np.exp(believed.evidence - best), DOUBT * np.exp(doubted.evidence - best)
    both = [(believed, shares[0] / sum(shares)), (doubted, shares[1] / sum(shares))]
    return Curve(
        np.concatenate([curve.tau_h for curve, _ in both]), np.concatenate([curve.lasting_g for curve, _ in both]),
        np.concatenate([curve.to_lose_g for curve, _ in both]), np.concatenate([curve.weight * share for curve, share in both]),
        float(best + np.log(sum(shares))),
    )  # fmt: skip


def _curves(kept: Sequence[Weighed], step_g: float, prior: Prior) -> Curve:
    """Return every curve that may be behind the weighings if the prior is right, by weight.

    For each time constant and each spread of the scale the model is linear in lasting mass and loss, so both are solved exactly;
    the time constants, spreads and, about the solution, losses are a grid.
    """
    hours = np.array([each.hours for each in kept], dtype=np.float64)
    pieces = np.array([each.pieces for each in kept])
    mass = np.array([each.mass_g for each in kept]) / pieces
    fresh = float(mass[0])
    usual = np.bincount(pieces).argmax()
    other = OTHER_COUNT_SPREAD * fresh * np.sqrt(np.abs(1 / pieces - 1 / usual))
    loss0, spread0 = prior.share * fresh, prior.share_spread * fresh
    # One column per spread of the scale.
    variance = (NOISE_GRID[:, None] * NOISE_STEPS * step_g / pieces[None, :]) ** 2 + other[None, :] ** 2
    precision = 1 / variance

    def weighed(away: FloatArray) -> tuple[FloatArray, ...]:
        """All there is for time constants so many spreads away from the prior's; rows are those, columns spreads of the scale."""
        tau = np.exp(np.log(prior.tau_h) + prior.tau_spread * away)[:, None]
        gone = np.exp(-hours[None, :] / tau)
        loss, loss_spread, fitted = _solved(gone, mass, precision, loss0, spread0)
        return tau, gone, loss, loss_spread, -0.5 * away[:, None] ** 2 + np.log(NOISE_WEIGHT)[None, :] + fitted

    # Many weighings know the time constant far better than the prior: the grid closes in on where the weight lies.
    away = np.linspace(-TAU_REACH, TAU_REACH, TAU_STEPS)
    for _ in range(CLOSING_IN):
        away = _closer(away, weighed(away)[-1])
    tau, gone, loss, loss_spread, log_weight = weighed(away)
    nodes = np.linspace(-3.0, 3.0, TO_LOSE_STEPS)
    to_lose = loss[:, :, None] + loss_spread[:, :, None] * nodes
    weight = np.exp(log_weight - log_weight.max())[:, :, None] * np.exp(-0.5 * nodes**2)
    # What leaves cannot be less than nothing; pieces that gain are told apart before.
    weight = np.where(to_lose > 0, weight, weight * 1e-3)
    lasting = _lasting(gone, mass, precision, to_lose)
    evidence = float(log_weight.max() + np.log(np.exp(log_weight - log_weight.max()).sum() * (away[1] - away[0])))
    held = weight > LEAST_WEIGHT * weight.max()
    wide = np.broadcast_to(tau[:, :, None], to_lose.shape)
    return Curve(wide[held], lasting[held], to_lose[held], weight[held] / weight[held].sum(), evidence)


def _closer(away: FloatArray, log_weight: FloatArray) -> FloatArray:
    """Return a grid of as many steps over the stretch that holds the weight, and one step more on each side."""
    best = log_weight.max(axis=1)
    held = np.flatnonzero(best > best.max() - LITTLE)
    first, last = max(0, int(held[0]) - 1), min(away.size - 1, int(held[-1]) + 1)
    return np.linspace(away[first], away[last], away.size)


def _solved(
    gone: FloatArray, mass: FloatArray, precision: FloatArray, loss0: float, spread0: float
) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Loss, its spread and the logarithm of the evidence for each time constant (rows) and spread of the scale (columns)."""
    whole = precision.sum(axis=1)[None, :]
    mean_gone = gone @ precision.T / whole
    mean_mass = (precision @ mass)[None, :] / whole
    spread_gone = gone**2 @ precision.T - whole * mean_gone**2
    together = (gone * mass[None, :]) @ precision.T - whole * mean_gone * mean_mass
    curve = spread_gone + 1 / spread0**2
    loss = (together + loss0 / spread0**2) / curve
    left = (precision @ mass**2)[None, :] - whole * mean_mass**2
    cost = left + loss0**2 / spread0**2 - curve * loss**2
    evidence = (
        -0.5 * cost - 0.5 * np.log(curve) + 0.5 * np.log(precision).sum(axis=1)[None, :] - 0.5 * np.log(whole) - np.log(spread0)
    )
    return loss, 1 / np.sqrt(curve), evidence


def _lasting(gone: FloatArray, mass: FloatArray, precision: FloatArray, to_lose: FloatArray) -> FloatArray:
    """Lasting mass that goes best with each loss."""
    whole = precision.sum(axis=1)[None, :]
    mean_gone = (gone @ precision.T / whole)[:, :, None]
    lasting: FloatArray = ((precision @ mass)[None, :] / whole)[:, :, None] - to_lose * mean_gone
    return lasting
