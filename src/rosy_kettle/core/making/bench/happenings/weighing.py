"""Lines are weighed; a way out is taken where too much was poured; a jar is named for what a line was taken from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Literal

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.bench.happenings.steps import in_hand
from rosy_kettle.core.making.bench.record import BenchState, JarPart, Weighing, finished
from rosy_kettle.core.making.bench.said import Grams, Key, Some
from rosy_kettle.core.making.happening import About, Data, Event, EventKind, Length

__all__ = ["LOT", "RESCUED", "WEIGHED"]

Source = Literal["scale", "hand", "stand-in"]


@dataclass(frozen=True, slots=True)
class Weighed:
    """A line was weighed."""

    step: Key
    actual_g: Grams
    source: Source = "hand"


@dataclass(frozen=True, slots=True)
class Rescued:
    """A way out of pouring too much was taken."""

    step: Key
    actual_g: Grams
    way: Literal["take-out", "scale-up", "rebalance", "keep"]
    source: Source = "scale"


@dataclass(frozen=True, slots=True)
class LotNamed:
    """A line was taken from this jar: all of it, or so many grams beside another jar."""

    ingredient: Annotated[str, Length(1, 80)]
    code: Annotated[str, Length(1, 80)]
    mass_g: Some | None = None


def _check_weighed(state: BenchState, data: Data) -> None:
    in_hand(state, data)
    if state.step is not None and state.step.kind != "weigh":
        raise InputError(f"{state.step.title} has nothing to weigh.", quantity="step")


def _fold_weighed(state: BenchState, event: Event) -> BenchState:
    key = str(event.data["step"])
    return finished(state, key, "done", **_weighing(state, key, event))


def _weighing(state: BenchState, key: str, event: Event) -> Mapping[str, Any]:
    """Return what a weighing changes: nothing where its step has nothing to weigh."""
    step = next((each for each in state.steps if each.key == key), None)
    if step is None or step.position is None or step.target_g is None or step.tolerance_g is None or step.ingredient is None:
        return {}
    actual = float(event.data["actual_g"])
    made = Weighing(
        step.key, step.position, step.ingredient, step.target_g, actual, abs(actual - step.target_g) <= step.tolerance_g,
        str(event.data.get("source", "hand")), event.at, event.seq,
    )  # fmt: skip
    others = tuple(weighing for weighing in state.weighings if weighing.position != made.position)
    skipped = tuple(entry for entry in state.skipped if entry[0] != step.key)
    return {"weighings": (*others, made), "history": (*state.history, made), "skipped": skipped}


def _fold_rescued(state: BenchState, event: Event) -> BenchState:
    targets = {int(position): float(mass_g) for position, mass_g in event.data.get("targets", {}).items()}
    steps = tuple(
        step if step.position not in targets else replace(step, target_g=targets[step.position]) for step in state.steps
    )
    return replace(state, steps=steps, rescues=(*state.rescues, event.data))


def _fold_lot(state: BenchState, event: Event) -> BenchState:
    data = event.data
    ingredient, mass_g = str(data["ingredient"]), data.get("mass_g")
    part = JarPart(int(data["lot_id"]), str(data.get("code", "")), None if mass_g is None else float(mass_g))
    before = () if part.mass_g is None else state.jars.get(ingredient, ())
    parts = (*(each for each in before if each.lot_id != part.lot_id), part)
    return replace(state, lots={**state.lots, ingredient: part.lot_id}, jars={**state.jars, ingredient: parts})


def _tell_weighed(event: Event, about: About) -> str:
    aim_g, within = about.aims.get(event.seq, (None, True))
    aim = "" if aim_g is None else f" for {aim_g:.1f} g"
    source = event.data.get("source", "hand")
    by = "by a stand-in: nobody weighed it" if source == "stand-in" else f"by {source}"
    return f"{about.title(event.data)}: {event.data['actual_g']:.1f} g{aim}, {by}{'' if within else ', outside its tolerance'}."


def _tell_rescued(event: Event, about: About) -> str:
    return f"{about.title(event.data)}: {event.data['actual_g']:.1f} g poured. {event.data.get('text', '')}"


def _tell_lot(event: Event, about: About) -> str:
    mass_g = event.data.get("mass_g")
    what = about.names(str(event.data["ingredient"]))
    much = "all" if mass_g is None else f"{mass_g:.1f} g"
    return f"Taken from lot {event.data['code']}: {much} of the {what}."


WEIGHED = EventKind(
    "weighed", Weighed, _tell_weighed, _fold_weighed, _check_weighed, "weighed off", waits=True, ends_step=True, righted_by="back"
)
RESCUED = EventKind("rescued", Rescued, _tell_rescued, _fold_rescued, journal="correction", righted_by="back")
LOT = EventKind("lot", LotNamed, _tell_lot, _fold_lot, always=True, late="amends", righted_by="lot")
