"""The background in which a served studio's sources are looked at, as far as the page of learning asks for it."""

from __future__ import annotations

import logging
import threading

from sqlalchemy.exc import OperationalError

from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.store import Studio
from rosy_kettle.usecases.learning.keep_observations import keep_observations
from rosy_kettle.usecases.studio.skipped import Skipped

__all__ = ["Learner"]

log = logging.getLogger(__name__)

PATIENCE_SECONDS = 1.5
"""Longest the page waits for it: what was done just now is in its answer, and of much it says how much is still to be read."""


class Learner:
    """Reads what is new when it is asked; in a test or a command before it answers, while served in the background."""

    def __init__(self, studio: Studio, skipped: Skipped | None = None) -> None:
        self._studio, self._skipped = studio, skipped or Skipped()
        self._lock = threading.Lock()
        self._thread: threading.Thread | None = None
        self._stopped = threading.Event()
        self._in_background = False
        self._read_at = -1
        self.done, self.whole, self.held = 0, 0, False
        """How many sources are read, of how many; whether the maker has stopped it."""

    def start(self) -> None:
        """Work in the background from now on."""
        self._in_background = True

    def close(self) -> None:
        """Stop after the step in hand."""
        self._stopped.set()
        if self._thread is not None:
            self._thread.join(timeout=10)

    def read_up(self, patience_s: float = PATIENCE_SECONDS) -> None:
        """Read what is new, and wait for it as long as patience lasts; nothing is begun while it is held."""
        if not self._in_background:
            keep_observations(self._studio, self._report, skipped=self._skipped)
            return
        with self._lock:
            if self._read_at == self._studio.stamp():
                return  # nothing was written since all was read
            if not self.held and not self.running:
                self._stopped.clear()
                self._thread = threading.Thread(target=self._work, name="learner", daemon=True)
                self._thread.start()
            thread = self._thread
        if thread is not None:
            thread.join(patience_s)

    @property
    def running(self) -> bool:
        """Whether it is reading now."""
        return self._thread is not None and self._thread.is_alive()

    def hold(self) -> None:
        """Stop at the next step, and begin nothing until it may go on."""
        self.held = True
        self._stopped.set()

    def go_on(self) -> None:
        """Read again from now on."""
        self.held = False

    def _report(self, done: int, whole: int) -> None:
        self.done, self.whole = done, whole

    def _work(self) -> None:
        try:
            stamp = self._studio.stamp()
            keep_observations(self._studio, self._report, self._stopped.is_set, self._skipped)
            if not self._stopped.is_set():
                self._read_at = stamp
        except Exception as error:
            if not isinstance(error, OperationalError | WorkbenchError):  # one odd record must not end the learning for good
                log.exception("learning met something it cannot read; whoever asks next goes on")
            return  # a full disk, a lock held for long: the page says how much is missing, and whoever asks next goes on
