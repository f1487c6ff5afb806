"""How much hard work goes on at once, and how long a request may take, so that light requests are always answered soon."""

from __future__ import annotations

import threading
import time
from contextlib import ExitStack
from typing import Any

from flask import Flask, g, request

from rosy_kettle.core.deadline import limited
from rosy_kettle.core.errors import TookTooLongError

__all__ = ["THREADS", "register_workers"]

THREADS = 16
"""Requests the server works on at once, hard and light."""
HARD_AT_ONCE = 2
"""Hard requests worked on at once: the core is pure computation, more of them only slow each other down."""
HARD_IN_ALL = 10
"""Hard requests worked on or waiting; the rest of the threads stay free for light ones."""
REQUEST_SECONDS = 30.0
"""Longest work on one request, waiting included [s]."""
HARD = frozenset({
    "evaluations", "recipe-readings", "levers", "explanations", "balances", "substitutes", "swaps", "charts", "plans",
})  # fmt: skip
"""Last words of the routes whose work grows with what is sent."""


class _HardWork:
    """A few places at the bench and a few in the queue."""

    def __init__(self) -> None:
        self._queue, self._bench = threading.Semaphore(HARD_IN_ALL), threading.Semaphore(HARD_AT_ONCE)

    def begin(self, held: ExitStack) -> None:
        """Take a place until ``held`` is closed.

        Raises
        ------
        TookTooLongError
            If too many are waiting, or no place came free in time.
        """
        if not self._queue.acquire(blocking=False):
            raise TookTooLongError("Too much is being worked out at once; try again in a moment.")
        held.callback(self._queue.release)
        if not self._bench.acquire(timeout=REQUEST_SECONDS):
            raise TookTooLongError("Other work did not end in time; try again in a moment.")
        held.callback(self._bench.release)


def register_workers(app: Flask) -> None:
    """Give every request its time limit and hard ones a place among a few."""
    hard = _HardWork()

    def begin() -> None:
        g.held = ExitStack()
        until = time.monotonic() + REQUEST_SECONDS
        g.held.enter_context(limited(lambda: time.monotonic() > until))
        if request.method == "POST" and request.path.rsplit("/", 1)[-1] in HARD:
            hard.begin(g.held)

    def end(_error: BaseException | None) -> Any:
        held: ExitStack | None = g.pop("held", None)
        if held is not None:
            held.close()

    app.before_request(begin)
    app.teardown_request(end)
