"""The journal kept up: what has happened since it was last written becomes entries, in the order of time.

It may fall behind and loses nothing: it is made of the records themselves, each source from where the journal left it.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import partial
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.core.making.bench import BATCH_EVENTS, state_of, step_from
from rosy_kettle.core.making.bench.by_hand import middle_saturation
from rosy_kettle.core.making.happening import About
from rosy_kettle.core.making.rack.tray import TRAY_EVENTS
from rosy_kettle.core.making.tub.tub_test import TUB_EVENTS
from rosy_kettle.core.records import Tables
from rosy_kettle.store.batches import BatchEventRow, BatchRow, list_events
from rosy_kettle.store.formulas import FormulaRow, VersionRow
from rosy_kettle.store.happenings import event_of_row, said_by
from rosy_kettle.store.journal import Entry, add_entries, last_ids, tags_of
from rosy_kettle.store.rack import TrayEventRow, TrayRow
from rosy_kettle.store.tub_tests import TubTestEventRow, TubTestRow
from rosy_kettle.usecases.batches.tell_batch import tell_events
from rosy_kettle.usecases.each_alone import each_alone

__all__ = ["AT_ONCE", "FILTERS", "Told", "entries_waiting", "keep_journal", "keep_told", "tell_waiting"]

OF_ROWS = {"version": "formula", "plan": "plan", "tray": "tray", "test": "tub"}
"""Kind of a journal entry by what it is made of, where that is no event: those say it themselves."""
FILTERS = tuple(dict.fromkeys((
    *OF_ROWS.values(),
    *(kind.journal for family in (BATCH_EVENTS, TRAY_EVENTS, TUB_EVENTS) for kind in family.kinds.values() if kind.journal),
)))  # fmt: skip
"""Kinds a reader can ask for."""
MOMENTS = ("at", "frozen_at", "set_out_at", "begun_at", "created_at")
OF_ITSELF = {"batch_id": "batch", "tray_id": "tray", "test_id": "tub_test"}
"""Number an entry leads to, by the source whose rows are what it leads to."""
EPOCH = datetime(1970, 1, 1, tzinfo=UTC)
AT_ONCE = 500
DRAWN_AS = {"corrected": "mass_g", "foam": "height_cm"}
"""The figure that is drawn of an event, by its kind."""
"""Rows of a source that are told in one go."""


@dataclass(frozen=True, slots=True)
class _Source:
    peek: Callable[[Session, int, int], list[tuple[int, datetime]]]
    """Marks and moments of the rows after a mark; a mark rises from row to row, and the journal remembers the last one."""
    rows: Callable[[Session, int, int], list[Any]]
    """The rows after one mark, up to another."""
    tell: Callable[[Session, list[Any], Tables], list[Entry]]


def entries_waiting(session: Session) -> bool:
    """Whether something has happened that the journal does not tell yet."""
    done = last_ids(session)
    return any(source.peek(session, done.get(name, 0), 1) for name, source in SOURCES.items())


@dataclass(frozen=True, slots=True)
class Told:
    """What is to be written: entries, and how far they come from where the journal was."""

    entries: list[Entry]
    before: dict[str, int]
    marks: dict[str, int]
    passed: int
    """Rows that were told, some of which are not worth an entry."""


def tell_waiting(session: Session, tables: Tables, at_once: int = AT_ONCE) -> Told:
    """Tell some of what has happened since, without writing it: telling takes longer than writing."""
    before = last_ids(session)
    done = dict(before)
    waiting = {name: source.peek(session, done.get(name, 0), at_once) for name, source in SOURCES.items()}
    # A source that is cut off may go on before the others end: what is later than its latest row waits for the next time.
    horizon = min((max(at for _, at in marks) for marks in waiting.values() if len(marks) == at_once), default=None)
    passed = 0
    entries: list[Entry] = []
    for name, marks in waiting.items():
        taken = _until(marks, horizon)
        if taken:
            source = SOURCES[name]
            rows = source.rows(session, done.get(name, 0), taken[-1])
            entries += each_alone(rows, partial(_tell, session, source, tables), partial(_not_understood, name))
            done[name] = taken[-1]
            passed += len(taken)
    entries.sort(key=lambda entry: (entry["at"], entry["source_id"]))
    return Told(entries, before, done, passed)


def _tell(session: Session, source: _Source, tables: Tables, rows: Sequence[Any]) -> list[Entry]:
    return source.tell(session, list(rows), tables)


def _not_understood(name: str, row: Any, _error: Exception) -> list[Entry]:
    """Return the entry of a row that this version cannot tell: that it is there, and of what it is."""
    at = next(getattr(row, each) for each in MOMENTS if getattr(row, each, None) is not None)
    of: dict[str, Any] = {each: getattr(row, each, None) for each in ("formula_id", "batch_id", "tray_id", "test_id")}
    of |= {key: row.id for key, source in OF_ITSELF.items() if source == name}
    said = "Something this version does not understand; it is kept as it is, and 'rosy-kettle check' says how to go on."
    return [_entry(name, row, at, OF_ROWS.get(name, "note"), getattr(row, "name", name.replace("_", " ")), said, **of)]


def keep_told(session: Session, told: Told) -> None:
    """Write what was told; nothing where somebody else has told it meanwhile."""
    if told.passed and last_ids(session) == told.before:
        add_entries(session, told.entries, told.marks)


def keep_journal(session: Session, tables: Tables, at_once: int = AT_ONCE) -> int:
    """Tell and write some of what has happened since; return how many rows were passed."""
    told = tell_waiting(session, tables, at_once)
    keep_told(session, told)
    return told.passed


def _until(marks: list[tuple[int, datetime]], horizon: datetime | None) -> list[int]:
    """Leading marks up to a moment: what follows a later one waits with it, so that none is passed over."""
    found = []
    for mark, at in marks:
        if horizon is not None and at > horizon:
            break
        found.append(mark)
    return found


def _numbered(row: Any, at: Any, tell: Callable[[Session, list[Any], Tables], list[Entry]]) -> _Source:
    """Return a source whose rows are told in the order of their numbers."""

    def peek(session: Session, last: int, limit: int) -> list[tuple[int, datetime]]:
        asked = select(row.id, at).where(row.id > last).order_by(row.id).limit(limit)
        return [(number, moment) for number, moment in session.execute(asked)]

    def rows(session: Session, after: int, last: int) -> list[Any]:
        table = row.__table__  # plain rows: a million weigh-ins are told, none is changed
        return list(session.execute(select(table).where(table.c.id > after, table.c.id <= last).order_by(table.c.id)))

    return _Source(peek, rows, tell)


def _entry(
    source: str, row: Any, at: datetime, kind: str, title: str, text: str, *, formula_id: int | None = None,
    batch_id: int | None = None, tray_id: int | None = None, version: int | None = None, gone_wrong: bool = False,
    drawn: float | None = None, test_id: int | None = None,
) -> Entry:  # fmt: skip
    month = 100 * at.year + at.month
    tags = tags_of(kind, month, formula_id, batch_id, gone_wrong=gone_wrong)
    return {
        "source": source, "source_id": row.id, "at": at, "month": month, "kind": kind, "formula_id": formula_id,
        "batch_id": batch_id, "tray_id": tray_id, "test_id": test_id, "version": version, "gone_wrong": gone_wrong,
        "drawn": drawn, "title": title, "text": text, "tags": tags,
    }  # fmt: skip


def _tell_versions(session: Session, rows: list[Any], _tables: Tables) -> list[Entry]:
    names = _by_id(session, {row.formula_id for row in rows}, FormulaRow.id, FormulaRow.name)
    return [
        _entry(
            "version", row, row.created_at, OF_ROWS["version"], names[row.formula_id].name,
            f"Version {row.number} begun." if row.number > 1 else "Written down.", formula_id=row.formula_id, version=row.number,
        )
        for row in rows
    ]  # fmt: skip


def _peek_kept(session: Session, last: int, limit: int) -> list[tuple[int, datetime]]:
    asked = select(VersionRow.frozen_at).where(VersionRow.frozen_at > _moment(last)).order_by(VersionRow.frozen_at).limit(limit)
    return [((at - EPOCH) // timedelta(microseconds=1), at) for at in session.scalars(asked) if at is not None]


def _rows_kept(session: Session, after: int, last: int) -> list[Any]:
    between = (VersionRow.frozen_at > _moment(after), VersionRow.frozen_at <= _moment(last))
    return list(session.execute(select(VersionRow.__table__).where(*between).order_by(VersionRow.frozen_at)))


def _moment(mark: int) -> datetime:
    return EPOCH + timedelta(microseconds=mark)


def _tell_kept(session: Session, rows: list[Any], _tables: Tables) -> list[Entry]:
    names = _by_id(session, {row.formula_id for row in rows}, FormulaRow.id, FormulaRow.name)
    return [
        _entry(
            "kept", row, row.frozen_at or row.created_at, OF_ROWS["version"], names[row.formula_id].name,
            f"Version {row.number} kept{': ' + row.note if row.note else ''}.", formula_id=row.formula_id, version=row.number,
        )
        for row in rows
    ]  # fmt: skip


def _tell_batches(_session: Session, rows: list[Any], _tables: Tables) -> list[Entry]:
    return [
        _entry(
            "batch", row, row.created_at, OF_ROWS["plan"], row.name,
            f"Batch {row.id} planned and begun on {row.created_at:%d %b %Y}: {_pieces(row)} pieces, {row.batch_g:.0f} g, "
            f"of version {row.version}.",
            formula_id=row.formula_id, batch_id=row.id, version=row.version,
        )
        for row in rows
    ]  # fmt: skip


def _pieces(row: Any) -> int:
    return sum(int(item["pieces"]) for item in row.plan["pieces"])


def _tell_batch_events(session: Session, rows: list[Any], tables: Tables) -> list[Entry]:
    batches = _by_id(session, {row.batch_id for row in rows}, *BatchRow.__table__.c)
    told = {batch_id: _told(session, batch, tables) for batch_id, batch in batches.items()}
    found = []
    for row in rows:
        batch, (sentences, within) = batches[row.batch_id], told[row.batch_id]
        off, filed = within.get(row.seq) is False, BATCH_EVENTS.journal_kind(row.kind)
        if filed is not None and (off or row.kind != "weighed"):  # a weighing within its tolerance goes without saying
            found.append(_entry(
                "batch_event", row, row.at, filed, batch.name, sentences[row.seq], formula_id=batch.formula_id,
                batch_id=batch.id, version=batch.version, gone_wrong=off or _went_wrong(row), drawn=_drawn(row, tables),
            ))  # fmt: skip
    return found


def _went_wrong(row: Any) -> bool:
    """Whether a line was left out, too much poured, or pieces spoiled: what one looks for who asks what went wrong."""
    return row.kind in {"rescued", "skipped"} or (row.kind == "outcome" and int(said_by(row).get("pieces_spoiled") or 0) > 0)


def _drawn(row: Any, tables: Tables) -> float | None:
    """Return the figure an entry's drawing shows; none where it is not understood by this version."""
    said = said_by(row)
    try:
        if row.kind == "felt":
            return middle_saturation(said["state"], tables.parameters.dough)
        if row.kind in DRAWN_AS:
            return float(said[DRAWN_AS[row.kind]])
        good, spoiled = (int(said.get(f"pieces_{kind}") or 0) for kind in ("good", "spoiled"))
    except (LookupError, TypeError, ValueError):
        return None
    return good / (good + spoiled) if row.kind == "outcome" and good + spoiled else None


def _told(session: Session, batch: Any, tables: Tables) -> tuple[dict[int, str], dict[int, bool]]:
    """Sentences of a batch by the number of the event, and whether each weighing lay within its tolerance."""
    events = [event_of_row(row) for row in list_events(session, batch.id)]
    state = state_of([step_from(step) for step in batch.plan["steps"]], events)
    within = {weighing.seq: weighing.within for weighing in state.history}
    return dict(zip((event.seq for event in events), tell_events(state, events, tables), strict=True)), within


def _tell_trays(session: Session, rows: list[Any], _tables: Tables) -> list[Entry]:
    batches = _by_id(session, {row.batch_id for row in rows if row.batch_id is not None}, BatchRow.id, BatchRow.formula_id)
    return [
        _entry(
            "tray", row, row.set_out_at, OF_ROWS["tray"], row.name, f"Set {row.pieces} pieces out to dry in: {row.place}.",
            **_of_tray(row, batches),
        )
        for row in rows
    ]  # fmt: skip


def _tell_tray_events(session: Session, rows: list[Any], _tables: Tables) -> list[Entry]:
    trays = _by_id(session, {row.tray_id for row in rows}, TrayRow.id, TrayRow.name, TrayRow.batch_id)
    numbers = {tray.batch_id for tray in trays.values() if tray.batch_id is not None}
    batches = _by_id(session, numbers, BatchRow.id, BatchRow.formula_id)
    return [
        _entry(
            "tray_event", row, row.at, filed, trays[row.tray_id].name, TRAY_EVENTS.told(event_of_row(row), About()),
            **_of_tray(trays[row.tray_id], batches),
        )
        for row in rows if (filed := TRAY_EVENTS.journal_kind(row.kind)) is not None
    ]  # fmt: skip


def _of_tray(row: Any, batches: dict[int, Any]) -> dict[str, Any]:
    batch = batches.get(row.batch_id or 0)
    return {"tray_id": row.id, "batch_id": row.batch_id, "formula_id": None if batch is None else batch.formula_id}


def _tell_tests(_session: Session, rows: list[Any], _tables: Tables) -> list[Entry]:
    return [
        _entry(
            "tub_test", row, row.begun_at, OF_ROWS["test"], row.name,
            f"Into the tub: {row.use['dose_g']:g} g in {row.use['tub_l']:g} L.",
            **_of_test(row),
        )
        for row in rows
    ]  # fmt: skip


def _tell_test_events(session: Session, rows: list[Any], tables: Tables) -> list[Entry]:
    tests = _by_id(session, {row.test_id for row in rows}, *TubTestRow.__table__.c)
    found = []
    for row in rows:
        test, filed = tests[row.test_id], TUB_EVENTS.journal_kind(row.kind)
        if filed is not None:
            found.append(_entry(
                "tub_test_event", row, row.at, filed, test.name, TUB_EVENTS.told(event_of_row(row), About()), **_of_test(test),
                drawn=_drawn(row, tables),
            ))  # fmt: skip
    return found


def _of_test(test: Any) -> dict[str, Any]:
    """Where a test leads to; one of a series names no formula here, so that its code stays blind."""
    if test.series_id is not None:
        return {"test_id": test.id}
    return {"test_id": test.id, "formula_id": test.formula_id, "batch_id": test.batch_id, "version": test.version}


def _by_id(session: Session, ids: set[Any], *columns: Any) -> dict[int, Any]:
    """Rows by their number, which is the first of the columns."""
    return {each.id: each for each in session.execute(select(*columns).where(columns[0].in_(ids)))} if ids else {}


SOURCES = {
    "version": _numbered(VersionRow, VersionRow.created_at, _tell_versions),
    "kept": _Source(_peek_kept, _rows_kept, _tell_kept),
    "batch": _numbered(BatchRow, BatchRow.created_at, _tell_batches),
    "batch_event": _numbered(BatchEventRow, BatchEventRow.at, _tell_batch_events),
    "tub_test": _numbered(TubTestRow, TubTestRow.begun_at, _tell_tests),
    "tub_test_event": _numbered(TubTestEventRow, TubTestEventRow.at, _tell_test_events),
    "tray": _numbered(TrayRow, TrayRow.set_out_at, _tell_trays),
    "tray_event": _numbered(TrayEventRow, TrayEventRow.at, _tell_tray_events),
}
"""What the journal is made of, each from where it left off."""
