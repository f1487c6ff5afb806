"""Every exponential that could be behind some weighings, each with its weight."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Protocol

import numpy as np
from numpy.typing import NDArray
from scipy.special import log_ndtr

from rosy_kettle.core.making.rack.drying_shapes import SHAPES, Shape

__all__ = ["Curve", "Prior", "Weighed", "evidence_of", "fit_curve", "most_evidence_of", "noise_of", "prior_of"]

FloatArray = NDArray[np.float64]
BoolArray = NDArray[np.bool_]

TAU_SPREAD = 0.4  # of the logarithm of the model's time constant [-]; project default
TO_LOSE_SPREAD = 0.25  # of the water the model knows of, as a share of it [-]; project default
LEAST_SPREAD_SHARE = 0.004  # least spread of what leaves, as a share of the piece [-]; estimate
WIDE_TAU_H = 14.0  # time constant when no formula is known [h]; common practice, half a day to a day
WIDE_TAU_SPREAD = 0.9  # of its logarithm [-]; estimate
WIDE_SHARE, WIDE_SHARE_SPREAD = 0.04, 0.05  # what leaves of a piece when no formula is known, and its spread [-]; estimate
DOUBT = 0.1  # how likely a formula says little of its own pieces: water not weighed in, another mould [-]; estimate
NOISE_STEPS = 0.45  # spread of a weighing, in steps of the scale [-]; rounding and a little shaking
NOISE_GRID = np.array([0.65, 1.0, 1.6, 2.6, 4.2, 6.8, 11.0])  # the spread may be so much larger or smaller [-]
NOISE_WEIGHT = np.array([0.07, 0.24, 0.19, 0.15, 0.13, 0.13, 0.09])  # how likely each is beforehand [-]; estimate
OTHER_COUNT_SPREAD = 0.05  # pieces differ by so much of their mass, which counts when their number on the pan changes [-]
TAU_STEPS, TO_LOSE_STEPS = 61, 21  # of the grid
CLOSING_IN = 2  # times the grid of time constants closes in
STEADY = 5  # spreads of the scale that a fairly steady hand may have
LITTLE = 14.0  # logarithm of how much less likely what is left out may be [-]
LEAST_WEIGHT = 1e-4  # curves less likely than this share of the likeliest are left away [-]
LEAST_SHARE = 1e-4  # shapes less likely than this are left away [-]
READY, LEAST_FOLD = 0.003, 0.5  # what may still be to lose of a dry piece; and of all that leaves where little does [-]
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
    damp: bool = False
    """Whether the formula says that this air lets nothing dry."""

    def still_share(self, hours: float) -> float:
        """Return what is still to lose after some hours, by what is known beforehand, as a share of the fresh piece [-]."""
        return float(self.share * np.exp(-hours / self.tau_h))


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
    """Each shape's own time."""
    lasting_g: FloatArray
    to_lose_g: FloatArray
    """What left since the pieces were set out when nothing more leaves."""
    shape: NDArray[np.intp]
    """Which of ``SHAPES`` it has."""
    noise: FloatArray
    """Spread of a weighing, in what a steady hand's would be [-]."""
    weight: FloatArray

    @property
    def scatter(self) -> float:
        """By how much a weighing scatters more than a steady hand's [-]; the mean of all curves."""
        return float(self.weight @ self.noise)

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
        return float(self.weight @ (self.lasting_g + self.still_g(hours)))

    def still_g(self, hours: float) -> FloatArray:
        """Return what each curve has still to lose after some hours [g of one piece]."""
        return self.to_lose_g * self._by_shape(lambda shape, of: shape.still(hours / self.tau_h[of]))

    def ready_h(self, share: float) -> FloatArray:
        """Return when each curve has so little still to lose, as a share of the piece [h]."""
        level = share / (1 - share) * self.lasting_g / np.maximum(self.to_lose_g, 1e-12)
        return self.tau_h * self._by_shape(lambda shape, of: shape.after(level[of]))

    def _by_shape(self, told: Callable[[Shape, BoolArray], FloatArray]) -> FloatArray:
        values = np.zeros(self.tau_h.size)
        for index, shape in enumerate(SHAPES):
            of = self.shape == index
            if of.any():
                values[of] = told(shape, of)
        return values


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
    grids = _grids(kept, step_g, prior)
    logs = np.concatenate([np.log(likely) + grid.evidence for grid, likely in grids])
    shares = np.exp(logs - logs.max())
    shares /= shares.sum()
    places = [(grid, at) for grid, _ in grids for at in range(len(SHAPES))]
    parts = [grid.curves(at, share) for (grid, at), share in zip(places, shares.tolist(), strict=True) if share > LEAST_SHARE]
    tau, lasting, to_lose, shape, noise, weight = (np.concatenate(column) for column in zip(*parts, strict=True))
    return Curve(tau, lasting, to_lose, shape.astype(np.intp), noise, weight / weight.sum())


def evidence_of(kept: Sequence[Weighed], step_g: float, prior: Prior) -> float:
    """Return how well all curves together foretell some weighings made with a fairly steady hand.

    Only so can one that does not belong to the others be told from hands that shake with all of them.

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
    float
        Logarithm of their probability density [-]
    """
    logs = np.concatenate([np.log(likely) + grid.evidence for grid, likely in _grids(kept, step_g, prior, steady=True)])
    return float(logs.max() + np.log(np.exp(logs - logs.max()).sum()))


def most_evidence_of(kept: Sequence[Weighed], step_g: float, prior: Prior) -> float:
    """Return what ``evidence_of`` cannot pass: every weighing right on a curve, with the steadiest hand.

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
    float
        Logarithm of a probability density [-]
    """
    sure = 1 / (float(NOISE_GRID.min()) * np.array([noise_of(each.pieces, step_g) for each in kept])) ** 2
    normal = 0.5 * np.log(2 * np.pi) + np.log(NOISE_WEIGHT[:STEADY].sum())
    losing = max(-float(log_ndtr(believed.share / believed.share_spread)) for believed, _likely in _beliefs(prior))
    return float(0.5 * np.log(sure).sum() - 0.5 * np.log(sure.sum()) + normal + losing)


def _grids(kept: Sequence[Weighed], step_g: float, prior: Prior, *, steady: bool = False) -> list[tuple[_Grid, float]]:
    """Return the grids of what is believed beforehand, each with how likely it is."""
    weighings = _Weighings.of(kept, step_g, NOISE_GRID[:STEADY] if steady else NOISE_GRID)
    return [(_grid(weighings, believed), likely) for believed, likely in _beliefs(prior)]


def _beliefs(prior: Prior) -> list[tuple[Prior, float]]:
    """Return what the formula says, and a wide guess for where it is wrong."""
    if prior == Prior():
        return [(prior, 1.0)]
    wide = replace(prior, tau_spread=WIDE_TAU_SPREAD, share=WIDE_SHARE, share_spread=WIDE_SHARE_SPREAD)
    return [(prior, 1 - DOUBT), (wide, DOUBT)]


@dataclass(frozen=True, slots=True)
class _Weighings:
    """Weighings as numbers: of one piece, with how sure each is for every spread of the scale."""

    hours: FloatArray
    mass: FloatArray
    precision: FloatArray
    """Shape (spreads of the scale, weighings)."""

    @classmethod
    def of(cls, kept: Sequence[Weighed], step_g: float, spreads: FloatArray) -> _Weighings:
        """Return them as numbers, for so many spreads of the scale."""
        pieces = np.array([each.pieces for each in kept])
        mass = np.array([each.mass_g for each in kept]) / pieces
        usual = np.bincount(pieces).argmax()
        other = OTHER_COUNT_SPREAD * float(mass[0]) * np.sqrt(np.abs(1 / pieces - 1 / usual))
        variance = (spreads[:, None] * NOISE_STEPS * step_g / pieces[None, :]) ** 2 + other[None, :] ** 2
        return cls(np.array([each.hours for each in kept], dtype=np.float64), mass, 1 / variance)


@dataclass(frozen=True, slots=True)
class _Grid:
    """Time constants and spreads of the scale, for every shape: arrays over (shapes, time constants, spreads of the scale)."""

    weighings: _Weighings
    tau_h: FloatArray
    """Shape (shapes, time constants)."""
    gone: FloatArray
    """Share still there at every weighing, shape (shapes, time constants, weighings)."""
    loss: FloatArray
    """What leaves altogether, where it fits best [g of one piece]."""
    loss_spread: FloatArray
    log_weight: FloatArray
    evidence: FloatArray
    """By shape, with how likely each is beforehand, shape (shapes,)."""

    def curves(self, at: int, share: float) -> tuple[FloatArray, ...]:
        """Return the curves of one shape: time, lasting mass, what leaves, shape, spread of a weighing, and weight."""
        nodes = np.linspace(-3.0, 3.0, TO_LOSE_STEPS)
        to_lose = self.loss[at][:, :, None] + self.loss_spread[at][:, :, None] * nodes
        weight = np.exp(self.log_weight[at] - self.log_weight[at].max())[:, :, None] * np.exp(-0.5 * nodes**2)
        weight = np.where(to_lose > 0, weight, weight * 1e-3)  # pieces that gain are told apart before
        held = weight > LEAST_WEIGHT * weight.max()
        lasting = _lasting(self.gone[at], self.weighings, to_lose)
        wide = (np.broadcast_to(each, to_lose.shape)[held] for each in (self.tau_h[at][:, None, None], NOISE_GRID[None, :, None]))
        tau, noise = wide
        return tau, lasting[held], to_lose[held], np.full(tau.size, float(at)), noise, share * weight[held] / weight[held].sum()


def _grid(weighings: _Weighings, prior: Prior) -> _Grid:
    """Return what may be behind the weighings if the prior is right.

    For each time constant and each spread of the scale the model is linear in lasting mass and loss, so both are solved exactly;
    the time constants, spreads and, about the solution, losses are a grid.
    """
    begin_h = prior.tau_h * _slower(prior)[:, None]
    fresh = float(weighings.mass[0])
    likely = np.log(NOISE_WEIGHT[: weighings.precision.shape[0]])

    def weighed(away: FloatArray) -> tuple[FloatArray, ...]:
        """All there is for time constants so many spreads away from the prior's, by shape."""
        tau = begin_h * np.exp(prior.tau_spread * away)
        times = weighings.hours / tau[:, :, None]
        gone = np.stack([shape.still(time) for shape, time in zip(SHAPES, times, strict=True)])
        loss, loss_spread, fitted = _solved(gone, weighings, prior.share * fresh, prior.share_spread * fresh)
        return tau, gone, loss, loss_spread, -0.5 * away[:, :, None] ** 2 + likely + fitted

    # Many weighings know the time constant far better than the prior: the grid closes in on where the weight lies.
    away = np.broadcast_to(np.linspace(-TAU_REACH, TAU_REACH, TAU_STEPS), (len(SHAPES), TAU_STEPS))
    for _ in range(CLOSING_IN):
        away = _closer(away, weighed(away)[-1])
    tau, gone, loss, loss_spread, log_weight = weighed(away)
    # What leaves cannot be less than nothing.
    losing = log_weight + log_ndtr(loss / loss_spread) - log_ndtr(prior.share / prior.share_spread)
    top = losing.max(axis=(1, 2))
    density = np.exp(losing - top[:, None, None]).sum(axis=(1, 2)) * (away[:, 1] - away[:, 0])
    evidence = top + np.log(density) + np.log([shape.likely for shape in SHAPES])
    return _Grid(weighings, tau, gone, loss, loss_spread, log_weight, evidence)


def _slower(prior: Prior) -> FloatArray:
    """Return by what each shape's own time differs from an exponential's that is dry at the same hour [-]."""
    level = np.array([min(LEAST_FOLD, READY / prior.share) if prior.share > 0 else LEAST_FOLD])
    return np.array([float(-np.log(level)[0] / shape.after(level)[0]) for shape in SHAPES])


def _closer(away: FloatArray, log_weight: FloatArray) -> FloatArray:
    """Return grids of as many steps over the stretch that holds each shape's weight, and one step more on each side."""
    best = log_weight.max(axis=2)
    held = best > best.max(axis=1, keepdims=True) - LITTLE
    first = np.maximum(0, held.argmax(axis=1) - 1)
    last = np.minimum(away.shape[1] - 1, away.shape[1] - held[:, ::-1].argmax(axis=1))
    rows = np.arange(away.shape[0])
    return np.linspace(away[rows, first], away[rows, last], away.shape[1], axis=1)


def _solved(gone: FloatArray, weighings: _Weighings, loss0: float, spread0: float) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Loss, its spread and the logarithm of the evidence, by shape, time constant and spread of the scale."""
    mass, precision = weighings.mass, weighings.precision
    whole = precision.sum(axis=1)
    mean_gone = gone @ precision.T / whole
    mean_mass = precision @ mass / whole
    spread_gone = gone**2 @ precision.T - whole * mean_gone**2
    together = (gone * mass) @ precision.T - whole * mean_gone * mean_mass
    curve = spread_gone + 1 / spread0**2
    loss = (together + loss0 / spread0**2) / curve
    left = precision @ mass**2 - whole * mean_mass**2
    cost = left + loss0**2 / spread0**2 - curve * loss**2
    fixed = 0.5 * np.log(precision).sum(axis=1) - 0.5 * np.log(whole) - np.log(spread0)
    return loss, 1 / np.sqrt(curve), -0.5 * cost - 0.5 * np.log(curve) + fixed


def _lasting(gone: FloatArray, weighings: _Weighings, to_lose: FloatArray) -> FloatArray:
    """Lasting mass that goes best with each loss of one shape."""
    whole = weighings.precision.sum(axis=1)
    mean_gone = (gone @ weighings.precision.T / whole)[:, :, None]
    lasting: FloatArray = (weighings.precision @ weighings.mass / whole)[None, :, None] - to_lose * mean_gone
    return lasting
