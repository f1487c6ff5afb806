"""Claims judged side by side: error rates over many series, against scipy's own test, and odd series."""

from __future__ import annotations

import numpy as np
import pytest
from scipy import stats

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.learning.blind_series import mean_heights, seen_figures
from rosy_kettle.core.learning.series import Claim, SeriesJudgement, judge_series
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.tub.tub_test import tub_state_of

SPREAD_CM, SERIES = 0.4, 300
STOPPED = 120
"""Series that are looked at after every pair; eight hundred of each stand on docs/science/learning.md."""
CLAIM = Claim("foam_height_cm", "B", "A")
WORTH = Claim("foam_height_cm", "B", "A", 0.5)


def series(claim: Claim, seed: int, better_by: float, each: int) -> SeriesJudgement:
    chance = np.random.default_rng(seed)
    tests = [{"variant": name, "foam_height_cm": round(float(value), 2)}
             for name, mean in (("A", 6.0), ("B", 6.0 + better_by)) for value in chance.normal(mean, SPREAD_CM, each)]  # fmt: skip
    return judge_series(claim, tests)


@pytest.mark.parametrize("each", [2, 4, 8])
@pytest.mark.parametrize("claim", [CLAIM, WORTH])
def test_where_nothing_differs_yes_is_rare(claim: Claim, each: int) -> None:
    """A one-sided 2.5 % of 300 series; the bound is that of the binomial, one in a thousand (scipy.stats.binom)."""
    wrong = sum(series(claim, seed, 0.0, each).answer == "yes" for seed in range(SERIES))
    assert wrong <= stats.binom.ppf(0.999, SERIES, 0.025)
    assert wrong / SERIES <= 0.05


@pytest.mark.parametrize("claim", [CLAIM, WORTH])
def test_a_true_difference_is_found_and_never_denied(claim: Claim) -> None:
    answers = [series(claim, seed, 1.0, 8).answer for seed in range(SERIES)]
    assert answers.count("no") / SERIES <= 0.05
    assert answers.count("yes") / SERIES >= 0.85


def test_too_few_tests_say_so_and_how_many_are_needed() -> None:
    few = [series(WORTH, seed, 0.6, 2) for seed in range(60)]
    doubtful = [each for each in few if each.answer == "cannot tell yet"]
    assert len(doubtful) > 30
    assert all(each.more_tests and each.more_tests >= 1 for each in doubtful)
    enough = [series(WORTH, seed, 0.0, 40).answer for seed in range(60)]
    assert enough.count("no") >= 55, "forty of each settle that less than half a centimetre lies between"


@pytest.mark.parametrize("seed", range(12))
def test_the_interval_is_welchs_at_the_level_of_ten_looks(seed: int) -> None:
    """scipy.stats.ttest_ind with unequal variances, at Pocock's nominal level for ten looks (2 (1 - Phi(2.555)))."""
    chance = np.random.default_rng(seed)
    a, b = chance.normal(6, SPREAD_CM, 5), chance.normal(6.4, 3 * SPREAD_CM, 7)
    told = judge_series(
        CLAIM, [{"variant": "A", "foam_height_cm": v} for v in a] + [{"variant": "B", "foam_height_cm": v} for v in b]
    )
    level = round(2 * (1 - float(stats.norm.cdf(2.555))), 4)
    low, high = stats.ttest_ind(b, a, equal_var=False).confidence_interval(1 - level)
    assert (told.low, told.high) == (pytest.approx(low), pytest.approx(high))
    assert told.difference == pytest.approx(b.mean() - a.mean())
    assert told.per_variant["B"].spread == pytest.approx(b.std(ddof=1))


@pytest.mark.parametrize(("spreads", "counts", "gap"), [
    ((1, 1), [(n, n) for n in range(2, 13)], 0.0), ((1, 3), [(n, n) for n in range(2, 10)], 0.0),
    ((3, 1), [(n, n) for n in range(2, 10)], 0.0), ((1, 3), [(3, 9)], 0.0), ((3, 1), [(3, 9)], 0.0), ((1, 3), [(9, 3)], 0.0),
    ((1, 3), [(n, n) for n in range(2, 10)], 1.0),
])  # fmt: skip
def test_a_series_stopped_at_its_first_answer_is_wrong_once_in_twenty_at_most(
    spreads: tuple[float, float], counts: list[tuple[int, int]], gap: float
) -> None:
    """Unequal spreads, unequal counts, a wild third variant, looked at after every pair; the binomial's bound at one in a thousand."""
    chance, wrong = np.random.default_rng(11), 0
    claim = Claim("x", "B", "A", gap or None)
    for _ in range(STOPPED):
        a, b = chance.normal(10, spreads[0], 13), chance.normal(10 + gap, spreads[1], 13)
        wild = [{"variant": "C", "x": float(value)} for value in chance.normal(12, 10, 3)]
        for ones, others in counts:
            tests = [{"variant": n, "x": float(v)} for n, seen in (("A", a[:ones]), ("B", b[:others])) for v in seen]
            answer = judge_series(claim, tests + wild).answer
            if answer in {"yes", "no"}:
                wrong += answer == ("no" if gap else "yes")
                break
    assert wrong <= stats.binom.ppf(0.999, STOPPED, 0.03)


def test_a_third_variant_says_nothing_of_the_two() -> None:
    tests = [{"variant": "A", "f": 6.0}, {"variant": "B", "f": 8.0}]
    repeats = [{"variant": "C", "f": value} for value in (5.9, 6.0, 6.1, 6.0, 5.95)]
    told = judge_series(Claim("f", "B", "A"), tests + repeats)
    assert (told.answer, told.low, told.more_tests) == ("cannot tell yet", None, 1)


def test_odd_series_are_told_in_a_sentence() -> None:
    alike = [{"variant": name, "f": 6.0} for name in "AABB"]
    assert judge_series(Claim("f", "B", "A"), alike).answer == "cannot tell yet"
    assert judge_series(Claim("f", "B", "A", 5.0), alike).answer == "no"
    alone = judge_series(Claim("f", "B", "A"), [{"variant": "A", "f": 1}, {"variant": "A"}, {"variant": "B", "f": "much"}])
    assert (alone.answer, [each.code for each in alone.set_aside]) == ("cannot tell yet", ["no_value", "no_number"])
    assert "no test of B" in alone.message
    smaller = [{"variant": name, "ring": value} for name, value in (("A", 9), ("A", 9.2), ("B", 3), ("B", 3.1))]
    assert judge_series(Claim("ring", "B", "A", lower_is_better=True), smaller).answer == "yes"
    assert judge_series(Claim("ring", "B", "A"), smaller).answer == "no"
    for claim, tests in ((Claim("f", "B", "B"), alike), (CLAIM, alike), (CLAIM, [])):
        with pytest.raises(InputError):
            judge_series(claim, tests)


@pytest.mark.parametrize(("difference_cm", "worth_cm"), [(0.6, 0.5), (0.6, None), (0.2, 0.5)])
def test_the_tests_still_needed_are_those_by_which_the_interval_leaves_the_doubt(
    difference_cm: float, worth_cm: float | None
) -> None:
    """Counted up with scipy.stats.t at the level of each look: the half width has to fall under what is in doubt."""
    figures = {"A": (5.8, 6.2), "B": (5.8 + difference_cm, 6.2 + difference_cm)}
    told = judge_series(Claim("h", "B", "A", worth_cm), [{"variant": n, "h": v} for n, seen in figures.items() for v in seen])
    assert told.repeatability is not None
    doubt = max(difference_cm if difference_cm >= (worth_cm or 0) else 0.0, (worth_cm or 0) - difference_cm)
    needed = next(
        more for more in range(1, 200)
        if stats.t.ppf(1 - 0.0106 * min(1, 10 / (1 + more)) / 2, 2 * (2 + more - 1)) * told.repeatability * (2 / (2 + more)) ** 0.5
        < doubt
    )  # fmt: skip
    assert told.more_tests == needed


@pytest.mark.parametrize(("minutes", "counts"), [(4.1, True), (5.9, True), (3.9, False), (6.1, False)])
def test_a_height_counts_for_the_minute_it_was_asked_at_within_a_fifth(*, minutes: float, counts: bool) -> None:
    """Project default: nobody reads the rule on the second."""
    state = tub_state_of([Event(1, "2026-03-01T18:00:00+00:00", "foam", {"minutes": minutes, "height_cm": 4.0})])
    assert [each.minutes for each in mean_heights([state])] == ([5.0] if counts else [])


def test_foam_is_compared_when_it_was_measured_at_one_five_ten_and_twenty_minutes() -> None:
    """Minutes by which foaming power and its stability are read (after the Ross and Miles pour test, ASTM D1173: at once and at 5 min)."""
    events = [
        Event(at, "2026-03-01T18:00:00+00:00", "foam", {"minutes": minutes, "height_cm": 9.0 - at})
        for at, minutes in enumerate((1, 3, 5, 7, 10, 15, 20, 30), start=1)
    ]
    figures = seen_figures(tub_state_of(events))
    assert [figures[f"foam_{name}_cm"] for name in ("1_min", "height", "10_min", "20_min")] == [8.0, 6.0, 4.0, 2.0]
    found = mean_heights([tub_state_of(events)])
    assert [(each.minutes, each.height_cm) for each in found] == [(1.0, 8.0), (5.0, 6.0), (10.0, 4.0), (20.0, 2.0)]


def test_figures_that_agree_to_the_last_digit_still_hide_their_step() -> None:
    """A reading to a tenth is off by a tenth over the root of twelve (uniform distribution; JCGM 100:2008, 4.3.7)."""
    told = judge_series(
        Claim("h", "B", "A"), [{"variant": n, "h": v} for n, v in (("A", 4.2), ("A", 4.2), ("B", 4.5), ("B", 4.5))]
    )
    assert told.repeatability == pytest.approx(0.1 / 12**0.5)


def test_a_no_says_by_how_much_and_which_way_with_its_unit() -> None:
    tests = [
        {"variant": name, "foam_height_cm": height}
        for name, mean in (("A", 9.0), ("B", 6.0))
        for height in (mean, mean + 0.1) * 2
    ]
    told = judge_series(CLAIM, tests)
    assert told.answer == "no"
    assert "B is worse than A by 3 cm" in told.message
