"""Events on their way in: a repeat is known by its id, what does not follow is refused, what cannot be read is never kept."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Any, TypeVar

from rosy_kettle.core.errors import ConflictError, InputError, WorkbenchError
from rosy_kettle.core.making.happening import About, Event, Family, State

__all__ = ["Coming", "follow", "is_repeat", "read_before_kept"]

S = TypeVar("S", bound=State)


@dataclass(frozen=True, slots=True)
class Coming:
    """One event as a device tells it."""

    after: int
    """Number of the last event its maker had seen."""
    kind: str
    data: dict[str, Any]
    id: str | None = None
    """Its own name (UUID), given where it was made."""
    made_at: datetime | None = None
    hold: bool = False
    """Whether it is held, for both sides to see, where it no longer follows."""

    def as_event(self) -> Event:
        """Return the event as it will stand after the last one that was seen."""
        made_at = None if self.made_at is None else self.made_at.astimezone(UTC).isoformat()
        return Event(self.after + 1, datetime.now(UTC).isoformat(), self.kind, self.data, self.id, made_at)


def is_repeat(coming: Coming, events: Sequence[Event]) -> bool:
    """Whether the studio has the event already: its answer was lost on the way.

    Raises
    ------
    ConflictError
        If another event has its name.
    """
    here = next((each for each in events if coming.id is not None and each.id == coming.id), None)
    if here is None:
        return False
    what = here.data.get("what")
    if coming.kind not in {here.kind, what["kind"] if isinstance(what, dict) else None}:
        raise ConflictError("Another event has that id; give each its own.", noun="event", reason="id", id=coming.id)
    return True


def follow(family: Family[S], coming: Coming, events: Sequence[Event]) -> Coming:
    """Return the event after all that has happened, where it still follows.

    One without a name of its own follows only what its maker had seen last: a repeat of it could not be told.

    Raises
    ------
    ConflictError
        If something has happened since that its maker had not seen and that does not stand by itself.
    """
    last = events[-1].seq if events else 0
    since = [each for each in events if each.seq > coming.after]
    unseen = coming.after != last and coming.id is None
    if unseen or coming.after > last or not family.follows(coming.kind, coming.data, since):
        raise ConflictError(f"The {family.noun} has moved on; look again.", noun=family.noun, reason="moved on", seq=last)
    return replace(coming, after=last)


def read_before_kept(family: Family[S], state: S, event: Event, about: About, look: Callable[[S], object] = id) -> S:
    """Return the state after an event that is about to be kept: read as every page will read it, so that none ever fails on it.

    Raises
    ------
    InputError
        If it cannot be read back; then it must not be kept.
    """
    try:
        after = family.fold(state, event)
        family.kind(event.kind).tell(event, about)
        look(after)
    except WorkbenchError:
        raise
    except (LookupError, TypeError, ValueError, AttributeError, ArithmeticError) as error:
        raise InputError(f'"{event.kind}" cannot be read back as it was said; nothing was kept.', quantity="event") from error
    return after
