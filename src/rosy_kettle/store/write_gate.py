"""One gate for all who write a studio, of every process: whoever replaces the studio keeps it shut meanwhile."""

from __future__ import annotations

import fcntl
import os
import sqlite3
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from sqlalchemy.exc import OperationalError

__all__ = ["GATE_NAME", "WriteGate"]

GATE_NAME = "studio.writing"
LOOK_SECONDS = 0.002


class WriteGate:
    """A lock file beside the studio, taken anew for every write; the system frees it where a writer is killed."""

    def __init__(self, studio_path: Path, patience_s: float) -> None:
        self._path = studio_path.with_name(GATE_NAME)
        self._patience_s = patience_s

    @contextmanager
    def held(self) -> Iterator[None]:
        """Hold the gate: nobody else begins to write meanwhile.

        Raises
        ------
        OperationalError
            If others did not let go of it in time, as SQLite itself says of a lock that is held for long.
        """
        try:
            file = os.open(self._path, os.O_RDWR | os.O_CREAT, 0o600)
        except OSError as error:  # a full disk, a folder that went: said as SQLite would say it a step later
            raise OperationalError("BEGIN", None, sqlite3.OperationalError(f"unable to open database file: {error}")) from error
        try:
            self._take(file)
            yield
        finally:
            os.close(file)

    def _take(self, file: int) -> None:
        until = time.monotonic() + self._patience_s
        while True:
            try:
                fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except BlockingIOError as error:
                if time.monotonic() > until:
                    raise OperationalError("BEGIN", None, sqlite3.OperationalError("database is locked")) from error
                time.sleep(LOOK_SECONDS)
            else:
                return
