"""How many writes a studio has acknowledged: counted in the file itself and, after each, in a marker beside it.

SQLite keeps the newest writes in the write-ahead log until they are folded into the file. Where somebody takes the log away after
a kill, the file opens without a complaint and without them; only the marker knows that there were more.
"""

from __future__ import annotations

import os
import sqlite3
from contextlib import closing, suppress
from pathlib import Path

from sqlalchemy.orm import Session

from rosy_kettle.store.copies import read_only_address

__all__ = ["MARKER_NAME", "count_write", "mark", "mark_as_it_stands", "missing_after", "unmark", "writes_of"]

MARKER_NAME = "studio.acknowledged"
WIDTH = 12  # digits, always as many: the marker is written over in place


def count_write(session: Session) -> int:
    """Count one more write in the file, in its own transaction, and return how many that makes."""
    connection = session.connection()
    count = int(connection.exec_driver_sql("PRAGMA user_version").scalar_one()) + 1
    connection.exec_driver_sql(f"PRAGMA user_version = {count}")
    return count


def mark(studio_path: Path, count: int) -> None:
    """Write beside the studio how many writes are in it, once they are."""
    with suppress(OSError):  # a full disk: a marker that lags behind says nothing wrong
        file = os.open(studio_path.with_name(MARKER_NAME), os.O_RDWR | os.O_CREAT, 0o600)
        try:
            os.pwrite(file, f"{count:0{WIDTH}d}\n".encode(), 0)
        finally:
            os.close(file)


def writes_of(studio_path: Path) -> int:
    """Return how many writes are in a studio file."""
    with closing(sqlite3.connect(read_only_address(studio_path), uri=True)) as connection:
        return int(connection.execute("PRAGMA user_version").fetchone()[0])


def unmark(studio_path: Path) -> None:
    """Say nothing of how many writes there are while another file takes the studio's place: a kill between must not accuse it."""
    mark(studio_path, 0)


def mark_as_it_stands(studio_path: Path) -> None:
    """Begin to count from what is in the file: another one stands in its place now, or what is missing was accepted."""
    mark(studio_path, writes_of(studio_path))


def missing_after(studio_path: Path) -> tuple[int, int] | None:
    """Return the last acknowledged write that is in the file and how many after it are missing; None where none is."""
    try:
        marked = int(studio_path.with_name(MARKER_NAME).read_text(encoding="ascii"))
    except (OSError, ValueError):
        return None  # a studio that was never served by this version, or a marker cut off by a full disk
    here = writes_of(studio_path)
    return (here, marked - here) if marked > here else None
