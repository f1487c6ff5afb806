"""What was seen of a formula, from the studio's batches, trays, baths and measurements."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Iterator, Sequence
from dataclasses import replace
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.core.learning.observations import Observation
from rosy_kettle.core.making.bench import BenchState, as_made, state_of, step_from
from rosy_kettle.core.making.rack.judge_tray import fit_tray
from rosy_kettle.core.records import Formula, Room, Tables, Use
from rosy_kettle.files import FormulaFile, formula_from_file
from rosy_kettle.store.batches import BatchRow, list_events
from rosy_kettle.store.happenings import event_of_row
from rosy_kettle.store.measurements import MeasurementRow
from rosy_kettle.store.tub_tests import TubTestRow
from rosy_kettle.usecases.rack.run_rack import weighed_trays
from rosy_kettle.usecases.tub.run_test import looked_at

__all__ = ["observe"]

FEWEST_WEIGHED = 3  # pieces of a batch that say what its pieces weigh
AS_ENTERED = "as entered"
GONE = "an ingredient of it has gone"
NOT_WEIGHED = "a stand-in weighed it: nobody measured it"
STAND_IN = "stand-in"

Seen = Iterator[tuple[int, list[Observation]]]
"""Numbers of sources, each with what was seen of it."""


def observe(session: Session, kind: str, ids: Sequence[int], tables: Tables) -> Seen:
    """Yield what was seen of some sources of one kind; of what is gone, nothing."""
    return KINDS[kind](session, ids, tables)


def _felt(session: Session, ids: Sequence[int], tables: Tables) -> Seen:
    """Yield what hands first found of each batch, before anything was added to mend it."""
    for row in _batches(session, ids):
        events = list_events(session, row.id)
        first = next(event for event in events if event.kind == "felt")
        measured = [event for event in events if event.data.get("source") != STAND_IN]
        room_c = next((event.data["room_c"] for event in measured if event.data.get("room_c") is not None), Room().temperature_c)
        warm_c = [event.data["value_c"] for event in measured if event.kind == "temperature" and event.seq < first.seq]
        facts = {"state": first.data["state"], "temperature_c": float(warm_c[-1] if warm_c else room_c)}
        formula, why = _known(row.plan["formula"], tables)
        why = why or (NOT_WEIGHED if _by_stand_ins(events, {"weighed", "rescued"}) else "")
        yield row.id, [Observation("felt", formula, facts, why)]


def _dried(session: Session, ids: Sequence[int], tables: Tables) -> Seen:
    """Yield the hours of trays that were weighed until they were dry, in the air they stood in."""
    for row, state, airs in weighed_trays(session, ids):
        if row.formula is None:
            yield row.id, []
            continue
        formula, why = _known(row.formula, tables)
        why = why or (NOT_WEIGHED if any(each.source == STAND_IN for each in state.weighings) else "")
        dried = fit_tray(state, None if why else formula, tables, airs)
        done = dried.fit is not None and dried.fit.ready and dried.fit.ready_h
        facts = {"hours": dried.fit.ready_h} if dried.fit else {}
        yield row.id, [Observation("dried", dried.formula or formula, facts, why)] if done else []


def _measured(session: Session, ids: Sequence[int], tables: Tables) -> Seen:
    """Yield the rope and drop tests that count."""
    for row in session.scalars(select(MeasurementRow).where(MeasurementRow.id.in_(ids))):
        formula, why = _known(row.formula, tables)
        yield row.id, [Observation(row.kind, formula, row.facts, why)]


def _foam(session: Session, ids: Sequence[int], tables: Tables) -> Seen:
    """Yield every height of foam of the tests whose formula is known."""
    for test in looked_at(session, list(session.scalars(select(TubTestRow).where(TubTestRow.id.in_(ids))))):
        seen = []
        if test.row.formula is not None:
            formula, why = _known(test.row.formula, tables)
            used = replace(formula, use=Use(**test.row.use))
            seen = [
                Observation("foam", used, {"minutes": height.minutes, "height_cm": height.height_cm}, why)
                for height in test.state.heights if not height.left_out and height.minutes > 0
            ]  # fmt: skip
        yield test.row.id, seen


def _shaped(session: Session, ids: Sequence[int], tables: Tables) -> Seen:
    """Yield what pieces weighed at the bench say: how much a tool takes, or how much of a bowl is lost on the way to the tray.

    A tool says how much it takes; where the bowl was divided by hand, all of it was shaped, and what is missing is lost.
    A tool leaves a last part of a piece over, which is no loss; such batches say nothing of it.
    """
    for row in _batches(session, ids):
        events = [event_of_row(each) for each in list_events(session, row.id)]
        state = state_of([step_from(step) for step in row.plan["steps"]], events)
        formula, why = _known(row.plan["formula"], tables)
        why = why or (NOT_WEIGHED if _by_stand_ins(events, {"weighed", "rescued", "sampled"}) else "")
        yield row.id, _weighed(row.plan, formula, why, state)


def _weighed(plan: dict[str, Any], formula: Formula, why: str, state: BenchState) -> list[Observation]:
    masses_g, pieces = list(state.samples_g), plan["pieces"]
    if len(masses_g) < FEWEST_WEIGHED or len(pieces) != 1:
        return []  # of several kinds nobody knows which piece was weighed
    kind = pieces[0]
    if kind["tool"] is None:
        bowl_g = sum(float(line.amount) for line in as_made(formula, state).lines)
        pieces_g = state.pieces_done * sum(masses_g) / len(masses_g)
        return [Observation("yield", formula, {"bowl_g": bowl_g, "pieces_g": pieces_g}, why)] if pieces_g > 0 else []
    if kind.get("basis", AS_ENTERED) == AS_ENTERED:
        return []  # where the mass was entered, nothing was said of the tool
    facts = {"tool": kind["tool"], "piece_g": masses_g, "scoop_fill": kind.get("scoop_fill", "level")}
    return [Observation("pieces", formula, facts, why)]


def _by_stand_ins(events: Iterable[Any], kinds: Collection[str]) -> bool:
    """Whether a stand-in showed what was weighed: such a batch says nothing of the defaults."""
    return any(event.kind in kinds and event.data.get("source") == STAND_IN for event in events)


def _batches(session: Session, ids: Sequence[int]) -> Iterator[BatchRow]:
    return iter(session.scalars(select(BatchRow).where(BatchRow.id.in_(ids))))


def _known(file: dict[str, Any], tables: Tables) -> tuple[Formula, str]:
    """Return a formula as made, and why it cannot be learnt from where an ingredient of it has gone."""
    formula = formula_from_file(FormulaFile.model_validate(file))
    gone = {line.ingredient for line in formula.lines} - set(tables.ingredients) - {None}
    return formula, GONE if gone else ""


KINDS: dict[str, Callable[[Session, Sequence[int], Tables], Seen]] = {
    "felt": _felt, "measured": _measured, "dried": _dried, "foam": _foam, "shaped": _shaped,
}  # fmt: skip
