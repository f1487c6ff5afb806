"""What happened to a batch: events in their order, and the state they add up to."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.core.making.bench.steps import BenchStep

__all__ = ["EVENT_KINDS", "BatchEvent", "BenchState", "Correction", "Felt", "Timer", "Weighing", "check_event", "state_of"]

EVENT_KINDS = (
    "conditions", "weighed", "skipped", "done", "temperature", "timer", "felt", "corrected", "rescued", "pieces", "sampled",
    "back", "lot", "photo", "note", "outcome", "closed", "amended",
)  # fmt: skip
AFTER_CLOSING = frozenset({"amended"})
FINISHING = {"done", "skipped", "weighed", "conditions"}


@dataclass(frozen=True, slots=True)
class BatchEvent:
    """One thing that happened; never changed, never taken away."""

    seq: int
    at: str
    """UTC, ISO 8601."""
    kind: str
    data: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Weighing:
    """One line as it was weighed."""

    step: str
    position: int
    ingredient: str
    target_g: float
    actual_g: float
    within: bool
    source: str
    at: str


@dataclass(frozen=True, slots=True)
class Correction:
    """Something added after the weighing, to mend the dough."""

    ingredient: str
    mass_g: float
    why: str
    at: str


@dataclass(frozen=True, slots=True)
class Felt:
    """What the hands said, beside what was predicted."""

    state: str
    predicted: str | None
    at: str


@dataclass(frozen=True, slots=True)
class Timer:
    """A clock that runs on even when nobody looks."""

    step: str
    ends_at: str
    minutes: float


@dataclass(frozen=True, slots=True)
class BenchState:
    """Where a batch stands."""

    seq: int
    steps: tuple[BenchStep, ...]
    """With the targets as rescues have changed them."""
    status: tuple[str, ...]
    """open, done or skipped, one for each step."""
    current: int | None
    """Index of the step in hand; None once all are done."""
    conditions: Mapping[str, Any]
    weighings: tuple[Weighing, ...]
    """The last one of each line."""
    history: tuple[Weighing, ...]
    """Every weighing, those that were done again too."""
    skipped: tuple[tuple[str, str], ...]
    """Step and reason."""
    corrections: tuple[Correction, ...]
    felt: tuple[Felt, ...]
    temperatures: tuple[tuple[str, float, str], ...]
    """Step, temperature [°C], time."""
    timer: Timer | None
    pieces_done: int
    samples_g: tuple[float, ...]
    rescues: tuple[Mapping[str, Any], ...]
    photos: tuple[str, ...]
    notes: tuple[str, ...]
    outcome: Mapping[str, Any]
    closed_at: str | None
    amendments: tuple[tuple[str, str], ...]
    """Time and text."""
    lots: Mapping[str, int] = field(default_factory=dict)
    """Lot named for an ingredient, where the maker chose one."""

    @property
    def step(self) -> BenchStep | None:
        """The step in hand."""
        return None if self.current is None else self.steps[self.current]

    def mass_g(self) -> dict[int, float]:
        """Return the mass of each line as made: weighed, left out (0), or still as planned [g]."""
        masses = {step.position: step.target_g or 0.0 for step in self.steps if step.position is not None}
        masses |= {
            step.position: 0.0
            for step, status in zip(self.steps, self.status, strict=True)
            if step.position is not None and status == "skipped"
        }
        return masses | {weighing.position: weighing.actual_g for weighing in self.weighings}

    def poured(self) -> set[int]:
        """Return the lines that are weighed."""
        return {weighing.position for weighing in self.weighings}


def state_of(steps: Sequence[BenchStep], events: Sequence[BatchEvent]) -> BenchState:
    """Return where a batch stands after its events.

    Parameters
    ----------
    steps : Sequence
        The steps as planned
    events : Sequence
        All events in their order

    Returns
    -------
    BenchState
        The same events give the same state, always: that is what survives a power cut
    """
    state = BenchState(
        0, tuple(steps), ("open",) * len(steps), 0 if steps else None, {}, (), (), (), (), (), (), None, 0, (), (), (), (), {},
        None, (),
    )  # fmt: skip
    for event in events:
        state = _apply(state, event)
    return replace(state, seq=events[-1].seq) if events else state


def check_event(state: BenchState, kind: str, data: Mapping[str, Any]) -> None:
    """Refuse what cannot happen now.

    Parameters
    ----------
    state : BenchState
        Where the batch stands
    kind : str
        What is to happen
    data : Mapping
        Its figures

    Raises
    ------
    ConflictError
        If the batch is closed, or the step is not the one in hand.
    InputError
        If the kind is unknown or a figure cannot be meant.
    """
    if kind not in EVENT_KINDS:
        raise InputError(f'The bench knows no "{kind[:20]}".', quantity="kind")
    if state.closed_at is not None and kind not in AFTER_CLOSING:
        raise ConflictError("This batch is closed; write an amendment instead.", noun="batch", reason="closed")
    if state.closed_at is None and kind in AFTER_CLOSING:
        raise ConflictError("This batch is still open; write a note instead.", noun="batch", reason="open")
    if kind in FINISHING:
        step = state.step
        if step is None or step.key != data.get("step"):
            raise ConflictError("That step is not the one in hand; look again.", noun="batch", reason="other step")
        if kind == "done" and step.kind == "weigh":
            raise InputError(f"{step.title}: weigh it, or say why it is left out.", quantity="step")
        if kind == "weighed" and step.kind != "weigh":
            raise InputError(f"{step.title} has nothing to weigh.", quantity="step")
        if kind == "skipped" and not str(data.get("why", "")).strip():
            raise InputError(f"{step.title}: say why it is left out.", quantity="why")
    if kind == "back" and data.get("step") not in {step.key for step in state.steps}:
        raise InputError("There is no such step to go back to.", quantity="step")


def _apply(state: BenchState, event: BatchEvent) -> BenchState:  # noqa: PLR0912, C901 - one line a kind reads best
    data, at = event.data, event.at
    match event.kind:
        case "conditions":
            return _finish(state, "done", conditions={**state.conditions, **data})
        case "weighed":
            return _finish(state, "done", **_weighed(state, data, at))
        case "skipped":
            return _finish(state, "skipped", skipped=(*state.skipped, (str(data["step"]), str(data["why"]))))
        case "done":
            return _finish(state, "done", timer=None)
        case "temperature":
            return replace(state, temperatures=(*state.temperatures, (str(data["step"]), float(data["value_c"]), at)))
        case "timer":
            return replace(state, timer=Timer(str(data["step"]), str(data["ends_at"]), float(data["minutes"])))
        case "felt":
            return replace(state, felt=(*state.felt, Felt(str(data["state"]), data.get("predicted"), at)))
        case "corrected":
            made = Correction(str(data["ingredient"]), float(data["mass_g"]), str(data.get("why", "")), at)
            return replace(state, corrections=(*state.corrections, made))
        case "rescued":
            return _rescued(state, data)
        case "pieces":
            return replace(state, pieces_done=max(0, state.pieces_done + int(data["count"])))
        case "sampled":
            return replace(state, samples_g=(*state.samples_g, float(data["mass_g"])))
        case "back":
            return replace(state, current=next(i for i, step in enumerate(state.steps) if step.key == data["step"]), timer=None)
        case "lot":
            return replace(state, lots={**state.lots, str(data["ingredient"]): int(data["lot_id"])})
        case "photo":
            return replace(state, photos=(*state.photos, str(data["name"])))
        case "note":
            return replace(state, notes=(*state.notes, str(data["text"])))
        case "outcome":
            return replace(state, outcome={**state.outcome, **data})
        case "closed":
            return replace(state, closed_at=at)
        case "amended":
            return replace(state, amendments=(*state.amendments, (at, str(data["text"]))))
    return state


def _finish(state: BenchState, status: str, **changes: Any) -> BenchState:
    """Mark the step in hand and go on to the next one that is open, with what else changes."""
    if state.current is None:
        return replace(state, **changes)
    marks = (*state.status[: state.current], status, *state.status[state.current + 1 :])
    return replace(state, status=marks, current=next((i for i, mark in enumerate(marks) if mark == "open"), None), **changes)


def _weighed(state: BenchState, data: Mapping[str, Any], at: str) -> dict[str, Any]:
    """Return what a weighing changes: nothing where the step in hand has nothing to weigh."""
    step = state.step
    if step is None or step.position is None or step.target_g is None or step.tolerance_g is None or step.ingredient is None:
        return {}
    actual = float(data["actual_g"])
    made = Weighing(
        step.key, step.position, step.ingredient, step.target_g, actual, abs(actual - step.target_g) <= step.tolerance_g,
        str(data.get("source", "hand")), at,
    )  # fmt: skip
    others = tuple(weighing for weighing in state.weighings if weighing.position != made.position)
    skipped = tuple(entry for entry in state.skipped if entry[0] != step.key)
    return {"weighings": (*others, made), "history": (*state.history, made), "skipped": skipped}


def _rescued(state: BenchState, data: Mapping[str, Any]) -> BenchState:
    targets = {int(position): float(mass_g) for position, mass_g in data.get("targets", {}).items()}
    steps = tuple(
        step if step.position not in targets else replace(step, target_g=targets[step.position]) for step in state.steps
    )
    return replace(state, steps=steps, rescues=(*state.rescues, data))
