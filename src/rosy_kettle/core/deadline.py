"""How long one piece of work may take: long work looks here between its steps."""

from __future__ import annotations

import time
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from rosy_kettle.core.errors import TookTooLongError

__all__ = ["check_time", "time_limit"]

_UNTIL: ContextVar[float | None] = ContextVar("until", default=None)


@contextmanager
def time_limit(seconds: float) -> Iterator[None]:
    """Let the work inside take so long [s] and no longer; without it, work takes what it takes."""
    held = _UNTIL.set(time.monotonic() + seconds)
    try:
        yield
    finally:
        _UNTIL.reset(held)


def check_time() -> None:
    """Go on, if there is time left.

    Raises
    ------
    TookTooLongError
        If the time limit around this work has passed.
    """
    until = _UNTIL.get()
    if until is not None and time.monotonic() > until:
        raise TookTooLongError("This takes longer than it may; ask for less at once, or try again when less is going on.")
