"""The dough is watched and mended: temperatures, clocks, what the hands say, what was added."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Literal

from rosy_kettle.core.making.bench.feel import check_felt
from rosy_kettle.core.making.bench.record import BenchState, Correction, Felt, Timer
from rosy_kettle.core.making.bench.said import Celsius, Key, Some
from rosy_kettle.core.making.happening import About, Between, Data, Event, EventKind, Length

__all__ = ["CORRECTED", "FELT", "TEMPERATURE", "TIMER"]


@dataclass(frozen=True, slots=True)
class TemperatureTaken:
    """A temperature was taken."""

    step: Key
    value_c: Celsius
    source: Literal["thermometer", "hand", "stand-in"] = "hand"


@dataclass(frozen=True, slots=True)
class TimerStarted:
    """A clock was started."""

    step: Key
    minutes: Annotated[float, Between(0, 10_000, above=True)]


@dataclass(frozen=True, slots=True)
class HandsFelt:
    """What the hands found."""

    state: Annotated[str, Length(0, 40)]


@dataclass(frozen=True, slots=True)
class Corrected:
    """Something was added to mend the dough."""

    ingredient: Annotated[str, Length(0, 80)]
    mass_g: Some
    why: Annotated[str, Length(0, 200)] = ""


def _fold_temperature(state: BenchState, event: Event) -> BenchState:
    taken = (str(event.data["step"]), float(event.data["value_c"]), event.at)
    return replace(state, temperatures=(*state.temperatures, taken))


def _fold_timer(state: BenchState, event: Event) -> BenchState:
    data = event.data
    return replace(state, timer=Timer(str(data["step"]), str(data["ends_at"]), float(data["minutes"])))


def _check_felt(_state: BenchState, data: Data) -> None:
    check_felt(data["state"])


def _fold_felt(state: BenchState, event: Event) -> BenchState:
    check_felt(event.data["state"])  # of what is no feel nothing can be said
    return replace(
        state, felt=(*state.felt, Felt(str(event.data["state"]), event.data.get("predicted"), event.at, len(state.corrections)))
    )


def _fold_corrected(state: BenchState, event: Event) -> BenchState:
    data = event.data
    made = Correction(str(data["ingredient"]), float(data["mass_g"]), str(data.get("why", "")), event.at)
    return replace(state, corrections=(*state.corrections, made))


def _tell_temperature(event: Event, about: About) -> str:
    source = event.data.get("source", "hand")
    by = "by a stand-in: nobody measured it" if source == "stand-in" else f"by {source}"
    return f"{about.title(event.data)}: {event.data['value_c']:.1f} °C, {by}."


def _tell_felt(event: Event, _about: About) -> str:
    return f"It felt like {event.data['state']}; the Desk had said {event.data.get('predicted') or 'nothing'}."


def _tell_corrected(event: Event, about: About) -> str:
    data = event.data
    said = f"Added {data['mass_g']:.1f} g {about.names(str(data['ingredient']))}"
    return said + (f" ({data['why']})." if data.get("why") else ".")


TEMPERATURE = EventKind("temperature", TemperatureTaken, _tell_temperature, _fold_temperature, righted_by="temperature")
TIMER = EventKind(
    "timer", TimerStarted, lambda event, about: f"{about.title(event.data)}: clock started, {event.data['minutes']:g} min.",
    _fold_timer, righted_by="timer",
)  # fmt: skip
FELT = EventKind("felt", HandsFelt, _tell_felt, _fold_felt, _check_felt, "felt", waits=True, righted_by="felt")
CORRECTED = EventKind("corrected", Corrected, _tell_corrected, _fold_corrected, journal="correction", righted_by="note")
