"""Backups beside the studio: made verified, thinned by age, brought back while the studio is served."""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Sequence
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from rosy_kettle.core.errors import InputError, NotFoundError
from rosy_kettle.store.acknowledged import mark_as_it_stands, unmark
from rosy_kettle.store.copies import copy_verified, damage_of, read_only_address, unused_name
from rosy_kettle.store.kept_devices import keep_devices
from rosy_kettle.store.session import Studio, open_studio, refuse_unfit

__all__ = ["Backup", "backup_folder", "begin_anew", "bring_back", "is_due", "last_good", "list_backups", "make_backup", "to_thin"]

BY_HAND, DAILY, BEFORE = "kept", "daily", "before-restore"
EVERY = timedelta(days=1)
DAYS, WEEKS, MONTHS = 7, 4, 12
"""How many days, weeks and months keep their newest backup."""
STAMP = "%Y%m%dT%H%M%SZ"
NAME = re.compile(r"studio-(.+)-(\d{8}T\d{6}Z)-\d+\.sqlite3")


@dataclass(frozen=True, slots=True)
class Backup:
    """One backup."""

    name: str
    made_at: datetime
    size_bytes: int
    by_hand: bool
    """One made by hand, or before a restore, stays for good."""


def backup_folder(studio_path: Path) -> Path:
    """Return the folder of the backups of a studio."""
    return studio_path.parent / "backups"


def list_backups(folder: Path) -> list[Backup]:
    """Return the backups in a folder, the newest first; other files are passed over."""
    found = []
    for path in folder.glob("studio-*.sqlite3") if folder.exists() else ():
        parts = NAME.fullmatch(path.name)
        if parts is not None:
            made_at = datetime.strptime(parts[2], STAMP).replace(tzinfo=UTC)
            found.append(Backup(path.name, made_at, path.stat().st_size, parts[1] != DAILY))
    return sorted(found, key=lambda each: (each.made_at, each.name), reverse=True)


def make_backup(studio: Studio, *, by_hand: bool) -> Backup:
    """Copy the studio into its backups, verified, while it is in use; what is too old by then goes.

    Raises
    ------
    InputError
        If the copy cannot be made; then nothing is left behind.
    """
    folder = backup_folder(studio.path)
    try:
        folder.mkdir(exist_ok=True, mode=0o700)
    except OSError as error:
        raise InputError(f"{folder} cannot be made: {error.strerror}.", quantity="file") from error
    target = unused_name(folder, BY_HAND if by_hand else DAILY)
    copy_verified(studio.path, target)
    for old in to_thin(list_backups(folder)):
        (folder / old.name).unlink(missing_ok=True)
    return next(each for each in list_backups(folder) if each.name == target.name)


def is_due(backups: Sequence[Backup], now: datetime) -> bool:
    """Whether a day has gone by since the newest daily backup; what a clock that ran ahead has dated does not count."""
    newest = next((each.made_at for each in backups if not each.by_hand and each.made_at <= now), None)
    return newest is None or now - newest >= EVERY


def last_good(backups: Sequence[Backup], now: datetime) -> Backup | None:
    """Return the newest backup there is, by hand or daily; one that a clock running ahead dated is no such."""
    return next((each for each in backups if each.made_at <= now), None)


def to_thin(backups: Sequence[Backup]) -> list[Backup]:
    """Return the daily backups that are neither the newest of one of the last days, weeks or months that have one."""
    now = datetime.now(UTC)
    own = (each for each in backups if not each.by_hand and each.made_at <= now)
    daily = sorted(own, key=lambda each: each.made_at, reverse=True)
    kept: set[str] = set()
    for form, most in (("%Y-%m-%d", DAYS), ("%G-%V", WEEKS), ("%Y-%m", MONTHS)):
        newest: dict[str, str] = {}
        for each in daily:
            newest.setdefault(each.made_at.strftime(form), each.name)
        kept |= set(list(newest.values())[:most])
    return [each for each in daily if each.name not in kept]


def bring_back(studio: Studio, name: str) -> str:
    """Put a backup in the place of the studio while it is served, all at once, and return the name of the copy of what was there.

    Raises
    ------
    NotFoundError
        If there is no such backup.
    InputError
        If it is damaged or of a newer version; then nothing has changed.
    """
    folder = backup_folder(studio.path)
    source = folder / name
    if name not in {each.name for each in list_backups(folder)}:
        raise NotFoundError(f'There is no backup "{name[:80]}".', noun="backup", id=name)
    refuse_unfit(source)
    if damage := damage_of(source):
        raise InputError(f"{name} is damaged ({damage}); nothing was changed.", quantity="file")
    fresh = folder / ".coming-back"
    fresh.mkdir(exist_ok=True, mode=0o700)
    try:
        for left in fresh.iterdir():
            left.unlink()
        copy_verified(source, fresh / studio.path.name)
        open_studio(fresh).close()  # an older one is brought up to date before anybody sees it
        kept = unused_name(folder, BEFORE)
        with studio.gate.held():  # from the kept copy to the replacement nobody writes: all that was acknowledged is in the copy
            copy_verified(studio.path, kept)
            keep_devices(studio.path, fresh / studio.path.name)
            _put_in_place(fresh / studio.path.name, studio.path)
    finally:
        for left in fresh.iterdir():
            left.unlink()
        fresh.rmdir()
    return kept.name


def begin_anew(studio: Studio) -> str:
    """Put an empty studio in the place of this one while it is served, and return the name of the copy of what was there.

    Raises
    ------
    InputError
        If the copy cannot be made; then nothing has changed.
    """
    fresh = backup_folder(studio.path) / ".coming-new"
    fresh.mkdir(exist_ok=True, mode=0o700, parents=True)
    try:
        for left in fresh.iterdir():
            left.unlink()
        open_studio(fresh).close()
        with studio.gate.held():
            kept = make_backup(studio, by_hand=True).name
            _put_in_place(fresh / studio.path.name, studio.path)
    finally:
        for left in fresh.iterdir():
            left.unlink()
        fresh.rmdir()
    return kept


def _put_in_place(source: Path, path: Path) -> None:
    """Write a whole file's pages into the studio in one transaction: readers see the one or the other."""
    with (
        closing(sqlite3.connect(read_only_address(source), uri=True)) as origin,
        closing(sqlite3.connect(path, timeout=20)) as studio,
    ):
        try:
            unmark(path)
            origin.backup(studio)
            mark_as_it_stands(path)
        except sqlite3.Error as error:
            raise InputError(f"The backup could not be brought back: {error}; nothing was changed.", quantity="file") from error
