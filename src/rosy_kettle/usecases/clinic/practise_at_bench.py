"""A practice run as the bench shows a batch: the recipe's own steps, what was done as its events, what the feel asks for.

The bowl comes to the learner weighed and mixed, as its sheet says; what is hidden in it the bench does not know either.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import timedelta
from functools import lru_cache
from typing import Any

from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.core.making.bench import (
    BenchState,
    BenchStep,
    FeelAnswer,
    as_made,
    bench_steps,
    check_event,
    state_of,
)
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.plan import Wish, plan_order, sheet_of
from rosy_kettle.core.practice.bowl import Act
from rosy_kettle.core.practice.scenario import Scenario
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Line, Portion, Room
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.reference import load_tables
from rosy_kettle.usecases.batches.run_batch import felt_answer, predicted_state
from rosy_kettle.usecases.clinic.practise import Run

__all__ = ["PracticeBench", "act_of_event", "bench_of_run"]

BEFORE_FEEL = {"conditions": "conditions", "weigh": "weighed"}
"""What is written down of a step that was done before the bowl came to the learner; of all others, that it is done."""


@dataclass(frozen=True, slots=True)
class PracticeBench:
    """A run with everything the bench shows of a batch."""

    planned: Formula
    made: Formula
    state: BenchState
    before: Evaluation
    now: Evaluation
    feel: FeelAnswer | None
    pieces: int


def bench_of_run(run: Run) -> PracticeBench:
    """Return a run as the bench shows it."""
    planned, steps = _sheet(_Bowl.of(run.scenario))
    state = state_of(steps, _events(run, steps))
    made = as_made(planned, state)
    tables = load_tables()
    return PracticeBench(
        planned, made, state, evaluate(planned, tables), evaluate(made, tables), felt_answer(planned, made, tables, state),
        next((step.pieces or 0 for step in steps if step.kind == "shape"), 0),
    )  # fmt: skip


def act_of_event(run: Run, kind: str, data: Mapping[str, Any]) -> Act:
    """Return what an event of the bench is at a practice bowl.

    Raises
    ------
    ConflictError
        If the step is not the one in hand.
    InputError
        If there is no such thing to do at a bowl that is mixed already.
    """
    if run.state.ended:
        raise ConflictError("This bowl is shaped; begin another.", noun="practice run", reason="ended")
    bench = bench_of_run(run)
    check_event(bench.state, kind, data)
    if kind == "done":
        step = bench.state.step
        return Act("shape" if step is not None and step.kind == "shape" else "done", word=str(data["step"]))
    if kind == "felt":
        return Act("called", word=str(data["state"]))
    if kind == "corrected":
        return Act("add", str(data["ingredient"]), float(data["mass_g"]))
    if kind == "timer":
        return Act("rest", value=float(data["minutes"]), word=str(data["step"]))
    if kind == "pieces":
        return Act("pieces", value=float(data["count"]))
    if kind == "sampled":
        return Act("sampled", value=float(data["mass_g"]))
    raise InputError("A practice bowl comes weighed and mixed; there is no way back before that.", quantity="kind")


@dataclass(frozen=True, slots=True)
class _Bowl:
    """What the sheet of a bowl is made from; the same for every run of it."""

    title: str
    method: str
    lines: tuple[tuple[str, float], ...]
    room: Room

    @classmethod
    def of(cls, scenario: Scenario) -> _Bowl:
        room = Room(scenario.room_c, scenario.humidity_pct)
        return cls(scenario.title, scenario.method, tuple(scenario.lines.items()), room)


@lru_cache(maxsize=64)
def _sheet(bowl: _Bowl) -> tuple[Formula, tuple[BenchStep, ...]]:
    """Return the recipe in grams and the steps of its bowl."""
    tables = load_tables()
    lines = tuple(Line(id_, f"{mass_g:.6g}", "g") for id_, mass_g in bowl.lines)
    planned = Formula(bowl.title, (Portion("body", lines),), bowl.method, room=bowl.room)
    piece = plan_order(planned, tables, [Wish(1)], None, None, {}).pieces[0]
    mass_g = sum(mass_g for _id, mass_g in bowl.lines)
    pieces = max(1, int(mass_g // piece.piece_mass_g))
    sheet = sheet_of(planned, tables, mass_g, pieces, piece.piece_mass_g, piece.basis, {})
    return planned, bench_steps(planned, tables, sheet)


def _events(run: Run, steps: tuple[BenchStep, ...]) -> list[Event]:
    """Return what happened: the bowl that came mixed, then what the learner did."""
    feel = next(index for index, step in enumerate(steps) if step.kind == "feel")
    told = [(BEFORE_FEEL.get(step.kind, "done"), _before(run.scenario, step)) for step in steps[:feel]]
    for act in run.acts:
        if act.kind == "called":
            told.append(("felt", {"state": act.word, "predicted": _predicted(run)}))
        elif act.kind == "add":
            told.append(("corrected", {"ingredient": act.ingredient, "mass_g": act.value, "why": "practice"}))
        elif act.kind in {"done", "shape"} and act.word:
            told.append(("done", {"step": act.word}))
        elif act.kind == "pieces":
            told.append(("pieces", {"count": int(act.value)}))
        elif act.kind == "sampled":
            told.append(("sampled", {"mass_g": act.value}))
    begun = run.row.created_at
    return [
        Event(seq, (begun + timedelta(seconds=seq)).isoformat(), kind, data) for seq, (kind, data) in enumerate(told, start=1)
    ]


def _before(scenario: Scenario, step: BenchStep) -> dict[str, Any]:
    if step.kind == "conditions":
        return {"step": step.key, "room_c": scenario.room_c, "humidity_pct": scenario.humidity_pct}
    if step.kind == "weigh":
        return {"step": step.key, "actual_g": step.target_g, "source": "hand"}
    return {"step": step.key}


def _predicted(run: Run) -> str | None:
    planned, _steps = _sheet(_Bowl.of(run.scenario))
    return predicted_state(evaluate(planned, load_tables()))
