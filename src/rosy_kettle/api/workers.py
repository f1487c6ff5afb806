"""How much hard work goes on at once, and how long a request may take, so that light requests are always answered soon."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from contextlib import ExitStack
from typing import Any

from flask import Flask, g, request

from rosy_kettle.core.deadline import limited
from rosy_kettle.core.errors import TookTooLongError

__all__ = ["THREADS", "changes_the_studio", "register_workers"]

THREADS = 16
"""Requests the server works on at once, hard and light."""
HARD_AT_ONCE = 2
"""Hard requests worked on at once: the core is pure computation, more of them only slow each other down."""
HARD_IN_ALL = 10
"""Hard requests worked on or waiting; the rest of the threads stay free for light ones."""
REQUEST_SECONDS = 30.0
"""Longest work on one request, waiting included [s]."""
LOOK_SECONDS = 0.1
"""Between looks of a waiting request whether it is still worth waiting [s]."""
HARD = frozenset({
    "evaluations", "recipe-readings", "levers", "explanations", "balances", "substitutes", "swaps", "charts", "plans", "week",
})  # fmt: skip
"""Last words of the routes whose work grows with what is sent."""


def is_question(method: str, path: str) -> bool:
    """Whether a request asks for hard work and keeps nothing: it may be dropped once nobody waits for it."""
    return method == "POST" and path.rsplit("/", 1)[-1] in HARD


def changes_the_studio(method: str, path: str) -> bool:
    """Whether a request, by its method and path, keeps something: it is done even if nobody waits for the answer."""
    return method not in {"GET", "HEAD", "OPTIONS"} and not is_question(method, path)


class _HardWork:
    """A few places at the bench and a few in the queue."""

    def __init__(self) -> None:
        self._queue, self._bench = threading.Semaphore(HARD_IN_ALL), threading.Semaphore(HARD_AT_ONCE)

    def begin(self, held: ExitStack, is_over: Callable[[], bool]) -> None:
        """Take a place until ``held`` is closed.

        Raises
        ------
        TookTooLongError
            If too many are waiting, no place came free in time, or nobody waits for the answer any more.
        """
        if not self._queue.acquire(blocking=False):
            raise TookTooLongError("Too much is being worked out at once; try again in a moment.")
        held.callback(self._queue.release)
        while not self._bench.acquire(timeout=LOOK_SECONDS):
            if is_over():
                raise TookTooLongError("Other work did not end in time; try again in a moment.")
        held.callback(self._bench.release)


def register_workers(app: Flask) -> None:
    """Give every request its time limit and hard ones a place among a few."""
    hard = _HardWork()

    def begin() -> None:
        g.held = ExitStack()
        until = time.monotonic() + REQUEST_SECONDS
        asks = is_question(request.method, request.path)
        # A page asks anew at every change and hangs up on the question before: that work is dropped at its next step. What
        # changes the studio goes on: who reloads a page after a tap has meant the tap.
        hung_up: Callable[[], bool] = request.environ.get("waitress.client_disconnected", lambda: False)

        def is_over() -> bool:
            return time.monotonic() > until or (asks and hung_up())

        g.held.enter_context(limited(is_over))
        if asks:
            hard.begin(g.held, is_over)

    def end(_error: BaseException | None) -> Any:
        held: ExitStack | None = g.pop("held", None)
        if held is not None:
            held.close()

    app.before_request(begin)
    app.teardown_request(end)
