"""How long one piece of work may take: long work looks here between its steps."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from rosy_kettle.core.errors import TookTooLongError

__all__ = ["check_time", "limited"]

_IS_OVER: ContextVar[Callable[[], bool] | None] = ContextVar("is_over", default=None)


@contextmanager
def limited(is_over: Callable[[], bool]) -> Iterator[None]:
    """Let the work inside go on until its time is over; without it, work takes what it takes.

    Parameters
    ----------
    is_over : Callable
        Whether the time is over; asked often, so it must be quick
    """
    held = _IS_OVER.set(is_over)
    try:
        yield
    finally:
        _IS_OVER.reset(held)


def check_time() -> None:
    """Raise once the time of this work is over; return nothing while there is some left.

    Raises
    ------
    TookTooLongError
        If the time of this work is over.
    """
    is_over = _IS_OVER.get()
    if is_over is not None and is_over():
        raise TookTooLongError("This takes longer than it may; ask for less at once, or try again when less is going on.")
