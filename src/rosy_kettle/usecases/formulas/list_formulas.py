"""The list of formulas, each with the one reading that matters at a glance, kept beside it and never worked out for the list."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError, WorkbenchError
from rosy_kettle.core.models.dough import wanted_from
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Method, Tables
from rosy_kettle.core.records.evaluation import Dough
from rosy_kettle.store.formulas import FormulaRow, record_of
from rosy_kettle.store.glances import (
    FormulaGlanceRow,
    PageOfFormulas,
    page_of_formulas,
    put_glance,
    revisions_of_stale,
    stale_formulas,
)
from rosy_kettle.usecases.each_alone import each_alone
from rosy_kettle.usecases.studio.skipped import Skipped
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.studio.version import VERSION

__all__ = ["FormulaGlance", "glance_at_formulas", "judge_stale_formulas", "keep_judged", "rests_on"]


@dataclass(frozen=True, slots=True)
class FormulaGlance:
    """A formula in one row."""

    id: int
    name: str
    method: str
    method_name: str
    version: int
    updated_at: datetime
    lines: int
    mass_g: float
    saturation: float | None
    state: str | None
    wanted_states: tuple[str, ...]
    wanted_from: float | None
    """S from which one of them holds [-]; None where the method has no band."""
    fits: bool | None
    """Whether every portion is in a wanted state; None where it cannot be said."""
    ingredients: tuple[str, ...]
    cost_piece: str | None
    judged: bool
    """Whether the figures are those of the formula as it stands; they follow within a moment."""


def glance_at_formulas(session: Session, ask: PageOfFormulas) -> list[FormulaGlance]:
    """Return a page of formulas with their doughs, last changed first."""
    tables = studio_tables(session)
    return [_glance(row, kept, tables) for row, kept in page_of_formulas(session, ask)]


def rests_on(tables: Tables) -> str:
    """Return a fingerprint of everything beside a formula that moves a figure of the list."""
    own = sorted(repr(item) for item in tables.ingredients.values() if item.based_on)
    told = repr(
        (
            VERSION,
            own,
            sorted(tables.prices.own.items()),
            sorted(tables.prices.breaks.items()),
            (tables.prices.currency, tables.prices.reference_rate, sorted(tables.prices.unsaid)),
            tables.parameters,
            tables.spray_ml,
            sorted(tables.learnt.items()),
            sorted(tables.sheets.items()),
        )
    )
    return hashlib.sha256(told.encode()).hexdigest()


def judge_stale_formulas(session: Session, tables: Tables, limit: int, skipped: Skipped) -> list[FormulaGlanceRow]:
    """Judge some formulas that have changed, or rest on what has, and return what is to be kept of them.

    One that cannot be read is passed over until it changes.
    """
    on = rests_on(tables)
    left_out = skipped.still("formula", {id_: (revision, on) for id_, revision in revisions_of_stale(session, on).items()})

    def pass_over(row: FormulaRow, _error: Exception) -> list[FormulaGlanceRow]:
        skipped.note("formula", row.id, (row.revision, on))
        return []

    rows = stale_formulas(session, on, limit, left_out)
    while rows:
        judged = each_alone(rows, lambda some: [_judged(row, record_of(row), tables, on) for row in some], pass_over)
        if judged:
            return judged
        left_out |= {row.id for row in rows}
        rows = stale_formulas(session, on, limit, left_out)
    return []


def keep_judged(session: Session, rows: list[FormulaGlanceRow]) -> None:
    """Keep what was judged; a formula changed or deleted meanwhile is judged again, or not missed."""
    for row in rows:
        if session.get(FormulaRow, row.formula_id) is not None:
            put_glance(session, row)


def _glance(row: FormulaRow, kept: FormulaGlanceRow | None, tables: Tables) -> FormulaGlance:
    if kept is None:
        working = row.working
        return FormulaGlance(
            row.id, row.name, working.method, _name_of(working.method, tables), working.number, row.updated_at,
            0, 0.0, None, None, (), None, None, (), None, judged=False,
        )  # fmt: skip
    method, p = tables.methods.get(kept.method), tables.parameters.dough
    return FormulaGlance(
        id=row.id, name=row.name, method=kept.method, method_name=_name_of(kept.method, tables), version=kept.version,
        updated_at=row.updated_at, lines=kept.lines, mass_g=kept.mass_g, saturation=kept.saturation, state=kept.state,
        wanted_states=tuple(kept.wanted_states),
        wanted_from=wanted_from(method.wanted, kept.wanted_states, p) if method else None,
        fits=kept.fits, ingredients=tuple(kept.ingredients),
        cost_piece=kept.cost_piece, judged=kept.revision == row.revision,
    )  # fmt: skip


def _name_of(method_id: str, tables: Tables) -> str:
    method = tables.methods.get(method_id)
    return method.name if method else method_id


def _judged(row: FormulaRow, formula: Formula, tables: Tables, on: str) -> FormulaGlanceRow:
    doughs, mass_g, cost_piece = _doughs(formula, tables)
    first = doughs[0] if doughs else None
    try:
        method: Method | None = tables.method_of(formula)
    except InputError:
        method = None  # of another version: listed without a verdict
    names = list(dict.fromkeys(
        tables.ingredients[line.ingredient].short_name
        for line in formula.lines if line.ingredient and line.ingredient in tables.ingredients
    ))  # fmt: skip
    return FormulaGlanceRow(
        formula_id=row.id, revision=row.revision, version=row.working.number, rests_on=on,
        method=method.id if method else formula.method,
        lines=len(formula.lines), mass_g=mass_g,
        saturation=first.saturation if first else None, state=first.state if first else None,
        wanted_states=list(first.wanted.states if first else method.wanted.states if method else ()),
        fits=all(dough.state in dough.wanted.states for dough in doughs) if doughs else None,
        ingredients=names, words=" ".join([method.name if method else formula.method, *names]).lower(), cost_piece=cost_piece,
    )  # fmt: skip


def _doughs(formula: Formula, tables: Tables) -> tuple[list[Dough], float, str | None]:
    """Doughs of all portions; none while an amount is half typed, nothing is weighed, or a figure is beyond all sense."""
    try:
        result = evaluate(formula, tables)
    except (WorkbenchError, ArithmeticError, LookupError, TypeError, ValueError):
        return [], 0.0, None  # every other formula is judged all the same
    blocks = result.portions or (result,)
    return [block.dough for block in blocks if block.dough and block.dough.state], result.mass_g, result.cost.piece
