"""The one export, import or list that may run at a time: how far it is, and whether it is to stop."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager

from rosy_kettle.core.errors import ConflictError

__all__ = ["Transfer"]


class Transfer:
    """Progress that one request writes and others read."""

    def __init__(self) -> None:
        self._busy = threading.Lock()
        self._stop = threading.Event()
        self.kind, self.done, self.whole, self.running = "", 0, 0, False

    @contextmanager
    def begin(self, kind: str) -> Iterator[None]:
        """Take the one place there is.

        Raises
        ------
        ConflictError
            If another transfer runs.
        """
        if not self._busy.acquire(blocking=False):
            raise ConflictError(f"Another {self.kind} is running; wait for it, or stop it.", noun="transfer", reason="busy")
        self._stop.clear()
        self.kind, self.done, self.whole, self.running = kind, 0, 0, True
        try:
            yield
        finally:
            self.running = False
            self._busy.release()

    def report(self, done: int, whole: int) -> None:
        """Say how far it is."""
        self.done, self.whole = done, whole

    def stop(self) -> None:
        """Ask it to stop at its next step."""
        self._stop.set()

    def stopped(self) -> bool:
        """Whether it is to stop."""
        return self._stop.is_set()
