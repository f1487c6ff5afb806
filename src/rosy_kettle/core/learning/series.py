"""A claim judged side by side, whether one variant is better than another by the tests made of both.

The difference of the means with an interval that allows each variant a spread of its own (Welch 1947) and for looking after every
pair of tests (a constant level over ten looks, Pocock 1977), so that a series may be stopped at its first answer. Without repeats
of both there is no answer. A third variant says nothing of how the two of the claim scatter.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.words.series import SET_ASIDE, series_words, unit_of

__all__ = ["Claim", "SeriesJudgement", "SetAsideTest", "VariantFigures", "judge_series", "variant_figures"]

LEVEL = (
    0.0106  # of each look, both sides: ten such looks err in 5 % of series (Pocock's constant 2.555; Jennison and Turnbull) [-]
)
LOOKS = 10  # from then on every look has less, as one over how many there were
ALL_ROUND = math.sqrt(12.0)  # a figure written to a step is off by the step over this, on the mean of squares [-]
MOST_MORE = 200  # tests of each that are still worth naming [-]


@dataclass(frozen=True, slots=True)
class Claim:
    """What is claimed: one variant's reading is larger than another's."""

    reading: str
    better: str
    than: str
    worth: float | None = None
    """Smallest difference that would matter [the reading's unit]."""
    lower_is_better: bool = False
    """For a ring or a cost: the smaller figure is the better one."""


@dataclass(frozen=True, slots=True)
class VariantFigures:
    """What was seen of one variant."""

    n: int
    mean: float
    spread: float | None
    """Standard deviation; None from one test."""


@dataclass(frozen=True, slots=True)
class SetAsideTest:
    """A test that does not count."""

    index: int
    reason: str
    code: str


@dataclass(frozen=True, slots=True)
class SeriesJudgement:
    """What a series says of a claim."""

    answer: str
    """yes, no or cannot tell yet."""
    difference: float | None
    """How much better, in the mean; positive is as claimed [the reading's unit]."""
    low: float | None
    high: float | None
    per_variant: dict[str, VariantFigures]
    repeatability: float | None
    """Standard deviation of one test among its like, over all variants."""
    more_tests: int | None
    """Of each variant; None when answered."""
    set_aside: tuple[SetAsideTest, ...]
    message: str


def judge_series(claim: Claim, tests: Sequence[Mapping[str, Any]]) -> SeriesJudgement:
    """Return what tests of several variants say of a claim.

    Parameters
    ----------
    claim : Claim
        Which variant is better than which, in what, and by how much it would matter [the reading's unit]
    tests : Sequence
        Tests with their variant and their figures

    Returns
    -------
    SeriesJudgement
        yes where the interval of the difference lies above nothing and the difference is worth it; no where the interval lies
        below what would matter, or below nothing; else cannot tell yet

    Raises
    ------
    InputError
        If no test has the reading, or a variant is held against itself.

    References
    ----------
    .. [1] Welch, Biometrika 34 (1947) 28: two means whose variances differ.
    .. [2] Pocock, Biometrika 64 (1977) 191; Jennison and Turnbull, Group Sequential Methods (2000), table 2.1.
    """
    if claim.better == claim.than:
        raise InputError("A variant is not better than itself; name two.", quantity="claim")
    values, set_aside = _values(claim.reading, tests)
    if not values:
        raise InputError(f'No test has a number under "{claim.reading[:60]}".', quantity="reading", value=claim.reading[:60])
    figures = {name: variant_figures(seen) for name, seen in values.items()}
    ours = {name: values[name] for name in (claim.better, claim.than) if name in values}
    spread = _repeatability(ours or values)
    missing = next((name for name in (claim.better, claim.than) if name not in values), "")
    difference = low = high = more = None
    spreads = None if missing else _spreads(ours, claim)
    if not missing:
        sign = -1.0 if claim.lower_is_better else 1.0
        difference = sign * (figures[claim.better].mean - figures[claim.than].mean)
    if difference is not None and spreads is not None:
        half = _half_width(spreads, (figures[claim.better].n, figures[claim.than].n))
        low, high = difference - half, difference + half
    answer = _answer(claim.worth, difference, low, high)
    if answer not in {"yes", "no"} and not missing:
        more = 1 if difference is None or spreads is None else _more(claim, figures, difference, spreads)
    message = series_words(
        answer=answer, better=claim.better, than=claim.than, unit=unit_of(claim.reading), worth=claim.worth,
        difference=difference, low=low, high=high, more=more, left_out=missing,
    )  # fmt: skip
    return SeriesJudgement(answer, difference, low, high, figures, spread, more, tuple(set_aside), message)


def _values(reading: str, tests: Sequence[Mapping[str, Any]]) -> tuple[dict[str, list[float]], list[SetAsideTest]]:
    values: dict[str, list[float]] = {}
    set_aside = []
    for index, test in enumerate(tests):
        value = test.get(reading)
        code = "no_value" if value is None else ""
        if value is not None and (isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value)):
            code = "no_number"
        if code:
            set_aside.append(SetAsideTest(index, SET_ASIDE[code].format(reading=reading[:60]), code))
        else:
            values.setdefault(str(test["variant"]), []).append(float(value or 0.0))
    return values, set_aside


def variant_figures(seen: Sequence[float]) -> VariantFigures:
    """Return count, mean and spread of the figures of one variant.

    Parameters
    ----------
    seen : Sequence
        At least one figure [the reading's unit]
    """
    return VariantFigures(len(seen), float(np.mean(seen)), float(np.std(seen, ddof=1)) if len(seen) > 1 else None)


def _repeatability(values: Mapping[str, Sequence[float]]) -> float | None:
    """Spread of one test among its like; figures that agree to the last digit still hide the step they are written to."""
    freedom = sum(len(seen) - 1 for seen in values.values())
    if freedom == 0:
        return None
    squares = sum(float(((np.array(seen) - np.mean(seen)) ** 2).sum()) for seen in values.values())
    return max(math.sqrt(squares / freedom), _step([value for seen in values.values() for value in seen]) / ALL_ROUND)


def _spreads(ours: Mapping[str, Sequence[float]], claim: Claim) -> tuple[float, float] | None:
    """Return the spread of each variant of a claim, no smaller than their figures' step hides; None without repeats of both."""
    if any(len(seen) < 2 for seen in ours.values()):  # noqa: PLR2004 - one figure has no spread
        return None
    least = _step([value for seen in ours.values() for value in seen]) / ALL_ROUND
    one, other = (max(float(np.std(ours[name], ddof=1)), least) for name in (claim.better, claim.than))
    return one, other


def _half_width(spreads: tuple[float, float], counts: tuple[int, int]) -> float:
    """Return half the interval of the difference after so many tests of each [the reading's unit]."""
    from scipy.special import stdtrit  # here: scipy takes a third of a second that starting does not need

    parts = [spread**2 / count for spread, count in zip(spreads, counts, strict=True)]
    if sum(parts) == 0:
        return 0.0
    freedom = sum(parts) ** 2 / sum(part**2 / (count - 1) for part, count in zip(parts, counts, strict=True) if part > 0)
    looks = min(counts) - 1
    level = LEVEL * min(1.0, LOOKS / looks)
    return float(stdtrit(freedom, 1 - level / 2)) * math.sqrt(sum(parts))


def _step(seen: Sequence[float]) -> float:
    """Step the figures seem to be written to: a power of ten that all are whole multiples of, down to a thousandth."""
    for digits in range(4):
        if all(abs(value - round(value, digits)) < 1e-9 * max(1.0, abs(value)) for value in seen):
            return 10.0**-digits
    return 0.0


def _answer(worth: float | None, difference: float | None, low: float | None, high: float | None) -> str:
    if difference is None or low is None or high is None:
        return "cannot tell yet"
    if low > 0 and difference >= (worth or 0.0):
        return "yes"
    return "no" if high < (worth or 0.0) else "cannot tell yet"


def _more(claim: Claim, figures: Mapping[str, VariantFigures], difference: float, spreads: tuple[float, float]) -> int:
    """Count the tests of each that would give an answer, were difference and spreads what they seem."""
    worth = claim.worth or 0.0
    to_leave = max(difference if difference >= worth else 0.0, worth - difference, 1e-12)
    one, other = figures[claim.better].n, figures[claim.than].n
    for more in range(1, MOST_MORE):
        if _half_width(spreads, (one + more, other + more)) < to_leave:
            return more
    return MOST_MORE
