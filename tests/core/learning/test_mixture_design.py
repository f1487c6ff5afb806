"""Designs of mini-batches against published mixture designs and exhaustive search, fits against numpy's least squares."""

from __future__ import annotations

from itertools import combinations_with_replacement
from time import process_time

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.learning.mixture_design import Bounds, candidate_points, d_efficiency, design_trials, scheffe_terms
from rosy_kettle.core.learning.mixture_design import _frame as frame
from rosy_kettle.core.learning.mixture_response import fit_response

WHOLE = [Bounds(name, 0.0, 1.0) for name in "abc"]
FLARE = [Bounds("a", 0.4, 0.6), Bounds("b", 0.1, 0.5), Bounds("c", 0.1, 0.5)]


def rounded(points: object) -> set[tuple[float, ...]]:
    return {tuple(round(float(x), 4) for x in point) for point in points}  # type: ignore[attr-defined]


def test_six_trials_of_three_are_the_simplex_lattice() -> None:
    """The {3, 2} lattice is D-optimal for the quadratic polynomial (Scheffé 1958; Kiefer, Ann. Math. Stat. 32 (1961) 298)."""
    design = design_trials(WHOLE, 6)
    corners = {(1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)}
    assert rounded(design.points) == corners | {(0.5, 0.5, 0.0), (0.5, 0.0, 0.5), (0.0, 0.5, 0.5)}
    assert design.degree == 2


def test_three_trials_of_three_are_the_corners_and_four_of_two_the_ends_and_the_middle() -> None:
    """Scheffé 1958: the {q, 1} lattice for the linear polynomial, the {2, 2} lattice for two ingredients."""
    assert rounded(design_trials(WHOLE, 3).points) == {(1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)}
    assert rounded(design_trials(WHOLE[:2], 4).points) == {(1.0, 0.0), (0.5, 0.5), (0.0, 1.0)}


def test_the_simplex_centroid_is_no_better_than_ours() -> None:
    """Scheffé 1963: seven points, corners, middles and centroid."""
    third = 1 / 3
    centroid = [(1, 0, 0), (0, 1, 0), (0, 0, 1), (0.5, 0.5, 0), (0.5, 0, 0.5), (0, 0.5, 0.5), (third, third, third)]
    assert design_trials(WHOLE, 7).efficiency >= d_efficiency(np.array(centroid, dtype=float), WHOLE, 2) - 1e-12


@pytest.mark.parametrize("times", [1, 2, 5])
def test_corners_taken_equally_often_are_worth_a_share_of_one(times: int) -> None:
    """X'X of n corners over q ingredients is n/q on the diagonal, so det(X'X/n)^(1/q) is 1/q: linear algebra."""
    assert d_efficiency(np.tile(np.eye(3), (times, 1)), WHOLE, 1) == pytest.approx(1 / 3)
    assert d_efficiency(np.tile(np.eye(2), (times, 1)), WHOLE[:2], 1) == pytest.approx(1 / 2)
    assert d_efficiency(np.ones((4, 3)) / 3, WHOLE, 1) == 0.0, "one mixture, however often, fits nothing"


def test_extreme_vertices_of_the_flare_example() -> None:
    """Corners of a constrained region as McLean and Anderson 1966 take them: all but one at a bound."""
    corners = {(0.4, 0.1, 0.5), (0.4, 0.5, 0.1), (0.6, 0.1, 0.3), (0.6, 0.3, 0.1)}
    assert corners <= rounded(candidate_points(FLARE))


@pytest.mark.parametrize(("bounds", "trials", "degree"), [(WHOLE[:2], 4, 2), (FLARE, 4, 1)])
def test_efficiency_is_that_of_an_exhaustive_search(bounds: list[Bounds], trials: int, degree: int) -> None:
    candidates = candidate_points(bounds)[:16]
    best = max(
        d_efficiency(candidates[list(chosen)], bounds, degree)
        for chosen in combinations_with_replacement(range(len(candidates)), trials)
    )
    assert design_trials(bounds, trials).efficiency >= best - 1e-9


def test_twelve_trials_over_three_ingredients_take_less_than_a_second() -> None:
    begun = process_time()
    design_trials(FLARE, 12)
    assert process_time() - begun < 1.0


@settings(max_examples=40, deadline=None)
@given(st.lists(st.tuples(st.floats(0, 0.3), st.floats(0.4, 1.0)), min_size=2, max_size=3), st.integers(3, 9))
def test_every_trial_keeps_its_bounds(limits: list[tuple[float, float]], trials: int) -> None:
    bounds = [Bounds(str(index), *each) for index, each in enumerate(limits)]
    try:
        design = design_trials(bounds, trials)
    except InputError:
        assert sum(each.high for each in bounds) < 1.001
        return
    for point in design.points:
        assert sum(point) == pytest.approx(1, abs=1e-5)
        assert all(each.low - 1e-5 <= x <= each.high + 1e-5 for x, each in zip(point, bounds, strict=True))


@pytest.mark.parametrize(("bounds", "said"), [
    ([Bounds("a", 0.6, 0.4), Bounds("b", 0, 1)], "cross"), ([Bounds("a", 0.7, 0.8), Bounds("b", 0.5, 0.9)], "add up"),
    ([Bounds("a", 0.1, 0.2), Bounds("b", 0.1, 0.2)], "add up"), ([Bounds("a", 0, 1)], "two or three"),
    ([Bounds("a", 0, 1), Bounds("a", 0, 1)], "twice"), ([Bounds("a", 0.5, 0.5), Bounds("b", 0.5, 0.5)], "single mixture"),
])  # fmt: skip
def test_bounds_that_cannot_hold_are_refused(bounds: list[Bounds], said: str) -> None:
    with pytest.raises(InputError, match=said):
        design_trials(bounds, 6)


def test_a_fit_is_numpys_least_squares_with_the_variance_of_the_textbook() -> None:
    design = design_trials(WHOLE, 12)
    shares = np.array(design.points)
    chance = np.random.default_rng(3)
    seen = scheffe_terms(shares, 2) @ np.array([4.0, 5.0, 3.0, 6.0, 0.0, -2.0]) + chance.normal(0, 0.1, len(shares))
    fit = fit_response(WHOLE, shares, seen, "more")
    coefficients, residual, *_ = np.linalg.lstsq(scheffe_terms(shares, 2), seen, rcond=None)
    assert fit.coefficients == pytest.approx(coefficients)
    assert fit.repeatability == pytest.approx(float(np.sqrt(residual[0] / 6)))
    assert fit.flat is False
    assert fit.best is not None
    # The vertex of 4a + 5b + 6ab on a + b = 1 is at a = 5 / 12, by hand.
    assert fit.best.shares[0] == pytest.approx(5 / 12, abs=0.08)
    assert fit.best.low is not None
    assert fit.best.high is not None
    assert fit.best.low < fit.best.value < fit.best.high


def test_noise_alone_is_still_flat_nineteen_times_of_twenty_and_too_few_say_nothing() -> None:
    shares = np.array(design_trials(WHOLE[:2], 8).points)
    flat = 0
    for seed in range(200):
        seen = 4.0 + np.random.default_rng(seed).normal(0, 0.3, len(shares))
        flat += fit_response(WHOLE[:2], shares, seen, "more").flat is True
    assert flat >= 200 * 0.95 - 3 * (200 * 0.95 * 0.05) ** 0.5, "Scheffé's bound holds however best and worst are picked"
    assert fit_response(WHOLE[:2], shares[:1], np.array([4.0]), "more").degree is None
    exact = fit_response(WHOLE[:2], np.array([[1.0, 0.0], [0.0, 1.0]]), np.array([4.0, 5.0]), "less")
    assert (exact.degree, exact.flat, exact.repeatability) == (1, None, None)
    assert exact.best is not None
    assert exact.best.value == pytest.approx(4.0)


@pytest.mark.parametrize(("difference", "flat"), [(2.3, True), (2.5, False)])
def test_a_difference_that_was_picked_has_to_pass_scheffes_bound(difference: float, *, flat: bool) -> None:
    """Three means of four with s = √(12/9): √(2 · 4.26) · s · √(1/4 + 1/4) = 2.38, F(0.95; 2, 9) = 4.26 by the tables."""
    shares = np.repeat(np.eye(3), 4, axis=0)
    seen = np.repeat([0.0, difference / 2, difference], 4) + np.tile([1.0, -1.0], 6)
    fit = fit_response(WHOLE, shares, seen, "more")
    assert (fit.degree, fit.flat) == (1, flat)
    assert fit.repeatability == pytest.approx((12 / 9) ** 0.5)


@pytest.mark.parametrize(("low", "high", "origin", "edge"), [(0.2, 1.0, 0.2, 0.4), (0.1, 0.4, 0.4, -0.2), (0.1, 0.8, 0.1, 0.7)])
def test_shares_are_stretched_to_the_smaller_triangle_around_the_bounds(
    low: float, high: float, origin: float, edge: float
) -> None:
    """L-pseudocomponents (Kurotori 1966) over the lower bounds, U-pseudocomponents (Crosier 1984) under the upper, by hand."""
    found, length = frame([Bounds(name, low, high) for name in "abc"])
    assert found.tolist() == pytest.approx([origin] * 3)
    assert length == pytest.approx(edge)


@pytest.mark.parametrize("beta", [(5.0, 5.0, 5.0, 0.0), (5.0, 6.0, 7.0, 4.0)])
def test_the_best_point_is_told_with_what_picking_it_adds_taken_off(beta: tuple[float, ...]) -> None:
    """95 % intervals over 120 seeded sets of sixteen results; the best of all looks better than it is (Scheffé 1953)."""
    bounds = [Bounds(name, 0.0, 1.0) for name in "abc"]
    tried = np.array(
        [[1, 0, 0], [0, 1, 0], [0, 0, 1], [0.5, 0.5, 0], [0.5, 0, 0.5], [0, 0.5, 0.5], [1 / 3] * 3, [0.6, 0.2, 0.2]] * 2
    )
    dice, held, better = np.random.default_rng(2), 0, 0.0

    def true(shares: tuple[float, ...]) -> float:
        return float(np.dot(beta[:3], shares) + beta[3] * shares[0] * shares[1])

    for _ in range(120):
        best = fit_response(bounds, tried, [true(tuple(each)) + dice.normal() for each in tried], "more").best
        assert best is not None
        assert best.low is not None
        assert best.high is not None
        held += best.low <= true(best.shares) <= best.high
        better += (best.value - true(best.shares)) / 120
    assert held >= 0.95 * 120 - 3 * (120 * 0.95 * 0.05) ** 0.5
    assert better < 0.4, "of the scatter of one result; 1.8 times as much without"
