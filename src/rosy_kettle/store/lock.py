"""One lock a studio: whoever serves it shares the lock, whoever moves its files must have it alone."""

from __future__ import annotations

import fcntl
import os
from pathlib import Path

from rosy_kettle.core.errors import InputError

__all__ = ["LOCK_NAME", "StudioLock"]

LOCK_NAME = "studio.lock"


class StudioLock:
    """Holds the lock file of a studio's folder until it is let go, also by a kill: the system frees it."""

    def __init__(self, folder: Path, *, alone: bool) -> None:
        """Take the lock, shared or alone.

        Raises
        ------
        InputError
            If it is held in a way that does not allow for that.
        """
        self._file = os.open(folder / LOCK_NAME, os.O_RDWR | os.O_CREAT, 0o600)
        try:
            fcntl.flock(self._file, (fcntl.LOCK_EX if alone else fcntl.LOCK_SH) | fcntl.LOCK_NB)
        except BlockingIOError as error:
            os.close(self._file)
            holder = (
                "is being served; stop the server first, then try again" if alone else "is being restored or reset; wait a moment"
            )
            raise InputError(f"The studio in {folder} {holder}.", quantity="studio") from error

    def nobody_else(self) -> bool:
        """Return whether no other server holds the studio; the lock stays shared."""
        try:
            fcntl.flock(self._file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            fcntl.flock(self._file, fcntl.LOCK_SH | fcntl.LOCK_NB)
            return False
        fcntl.flock(self._file, fcntl.LOCK_SH)
        return True

    def release(self) -> None:
        """Let go of the lock."""
        os.close(self._file)
