"""Many records at once, and each by itself where one of them is not understood: none takes the others with it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any, TypeVar

__all__ = ["NOT_UNDERSTOOD", "each_alone", "passed_over"]

NOT_UNDERSTOOD = (LookupError, TypeError, ValueError, AttributeError, ArithmeticError, StopIteration, RuntimeError)
"""How reading a row of another version, or of another hand, may end; a generator hands on StopIteration as RuntimeError."""

One = TypeVar("One")
Made = TypeVar("Made")


def passed_over(_row: object, _error: Exception) -> list[Any]:
    """Return nothing in place of a row that is not understood: ``check`` names it, its own page says why."""
    return []


def each_alone(
    rows: Sequence[One], work: Callable[[Sequence[One]], list[Made]], instead: Callable[[One, Exception], list[Made]]
) -> list[Made]:
    """Return what is made of the rows, in their order; of one that is not understood, what stands instead.

    Rows are halved until the odd one is found, so that a thousand sound ones with one odd among them cost about ten tries more.
    """
    if not rows:
        return []
    try:
        return work(rows)
    except NOT_UNDERSTOOD as error:
        if len(rows) == 1:
            return instead(rows[0], error)
    half = len(rows) // 2
    return each_alone(rows[:half], work, instead) + each_alone(rows[half:], work, instead)
