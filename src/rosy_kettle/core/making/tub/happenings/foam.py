"""The tap is opened, the foam measured, a height put right."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.happening import About, Between, Data, Event, EventKind
from rosy_kettle.core.making.tub.record import FoamHeight, TubState

__all__ = ["AMENDED", "FOAM", "OPENED"]

Centimetres = Annotated[float, Between(0, 100)]


@dataclass(frozen=True, slots=True)
class TapOpened:
    """The tap is opened; the watch runs."""


@dataclass(frozen=True, slots=True)
class FoamStood:
    """Foam stands so high so long after the tap was opened."""

    minutes: Annotated[float, Between(0, 600)]
    height_cm: Centimetres


@dataclass(frozen=True, slots=True)
class HeightAmended:
    """What a height should have said; what it said stays in the record."""

    of: Annotated[int, Between(1, 2**53)]
    height_cm: Centimetres | None = None
    left_out: bool | None = None


def _check_opened(state: TubState, _data: Data) -> None:
    if state.opened_at is not None:
        raise InputError("The tap is open already; the watch runs.", quantity="kind")


def _fold_foam(state: TubState, event: Event) -> TubState:
    made = FoamHeight(event.seq, float(event.data["minutes"]), float(event.data["height_cm"]))
    return replace(state, heights=tuple(sorted((*state.heights, made), key=lambda each: (each.minutes, each.seq))))


def _check_amended(state: TubState, data: Data) -> None:
    if data["of"] not in {each.seq for each in state.heights}:
        raise InputError("There is no such height to amend.", quantity="of", value=data["of"])
    if data.get("height_cm") is None and data.get("left_out") is None:
        raise InputError("Nothing is said; give at least one thing that was seen.", quantity="event")


def _fold_amended(state: TubState, event: Event) -> TubState:
    def mended(each: FoamHeight) -> FoamHeight:
        if each.seq != event.data["of"]:
            return each
        height_cm = event.data.get("height_cm")
        left_out = event.data.get("left_out")
        return replace(
            each, height_cm=each.height_cm if height_cm is None else float(height_cm),
            left_out=each.left_out if left_out is None else bool(left_out),
        )  # fmt: skip

    return replace(state, heights=tuple(mended(each) for each in state.heights))


def _tell_foam(event: Event, _about: About) -> str:
    return f"Foam stood {event.data['height_cm']:g} cm after {event.data['minutes']:g} min."


def _tell_amended(event: Event, _about: About) -> str:
    data = event.data
    return "A height does not count." if data.get("left_out") else f"A height amended to {data.get('height_cm', 0):g} cm."


OPENED = EventKind(
    "opened", TapOpened, lambda _event, _about: "The tap was opened.",
    lambda state, event: replace(state, opened_at=event.made_at or event.at), _check_opened, "tub", righted_by="note",
)  # fmt: skip
FOAM = EventKind("foam", FoamStood, _tell_foam, _fold_foam, journal="tub", always=True)
AMENDED = EventKind("amended", HeightAmended, _tell_amended, _fold_amended, _check_amended, "tub", late="goes in")
