"""What is remarked of a batch: notes, photos, what became of it; its closing, and what is amended after."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Annotated

from rosy_kettle.core.errors import ConflictError
from rosy_kettle.core.making.bench.fold import BATCH_EVENTS
from rosy_kettle.core.making.bench.record import BenchState
from rosy_kettle.core.making.bench.said import Some, Text
from rosy_kettle.core.making.happening import About, Between, Data, Event, EventKind, Length

__all__ = ["AMENDED", "CLOSED", "NOTE", "OUTCOME", "PHOTO"]

Count = Annotated[int, Between(0, 100_000)]


@dataclass(frozen=True, slots=True)
class Note:
    """Something to remember; after closing, an amendment."""

    text: Text


@dataclass(frozen=True, slots=True)
class Amended:
    """What is put right after closing: words, or with them an event that came late."""

    text: Text


@dataclass(frozen=True, slots=True)
class PhotoTaken:
    """A photo was taken."""

    name: Annotated[str, Length(1, 80)]


@dataclass(frozen=True, slots=True)
class Outcome:
    """What became of it."""

    dry_at: datetime | None = None
    """Stored in UTC."""
    pieces_good: Count | None = None
    pieces_spoiled: Count | None = None
    tub_dose_g: Some | None = None
    tub_l: Some | None = None
    foam_height_cm: Annotated[float, Between(0, 100)] | None = None
    remarks: Annotated[str, Length(0, 2000)] | None = None


@dataclass(frozen=True, slots=True)
class Closed:
    """The record is closed for good."""


def _check_amended(state: BenchState, _data: Data) -> None:
    if state.closed_at is None:
        raise ConflictError("This batch is still open; write a note instead.", noun="batch", reason="open")


def _check_closed(state: BenchState, _data: Data) -> None:
    if state.held:
        raise ConflictError(
            "Another device did something that does not follow; put it in or set it aside first.", noun="batch", reason="held"
        )


def _fold_note(state: BenchState, event: Event) -> BenchState:
    return replace(state, notes=(*state.notes, str(event.data["text"])))


def _fold_photo(state: BenchState, event: Event) -> BenchState:
    return replace(state, photos=(*state.photos, str(event.data["name"])))


def _fold_outcome(state: BenchState, event: Event) -> BenchState:
    return replace(state, outcome={**state.outcome, **event.data})


def _fold_closed(state: BenchState, event: Event) -> BenchState:
    return replace(state, closed_at=event.at)


def _fold_amended(state: BenchState, event: Event) -> BenchState:
    what = event.data.get("what")
    if what is not None:
        state = BATCH_EVENTS.fold(state, replace(event, kind=str(what["kind"]), data=what["data"]))
    return replace(state, amendments=(*state.amendments, (event.at, str(event.data["text"]))))


def _tell_outcome(event: Event, _about: About) -> str:
    data, told = event.data, []
    if "dry_at" in data:
        told.append(f"dry on {datetime.fromisoformat(data['dry_at']):%d %b %Y, %H:%M} UTC")
    pieces = [f"{data[f'pieces_{kind}']} {kind}" for kind in ("good", "spoiled") if f"pieces_{kind}" in data]
    if pieces:
        told.append(f"pieces: {', '.join(pieces)}")
    tub = [f"{data[key]:g} {unit}" for key, unit in (("tub_dose_g", "g"), ("tub_l", "L")) if key in data]
    if tub:
        told.append(f"tried in a tub: {' in '.join(tub)}")
    if "foam_height_cm" in data:
        told.append(f"foam stood {data['foam_height_cm']:g} cm")
    if data.get("remarks"):
        told.append(str(data["remarks"]))
    return f"What became of it: {'; '.join(told) or 'nothing said'}."


NOTE = EventKind(
    "note", Note, lambda event, _about: f"Note: {event.data['text']}", _fold_note, journal="note", waits=True, always=True,
    late="amends",
)  # fmt: skip
PHOTO = EventKind(
    "photo", PhotoTaken, lambda _event, _about: "A photo was taken.", _fold_photo, journal="photo", waits=True, always=True,
    late="amends", sent=False,
)  # fmt: skip
OUTCOME = EventKind("outcome", Outcome, _tell_outcome, _fold_outcome, journal="result", righted_by="outcome")
CLOSED = EventKind(
    "closed", Closed, lambda _event, _about: "The record was closed.", _fold_closed, _check_closed, "batch"
)  # fmt: skip
AMENDED = EventKind(
    "amended", Amended, lambda event, _about: f"Amended: {event.data['text']}", _fold_amended, _check_amended, "note",
    always=True, late="only",
)  # fmt: skip
