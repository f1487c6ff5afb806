"""Backup and restore of the whole studio file."""

from __future__ import annotations

import sqlite3
from pathlib import Path
from shutil import rmtree

from rosy_kettle.core.errors import InputError
from rosy_kettle.store import data_folder
from rosy_kettle.store.acknowledged import mark_as_it_stands, unmark
from rosy_kettle.store.copies import SIDE_FILES, copy_aside, copy_verified, damage_of, leaving_no_log, replace_file, unused_name
from rosy_kettle.store.kept_devices import keep_devices, shut_devices_out
from rosy_kettle.store.lock import StudioLock
from rosy_kettle.store.photos import settle_waiting_photos
from rosy_kettle.store.session import FILE_NAME, made_folder, open_studio, refuse_unfit

__all__ = ["backup_studio", "restore_studio"]


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
    with leaving_no_log(path):
        refuse_unfit(path)
        return copy_verified(path, target)


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
    fresh = place / ".restoring"
    try:
        whole = path.exists() and path.stat().st_size > 0 and not damage_of(path)
        _bring_up_to_date(source, fresh)
        kept = _keep_what_is_there(path)
        _keep_devices(path if whole else None, fresh / FILE_NAME)
        unmark(path)
        replace_file(fresh / FILE_NAME, path)
        mark_as_it_stands(path)
    finally:
        rmtree(fresh, ignore_errors=True)
        lock.release()
    return kept


def _bring_up_to_date(source: Path, fresh: Path) -> None:
    """Copy a backup into a folder of its own and bring its tables up to date, before anybody sees it."""
    rmtree(fresh, ignore_errors=True)
    fresh.mkdir(mode=0o700)
    copy_verified(source, fresh / FILE_NAME)
    open_studio(fresh).close()
    for ending in SIDE_FILES:
        (fresh / f"{FILE_NAME}{ending}").unlink(missing_ok=True)


def _keep_devices(here: Path | None, fresh: Path) -> None:
    """Let in who may come in by now: by the studio that is here, else nobody who would have to be asked about."""
    try:
        if here is not None:
            keep_devices(here, fresh)
            return
    except sqlite3.Error:
        pass  # written by a former version, without such a list
    shut_devices_out(fresh)


def _keep_what_is_there(path: Path) -> Path | None:
    """Copy the present file aside; one that is damaged is moved aside as it is, for nothing is thrown away."""
    if not path.exists() or path.stat().st_size == 0:
        return None
    if not damage_of(path):
        settle_waiting_photos(path)
        return copy_aside(path, "before-restore")
    return path.rename(unused_name(path.parent, "damaged"))
