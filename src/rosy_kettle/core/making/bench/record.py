"""Where a batch stands: the state its events add up to, and how a step ends."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from rosy_kettle.core.making.bench.steps import BenchStep
from rosy_kettle.core.making.happening import HeldEvent, NotUnderstood

__all__ = ["BenchState", "Correction", "Felt", "JarPart", "Timer", "Weighing", "begun", "finished"]


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
    """scale, hand, or stand-in: then nobody weighed it."""
    at: str
    seq: int = 0
    """Number of its event."""


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
    corrected: int = 0
    """How many corrections were in the bowl when it was felt."""


@dataclass(frozen=True, slots=True)
class Timer:
    """A clock that runs on even when nobody looks."""

    step: str
    ends_at: str
    minutes: float


@dataclass(frozen=True, slots=True)
class JarPart:
    """A jar that somebody has said a line was taken from."""

    lot_id: int
    code: str
    mass_g: float | None = None
    """How much of the line came from it; None is all that no other jar is named for [g]."""


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
    jars: Mapping[str, tuple[JarPart, ...]] = field(default_factory=dict)
    """All jars named for an ingredient; what no jar is named for is assumed."""
    held: tuple[HeldEvent, ...] = ()
    """What a device that was away had done and what no longer followed: not settled yet."""
    set_aside: tuple[HeldEvent, ...] = ()
    """What was settled by setting it aside."""
    unknown: tuple[NotUnderstood, ...] = ()
    """Events this version does not know, kept as they are."""

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


def begun(steps: tuple[BenchStep, ...]) -> BenchState:
    """Return where a batch stands before anything has happened.

    Parameters
    ----------
    steps : tuple
        The steps as planned
    """
    return BenchState(
        0, steps, ("open",) * len(steps), 0 if steps else None, {}, (), (), (), (), (), (), None, 0, (), (), (), (), {}, None, (),
    )  # fmt: skip


def finished(state: BenchState, key: str, status: str, **changes: Any) -> BenchState:
    """Return the state with one step done or skipped, and what else changes; where it was in hand, the next open one is.

    Parameters
    ----------
    state : BenchState
        Where the batch stands
    key : str
        Key of the step
    status : str
        done or skipped
    changes : Any
        Fields of the state that change with it
    """
    at = next((index for index, step in enumerate(state.steps) if step.key == key), None)
    if at is None:
        return replace(state, **changes)
    marks = (*state.status[:at], status, *state.status[at + 1 :])
    current = next((i for i, mark in enumerate(marks) if mark == "open"), None) if at == state.current else state.current
    return replace(state, status=marks, current=current, **changes)
