"""What may happen to a batch, a tray or a test: each kind of event is declared once, with all that is to be known of it.

A declaration says what an event of its kind tells, what it makes of the state, how it is told as a sentence, how the journal
files it, and how it behaves on a tablet that was away. What the studio takes in, the browser's types and its queue are made of
these declarations (`api/schemas/happenings.py`, `python -m scripts.event_kinds`).
"""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, Generic, Literal, Protocol, TypeVar

from rosy_kettle.core.errors import ConflictError, InputError

__all__ = ["About", "Between", "Event", "EventKind", "Family", "HeldEvent", "Length", "NotUnderstood"]

Data = Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Event:
    """One thing that happened; never changed, never taken away."""

    seq: int
    at: str
    """When the studio heard of it [UTC, ISO 8601]."""
    kind: str
    data: Data
    id: str | None = None
    """Its own name (UUID), given where it was made; events of former studios have none."""
    made_at: str | None = None
    """When it was made, by the clock of the device it was made on [UTC, ISO 8601]."""


@dataclass(frozen=True, slots=True)
class NotUnderstood:
    """An event that this version does not know, or cannot read: kept as it is, and said."""

    seq: int
    kind: str


@dataclass(frozen=True, slots=True)
class HeldEvent:
    """What a device that was away had done, and what no longer follows: to be put in or set aside."""

    id: str
    seq: int
    after: int
    """What that device had seen."""
    kind: str
    data: Data
    made_at: str | None


@dataclass(frozen=True, slots=True)
class Between:
    """A number from ``low`` to ``high``; above ``low`` where ``above``."""

    low: float
    high: float
    above: bool = False


@dataclass(frozen=True, slots=True)
class Length:
    """A text of so many characters."""

    low: int
    high: int
    pattern: str | None = None
    """What it is written like, as a regular expression."""


@dataclass(frozen=True, slots=True)
class About:
    """What a sentence may want to know beside the event itself."""

    titles: Mapping[str, str] = field(default_factory=dict)
    """Title of a step by its key."""
    names: Callable[[str], str] = str
    """Name of an ingredient by its id."""
    aims: Mapping[int, tuple[float, bool]] = field(default_factory=dict)
    """What a weighing was meant to be [g] and whether it lay within its tolerance, by the number of its event."""
    held: Mapping[str, str] = field(default_factory=dict)
    """What was held, as a sentence, by its id."""

    def title(self, data: Data) -> str:
        """Return the title of the step an event is of."""
        return self.titles.get(str(data.get("step")), "")


class State(Protocol):
    """What the events of one noun add up to; a frozen dataclass."""

    @property
    def seq(self) -> int:
        """Number of the last event."""
        ...

    @property
    def unknown(self) -> tuple[NotUnderstood, ...]:
        """Events that are not understood."""
        ...


S = TypeVar("S", bound=State)
Late = Literal["refused", "goes in", "amends", "only"]


def _refuse_nothing(_state: Any, _data: Data) -> None:
    return None


def _nothing(state: Any, _event: Event) -> Any:
    return state


@dataclass(frozen=True)
class EventKind(Generic[S]):
    """One kind of event: all that is to be known of it, in one place."""

    name: str
    said: type
    """A dataclass: what an event of this kind tells, each field with its limits."""
    tell: Callable[[Event, About], str]
    """The event as a sentence."""
    fold: Callable[[S, Event], S] = _nothing
    """What it makes of the state."""
    check: Callable[[S, Data], None] = _refuse_nothing
    """Refuses what cannot be meant as things stand."""
    journal: str | None = None
    """What the journal files it under; None where it goes without saying."""
    waits: bool = False
    """Whether a tablet may keep it while the studio does not answer: nothing that the studio has to work out."""
    always: bool = False
    """Whether it goes in whatever has happened since: notes, photos, counts, samples stand by themselves."""
    ends_step: bool = False
    """Whether it ends the step in hand."""
    late: Late = "refused"
    """Once the record is closed: refused, goes in as it is, goes in as an amendment that stays to be seen, or only then."""
    righted_by: str = "amended"
    """Kind of event by which it is put right."""
    sent: bool = True
    """Whether a browser sends it by itself; a photo comes with its file, and some the studio makes of others."""


@dataclass(frozen=True)
class Family(Generic[S]):
    """All kinds of event of one noun."""

    noun: str
    package: str
    """Where they are declared: every `EventKind` of every module in it counts."""

    @cached_property
    def kinds(self) -> dict[str, EventKind[S]]:
        """Return the kinds by name, in the order of their modules and places."""
        found: dict[str, EventKind[S]] = {}
        package = importlib.import_module(self.package)
        for module in sorted(each.name for each in pkgutil.iter_modules(package.__path__)):
            declared = vars(importlib.import_module(f"{self.package}.{module}")).values()
            found |= {each.name: each for each in declared if isinstance(each, EventKind)}
        return found

    def kind(self, name: str) -> EventKind[S]:
        """Return a kind.

        Raises
        ------
        InputError
            If there is none of that name.
        """
        if name not in self.kinds:
            raise InputError(f'No {self.noun} knows "{name[:20]}".', quantity="kind")
        return self.kinds[name]

    def fold(self, state: S, event: Event) -> S:
        """Return the state after one more event, exactly.

        Raises
        ------
        InputError, LookupError, TypeError, ValueError
            If the event is not understood.
        """
        return replace(self.kind(event.kind).fold(state, event), seq=event.seq)  # type: ignore[type-var]

    def folded(self, state: S, events: Sequence[Event]) -> S:
        """Return the state after some events; one that is not understood is kept and named, and changes nothing else."""
        for event in events:
            try:
                state = self.fold(state, event)
            except (InputError, LookupError, TypeError, ValueError, AttributeError, ArithmeticError):
                odd = NotUnderstood(event.seq, event.kind)
                state = replace(state, seq=event.seq, unknown=(*state.unknown, odd))  # type: ignore[type-var]
        return state

    def told(self, event: Event, about: About) -> str:
        """Return an event as a sentence; one that is not understood says so."""
        try:
            return self.kind(event.kind).tell(event, about)
        except (InputError, LookupError, TypeError, ValueError, AttributeError, ArithmeticError):
            return f'Something this version does not know ("{event.kind[:40]}"); it is kept as it is.'

    def journal_kind(self, event_kind: str) -> str | None:
        """Return what the journal files an event under; None where it tells nothing of it."""
        declared = self.kinds.get(event_kind)
        return "note" if declared is None else declared.journal

    def check(self, state: S, kind: str, data: Data, *, closed: bool, word: str) -> None:
        """Refuse what cannot happen as things stand.

        Raises
        ------
        ConflictError
            If the record is closed, or still open where it would have to be closed.
        InputError
            If there is no such kind, or a figure cannot be meant.
        """
        declared = self.kind(kind)
        if closed and declared.late in {"refused", "amends"}:
            raise ConflictError(word, noun=self.noun, reason="closed")
        declared.check(state, data)

    def follows(self, kind: str, data: Data, since: Sequence[Event]) -> bool:
        """Whether an event still follows after others have happened that its maker had not seen.

        What stands by itself always does. The end of a step does where others ended other steps meanwhile; anything else only
        where all that happened since stands by itself.
        """
        declared = self.kind(kind)
        return declared.always or not any(self._bars(each, data, ends_step=declared.ends_step) for each in since)

    def _bars(self, event: Event, data: Data, *, ends_step: bool) -> bool:
        other = self.kinds.get(event.kind)
        if other is None or other.always:
            return other is None
        return not (ends_step and other.ends_step and event.data.get("step") != data.get("step"))
