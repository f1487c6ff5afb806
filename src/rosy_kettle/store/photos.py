"""Photos beside the studio file: on disk before their event commits, under their name after it.

Until the event is committed a photo waits under a hidden name. A kill can leave only such a file, so that the next start
needs to look at no other: copies and backups of the studio may name photos that the present one does not.
"""

from __future__ import annotations

import errno
import sqlite3
from contextlib import closing
from pathlib import Path

from rosy_kettle.core.errors import InputError
from rosy_kettle.store.durable import to_disk

__all__ = ["keep_photo", "photo_folder", "settle_photo", "settle_waiting_photos"]

WAITING = ".waiting"


def photo_folder(studio_path: Path) -> Path:
    """Return the folder of the photos of a studio."""
    return studio_path.parent / "photos"


def keep_photo(studio_path: Path, name: str, data: bytes) -> Path:
    """Write a photo to disk under its waiting name, which is returned; call it with its event written, not yet committed.

    Raises
    ------
    InputError
        If the disk is full or the folder cannot be written; then nothing is left behind.
    """
    folder = photo_folder(studio_path)
    waiting = folder / f".{name}{WAITING}"
    try:
        folder.mkdir(exist_ok=True, mode=0o700)
        with waiting.open("wb") as file:
            file.write(data)
        waiting.chmod(0o600)
        to_disk(waiting)
        to_disk(folder)
    except OSError as error:
        waiting.unlink(missing_ok=True)
        why = "the disk is full; make room" if error.errno == errno.ENOSPC else f"{error.strerror}"
        raise InputError(f"The photo could not be kept: {why}, then take it again.", quantity="photo") from error
    return waiting


def settle_photo(waiting: Path) -> Path:
    """Give a photo its own name once its event is committed, and return where it is."""
    settled = waiting.replace(waiting.with_name(waiting.name.removeprefix(".").removesuffix(WAITING)))
    to_disk(settled.parent)
    return settled


def settle_waiting_photos(studio_path: Path) -> int:
    """Settle what a kill left waiting, while nobody else has the studio; return how many photos were thrown away.

    A photo gets its own name if an event names it, and goes if none does: then it was never acknowledged.
    """
    waiting = list(photo_folder(studio_path).glob(f".*{WAITING}"))
    if not waiting:
        return 0
    with closing(sqlite3.connect(studio_path)) as connection:
        rows = connection.execute(
            "SELECT data ->> '$.name' FROM batch_events WHERE kind = 'photo' UNION ALL "
            "SELECT data ->> '$.what.data.name' FROM batch_events WHERE kind = 'amended' UNION ALL "
            "SELECT data ->> '$.name' FROM tub_test_events WHERE kind = 'photo'"
        )
        known = {str(name) for (name,) in rows}
    thrown = 0
    for each in waiting:
        if each.name.removeprefix(".").removesuffix(WAITING) in known:
            settle_photo(each)
        else:
            each.unlink()
            thrown += 1
    return thrown
