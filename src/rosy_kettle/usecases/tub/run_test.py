"""Tests in the tub: begin one, let things happen in it, see where it stands."""

from __future__ import annotations

from dataclasses import asdict, dataclass, replace
from datetime import UTC, datetime
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.happening import About
from rosy_kettle.core.making.tub.foretold import Foretold, foretell
from rosy_kettle.core.making.tub.tub_test import TUB_EVENTS, TubState, check_tub_event, tub_state_of
from rosy_kettle.core.records import Formula, Use
from rosy_kettle.files import formula_to_file
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.happenings import event_of_row
from rosy_kettle.store.test_series import TestSeriesRow, series_by_id
from rosy_kettle.store.tub_tests import (
    TubTestRow,
    add_tub_test,
    add_tub_test_event,
    find_tub_test,
    list_tub_test_events,
    list_tub_tests,
    tub_test_begun_with,
)
from rosy_kettle.usecases.batches.run_batch import open_bench
from rosy_kettle.usecases.happen import Coming, follow, is_repeat, read_before_kept
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = [
    "NOTHING_FORETOLD",
    "TestBegin",
    "TubTest",
    "begin_test",
    "let_test_happen",
    "look_at_test",
    "look_at_tests",
    "looked_at",
]

NOTHING_FORETOLD = asdict(Foretold((), None, None, None, None, None, None))


@dataclass(frozen=True, slots=True)
class TestBegin:
    """A piece and a bath: of a batch, of a formula, or from elsewhere."""

    __test__ = False

    use: Use
    batch_id: int | None = None
    formula_id: int | None = None
    name: str = ""
    key: str | None = None


@dataclass(frozen=True, slots=True)
class TubTest:
    """A test with everything the tub shows of it."""

    row: TubTestRow
    state: TubState
    blind: bool = False
    """Whether it is a bath of a series whose code is closed: nothing of its formula is told."""


def begin_test(session: Session, ask: TestBegin) -> int:
    """Begin a test and return its number; what the Desk says of it now is kept with it.

    Raises
    ------
    InputError
        If nothing says what the piece is.
    """
    begun = tub_test_begun_with(session, ask.key)
    if begun is not None:
        return begun
    name, made, version, formula_id = ask.name.strip(), None, None, ask.formula_id
    if ask.batch_id is not None:
        bench = open_bench(session, ask.batch_id)
        name, made, version, formula_id = name or bench.row.name, bench.made, bench.row.version, bench.row.formula_id
    elif formula_id is not None:
        row = find_formula(session, formula_id)
        made, version = record_of(row), row.working.number
        name = name or made.name
    if not name:
        raise InputError("What goes into the bath? Choose a formula, or give it a name.", quantity="name")
    return add_tub_test(session, TubTestRow(
        formula_id=formula_id, batch_id=ask.batch_id, version=version, name=name, use=asdict(ask.use),
        foretold=_foretold(session, made, ask.use),
        formula=None if made is None else formula_to_file(made).model_dump(mode="json"), request_key=ask.key,
    )).id  # fmt: skip


def _foretold(session: Session, made: Formula | None, use: Use) -> dict[str, Any]:
    return NOTHING_FORETOLD if made is None else asdict(foretell(replace(made, use=use), studio_tables(session)))


def let_test_happen(session: Session, test_id: int, coming: Coming) -> bool:
    """Let one thing happen in a test, on disk before anyone is told; return whether it is new, for a repeat changes nothing.

    Raises
    ------
    ConflictError
        If the test has moved on, or is closed.
    InputError
        If it cannot be meant.
    """
    row = find_tub_test(session, test_id)
    events = [event_of_row(each) for each in list_tub_test_events(session, [test_id])[test_id]]
    if is_repeat(coming, events):
        return False
    state = tub_state_of(events, _dose_g(row))
    coming = follow(TUB_EVENTS, coming, events)
    check_tub_event(state, coming.kind, coming.data)
    read_before_kept(TUB_EVENTS, state, coming.as_event(), About())
    add_tub_test_event(session, test_id, coming.after, coming.kind, coming.data, coming.id, coming.made_at)
    if coming.kind == "closed":
        row.closed_at = datetime.now(UTC)
    return True


def look_at_test(session: Session, test_id: int) -> TubTest:
    """Return one test as it stands.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    return looked_at(session, [find_tub_test(session, test_id)])[0]


def look_at_tests(session: Session, *, query: str, formula_id: int | None, before: int | None, limit: int) -> list[TubTest]:
    """Return tests as they stand, the newest first."""
    return looked_at(session, list_tub_tests(session, query=query, formula_id=formula_id, before=before, limit=limit))


def looked_at(session: Session, rows: list[TubTestRow]) -> list[TubTest]:
    """Return some tests with the state their events add up to; a test whose code is closed says nothing of its formula."""
    happened = list_tub_test_events(session, [row.id for row in rows])
    series = series_by_id(session, {row.series_id for row in rows if row.series_id is not None})
    return [
        TubTest(row, tub_state_of([event_of_row(each) for each in happened[row.id]], _dose_g(row)), _blind(row, series))
        for row in rows
    ]


def _blind(row: TubTestRow, series: dict[int, TestSeriesRow]) -> bool:
    if row.series_id is None:
        return False
    of = series.get(row.series_id)
    return of is None or (row.series_place or 0) >= of.opened  # of a series that is set aside the codes stay closed


def _dose_g(row: TubTestRow) -> float:
    return float(row.use.get("dose_g") or 0.0)
