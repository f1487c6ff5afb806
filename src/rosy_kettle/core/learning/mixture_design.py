"""Small batches that teach the most about two or three ingredients that share one weight: D-optimal mixture designs.

The model is Scheffé's polynomial in the shares; a design is D-optimal when the determinant of its information matrix is largest.
Points are exchanged between the design and a lattice of candidates until none makes it larger (Fedorov 1972).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations, product

import numpy as np

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.mixing.palette import FloatArray

__all__ = [
    "Bounds",
    "MixtureDesign",
    "candidate_points",
    "check_bounds",
    "d_efficiency",
    "design_trials",
    "scheffe_terms",
    "terms_of",
]

LEAST, MOST = 2, 3  # ingredients that share one weight [-]
LATTICE = 10  # steps of the candidate lattice along an edge of what the bounds leave [-]
STARTS = 12
SAME = 1e-9
NARROW = 1e-4  # edge of what the bounds leave, below which nothing is varied [-]
MOST_ROUNDS = 60


@dataclass(frozen=True, slots=True)
class Bounds:
    """Shares an ingredient may take of the weight the chosen ones have together [-]."""

    ingredient: str
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class MixtureDesign:
    """Trials to make."""

    points: tuple[tuple[float, ...], ...]
    """Shares of each trial, in the order of the bounds [-]."""
    degree: int
    """1: ingredients alone; 2: pairs too."""
    efficiency: float
    """How much one trial tells, as ``d_efficiency`` has it [-]."""


def check_bounds(bounds: Sequence[Bounds]) -> None:
    """Refuse bounds that leave nothing to vary.

    Parameters
    ----------
    bounds : Sequence
        Two or three ingredients

    Raises
    ------
    InputError
        If there are fewer or more, bounds cross, or they cannot add up to the whole.
    """
    if not LEAST <= len(bounds) <= MOST:
        raise InputError("Trials vary two or three ingredients against each other.", quantity="ingredients")
    if len({each.ingredient for each in bounds}) < len(bounds):
        raise InputError("One ingredient stands there twice.", quantity="ingredients")
    crossed = next((each for each in bounds if each.low > each.high), None)
    if crossed is not None:
        raise InputError(f"The bounds of {crossed.ingredient} cross: the low one is above the high one.", quantity="bounds")
    if sum(each.low for each in bounds) > 1 + SAME or sum(each.high for each in bounds) < 1 - SAME:
        raise InputError("The bounds cannot add up to what the ingredients weigh together; widen one.", quantity="bounds")
    if abs(_frame(bounds)[1]) < NARROW or len(_corners(bounds)) < LEAST:
        raise InputError("The bounds leave one single mixture; widen one.", quantity="bounds")


def design_trials(bounds: Sequence[Bounds], trials: int, seed: int = 1) -> MixtureDesign:
    """Return the trials that teach the most.

    Parameters
    ----------
    bounds : Sequence
        Two or three ingredients with the least and most of each [-]
    trials : int
        Batches that are to be made [-]
    seed : int
        The same seed gives the same design [-]

    Returns
    -------
    MixtureDesign
        Pairs of ingredients are in the model where there are trials for all its terms; repeats are part of a D-optimal design
        and tell how far two like batches lie apart

    Raises
    ------
    InputError
        If bounds cannot hold, or there are fewer trials than ingredients.

    References
    ----------
    .. [1] Scheffé, J. R. Stat. Soc. B 20 (1958) 344; 25 (1963) 235.
    .. [2] Fedorov, Theory of Optimal Experiments (1972), 3.3: exchange.
    """
    check_bounds(bounds)
    if trials < len(bounds):
        raise InputError(f"{len(bounds)} ingredients take at least {len(bounds)} trials.", quantity="trials", value=trials)
    candidates = candidate_points(bounds)
    pairs = terms_of(len(bounds), 2)
    told_apart = np.linalg.matrix_rank(_terms(candidates, bounds, 2)) == pairs
    degree = 2 if trials >= pairs and told_apart else 1
    matrix = _terms(candidates, bounds, degree)
    chance = np.random.default_rng(seed)
    best: list[int] = []
    best_at = -math.inf
    for _ in range(STARTS):
        chosen = _exchanged(matrix, [int(each) for each in chance.integers(len(candidates), size=trials)])
        at = _log_det(matrix[chosen])
        if at > best_at + SAME:
            best, best_at = chosen, at
    points = sorted((tuple(round(float(x), 6) for x in candidates[index]) for index in best), reverse=True)
    return MixtureDesign(tuple(points), degree, d_efficiency(np.array(points), bounds, degree))


def terms_of(ingredients: int, degree: int) -> int:
    """Return how many coefficients a Scheffé polynomial of two degrees has.

    Parameters
    ----------
    ingredients : int
        Ingredients [-]
    degree : int
        1 or 2 [-]
    """
    return ingredients if degree == 1 else ingredients * (ingredients + 1) // 2


def scheffe_terms(shares: FloatArray, degree: int) -> FloatArray:
    """Return the terms of a Scheffé polynomial: shares, and with degree 2 the products of pairs.

    Parameters
    ----------
    shares : ndarray
        Mixtures by ingredients (n, q) [-]
    degree : int
        1 or 2 [-]

    Returns
    -------
    ndarray
        Mixtures by terms [-]
    """
    if degree == 1:
        return shares
    pairs = [shares[:, i] * shares[:, j] for i, j in combinations(range(shares.shape[1]), 2)]
    return np.column_stack([shares, *pairs])


def candidate_points(bounds: Sequence[Bounds], lattice_steps: int = LATTICE) -> FloatArray:
    """Return mixtures a design may choose from: corners of what the bounds leave, middles of its edges, centroid, and a lattice.

    Parameters
    ----------
    bounds : Sequence
        Least and most of each ingredient [-]
    lattice_steps : int
        Steps of the lattice along an edge of what the bounds leave [-]

    Returns
    -------
    ndarray
        Mixtures by ingredients, each row adding up to 1 [-]

    References
    ----------
    .. [1] McLean and Anderson, Technometrics 8 (1966) 447: extreme vertices.
    """
    corners = _corners(bounds)
    middles = [tuple((a + b) / 2 for a, b in zip(one, other, strict=True)) for one, other in combinations(corners, 2)]
    centroid = tuple(sum(values) / len(corners) for values in zip(*corners, strict=True))
    origin, edge = _frame(bounds)
    steps = [s for s in product(range(lattice_steps + 1), repeat=len(bounds)) if sum(s) == lattice_steps]
    lattice = [tuple(float(x) for x in origin + edge * np.array(step) / lattice_steps) for step in steps]
    found = dict.fromkeys(
        tuple(round(x, 9) for x in point)
        for point in (*corners, *middles, centroid, *lattice)
        if all(each.low - SAME <= x <= each.high + SAME for x, each in zip(point, bounds, strict=True))
    )
    return np.array(list(found))


def _corners(bounds: Sequence[Bounds]) -> list[tuple[float, ...]]:
    """Extreme vertices: all ingredients but one at a bound, the last one taking the rest within its own."""
    found: dict[tuple[float, ...], None] = {}
    for free in range(len(bounds)):
        others = [(each.low, each.high) for index, each in enumerate(bounds) if index != free]
        for fixed in product(*others):
            rest = 1 - sum(fixed)
            if bounds[free].low - SAME <= rest <= bounds[free].high + SAME:
                point = list(fixed)
                point.insert(free, rest)
                found[tuple(round(x, 9) for x in point)] = None
    return list(found)


def _tightened(bounds: Sequence[Bounds]) -> list[tuple[float, float]]:
    """Bounds that can be reached while the others keep theirs."""
    lows, highs = sum(each.low for each in bounds), sum(each.high for each in bounds)
    return [(max(b.low, 1 - highs + b.high), min(b.high, 1 - lows + b.low)) for b in bounds]


def _frame(bounds: Sequence[Bounds]) -> tuple[FloatArray, float]:
    """Origin and edge of the smaller triangle around what the bounds leave: upright on the low bounds, or hanging from the high.

    A mixture is the origin and the edge times shares that add up to 1 (pseudocomponents: Kurotori 1966; Crosier 1984).
    """
    low, high = (np.array(side) for side in zip(*_tightened(bounds), strict=True))
    upright, hanging = 1 - float(low.sum()), float(high.sum()) - 1
    return (low, upright) if upright <= hanging else (high, -hanging)


def _stretched(shares: FloatArray, bounds: Sequence[Bounds]) -> FloatArray:
    """Shares of that triangle, so that narrow bounds do not make the terms alike."""
    origin, edge = _frame(bounds)
    stretched: FloatArray = (shares - origin) / edge
    return stretched


def _terms(shares: FloatArray, bounds: Sequence[Bounds], degree: int) -> FloatArray:
    return scheffe_terms(_stretched(shares, bounds), degree)


def d_efficiency(points: FloatArray, bounds: Sequence[Bounds], degree: int) -> float:
    """Return how much one trial of a design tells.

    Parameters
    ----------
    points : ndarray
        Mixtures by ingredients (n, q) [-]
    bounds : Sequence
        Least and most of each ingredient [-]
    degree : int
        1 or 2 [-]

    Returns
    -------
    float
        det(X'X/n)^(1/p) with X the terms of the mixtures in stretched shares; 0 where it cannot be fitted [-]
    """
    terms = _terms(points, bounds, degree)
    at = _log_det(terms)
    return 0.0 if at == -math.inf else math.exp(at / terms.shape[1]) / len(points)


def _log_det(terms: FloatArray) -> float:
    sign, value = np.linalg.slogdet(terms.T @ terms)
    return float(value) if sign > 0 else -math.inf


def _exchanged(matrix: FloatArray, chosen: list[int]) -> list[int]:
    """Exchange one point of a design for a candidate as long as the determinant grows (Fedorov 1972)."""
    ridge = 1e-7 * np.eye(matrix.shape[1])  # a start that cannot be fitted yet is led to one that can
    for _ in range(MOST_ROUNDS):
        terms = matrix[chosen]
        inverse = np.linalg.inv(terms.T @ terms + ridge)
        spread = matrix @ inverse @ matrix.T
        own, out = np.diag(spread), np.array(chosen)
        # Determinant after an exchange over the one before: 1 + d(in) - d(out) - d(in) d(out) + d(in, out)^2.
        gain = own[None, :] - own[out][:, None] - own[None, :] * own[out][:, None] + spread[out, :] ** 2
        best = int(np.argmax(gain))
        if gain.flat[best] < SAME:
            break
        row, column = divmod(best, gain.shape[1])
        chosen[row] = column
    return chosen
