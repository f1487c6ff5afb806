"""The pan is weighed, and what it said is put right."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Annotated, Literal

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.happening import About, Between, Data, Event, EventKind, Length
from rosy_kettle.core.making.rack.record import TrayState, TrayWeighing, hours_between

__all__ = ["AMENDED", "WEIGHED"]

PanGrams = Annotated[float, Between(0.01, 100_000)]
Pieces = Annotated[int, Between(1, 100_000)]


@dataclass(frozen=True, slots=True)
class PanWeighed:
    """The pan with some pieces, less its tare."""

    mass_g: PanGrams
    pieces: Pieces
    step_g: Annotated[float, Between(0.001, 100)]
    source: Literal["scale", "hand", "stand-in"]
    temperature_c: Annotated[float, Between(-40, 60)] | None = None
    humidity_pct: Annotated[float, Between(0, 100)] | None = None
    at: datetime | None = None


@dataclass(frozen=True, slots=True)
class PanAmended:
    """What a weigh-in should have said; what it said stays in the record."""

    of: Annotated[int, Between(1, 2**53)]
    mass_g: PanGrams | None = None
    pieces: Pieces | None = None
    left_out: bool | None = None
    why: Annotated[str, Length(0, 500)] = ""


def _fold_weighed(state: TrayState, event: Event) -> TrayState:
    data = event.data
    at = str(data.get("at") or event.at)
    weighing = TrayWeighing(
        event.seq, at, hours_between(state.set_out_at, at), float(data["mass_g"]), int(data["pieces"]), float(data["step_g"]),
        str(data["source"]), data.get("temperature_c"), data.get("humidity_pct"),
    )  # fmt: skip
    # One that is written down late stands where it belongs in time; the others in their own order, whatever the clock did.
    before = state.weighings
    place = sum(each.hours <= weighing.hours for each in before) if "at" in data and data["at"] is not None else len(before)
    return replace(state, weighings=(*before[:place], weighing, *before[place:]))


def _check_amended(state: TrayState, data: Data) -> None:
    if data["of"] not in {each.seq for each in state.weighings}:
        raise InputError(f"There is no weigh-in {data['of']} on this tray.", quantity="of", value=data["of"])


def _fold_amended(state: TrayState, event: Event) -> TrayState:
    said = {key: event.data[key] for key in ("mass_g", "pieces", "left_out") if event.data.get(key) is not None}
    return replace(
        state, weighings=tuple(replace(each, **said) if each.seq == event.data["of"] else each for each in state.weighings)
    )


def _tell_weighed(event: Event, _about: About) -> str:
    data = event.data
    air = f", at {data['humidity_pct']:.0f} % humidity" if "humidity_pct" in data else ""
    source = data.get("source", "hand")
    by = "by a stand-in: nobody weighed it" if source == "stand-in" else f"by {source}"
    return f"Weighed {data['pieces']} pieces: {data['mass_g']:g} g, {by}{air}."


def _tell_amended(event: Event, _about: About) -> str:
    data = event.data
    said = [f"{data[key]:g} {unit}" for key, unit in (("mass_g", "g"), ("pieces", "pieces")) if key in data]
    said += ["left out"] if data.get("left_out") else []
    why = f" ({data['why']})" if data.get("why") else ""
    return f"Amended a weigh-in: {', '.join(said) or 'counted again'}{why}."


WEIGHED = EventKind("weighed", PanWeighed, _tell_weighed, _fold_weighed, journal="weigh-in", always=True, sent=False)
AMENDED = EventKind(
    "amended", PanAmended, _tell_amended, _fold_amended, _check_amended, "note", late="goes in"
)  # fmt: skip
