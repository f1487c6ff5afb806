"""What is seen beside the foam; what is left of the piece; notes, photos, the end."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.happening import About, Between, Data, Event, EventKind, Length
from rosy_kettle.core.making.tub.record import SEEN as NAMES
from rosy_kettle.core.making.tub.record import TubState

__all__ = ["CLOSED", "LEFT", "NOTE", "PHOTO", "SEEN"]

MOST_LEFT = 20.0  # a piece is broken in few parts; more than this many doses left is a slip of the scale [-]; project default
Word = Annotated[str, Length(1, 200)]


@dataclass(frozen=True, slots=True)
class Seen:
    """What was seen beside the foam."""

    gone_after_min: Annotated[float, Between(0, 600)] | None = None
    floats: Word | None = None
    spins: Word | None = None
    tint: Word | None = None
    cloud: Word | None = None
    ring: Word | None = None
    film: Word | None = None
    slip: Word | None = None
    skin: Word | None = None
    scent: Word | None = None


@dataclass(frozen=True, slots=True)
class Left:
    """What is left of the piece, for the next bath."""

    mass_g: Annotated[float, Between(0, 100_000)]


@dataclass(frozen=True, slots=True)
class Note:
    """Something worth remembering."""

    text: Annotated[str, Length(1, 2000)]


@dataclass(frozen=True, slots=True)
class PhotoTaken:
    """A photo was taken."""

    name: Annotated[str, Length(1, 80)]


@dataclass(frozen=True, slots=True)
class Closed:
    """The test is closed."""


def _check_seen(_state: TubState, data: Data) -> None:
    if not data:
        raise InputError("Nothing is said; give at least one thing that was seen.", quantity="event")


def _check_left(state: TubState, data: Data) -> None:
    if float(data["mass_g"]) > MOST_LEFT * state.dose_g:
        raise InputError(f"More is left than {MOST_LEFT:g} times what went in; weigh it again.", quantity="mass_g")


def _check_closed(state: TubState, _data: Data) -> None:
    if not state.heights and not state.seen:
        raise InputError("Nothing has been seen yet; measure the foam once, or say what was seen.", quantity="kind")


def _tell_seen(event: Event, _about: About) -> str:
    told = [
        f"{NAMES[key].lower()}: {f'{value:g} min' if key == 'gone_after_min' else value}" for key, value in event.data.items()
    ]
    return f"Seen: {', '.join(told)}."


SEEN = EventKind(
    "seen", Seen, _tell_seen, lambda state, event: replace(state, seen={**state.seen, **event.data}), _check_seen, "tub",
    righted_by="seen",
)  # fmt: skip
LEFT = EventKind(
    "left", Left, lambda event, _about: f"{event.data['mass_g']:g} g left for the next bath.",
    lambda state, event: replace(state, left_g=float(event.data["mass_g"])), _check_left, "tub", righted_by="left",
)  # fmt: skip
NOTE: EventKind[TubState] = EventKind(
    "note", Note, lambda event, _about: f"Note: {event.data['text']}",
    lambda state, event: replace(state, notes=(*state.notes, str(event.data["text"]))), journal="note", always=True,
    late="goes in", righted_by="note",
)  # fmt: skip
PHOTO: EventKind[TubState] = EventKind(
    "photo", PhotoTaken, lambda _event, _about: "A photo was taken.",
    lambda state, event: replace(state, photos=(*state.photos, str(event.data["name"]))), journal="photo", waits=True,
    always=True, late="goes in", righted_by="note", sent=False,
)  # fmt: skip
CLOSED = EventKind(
    "closed", Closed, lambda _event, _about: "The test was closed.", lambda state, event: replace(state, closed_at=event.at),
    _check_closed, "tub", righted_by="amended",
)  # fmt: skip
