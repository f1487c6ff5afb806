"""Tests of several variants side by side: in which order they are made, under which codes, and what each was seen to do."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Protocol, TypeVar

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.learning.series import Claim
from rosy_kettle.core.making.tub.tub_test import ASKED_MINUTES, TubState

__all__ = [
    "LETTERS", "TEST_READINGS", "MeanHeight", "SeriesPlace", "TestReading", "check_claim", "judged_tests", "mean_heights",
    "next_block", "seen_figures",
]  # fmt: skip

LETTERS = "ABCDEF"
"""Names of the variants: two to six of them."""
NEAR = 0.2  # a height counts for a minute it was measured within this share of [-]; project default
CODES = range(100, 1000)
Kind = TypeVar("Kind")


class Sampler(Protocol):
    """Where shuffled orders come from: the standard library's random generators are such."""

    def sample(self, population: Sequence[Kind], k: int) -> list[Kind]:
        """Return some of a population in random order."""
        ...


@dataclass(frozen=True, slots=True)
class TestReading:
    """A figure that tests are compared by."""

    __test__ = False

    id: str
    label: str
    unit: str


TEST_READINGS = {
    "foam_height_cm": TestReading("foam_height_cm", "Foam at 5 min", "cm"),
    "foam_1_min_cm": TestReading("foam_1_min_cm", "Foam at 1 min", "cm"),
    "foam_10_min_cm": TestReading("foam_10_min_cm", "Foam at 10 min", "cm"),
    "foam_20_min_cm": TestReading("foam_20_min_cm", "Foam at 20 min", "cm"),
    "gone_after_min": TestReading("gone_after_min", "Gone after", "min"),
}
MINUTE_OF = {"foam_height_cm": 5.0, "foam_1_min_cm": 1.0, "foam_10_min_cm": 10.0, "foam_20_min_cm": 20.0}


@dataclass(frozen=True, slots=True)
class SeriesPlace:
    """One bath of a series: which variant it is, and the code its piece is wrapped under."""

    code: int
    variant: str
    blind: bool = True
    """False where the codes were looked up before the bath was made."""


@dataclass(frozen=True, slots=True)
class MeanHeight:
    """Mean foam of a variant some minutes after the tap was opened."""

    minutes: float
    height_cm: float
    n: int


def check_claim(claim: Claim, letters: Sequence[str]) -> None:
    """Refuse a claim that no series of these variants can answer.

    Parameters
    ----------
    claim : Claim
        What is claimed
    letters : Sequence
        Letters of the variants

    Raises
    ------
    InputError
        If it names no reading of a test, or a variant that is not there, or the same twice.
    """
    if claim.reading not in TEST_READINGS:
        known = ", ".join(TEST_READINGS)
        raise InputError(f'Tests have no reading "{claim.reading[:60]}"; choose {known}.', quantity="reading")
    for each in (claim.better, claim.than):
        if each not in letters:
            raise InputError(f'There is no variant "{each[:20]}"; the claim names two of {", ".join(letters)}.', quantity="claim")
    if claim.better == claim.than:
        raise InputError("A variant is not better than itself; name two.", quantity="claim")


def next_block(letters: Sequence[str], each: int, before: Sequence[SeriesPlace], chance: Sampler) -> tuple[SeriesPlace, ...]:
    """Return the baths that come next, each variant as often as the others, shuffled round by round.

    Parameters
    ----------
    letters : Sequence
        Letters of the variants
    each : int
        Baths of each variant [-]
    before : Sequence
        Places there are already; their codes are not used again
    chance : Sampler
        Where the order and the codes come from

    Returns
    -------
    tuple of SeriesPlace
        In every round each variant once, so that a drift of water or room from day to day falls on all alike
        (randomised blocks: Fisher, The Design of Experiments, 1935)

    Raises
    ------
    InputError
        If there are no codes left for so many.
    """
    used = {place.code for place in before}
    free = [code for code in CODES if code not in used]
    if each * len(letters) > len(free):
        raise InputError(f"A series holds up to {len(CODES)} baths; begin a new one.", quantity="each", value=each)
    codes = chance.sample(free, each * len(letters))
    order = [letter for _ in range(each) for letter in chance.sample(list(letters), len(letters))]
    return tuple(SeriesPlace(code, letter) for code, letter in zip(codes, order, strict=True))


def seen_figures(state: TubState) -> dict[str, float | None]:
    """Return what a test says under the names claims are made in.

    Parameters
    ----------
    state : TubState
        Where the test stands

    Returns
    -------
    dict
        Foam [cm] at each asked minute, measured within a fifth of it, and when the piece was gone [min]; None where not seen
    """
    found: dict[str, float | None] = {name: _height_at(state, minute) for name, minute in MINUTE_OF.items()}
    gone = state.seen.get("gone_after_min")
    found["gone_after_min"] = None if gone is None else float(gone)
    return found


def mean_heights(states: Sequence[TubState]) -> tuple[MeanHeight, ...]:
    """Return the mean foam of some tests at the minutes they were asked at.

    Parameters
    ----------
    states : Sequence
        Tests of one variant

    Returns
    -------
    tuple of MeanHeight
        Minutes nobody measured at are left out
    """
    found = []
    for minute in ASKED_MINUTES:
        seen = [height for state in states if (height := _height_at(state, minute)) is not None]
        if seen:
            found.append(MeanHeight(minute, sum(seen) / len(seen), len(seen)))
    return tuple(found)


def _height_at(state: TubState, minute: float) -> float | None:
    near = [each for each in state.heights if not each.left_out and abs(each.minutes - minute) <= NEAR * minute]
    return min(near, key=lambda each: (abs(each.minutes - minute), -each.seq)).height_cm if near else None


def judged_tests(
    places: Sequence[SeriesPlace], figures: Sequence[Mapping[str, float | None]]
) -> list[dict[str, float | str | None]]:
    """Return tests as the judge of a series takes them.

    Parameters
    ----------
    places : Sequence
        Places whose tests are made
    figures : Sequence
        What each of them was seen to do [the readings' units]
    """
    return [{"variant": place.variant, **seen} for place, seen in zip(places, figures, strict=True)]
