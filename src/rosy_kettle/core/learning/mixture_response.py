"""A reading fitted over the trials of a mixture design: where it is best, how sure that is, and whether it is still flat."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from rosy_kettle.core.learning.mixture_design import Bounds, candidate_points, scheffe_terms, terms_of
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.words.trials import response_words

__all__ = ["FittedPoint", "MixtureResponse", "fit_response"]

SIDE = 0.975  # of Student's t: 95 % between both sides [-]
SURE = 0.95
DRAWS, SEED = 2000, 5  # of the noise, to see what picking the best adds
EDGE, TINY = 1e-6, 1e-12  # of a share [-]; so that every covariance has a root [-]
GRID = 20  # steps along an edge of what is drawn [-]


@dataclass(frozen=True, slots=True)
class FittedPoint:
    """What one mixture is expected to read."""

    shares: tuple[float, ...]
    value: float
    low: float | None
    """95 % of the mean with ``high``; None where nothing is left to judge the noise by."""
    high: float | None


@dataclass(frozen=True, slots=True)
class MixtureResponse:
    """What the results of a design say."""

    n: int
    degree: int | None
    """Of the polynomial that could be fitted; None where there are too few results."""
    coefficients: tuple[float, ...]
    """Of the shares as they are, then of their pairs [the reading's unit]."""
    repeatability: float | None
    """What is left between results and fit, one standard deviation [the reading's unit]."""
    grid: tuple[FittedPoint, ...]
    best: FittedPoint | None
    flat: bool | None
    """True where the largest difference on the grid is less than it may be off; None where that is not known."""
    message: str
    at_edge: bool = False
    """Whether the best lies at the edge of what was varied."""


def fit_response(
    bounds: Sequence[Bounds], tried: Sequence[Sequence[float]], read: Sequence[float], wanted: str
) -> MixtureResponse:
    """Return a fitted reading over all mixtures within the bounds.

    Parameters
    ----------
    bounds : Sequence
        Least and most of each ingredient [-]
    tried : Sequence
        Mixtures that were tried, shares in the order of the bounds [-]
    read : Sequence
        What each read [the reading's unit]
    wanted : str
        more or less: which end is the better one

    Returns
    -------
    MixtureResponse
        Least squares of the largest Scheffé polynomial that the results can tell apart; the best point is flat where the
        difference from the worst one may be nothing

    References
    ----------
    .. [1] Cornell, Experiments with Mixtures, 3rd ed. (2002), 2.3 and 2.9: fitting by least squares, variance of the response.
    .. [2] Scheffé, Biometrika 40 (1953) 87: the best and the worst are picked by the same noise, so all contrasts count at once.
    """
    q = len(bounds)
    shares, seen = np.array(tried, dtype=np.float64).reshape(-1, q), np.array(read, dtype=np.float64)
    degree = next((d for d in (2, 1) if _told_apart(shares, q, d)), None)
    if degree is None:
        return MixtureResponse(len(seen), None, (), None, (), None, None, response_words(None, len(seen), flat=None, sure=False))
    terms = scheffe_terms(shares, degree)
    coefficients, *_ = np.linalg.lstsq(terms, seen, rcond=None)
    freedom = len(seen) - terms.shape[1]
    spread = math.sqrt(float(((seen - terms @ coefficients) ** 2).sum()) / freedom) if freedom > 0 else None
    covariance = np.linalg.pinv(terms.T @ terms)
    points = candidate_points(bounds, GRID)
    at = scheffe_terms(points, degree)
    values = at @ coefficients
    sign = 1.0 if wanted == "more" else -1.0
    best = int(np.argmax(sign * values))
    worst = int(np.argmin(sign * values))
    from scipy.special import stdtrit  # here: scipy takes a third of a second that starting does not need

    t = float(stdtrit(freedom, SIDE)) if freedom > 0 else math.nan
    half = t * (spread or 0.0) * np.sqrt(np.einsum("ij,jk,ik->i", at, covariance, at))
    apart = at[best] - at[worst]
    off = _reach(terms.shape[1] - 1, freedom) * (spread or 0.0) * math.sqrt(float(apart @ covariance @ apart))
    flat = None if spread is None else bool(abs(values[best] - values[worst]) <= off)
    grid = tuple(_point(points[i], values[i], half[i], known=spread is not None) for i in range(len(points)))
    at_edge = _at_edge(points[best], bounds)
    message = response_words(degree, len(seen), flat=flat, sure=spread is not None, at_edge=at_edge)
    picked = grid[best]
    if spread is not None:
        root: FloatArray = spread * np.asarray(np.linalg.cholesky(covariance + TINY * np.eye(len(covariance))), dtype=np.float64)
        luck = sign * _luck(values, at, root, sign)
        # Picked out of all: its interval holds for all of them at once, and its value is less what picking adds.
        wide = _reach(terms.shape[1], freedom) * spread * math.sqrt(float(at[best] @ covariance @ at[best]))
        ends = (float(values[best] - wide), float(values[best] + wide))
        picked = replace(picked, value=float(values[best] - luck), low=ends[0], high=ends[1])
    return MixtureResponse(len(seen), degree, tuple(map(float, coefficients)), spread, grid, picked, flat, message, at_edge)


def _luck(values: FloatArray, at: FloatArray, scale: FloatArray, sign: float) -> float:
    """Return by how much the best of all points looks better than it is, on the mean, because it was picked by the same noise."""
    noise = np.random.default_rng(SEED).standard_normal((DRAWS, scale.shape[0])) @ scale.T @ at.T
    picked = np.argmax(sign * (values[None, :] + noise), axis=1)
    return float(max(0.0, (sign * noise[np.arange(DRAWS), picked]).mean()))


def _at_edge(shares: FloatArray, bounds: Sequence[Bounds]) -> bool:
    """Whether a mixture stands at the least or the most of an ingredient, where a little further might be better still."""
    return any(
        abs(share - bound.low) < EDGE or abs(share - bound.high) < EDGE for share, bound in zip(shares, bounds, strict=True)
    )


def _reach(contrasts: int, freedom: int) -> float:
    """Return how many standard deviations a difference that was picked out has to exceed, in nineteen cases of twenty."""
    from scipy.special import fdtri  # here: scipy takes a third of a second that starting does not need

    return math.sqrt(contrasts * float(fdtri(contrasts, freedom, SURE))) if freedom > 0 else math.nan


def _told_apart(shares: FloatArray, ingredients: int, degree: int) -> bool:
    terms = terms_of(ingredients, degree)
    return len(shares) >= terms and int(np.linalg.matrix_rank(scheffe_terms(shares, degree), tol=1e-6)) == terms


def _point(shares: FloatArray, value: float, half: float, *, known: bool) -> FittedPoint:
    low, high = (float(value - half), float(value + half)) if known else (None, None)
    return FittedPoint(tuple(round(float(x), 6) for x in shares), float(value), low, high)
