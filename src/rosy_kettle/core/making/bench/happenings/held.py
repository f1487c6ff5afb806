"""What a device that had not seen the rest had done, and no longer follows: held, until it is put in or set aside."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from rosy_kettle.core.errors import ConflictError
from rosy_kettle.core.making.bench.fold import BATCH_EVENTS
from rosy_kettle.core.making.bench.record import BenchState
from rosy_kettle.core.making.happening import About, Data, Event, EventKind, HeldEvent, Length

__all__ = ["HELD", "SETTLED"]


@dataclass(frozen=True, slots=True)
class Held:
    """An event that no longer followed when it was heard; the studio makes it of the other."""

    after: int
    kind: str
    same: bool = False
    """Whether the record says the same already: then there is nothing to settle."""


@dataclass(frozen=True, slots=True)
class Settled:
    """What was held is put in after all, or set aside; either way it stays in the record."""

    of: Annotated[str, Length(1, 80)]
    put_in: bool


def _fold_held(state: BenchState, event: Event) -> BenchState:
    what, data = event.data["what"], event.data
    if data.get("same"):
        return state
    held = HeldEvent(str(event.id), event.seq, int(data["after"]), str(what["kind"]), what["data"], event.made_at)
    return replace(state, held=(*state.held, held))


def _found(state: BenchState, data: Data) -> HeldEvent:
    held = next((each for each in state.held if each.id == data["of"]), None)
    if held is None:
        raise ConflictError("That is settled already; look again.", noun="batch", reason="settled")
    return held


def _check_settled(state: BenchState, data: Data) -> None:
    _found(state, data)


def _fold_settled(state: BenchState, event: Event) -> BenchState:
    held = _found(state, event.data)
    if event.data["put_in"]:
        state = BATCH_EVENTS.fold(state, replace(event, kind=held.kind, data=held.data, made_at=held.made_at))
    else:
        state = replace(state, set_aside=(*state.set_aside, held))
    return replace(state, held=tuple(each for each in state.held if each.id != held.id))


def _tell_held(event: Event, about: About) -> str:
    what = event.data["what"]
    told = BATCH_EVENTS.told(replace(event, kind=str(what["kind"]), data=what["data"]), about)
    if event.data.get("same"):
        return f"Said by another device too: {told}"
    return f"Came from a device that had not seen the rest, and no longer followed: {told}"


def _tell_settled(event: Event, about: About) -> str:
    said = about.held.get(str(event.data["of"]), "what was held")
    return f"Put in after all: {said}" if event.data["put_in"] else f"Set aside: {said}"


HELD = EventKind(
    "held", Held, _tell_held, _fold_held, journal="note", always=True, late="goes in", righted_by="settled", sent=False
)
SETTLED = EventKind(
    "settled", Settled, _tell_settled, _fold_settled, _check_settled, "note", always=True, late="goes in", righted_by="back"
)
