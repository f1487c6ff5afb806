"""Photos beside the studio file: written whole and to disk, and swept where no event names them."""

from __future__ import annotations

import errno
import os
from collections.abc import Collection
from pathlib import Path

from rosy_kettle.core.errors import InputError

__all__ = ["keep_photo", "photo_folder", "sweep_photos"]


def photo_folder(studio_path: Path) -> Path:
    """Return the folder of the photos of a studio."""
    return studio_path.parent / "photos"


def keep_photo(studio_path: Path, name: str, data: bytes) -> Path:
    """Write a photo whole and to disk, and return where it is; call it with its event written and not yet committed.

    Raises
    ------
    InputError
        If the disk is full or the folder cannot be written; then nothing is left behind.
    """
    folder = photo_folder(studio_path)
    part = folder / f".{name}.part"
    try:
        folder.mkdir(exist_ok=True, mode=0o700)
        with part.open("wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        part.chmod(0o600)
        return part.replace(folder / name)
    except OSError as error:
        part.unlink(missing_ok=True)
        why = "the disk is full; make room" if error.errno == errno.ENOSPC else f"{error.strerror}"
        raise InputError(f"The photo could not be kept: {why}, then take it again.", quantity="photo") from error


def sweep_photos(studio_path: Path, known: Collection[str]) -> int:
    """Throw away photos that no event names, what a kill between writing and committing leaves; return how many."""
    folder = photo_folder(studio_path)
    astray = [path for path in folder.glob("*") if path.is_file() and path.name not in known] if folder.is_dir() else []
    for path in astray:
        path.unlink()
    return len(astray)
