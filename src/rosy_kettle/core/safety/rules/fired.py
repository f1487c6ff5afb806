"""What a rule says when it fires."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from rosy_kettle.core.safety.rules.facts import Facts

__all__ = ["Fired", "Predicate", "when"]


@dataclass(frozen=True, slots=True)
class Fired:
    """Value against limit where there are any, what it is about, and what is not known."""

    value: float | None = None
    limit: float | None = None
    unit: str = ""
    about: tuple[str, ...] = ()
    unknown: tuple[str, ...] = ()


Predicate = Callable[[Facts], Fired | None]


def when(fires: bool, **found: object) -> Fired | None:
    """Return what was found if the rule fires.

    Parameters
    ----------
    fires : bool
        Whether it does
    found : object
        Fields of ``Fired``

    Returns
    -------
    Fired or None
        None when it is silent
    """
    return Fired(**found) if fires else None  # type: ignore[arg-type]
