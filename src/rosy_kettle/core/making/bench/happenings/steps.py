"""Steps of a run sheet end: done, left out, the air read; or are gone back to."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Literal

from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.core.making.bench.record import BenchState, finished
from rosy_kettle.core.making.bench.said import Celsius, Key, Percent
from rosy_kettle.core.making.happening import About, Data, Event, EventKind, Length

__all__ = ["BACK", "CONDITIONS", "DONE", "SKIPPED", "in_hand"]


@dataclass(frozen=True, slots=True)
class Conditions:
    """The air and the tap as they are; what was not read or typed is left out."""

    step: Key
    room_c: Celsius | None = None
    humidity_pct: Percent | None = None
    tap: Annotated[str, Length(0, 40)] = ""
    source: Literal["hygrometer", "hand", "stand-in"] = "hand"


@dataclass(frozen=True, slots=True)
class Done:
    """A step was done."""

    step: Key


@dataclass(frozen=True, slots=True)
class Skipped:
    """A step was left out."""

    step: Key
    why: Annotated[str, Length(0, 200)]


@dataclass(frozen=True, slots=True)
class Back:
    """A step is gone back to."""

    step: Key


def in_hand(state: BenchState, data: Data) -> None:
    """Refuse what ends another step than the one in hand.

    Parameters
    ----------
    state : BenchState
        Where the batch stands
    data : Mapping
        What the event tells

    Raises
    ------
    ConflictError
        If it is of another step.
    """
    step = state.step
    if step is None or step.key != data.get("step"):
        raise ConflictError("That step is not the one in hand; look again.", noun="batch", reason="other step")


def _check_done(state: BenchState, data: Data) -> None:
    in_hand(state, data)
    if state.step is not None and state.step.kind == "weigh":
        raise InputError(f"{state.step.title}: weigh it, or say why it is left out.", quantity="step")


def _check_skipped(state: BenchState, data: Data) -> None:
    in_hand(state, data)
    if state.step is not None and not str(data.get("why", "")).strip():
        raise InputError(f"{state.step.title}: say why it is left out.", quantity="why")


def _check_back(state: BenchState, data: Data) -> None:
    if data.get("step") not in {step.key for step in state.steps}:
        raise InputError("There is no such step to go back to.", quantity="step")


def _fold_conditions(state: BenchState, event: Event) -> BenchState:
    return finished(state, str(event.data["step"]), "done", conditions={**state.conditions, **event.data})


def _fold_skipped(state: BenchState, event: Event) -> BenchState:
    key = str(event.data["step"])
    return finished(state, key, "skipped", skipped=(*state.skipped, (key, str(event.data["why"]))))


def _fold_done(state: BenchState, event: Event) -> BenchState:
    return finished(state, str(event.data["step"]), "done", timer=None)


def _fold_back(state: BenchState, event: Event) -> BenchState:
    at = next(i for i, step in enumerate(state.steps) if step.key == event.data["step"])
    return replace(state, current=at, timer=None)


def _tell_conditions(event: Event, _about: About) -> str:
    data = event.data
    room = f"Room {data['room_c']:g} °C" if "room_c" in data else "Room not said"
    humidity = f"{data['humidity_pct']:.0f} % humidity" if "humidity_pct" in data else "humidity not read"
    by = ", by a stand-in: nobody measured it" if data.get("source") == "stand-in" else ""
    return f"{room}, {humidity}, tap {data.get('tap') or 'not said'}{by}."


def _tell_skipped(event: Event, about: About) -> str:
    return f"Left out: {about.title(event.data).removeprefix('Weigh ')} ({event.data['why']})."


CONDITIONS = EventKind(
    "conditions", Conditions, _tell_conditions, _fold_conditions, in_hand, "batch", waits=True, ends_step=True, righted_by="back"
)
DONE = EventKind(
    "done", Done, lambda event, about: f"Done: {about.title(event.data)}.", _fold_done, _check_done, waits=True, ends_step=True,
    righted_by="back",
)  # fmt: skip
SKIPPED = EventKind(
    "skipped", Skipped, _tell_skipped, _fold_skipped, _check_skipped, "batch", waits=True, ends_step=True, righted_by="back"
)
BACK = EventKind(
    "back", Back, lambda event, about: f"Went back to: {about.title(event.data)}.", _fold_back, _check_back, waits=True,
    righted_by="done",
)  # fmt: skip
