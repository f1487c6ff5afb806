"""Trays on the rack: set them out, let things happen to them, see where they stand."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.happening import About, Event
from rosy_kettle.core.making.rack.air import Air
from rosy_kettle.core.making.rack.judge_tray import TrayKnown, TrayReading, judge_tray, know_tray
from rosy_kettle.core.making.rack.tray import TRAY_EVENTS, TrayState, check_tray_event, tray_state_of
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.files import FormulaFile, formula_from_file, formula_to_file
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.happenings import event_of_row
from rosy_kettle.store.rack import (
    TrayEventRow,
    TrayRow,
    add_tray,
    add_tray_event,
    air_since,
    find_tray,
    last_seqs,
    list_places,
    list_tray_events,
    list_trays,
    tray_set_out_with,
    trays_by_id,
    trays_of_batch,
)
from rosy_kettle.usecases.batches.run_batch import open_bench
from rosy_kettle.usecases.happen import Coming, follow, is_repeat, read_before_kept
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["SetOut", "Tray", "let_tray_happen", "look_at_tray", "look_at_trays", "look_at_trays_of", "set_out", "weighed_trays"]


@dataclass(frozen=True, slots=True)
class SetOut:
    """Pieces to set out: of a batch, of a formula, or from elsewhere."""

    pieces: int
    batch_id: int | None = None
    name: str = ""
    formula_id: int | None = None
    place: str = "rack"
    trays: int = 1
    at: datetime | None = None
    key: str | None = None


@dataclass(frozen=True, slots=True)
class Tray:
    """A tray with everything the rack shows of it."""

    row: TrayRow
    state: TrayState
    reading: TrayReading
    events: tuple[Event, ...]


def set_out(session: Session, ask: SetOut) -> int:
    """Set pieces out and return the number of their tray; the same key again gives the tray set out with it.

    Raises
    ------
    InputError
        If there is no such place, it would be before now, or nothing says what they are.
    """
    begun = tray_set_out_with(session, ask.key)
    if begun is not None:
        return begun
    at = ask.at or datetime.now(UTC)
    if at > datetime.now(UTC):
        raise InputError("They cannot have been set out later than now.", quantity="at")
    if ask.place not in {place.name for place in list_places(session)}:
        raise InputError(f'There is no place "{ask.place[:60]}" to dry in; name it under Rack first.', quantity="place")
    name, formula = ask.name.strip(), None
    if ask.batch_id is not None:
        bench = open_bench(session, ask.batch_id)
        name, formula = name or bench.row.name, formula_to_file(bench.made)
    elif ask.formula_id is not None:
        made_of = record_of(find_formula(session, ask.formula_id))
        name, formula = name or made_of.name, formula_to_file(made_of)
    if not name:
        raise InputError("What are they? Give them a name.", quantity="name")
    return add_tray(session, TrayRow(
        batch_id=ask.batch_id, name=name, formula=None if formula is None else formula.model_dump(mode="json"),
        place=ask.place, pieces=ask.pieces, trays=ask.trays, set_out_at=at, request_key=ask.key,
    )).id  # fmt: skip


def let_tray_happen(session: Session, tray_id: int, coming: Coming) -> bool:
    """Let one thing happen to a tray, on disk before anyone is told; return whether it is new, for a repeat changes nothing.

    Raises
    ------
    ConflictError
        If the tray has moved on, or its pieces are wrapped.
    InputError
        If it cannot be meant.
    """
    row = find_tray(session, tray_id)
    events = [event_of_row(each) for each in list_tray_events(session, [tray_id])[tray_id]]
    if is_repeat(coming, events):
        return False
    state = tray_state_of(row.set_out_at.isoformat(), row.place, events)
    coming = follow(TRAY_EVENTS, coming, events)
    kind, data = coming.kind, coming.data
    check_tray_event(state, kind, data)
    if kind == "put" and data["place"] not in {place.name for place in list_places(session)}:
        raise InputError(f'There is no place "{data["place"][:60]}" to dry in.', quantity="place")
    if kind == "weighed" and int(data["pieces"]) > row.pieces:
        raise InputError(f"There are only {row.pieces} pieces on this tray.", quantity="pieces", value=data["pieces"])
    if kind == "weighed" and "at" in data and datetime.fromisoformat(data["at"]) < row.set_out_at:
        raise InputError("It cannot have been weighed before it was set out.", quantity="at", value=data["at"])
    read_before_kept(TRAY_EVENTS, state, coming.as_event(), About())
    event = add_tray_event(session, tray_id, coming.after, kind, data, coming.id, coming.made_at)
    if kind in {"wrapped", "opened"}:
        row.wrapped_at = event.at if kind == "wrapped" else None
    elif kind == "put":
        row.place = data["place"]
    return True


def look_at_tray(session: Session, tray_id: int) -> Tray:
    """Return one tray as it stands.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    return _looked_at(session, [find_tray(session, tray_id)])[0]


def look_at_trays(
    session: Session, *, wrapped: bool, query: str, before: int | None, limit: int, wrapped_after: datetime | None = None
) -> list[Tray]:  # fmt: skip
    """Return trays as they stand, the newest first."""
    rows = list_trays(session, wrapped=wrapped, query=query, before=before, limit=limit, wrapped_after=wrapped_after)
    return _looked_at(session, rows)


def look_at_trays_of(session: Session, batch_id: int) -> list[Tray]:
    """Return the trays of a batch as they stand."""
    return _looked_at(session, trays_of_batch(session, batch_id))


def weighed_trays(session: Session, tray_ids: Sequence[int]) -> Iterator[tuple[TrayRow, TrayState, list[Air]]]:
    """Yield some trays with the state their events add up to, and the air they stood in."""
    happened = list_tray_events(session, list(tray_ids))
    for row in trays_by_id(session, tray_ids):
        yield row, _state(row, happened[row.id]), _airs(session, row)


def _looked_at(session: Session, rows: list[TrayRow]) -> list[Tray]:
    """Look at trays; one that is wrapped stays as it was until something happens to it."""
    tables = studio_tables(session)
    own = (*(repr(item) for item in tables.ingredients.values() if item.based_on), repr(sorted(tables.learnt.items())))
    seqs = last_seqs(session, [row.id for row in rows])
    keys = {row.id: (row.id, row.request_key, row.set_out_at, row.wrapped_at, seqs.get(row.id, 0), own) for row in rows}
    own_rows = {row.id: row for row in rows}  # a kept look's row belongs to a session that is over
    kept = {id_: replace(_wrapped[key], row=own_rows[id_]) for id_, key in keys.items() if key in _wrapped}
    happened = list_tray_events(session, [row.id for row in rows if row.id not in kept])
    now = datetime.now(UTC).isoformat()
    found = []
    for row in rows:
        tray = kept.get(row.id) or _looked_at_anew(session, row, happened[row.id], tables, now, own)
        if row.wrapped_at is not None:
            _wrapped[keys[row.id]] = tray
        found.append(tray)
    while len(_wrapped) > MOST_KEPT:
        _wrapped.popitem(last=False)
    return found


def _looked_at_anew(
    session: Session, row: TrayRow, happened: list[TrayEventRow], tables: Tables, now: str, own: tuple[str, ...]
) -> Tray:
    state = _state(row, happened)
    known = _known(row, state, tables, _airs(session, row), own)
    reading = judge_tray(state, row.set_out_at.isoformat(), now, known, tables)
    return Tray(row, state, reading, tuple(event_of_row(each) for each in happened))


def _airs(session: Session, row: TrayRow) -> list[Air]:
    logged = air_since(session, row.place, row.set_out_at, row.wrapped_at)
    return [Air(each.at.isoformat(), each.temperature_c, each.humidity_pct) for each in logged]


def _state(row: TrayRow, events: list[TrayEventRow]) -> TrayState:
    return tray_state_of(row.set_out_at.isoformat(), row.place, [event_of_row(each) for each in events])


MOST_KEPT = 500
_kept: OrderedDict[tuple[Any, ...], TrayKnown] = OrderedDict()
_wrapped: OrderedDict[tuple[Any, ...], Tray] = OrderedDict()


def _known(row: TrayRow, state: TrayState, tables: Tables, airs: list[Air], own: tuple[str, ...]) -> TrayKnown:
    """Fit and readings of a tray, worked out anew only when it, its air or an ingredient of the studio's own has changed."""
    key = (row.id, row.set_out_at, state.seq, len(airs), airs[-1].at if airs else "", own, row.request_key)
    known = _kept.pop(key, None) or know_tray(state, _formula(row, tables), tables, airs)
    _kept[key] = known
    while len(_kept) > MOST_KEPT:
        _kept.popitem(last=False)
    return known


def _formula(row: TrayRow, tables: Tables) -> Formula | None:
    """Return the formula as made; None for pieces from elsewhere, and where it or an ingredient of it is not known any more."""
    if row.formula is None:
        return None
    try:
        file = FormulaFile.model_validate(row.formula)
    except ValueError:
        return None
    lost = {line.ingredient for portion in file.portions for line in portion.lines} - set(tables.ingredients) - {None}
    return None if lost else formula_from_file(file)
