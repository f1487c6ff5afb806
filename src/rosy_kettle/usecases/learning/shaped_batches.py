"""What pieces weighed at the bench say: how much a tool takes, and how much of a bowl is lost on the way to the tray."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.learning.observations import Observation
from rosy_kettle.core.making.bench import BatchEvent, BenchState, as_made, state_of, step_from
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.files import FormulaFile, formula_from_file
from rosy_kettle.store.batches import BatchEventRow, BatchRow, list_events

__all__ = ["known_formula", "shaped_batches"]

FEWEST_WEIGHED = 3  # pieces of a batch that say what its pieces weigh
AS_ENTERED = "as entered"


def shaped_batches(session: Session, tables: Tables, limit: int) -> Iterator[Observation]:
    """Yield what the newest closed batches say whose pieces were weighed.

    A tool says how much it takes; where the bowl was divided by hand, all of it was shaped, and what is missing is lost.
    A tool leaves a last part of a piece over, which is no loss; such batches say nothing of it.
    """
    weighed = select(BatchEventRow.batch_id).where(BatchEventRow.kind == "sampled").distinct()
    asked = select(BatchRow).where(BatchRow.id.in_(weighed), BatchRow.closed_at.is_not(None))
    for row in session.scalars(asked.order_by(BatchRow.id.desc()).limit(limit)):
        formula = known_formula(row.plan["formula"], tables)
        if formula is not None:
            events = [BatchEvent(each.seq, each.at.isoformat(), each.kind, each.data) for each in list_events(session, row.id)]
            yield from _said(row.plan, formula, state_of([step_from(step) for step in row.plan["steps"]], events))


def _said(plan: dict[str, Any], formula: Formula, state: BenchState) -> Iterator[Observation]:
    masses_g, pieces = list(state.samples_g), plan["pieces"]
    if len(masses_g) < FEWEST_WEIGHED or len(pieces) != 1:
        return  # of several kinds nobody knows which piece was weighed
    kind = pieces[0]
    if kind["tool"] is None:
        bowl_g = sum(float(line.amount) for line in as_made(formula, state).lines)
        pieces_g = state.pieces_done * sum(masses_g) / len(masses_g)
        if pieces_g > 0:
            yield Observation("yield", formula, {"bowl_g": bowl_g, "pieces_g": pieces_g})
    elif kind.get("basis", AS_ENTERED) != AS_ENTERED:  # where the mass was entered, nothing was said of the tool
        fill = kind.get("scoop_fill", "level")
        yield Observation("pieces", formula, {"tool": kind["tool"], "piece_g": masses_g, "scoop_fill": fill})


def known_formula(file: dict[str, Any], tables: Tables) -> Formula | None:
    """Return a formula as made; None where an ingredient of it is gone."""
    try:
        formula = formula_from_file(FormulaFile.model_validate(file))
    except WorkbenchError:
        return None
    gone = {line.ingredient for line in formula.lines} - set(tables.ingredients) - {None}
    return None if gone else formula
