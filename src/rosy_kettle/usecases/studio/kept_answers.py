"""Answers that take long, kept until something is written: worked out once, and anew in the background before anyone asks."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Hashable
from contextlib import suppress
from dataclasses import dataclass
from typing import Any, TypeVar

from sqlalchemy.exc import OperationalError

from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.store import Studio

__all__ = ["KeptAnswers"]

ASKED_WITHIN_SECONDS = 900.0
"""What nobody has asked for so long is no longer worked out beforehand."""
MOST_KEPT = 32
T = TypeVar("T")


@dataclass(slots=True)
class _Kept:
    stamp: int
    answer: Any
    work: Callable[[], Any]
    asked_at: float


class KeptAnswers:
    """The answers of one studio, each under its name."""

    def __init__(self, studio: Studio) -> None:
        self._studio = studio
        self._lock = threading.Lock()
        self._kept: dict[Hashable, _Kept] = {}
        self._working: dict[Hashable, threading.Lock] = {}

    def get(self, name: Hashable, work: Callable[[], T]) -> T:
        """Return an answer as it was worked out, if nothing was written since; asked by several at once it is worked out once.

        ``name`` holds everything the answer rests on beside the studio: what was asked, the hour.
        """
        with self._lock:
            working = self._working.setdefault(name, threading.Lock())
        with working:
            stamp = self._studio.stamp()  # taken first: a write meanwhile makes the answer newer than it says, never older
            kept = self._kept.get(name)
            answer: T = kept.answer if kept is not None and kept.stamp == stamp else work()
            with self._lock:
                self._kept[name] = _Kept(stamp, answer, work, time.monotonic())
                while len(self._kept) > MOST_KEPT:
                    oldest = min(self._kept, key=lambda each: self._kept[each].asked_at)
                    del self._kept[oldest]
                    self._working.pop(oldest, None)
            return answer

    def work_out(self, stopped: Callable[[], bool]) -> None:
        """Work out anew what was asked of late and has been written over since."""
        stamp, since = self._studio.stamp(), time.monotonic() - ASKED_WITHIN_SECONDS
        with self._lock:
            waiting = [(name, kept) for name, kept in self._kept.items() if kept.stamp != stamp and kept.asked_at > since]
        for name, kept in waiting:
            if stopped():
                return
            with suppress(OperationalError, WorkbenchError):  # whoever asks next hears of it
                asked_at, answer = kept.asked_at, kept.work()
                with self._lock:
                    if (now := self._kept.get(name)) is not None and now.stamp != stamp:
                        self._kept[name] = _Kept(stamp, answer, kept.work, asked_at)
