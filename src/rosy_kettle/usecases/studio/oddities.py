"""Rows of another version, or of another hand, that this version does not understand: which they are, and the way out of each."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from rosy_kettle.core.making.bench import BATCH_EVENTS
from rosy_kettle.core.making.happening import Family
from rosy_kettle.core.making.rack.tray import TRAY_EVENTS
from rosy_kettle.core.making.tub.tub_test import TUB_EVENTS
from rosy_kettle.reference import load_tables
from rosy_kettle.store.base import Base, JsonList, JsonObject
from rosy_kettle.store.copies import astray_in, read_only_address
from rosy_kettle.usecases.studio.studio_settings import not_understood

__all__ = ["EVENT_TABLES", "KEPT", "REPAIR", "Oddity", "events_unknown", "oddities_in", "settings_not_understood"]

EVENTS: tuple[tuple[str, str, Family[Any]], ...] = (
    ("batch_events", "batch_id", BATCH_EVENTS), ("tray_events", "tray_id", TRAY_EVENTS),
    ("tub_test_events", "test_id", TUB_EVENTS),
)  # fmt: skip
YEARS_TOLD = "2200-01-01"
EVENT_TABLES = frozenset(table for table, _of, _family in EVENTS)
PLAIN = EVENT_TABLES | {"settings"}
"""Tables whose oddities have words of their own."""
MOST_NAMED = 200
KEPT = "it is kept as it is, and a version that knows it will read it"
REPAIR = "'rosy-kettle check --repair' sets it aside"


@dataclass(frozen=True, slots=True)
class Oddity:
    """One record that this version does not understand."""

    table: str
    id: str
    """Its number, or its name where it has none."""
    what: str
    mend: str
    """The way out, in a few words."""
    to_set_aside: bool
    """Whether ``check --repair`` sets it aside; else it stays, and hinders nothing."""


def oddities_in(path: Path) -> list[Oddity]:
    """Return what is not understood in a studio file, in use or not; at most the first two hundred of each kind."""
    with closing(sqlite3.connect(read_only_address(path), uri=True)) as connection:
        tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        found = [each for look, needs in LOOKS for each in (look(connection) if needs <= tables else ())]
    seen = {(each.table, each.id) for each in found}
    return found + [each for each in _astray(path) if (each.table, each.id) not in seen]


def settings_not_understood(path: Path) -> tuple[str, ...]:
    """Return the names of the settings of a studio file that this version cannot read."""
    return tuple(each.id for each in oddities_in(path) if each.table == "settings")


def events_unknown(path: Path) -> int:
    """Return how many events of a studio file are of no kind this version knows."""
    with closing(sqlite3.connect(read_only_address(path), uri=True)) as connection:
        tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        asked = "SELECT kind, json_valid(data) AND json_type(data) = 'object', count(*) FROM {} GROUP BY 1, 2"
        rows = [
            (family, row) for table, _of, family in EVENTS if table in tables for row in connection.execute(asked.format(table))
        ]
    return sum(int(count) for family, (kind, whole, count) in rows if not whole or kind not in family.kinds)


def _settings(connection: sqlite3.Connection) -> Iterator[Oddity]:
    row = connection.execute("SELECT said FROM settings").fetchone()
    try:
        kept = {} if row is None else json.loads(row[0])
    except (TypeError, ValueError):
        kept = None
    names = not_understood(kept) if isinstance(kept, dict) else ("all of them",)
    for name in names:
        yield Oddity(
            "settings", name, "a setting this version does not know, or cannot read; what is usual stands in for it",
            "save the settings" + (f", or {REPAIR}" if isinstance(kept, dict) else ""), to_set_aside=isinstance(kept, dict),
        )  # fmt: skip


def _own_ingredients(connection: sqlite3.Connection) -> Iterator[Oddity]:
    known = load_tables().ingredients
    for id_, base in connection.execute("SELECT id, based_on FROM own_ingredients ORDER BY id"):
        if base not in known:
            yield Oddity(
                "own_ingredients", id_, f'an own ingredient on "{base[:60]}", which this version does not have; it is left out',
                f"choose another ingredient in the lines that name it; {REPAIR}", to_set_aside=True,
            )  # fmt: skip


def _methods(connection: sqlite3.Connection) -> Iterator[Oddity]:
    known = load_tables().methods
    newest = "SELECT formula_id, method FROM versions WHERE id IN (SELECT max(id) FROM versions GROUP BY formula_id) ORDER BY 1"
    for id_, method in connection.execute(newest).fetchall():
        if method and method not in known:
            yield Oddity(
                "formulas", str(id_), f'made by "{method[:60]}", a method this version does not know; no verdict is given',
                "choose another method at its Desk", to_set_aside=False,
            )  # fmt: skip


def _far_orders(connection: sqlite3.Connection) -> Iterator[Oddity]:
    for id_, due in connection.execute("SELECT id, due_at FROM orders WHERE due_at >= ? ORDER BY id", (YEARS_TOLD,)):
        yield Oddity(
            "orders", str(id_), f"an order due {due[:10]}, which is no date to work by; the calendar leaves it out",
            "cancel it in the week", to_set_aside=False,
        )  # fmt: skip


def _events(connection: sqlite3.Connection) -> Iterator[Oddity]:
    for table, of, family in EVENTS:
        known = ", ".join("?" for _ in family.kinds)
        asked = (
            f"SELECT {of}, seq, kind FROM {table} WHERE kind NOT IN ({known}) OR NOT json_valid(data) "  # noqa: S608 - names of ours
            f"OR json_type(data) != 'object' ORDER BY id LIMIT {MOST_NAMED}"
        )
        for owner, seq, kind in connection.execute(asked, tuple(family.kinds)).fetchall():
            what = f'event {seq} of {family.noun} {owner}, "{kind[:60]}", is not understood; its page says so'
            yield Oddity(table, f"{owner}/{seq}", what, KEPT, to_set_aside=False)


def _columns(connection: sqlite3.Connection) -> Iterator[Oddity]:
    """Look for what holds something else than its kind: it is read as empty."""
    there = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    for table in Base.metadata.sorted_tables:
        for column in table.columns if table.name in there - PLAIN else ():
            if isinstance(column.type, JsonObject | JsonList):
                kind = "object" if isinstance(column.type, JsonObject) else "array"
                key = next(iter(table.primary_key.columns)).name
                asked = (
                    f'SELECT "{key}" FROM "{table.name}" WHERE "{column.name}" IS NOT NULL AND (NOT json_valid("{column.name}") '  # noqa: S608 - as above
                    f"""OR json_type("{column.name}") NOT IN ('{kind}', 'null')) LIMIT {MOST_NAMED}"""
                )
                for (id_,) in connection.execute(asked).fetchall():
                    what = f'its "{column.name}" is not what stands there; it is read as empty'
                    yield Oddity(table.name, str(id_), what, f"type it anew, or leave it: {KEPT}", to_set_aside=False)


def _astray(path: Path) -> Iterator[Oddity]:
    for table, number, parent in astray_in(path)[:MOST_NAMED]:
        yield Oddity(
            table, str(number), f"it points at a row of {parent} that is not there", f"{REPAIR}, until what it points at is back",
            to_set_aside=True,
        )  # fmt: skip


LOOKS = (
    (_settings, {"settings"}), (_own_ingredients, {"own_ingredients"}), (_methods, {"versions"}), (_far_orders, {"orders"}),
    (_events, EVENT_TABLES), (_columns, {"formulas"}),
)  # fmt: skip
