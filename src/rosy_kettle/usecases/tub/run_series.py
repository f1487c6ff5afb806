"""Series of tests: begun, made bath by bath under blind codes, opened, judged."""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.change.why.compare import ComparedLine, compare
from rosy_kettle.core.errors import ConflictError, InputError, WorkbenchError
from rosy_kettle.core.learning.blind_series import (
    LETTERS,
    TEST_READINGS,
    MeanHeight,
    SeriesPlace,
    check_claim,
    judged_tests,
    mean_heights,
    next_block,
    seen_figures,
)
from rosy_kettle.core.learning.series import Claim, SeriesJudgement, VariantFigures, judge_series, variant_figures
from rosy_kettle.core.making.tub.foretold import Foretold, foretell
from rosy_kettle.core.making.tub.tub_test import TubState
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables, Use
from rosy_kettle.files import FormulaFile, formula_from_file, formula_to_file
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.test_series import (
    TestSeriesRow,
    add_test_series,
    find_test_series,
    list_test_series,
    series_begun_with,
)
from rosy_kettle.store.tub_tests import TubTestRow, add_tub_test, list_tests_of_series
from rosy_kettle.usecases.each_alone import each_alone, passed_over
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.tub.run_test import TubTest, looked_at

__all__ = [
    "SeriesBegin", "SeriesTest", "TestSeries", "VariantSheet", "begin_next_bath", "begin_series", "look_at_all_series",
    "look_at_series", "more_baths", "open_codes", "slip_of",
]  # fmt: skip

LEAST, MOST = 2, len(LETTERS)


@dataclass(frozen=True, slots=True)
class SeriesBegin:
    """What is asked for: formulas to be held against each other in one bath, and the claim."""

    name: str
    formula_ids: Sequence[int]
    claim: Claim
    each: int
    use: Use
    key: str | None = None


@dataclass(frozen=True, slots=True)
class SeriesTest:
    """One bath of a series."""

    code: int
    place: int
    test_id: int | None
    """None while it is not begun."""
    variant: str | None
    """None while its code is closed."""
    blind: bool
    closed: bool
    figures: dict[str, float | None]


@dataclass(frozen=True, slots=True)
class VariantSheet:
    """One variant on the sheet all are compared on."""

    letter: str
    formula_id: int
    name: str
    version: int
    foretold: Foretold
    cost_bath: str | None
    currency: str
    figures: dict[str, VariantFigures]
    """By reading of a test; only of baths whose codes are open."""
    heights: tuple[MeanHeight, ...]
    differs: tuple[ComparedLine, ...]
    """Lines that are otherwise than in the first variant."""


@dataclass(frozen=True, slots=True)
class TestSeries:
    """A series as it stands."""

    __test__ = False

    row: TestSeriesRow
    claim: Claim
    tests: tuple[SeriesTest, ...]
    variants: tuple[VariantSheet, ...]
    judgement: SeriesJudgement | None
    """None while no code is open."""
    made: int
    """Baths that are closed."""


def begin_series(session: Session, ask: SeriesBegin) -> int:
    """Begin a series and return its number.

    Raises
    ------
    InputError
        If there are fewer than two variants, more than six, one of them twice, or the claim does not fit them.
    """
    begun = series_begun_with(session, ask.key)
    if begun is not None:
        return begun
    if not LEAST <= len(ask.formula_ids) <= MOST:
        raise InputError(f"A series holds {LEAST} to {MOST} variants against each other.", quantity="formula_ids")
    if len(set(ask.formula_ids)) < len(ask.formula_ids):
        raise InputError("A variant stands there twice; repeats are asked for by their number instead.", quantity="formula_ids")
    letters = LETTERS[: len(ask.formula_ids)]
    check_claim(ask.claim, letters)
    if not ask.name.strip():
        raise InputError("The series has no name; give it one, so that it is found again.", quantity="name")
    places = next_block(letters, ask.each, (), random.SystemRandom())
    return add_test_series(session, TestSeriesRow(
        name=ask.name.strip(), claim=asdict(ask.claim), use=asdict(ask.use), places=[asdict(place) for place in places],
        variants=[_variant(session, letter, id_) for letter, id_ in zip(letters, ask.formula_ids, strict=True)], opened=0,
        request_key=ask.key,
    )).id  # fmt: skip


def _variant(session: Session, letter: str, formula_id: int) -> dict[str, Any]:
    row = find_formula(session, formula_id)
    file = formula_to_file(record_of(row)).model_dump(mode="json")
    return {"letter": letter, "formula_id": formula_id, "version": row.working.number, "name": row.name, "formula": file}


def begin_next_bath(session: Session, series_id: int) -> int:
    """Begin the next bath of a series and return the number of its test.

    Raises
    ------
    ConflictError
        If a bath of it is still open, or all are made.
    """
    row = find_test_series(session, series_id)
    tests = list_tests_of_series(session, series_id)
    unfinished = next((test for test in tests if test.closed_at is None), None)
    if unfinished is not None:
        raise ConflictError(f"{unfinished.name} is still open; close it first.", noun="series", reason="open")
    if len(tests) >= len(row.places):
        raise ConflictError("All baths of this series are made; ask for more of each.", noun="series", reason="made")
    place = SeriesPlace(**row.places[len(tests)])
    variant = next(each for each in row.variants if each["letter"] == place.variant)
    use = Use(**row.use)
    made = replace(_formula(variant), use=use)
    return add_tub_test(session, TubTestRow(
        formula_id=variant["formula_id"], version=variant["version"], name=f"{row.name}, code {place.code}", use=row.use,
        foretold=asdict(foretell(made, studio_tables(session))), formula=variant["formula"], series_id=series_id,
        series_place=len(tests),
    )).id  # fmt: skip


def _formula(variant: dict[str, Any]) -> Formula:
    return formula_from_file(FormulaFile.model_validate(variant["formula"]))


def open_codes(session: Session, series_id: int) -> None:
    """Open the codes of all baths that are made.

    Raises
    ------
    ConflictError
        If none is made since the codes were opened last, or one is still open.
    """
    row = find_test_series(session, series_id)
    tests = list_tests_of_series(session, series_id)
    if any(test.closed_at is None for test in tests):
        raise ConflictError("A bath of this series is still open; close it before the codes are.", noun="series", reason="open")
    if len(tests) <= row.opened:
        raise ConflictError("No bath has been made since the codes were opened.", noun="series", reason="opened")
    row.opened = len(tests)


def more_baths(session: Session, series_id: int, each: int) -> None:
    """Add further baths of each variant at the end, under codes of their own."""
    row = find_test_series(session, series_id)
    places = [SeriesPlace(**place) for place in row.places]
    letters = "".join(variant["letter"] for variant in row.variants)
    row.places = [*row.places, *(asdict(place) for place in next_block(letters, each, places, random.SystemRandom()))]


def slip_of(session: Session, series_id: int) -> list[SeriesPlace]:
    """Return the codes for the hands that wrap the pieces; baths that are looked up while tests run are blind no longer."""
    row = find_test_series(session, series_id)
    if len(list_tests_of_series(session, series_id)) > row.opened:
        row.places = [{**place, "blind": place["blind"] and index < row.opened} for index, place in enumerate(row.places)]
    return [SeriesPlace(**place) for place in row.places]


def look_at_all_series(session: Session, *, query: str, before: int | None, limit: int) -> list[TestSeries]:
    """Return series as they stand, the newest first."""
    tables = studio_tables(session)
    rows = list_test_series(session, query=query, before=before, limit=limit)
    return each_alone(rows, lambda some: [_looked_at(session, row, tables) for row in some], passed_over)


def look_at_series(session: Session, series_id: int) -> TestSeries:
    """Return one series as it stands.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    return _looked_at(session, find_test_series(session, series_id), studio_tables(session))


def _looked_at(session: Session, row: TestSeriesRow, tables: Tables) -> TestSeries:
    claim = Claim(**row.claim)
    begun = {test.row.series_place: test for test in looked_at(session, list_tests_of_series(session, row.id))}
    tests = tuple(
        _test(index, SeriesPlace(**place), begun.get(index), row.opened) for index, place in enumerate(row.places)
    )  # fmt: skip
    opened = [(each, begun[each.place].state) for each in tests if each.variant is not None]
    return TestSeries(
        row, claim, tests, tuple(_sheets(row, opened, tables)), _judged(row, claim, opened), sum(each.closed for each in tests)
    )


def _test(index: int, place: SeriesPlace, test: TubTest | None, opened: int) -> SeriesTest:
    return SeriesTest(
        place.code, index, None if test is None else test.row.id, place.variant if index < opened else None, place.blind,
        test is not None and test.row.closed_at is not None,
        dict.fromkeys(TEST_READINGS) if test is None else seen_figures(test.state),
    )  # fmt: skip


def _judged(row: TestSeriesRow, claim: Claim, opened: Sequence[tuple[SeriesTest, TubState]]) -> SeriesJudgement | None:
    """Judge the claim by the baths that are open; None where none of them has the reading."""
    places = [SeriesPlace(**row.places[test.place]) for test, _state in opened]
    figures = [test.figures for test, _state in opened]
    if not any(seen[claim.reading] is not None for seen in figures):
        return None
    return judge_series(claim, judged_tests(places, figures))


def _sheets(row: TestSeriesRow, opened: Sequence[tuple[SeriesTest, TubState]], tables: Tables) -> list[VariantSheet]:
    first = _formula(row.variants[0])
    return [_sheet(variant, first, Use(**row.use), opened, tables) for variant in row.variants]


@dataclass(frozen=True, slots=True)
class _Told:
    """What can be said of a variant today; nothing of one whose ingredients have gone since."""

    foretold: Foretold
    cost_bath: str | None = None
    currency: str = ""
    differs: tuple[ComparedLine, ...] = ()


def _told(first: Formula, made: Formula, tables: Tables) -> _Told:
    try:
        cost = evaluate(made, tables).cost
        differs = () if made.lines == first.lines else compare(first, made, tables).lines
        return _Told(foretell(made, tables), cost.bath, cost.currency, tuple(line for line in differs if line.changed))
    except (WorkbenchError, KeyError):  # an ingredient of it is gone: its baths are still told
        return _Told(Foretold((), None, None, None, None, None, None))


def _sheet(
    variant: dict[str, Any], first: Formula, use: Use, opened: Sequence[tuple[SeriesTest, TubState]], tables: Tables
) -> VariantSheet:
    made = replace(_formula(variant), use=use)
    told = _told(first, made, tables)
    own = [(test, state) for test, state in opened if test.variant == variant["letter"]]
    seen = {
        id_: [value for test, _state in own if (value := test.figures[id_]) is not None] for id_ in TEST_READINGS
    }  # fmt: skip
    return VariantSheet(
        variant["letter"], variant["formula_id"], variant["name"], variant["version"], told.foretold, told.cost_bath,
        told.currency, {id_: variant_figures(values) for id_, values in seen.items() if values},
        mean_heights([state for _test, state in own]), told.differs,
    )  # fmt: skip
