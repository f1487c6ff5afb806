"""Backup and restore of the whole studio file."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from rosy_kettle.core.errors import InputError
from rosy_kettle.store import data_folder
from rosy_kettle.store.copies import copy_aside, copy_verified, damage_of, replace_file, rows_of, unused_name
from rosy_kettle.store.lock import StudioLock
from rosy_kettle.store.photos import settle_waiting_photos
from rosy_kettle.store.session import FILE_NAME, made_folder, open_studio, refuse_unfit

__all__ = ["CheckedStudio", "backup_studio", "check_studio", "restore_studio"]


def backup_studio(target: Path, folder: Path | None = None) -> dict[str, int]:
    """Copy the studio into a new file, verified, also while it is served; return the rows of every table.

    Raises
    ------
    InputError
        If there is no studio, or the copy cannot be made.
    """
    path = (folder or data_folder()) / FILE_NAME
    if not path.exists():
        raise InputError(f"There is no studio at {path}; nothing was copied.", quantity="file")
    refuse_unfit(path)
    return copy_verified(path, target)


@dataclass(frozen=True, slots=True)
class CheckedStudio:
    """Whether a studio's file is whole, and what is in it."""

    file: str
    integrity: str
    """ok, or the first complaint."""
    counts: dict[str, int]
    """Rows by table; empty where the file is damaged."""


def check_studio(folder: Path | None = None) -> CheckedStudio:
    """Look whether the studio's file is whole, also while it is served.

    Raises
    ------
    InputError
        If there is no studio, or a newer version wrote it.
    """
    path = (folder or data_folder()) / FILE_NAME
    if not path.exists():
        raise InputError(f"There is no studio at {path}; nothing was checked.", quantity="file")
    damage = damage_of(path)
    if not damage:
        refuse_unfit(path)
    return CheckedStudio(str(path), damage or "ok", {} if damage else rows_of(path))


def restore_studio(source: Path, folder: Path | None = None) -> Path | None:
    """Put a backup in the place of the studio; what was there is kept beside it and its path returned.

    Raises
    ------
    InputError
        If the backup is no whole studio, or the studio is being served; then nothing has changed.
    """
    if not source.is_file():
        raise InputError(f"There is no file {source}; nothing was changed.", quantity="file")
    refuse_unfit(source)
    if damage := damage_of(source):
        raise InputError(f"{source} is damaged ({damage}); nothing was changed.", quantity="file")
    place = made_folder(folder or data_folder())
    path, lock = place / FILE_NAME, StudioLock(place, alone=True)
    try:
        kept = _keep_what_is_there(path)
        fresh = place / ".restored.sqlite3"
        fresh.unlink(missing_ok=True)
        copy_verified(source, fresh)
        replace_file(fresh, path)
    finally:
        lock.release()
    open_studio(place).close()  # an older backup is brought up to date now, with its own safety copy
    return kept


def _keep_what_is_there(path: Path) -> Path | None:
    """Copy the present file aside; one that is damaged is moved aside as it is, for nothing is thrown away."""
    if not path.exists() or path.stat().st_size == 0:
        return None
    if not damage_of(path):
        settle_waiting_photos(path)
        return copy_aside(path, "before-restore")
    return path.rename(unused_name(path.parent, "damaged"))
