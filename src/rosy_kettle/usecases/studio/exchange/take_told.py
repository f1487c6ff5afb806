"""Batches, trays, tests and labels out of a studio zip, with everything that happened to them."""

from __future__ import annotations

from typing import Any

from sqlalchemy import Table, select

from rosy_kettle.core.errors import InputError
from rosy_kettle.store.plain_rows import plain_row
from rosy_kettle.usecases.studio.exchange.nouns import Told, events_table, table_of, unpointed
from rosy_kettle.usecases.studio.exchange.read_back import read_back
from rosy_kettle.usecases.studio.exchange.take_in import FROM_THERE, Intake
from rosy_kettle.usecases.studio.exchange.told_files import NAMED

__all__ = ["take_told"]

ENDS = ("closed_at", "wrapped_at", "place", "opened", "places")
"""Columns of a row that move with what happens to it."""


def take_told(intake: Intake, noun: Told) -> None:
    """Take in every row of a noun.

    Raises
    ------
    InputError
        If a file is not what stands in its place.
    """
    table = table_of(noun.row)
    known = intake.known(table, noun.known_by)
    for name in intake.source.names(noun.folder):
        bare = name.removeprefix(f"{noun.folder}/").removesuffix(".json")
        if bare == "places" or not bare.removeprefix(noun.prefix).isdecimal() or not bare.startswith(noun.prefix):
            continue
        data = intake.source.json(name)
        row, events = data.get("studio"), data.get("events", [])
        if not isinstance(row, dict) or not isinstance(events, list) or not isinstance(row.get("id"), int):
            raise InputError(f"{name} in the zip is not what stands in its place.", quantity="file")
        if noun.events is not None:
            read_back(noun.folder, row, events)
        here = known.get(tuple(row.get(key) for key in noun.known_by))
        if here is None:
            _add(intake, noun, row, events, name)
        else:
            intake.same(table, row["id"], here["id"])
            _go_on(intake, noun, here, row, events, name)
        intake.step()


def _add(intake: Intake, noun: Told, row: dict[str, Any], events: list[dict[str, Any]], where: str) -> None:
    table = table_of(noun.row)
    values = intake.values(row, table, where)
    now = intake.insert(table, values, row["id"])
    if intake.merge and isinstance(row.get("plan"), dict) and row["plan"].get("first") == row["id"] and now is not None:
        intake.put(table, now, {"plan": intake.points(row["plan"])})
    if now is not None:
        _happen(intake, noun, now, events, where)


def _happen(intake: Intake, noun: Told, id_: int, events: list[dict[str, Any]], where: str) -> None:
    table = events_table(noun)
    if table is None:
        return
    rows = []
    for event in events:
        values = intake.values(event, table, where)
        if intake.merge:
            values.pop("id", None)
        rows.append({**values, noun.of: id_})
    intake.add_all(table, rows)


def _go_on(
    intake: Intake, noun: Told, here: dict[str, Any], there: dict[str, Any], events: list[dict[str, Any]], where: str
) -> None:
    """Add what happened there since; where both went on differently, both are kept."""
    table = events_table(noun)
    if table is None:
        if _rest(here) != _rest(intake.points(there)):
            intake.differ(noun.folder, str(there.get("name")), here, there, "What is here was kept.")
        return
    ours = _events_here(intake, table, noun.of, here["id"])
    theirs = [_rest(intake.points(event)) for event in events]
    if theirs[: len(ours)] == ours:
        if len(theirs) > len(ours):
            _happen(intake, noun, here["id"], events[len(ours) :], where)
            values = intake.values(there, table_of(noun.row), where)
            intake.put(table_of(noun.row), here["id"], {name: values[name] for name in ENDS if name in values})
        return
    if ours[: len(theirs)] == theirs:
        return
    name = f"{there.get('name', '')}{FROM_THERE}"
    _add(intake, noun, {**there, "name": name, "request_key": None}, events, where)
    here_told = {"id": here["id"], "events": ours}
    intake.differ(noun.folder, str(there.get("name")), here_told, {"events": theirs}, f'Both are kept: the other is "{name}".')


def _events_here(intake: Intake, table: Table, of: str, id_: int) -> list[dict[str, Any]]:
    rows = intake.session.execute(select(table).where(table.c[of] == id_).order_by(table.c.id)).mappings()
    return [_rest(plain_row(row, table, (of,))) for row in rows]


def _rest(row: dict[str, Any]) -> dict[str, Any]:
    told: dict[str, Any] = unpointed(
        {name: value for name, value in row.items() if name not in {"id", "request_key"} and (name not in NAMED or value)}
    )
    return told
