"""What is to be said of a studio quietly, on the first page and by ``check``: writes that are missing, backups that are old."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from rosy_kettle.store.acknowledged import missing_after
from rosy_kettle.store.backups import Backup, backup_folder, last_good, list_backups
from rosy_kettle.usecases.studio.oddities import EVENT_TABLES, Oddity, events_unknown, oddities_in

__all__ = ["StudioState", "StudioWarning", "state_of_studio"]

BACKUP_IS_OLD = timedelta(days=2)


@dataclass(frozen=True, slots=True)
class StudioWarning:
    """One thing that is not as it should be."""

    code: str
    """missing_writes, old_backup, clock_ahead, unknown_events, unknown_settings, not_understood or skipped."""
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
    said += _of_oddities(oddities_in(path), unknown)
    at = None if newest is None else newest.made_at.isoformat()
    return StudioState(unknown, None if missing is None else missing[0], at, tuple(said))


def _of_oddities(odd: Sequence[Oddity], unknown: int) -> list[StudioWarning]:
    """Say quietly what is not understood: events counted, settings named, of all else the first and how much more there is."""
    found = []
    if unknown:
        word = "thing that happened is" if unknown == 1 else "things that happened are"
        found.append(StudioWarning("unknown_events", f"{unknown} {word} not known to this version; they are kept as they are."))
    if strange := [each.id for each in odd if each.table == "settings"]:
        found.append(StudioWarning("unknown_settings", (
            f"Not understood by this version in the settings: {', '.join(strange)[:200]}; what is usual stands in for it. "
            "It is kept until the settings are saved with another value."
        )))  # fmt: skip
    if others := [each for each in odd if each.table not in {"settings", *EVENT_TABLES}]:
        first, more = others[0], len(others) - 1
        rest = f", and {more} more" if more else ""
        found.append(StudioWarning("not_understood", (
            f"Not understood by this version: {first.table.replace('_', ' ')} {first.id}, {first.what}{rest}. Kept as it is; "
            "'rosy-kettle check' names it and its way out."
        )))  # fmt: skip
    return found


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
