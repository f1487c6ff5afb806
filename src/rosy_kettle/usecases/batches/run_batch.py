"""A batch at the bench: begin it, let things happen to it, see where it stands."""

from __future__ import annotations

from dataclasses import asdict, dataclass, replace
from datetime import datetime
from functools import cached_property
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.change.balance import Target
from rosy_kettle.core.change.balance.task import with_masses_at
from rosy_kettle.core.errors import ConflictError, InputError, NotReadError
from rosy_kettle.core.making.bench import (
    BenchState,
    FeelAnswer,
    RescueOption,
    answer_feel,
    as_made,
    bench_steps,
    in_grams,
    rescue_options,
    state_of,
    step_from,
)
from rosy_kettle.core.making.bench.follow import following_weighed
from rosy_kettle.core.making.bench.window_watch import WindowWatch, watch_window
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.plan import sheet_of
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Room, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.files import FormulaFile, formula_from_file, formula_to_file
from rosy_kettle.store.batches import (
    BatchRow,
    add_batch,
    bowl_begun,
    find_batch,
    list_events,
)
from rosy_kettle.store.formulas import find_formula, keep_version, record_of
from rosy_kettle.store.happenings import event_of_row
from rosy_kettle.store.lots import list_stock
from rosy_kettle.usecases.batches.plan_batch import PlanAsk, plan_batch
from rosy_kettle.usecases.each_alone import NOT_UNDERSTOOD
from rosy_kettle.usecases.profiles.read_profiles import read_profiles
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = [
    "Bench",
    "begin_batch",
    "begin_next_bowl",
    "felt_answer",
    "open_bench",
    "options",
    "predicted_state",
    "ways_out",
]


@dataclass(frozen=True)
class Bench:
    """A batch with everything the bench shows of it; its readings are computed when they are first asked for."""

    row: BatchRow
    planned: Formula
    made: Formula
    state: BenchState
    events: tuple[Event, ...]
    tables: Tables

    @cached_property
    def before(self) -> Evaluation:
        """Readings as planned."""
        return evaluate(self.planned, self.tables)

    @cached_property
    def now(self) -> Evaluation:
        """Readings as made so far."""
        return evaluate(self.made, self.tables)

    @cached_property
    def so_far(self) -> Evaluation:
        """Readings of what is in the bowl already."""
        poured = self.state.poured()
        only = {position: (mass_g if position in poured else 0.0) for position, mass_g in self.state.mass_g().items()}
        return evaluate(with_masses_at(self.planned, only), self.tables)

    @property
    def pieces_now(self) -> int:
        """Pieces as they were counted; before that, as what was weighed gives them."""
        given = next((step.pieces for step in self.state.steps if step.pieces is not None), None)
        return self.state.pieces_done or given or sum(int(item["pieces"]) for item in self.row.plan["pieces"])

    @cached_property
    def watch(self) -> WindowWatch | None:
        """How long the dough stays workable; None where no temperature is in hand."""
        return _watch(self.made, self.tables, self.state, self.events)

    @cached_property
    def feel(self) -> FeelAnswer | None:
        """What to do about a dough that was felt; None where none was."""
        return felt_answer(self.planned, self.made, self.tables, self.state)


def begin_batch(session: Session, formula_id: int, ask: PlanAsk, key: str | None = None) -> int:
    """Begin one bowl of a plan and return its number; the version it is made of is kept for good.

    Raises
    ------
    InputError
        If a line is not understood or cannot be weighed.
    """
    plan = plan_batch(session, formula_id, ask)
    row = find_formula(session, formula_id)
    tables = studio_tables(session)
    formula = record_of(row)
    planned = in_grams(formula, tables, plan.order.bowls_g[0])
    if ask.room is not None:
        planned = replace(planned, room=ask.room)
    if row.working.frozen_at is None:
        keep_version(session, formula_id, row.working.note or "made at the bench")
    bowls, wanted = len(plan.order.bowls_g), plan.order.pieces
    shares = [-(-item.pieces // bowls) for item in wanted]
    sheet = sheet_of(
        planned, tables, plan.order.bowls_g[0], sum(shares), wanted[0].piece_mass_g, wanted[0].basis, ask.schools
    )  # fmt: skip
    batch = add_batch(session, BatchRow(
        formula_id=formula_id, version=row.working.number, name=formula.name, method=formula.method,
        batch_g=plan.order.bowls_g[0], request_key=key,
        plan={
            "formula": formula_to_file(planned).model_dump(mode="json"),
            "pieces": [
                {
                    "name": item.name, "tool": item.tool, "pieces": share, "piece_mass_g": item.piece_mass_g,
                    "basis": item.basis, "scoop_fill": wish.scoop_fill,
                }
                for item, share, wish in zip(wanted, shares, ask.wishes, strict=True)
            ],
            "bowl": 1,
            "bowls": bowls,
            "first": None,
            "capacity_g": ask.capacity_g,
            "factors": dict(tables.learnt),
            "schools": {school.id: school.taken for school in sheet.schools},
            "steps": [asdict(step) for step in bench_steps(planned, tables, sheet)],
        },
    ))  # fmt: skip
    return batch.id


def begin_next_bowl(session: Session, batch_id: int) -> int:
    """Begin the next bowl of the same plan, of the same version and steps, and return its number.

    Raises
    ------
    InputError
        If it was the last one.
    ConflictError
        If the next one is begun already.
    """
    row = find_batch(session, batch_id)
    bowl, bowls = row.plan["bowl"] + 1, row.plan["bowls"]
    if bowl > bowls:
        raise InputError(f"This was bowl {bowls} of {bowls}, the last; plan again for more.", quantity="bowl")
    first = row.plan["first"] or row.id
    begun = bowl_begun(session, row.formula_id, first, bowl)
    if begun is not None:
        raise ConflictError(f"Bowl {bowl} is begun already: it is batch {begun}.", noun="batch", reason="begun", id=begun)
    made = BatchRow(
        formula_id=row.formula_id, version=row.version, name=row.name, method=row.method, batch_g=row.batch_g,
        plan=row.plan | {"bowl": bowl, "first": first},
    )  # fmt: skip
    return add_batch(session, made).id


def open_bench(session: Session, batch_id: int) -> Bench:
    """Return a batch with its state; its readings follow when they are asked for.

    Raises
    ------
    NotFoundError
        If there is no such batch.
    NotReadError
        If another version, or another hand, wrote its plan.
    """
    row = find_batch(session, batch_id)
    try:
        return _opened(session, row)
    except NOT_UNDERSTOOD as error:
        sentence = f"Batch {batch_id} is not understood by this version; it is kept, and 'rosy-kettle check' says how to go on."
        raise NotReadError(sentence, noun="batch", id=batch_id) from error


def _opened(session: Session, row: BatchRow) -> Bench:
    tables = studio_tables(session, row.plan.get("factors", {}))  # those it was planned with, whatever is learnt since
    planned = formula_from_file(FormulaFile.model_validate(row.plan["formula"]))
    events = tuple(event_of_row(row) for row in list_events(session, row.id))
    state = state_of([step_from(step) for step in row.plan["steps"]], events)
    made = as_made(_in_air(planned, state), state)
    return Bench(row, planned, made, following_weighed(planned, state), events, tables)


def ways_out(session: Session, batch_id: int, actual_g: float) -> tuple[RescueOption, ...]:
    """Return the ways out of pouring too much of the line in hand.

    Raises
    ------
    InputError
        If the step in hand is no weighing.
    """
    return options(session, open_bench(session, batch_id), actual_g)


def options(session: Session, bench: Bench, actual_g: float, only: str | None = None) -> tuple[RescueOption, ...]:
    """Return the ways out of an open bench, or one of them alone.

    Raises
    ------
    InputError
        If the step in hand is no weighing.
    """
    step = bench.state.step
    if step is None or step.kind != "weigh":
        raise InputError("The step in hand has nothing to weigh.", quantity="step")
    capacity = bench.row.plan.get("capacity_g")
    return rescue_options(
        bench.planned, bench.tables, bench.state, step, actual_g, _targets(session, bench), capacity, list_stock(session), only
    )


def _targets(session: Session, bench: Bench) -> list[Target]:
    """Hold what the plan held: the profile's bands and the method's dough, where they were met."""
    profile = next((each for each in read_profiles(session) if each.id == bench.planned.profile), None)
    wanted = bench.tables.method_of(bench.planned).wanted
    targets = [Target(band.reading, band.low, band.high) for band in profile.bands] if profile else []
    if len(bench.planned.portions) == 1:
        targets.append(Target("dough.saturation", wanted.saturation_low, wanted.saturation_high))
    return [target for target in targets if _met(bench.before, target)]


def _met(evaluation: Evaluation, target: Target) -> bool:
    found: Any = evaluation
    for name in target.reading.split("."):
        found = getattr(found, name, None)
    if found is None:
        return False
    value = float(found)
    return (target.low is None or value >= target.low) and (target.high is None or value <= target.high)


def _watch(made: Formula, tables: Tables, state: BenchState, events: tuple[Event, ...]) -> WindowWatch | None:
    step = state.step
    if step is None or step.kind != "temperature":
        return None
    taken = [
        (datetime.fromisoformat(str(event.data.get("at", event.at))).timestamp() / 60, float(event.data["value_c"]))
        for event in events
        if event.kind == "temperature" and event.data["step"] == step.key
    ]
    if not taken:
        return None
    room_c = float(state.conditions.get("room_c", made.room.temperature_c))
    return watch_window(made, tables, taken, step.low_c, step.high_c, room_c)


def felt_answer(planned: Formula, made: Formula, tables: Tables, state: BenchState) -> FeelAnswer | None:
    """Return what to do about a dough that was felt; None where none is asked for or felt."""
    step = state.step
    if step is None or step.kind != "feel" or not state.felt:
        return None
    rested = any(each.kind == "rest" and mark == "done" for each, mark in zip(state.steps, state.status, strict=True))
    temperature = state.temperatures[-1][1] if state.temperatures else None
    last, before = state.felt[-1], _felt_before(planned, tables, state)
    return answer_feel(made, tables, last.state, temperature, rested=rested or len(state.felt) > 1, before=before)


def _felt_before(planned: Formula, tables: Tables, state: BenchState) -> list[tuple[str, float]]:
    """Return the earlier feels of a bowl, each beside the saturation that its formula had at that moment."""
    feels = []
    for felt in state.felt[:-1]:
        then = replace(state, corrections=state.corrections[: felt.corrected])
        told = evaluate(as_made(planned, then), tables)
        dough = told.dough or told.portions[0].dough
        if dough is not None and dough.saturation is not None:
            feels.append((felt.state, dough.saturation))
    return feels


def predicted_state(evaluation: Evaluation) -> str | None:
    """Return what the dough of a formula, or of its first portion, should feel like."""
    dough = evaluation.dough or (evaluation.portions[0].dough if evaluation.portions else None)
    return None if dough is None else dough.state


def _in_air(formula: Formula, state: BenchState) -> Formula:
    air = state.conditions
    if "room_c" not in air and "humidity_pct" not in air:
        return formula
    room = Room(
        float(air.get("room_c") or formula.room.temperature_c), float(air.get("humidity_pct") or formula.room.humidity_pct)
    )
    return replace(formula, room=room)
