"""What is to be said of a studio quietly, on the first page and by ``check``: writes that are missing, backups that are old."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from rosy_kettle.core.making.bench import BATCH_EVENTS
from rosy_kettle.core.making.happening import Family
from rosy_kettle.core.making.rack.tray import TRAY_EVENTS
from rosy_kettle.core.making.tub.tub_test import TUB_EVENTS
from rosy_kettle.store.acknowledged import missing_after
from rosy_kettle.store.backups import Backup, backup_folder, last_good, list_backups
from rosy_kettle.store.copies import read_only_address
from rosy_kettle.usecases.studio.studio_settings import not_understood

__all__ = ["StudioState", "StudioWarning", "events_unknown", "state_of_studio"]

BACKUP_IS_OLD = timedelta(days=2)
TABLES: tuple[tuple[str, Family[Any]], ...] = (
    ("batch_events", BATCH_EVENTS), ("tray_events", TRAY_EVENTS), ("tub_test_events", TUB_EVENTS),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class StudioWarning:
    """One thing that is not as it should be."""

    code: str
    """missing_writes, old_backup, clock_ahead, unknown_events or unknown_settings."""
    text: str


@dataclass(frozen=True, slots=True)
class StudioState:
    """What ``check`` says beside integrity and counts."""

    events_unknown: int
    missing_after: int | None
    """Number of the last acknowledged write that is there, where later ones are missing."""
    last_backup_at: str | None
    warnings: tuple[StudioWarning, ...]


def state_of_studio(path: Path, now: datetime | None = None) -> StudioState:
    """Return what is to be said of a studio file, in use or not."""
    now = now or datetime.now(UTC)
    backups = list_backups(backup_folder(path))
    newest, missing, unknown = last_good(backups, now), missing_after(path), events_unknown(path)
    said = []
    if missing is not None:
        said.append(StudioWarning("missing_writes", (
            f"{missing[1]} acknowledged {'write is' if missing[1] == 1 else 'writes are'} missing from the studio's file, "
            "as if its write-ahead log had been taken away. Look for studio.sqlite3-wal, or bring a backup back; "
            "'rosy-kettle check --repair' accepts what is there."
        )))  # fmt: skip
    said += _of_backups(backups, newest, now)
    if unknown:
        word = "thing that happened is" if unknown == 1 else "things that happened are"
        said.append(StudioWarning("unknown_events", f"{unknown} {word} not known to this version; they are kept as they are."))
    if strange := settings_not_understood(path):
        said.append(StudioWarning("unknown_settings", (
            f"Not understood by this version in the settings: {', '.join(strange)[:200]}; what is usual stands in for it. "
            "It is kept until the settings are saved with another value."
        )))  # fmt: skip
    at = None if newest is None else newest.made_at.isoformat()
    return StudioState(unknown, None if missing is None else missing[0], at, tuple(said))


def _of_backups(backups: Sequence[Backup], newest: Backup | None, now: datetime) -> list[StudioWarning]:
    ahead = next((each for each in backups if each.made_at > now), None)
    found = []
    if newest is not None and now - newest.made_at > BACKUP_IS_OLD:
        days = (now - newest.made_at).days
        found.append(
            StudioWarning("old_backup", f"The last good backup is {days} days old, of {newest.made_at:%d %b %Y}; make one now.")
        )
    if newest is None and ahead is not None:
        found.append(StudioWarning("old_backup", "There is no backup that this clock knows of; make one now."))
    if ahead is not None:
        found.append(StudioWarning("clock_ahead", (
            f"A backup is dated {ahead.made_at:%d %b %Y}, which is still to come: the clock once ran ahead. It is kept, and not "
            "counted."
        )))  # fmt: skip
    return found


def settings_not_understood(path: Path) -> tuple[str, ...]:
    """Return the names of the settings of a studio file that this version cannot read."""
    with closing(sqlite3.connect(read_only_address(path), uri=True)) as connection:
        if not connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'settings'").fetchone():
            return ()
        row = connection.execute("SELECT said FROM settings").fetchone()
    kept = {} if row is None else json.loads(row[0])
    return not_understood(kept) if isinstance(kept, dict) else ("all of them",)


def events_unknown(path: Path) -> int:
    """Return how many events of a studio file are of no kind this version knows."""
    with closing(sqlite3.connect(read_only_address(path), uri=True)) as connection:
        tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        return sum(_unknown_in(connection, table, family) for table, family in TABLES if table in tables)


def _unknown_in(connection: sqlite3.Connection, table: str, family: Family[Any]) -> int:
    asked = f"SELECT kind, json_valid(data) AND json_type(data) = 'object', count(*) FROM {table} GROUP BY 1, 2"  # noqa: S608 - ours
    return sum(int(count) for kind, whole, count in connection.execute(asked) if not whole or kind not in family.kinds)
