"""The list of formulas, each with the one reading that matters at a glance."""

from __future__ import annotations

import hashlib
from collections import OrderedDict
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import Dough
from rosy_kettle.store.formulas import FormulaRow, list_formulas, record_of
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["FormulaGlance", "glance_at_formulas"]


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
    fits: bool | None
    """Whether every portion is in a wanted state; None where it cannot be said."""
    ingredients: tuple[str, ...]
    cost_piece: str | None


def glance_at_formulas(session: Session) -> list[FormulaGlance]:
    """Return every formula with its dough, last changed first."""
    tables = studio_tables(session)
    rests_on = _rests_on(tables)
    place = str(session.get_bind().engine.url)
    return [
        _kept_glance(row, tables, (place, row.id, row.revision, row.working.number, row.updated_at, rests_on))
        for row in list_formulas(session)
    ]


MOST_KEPT = 20_000
_kept: OrderedDict[tuple[Any, ...], FormulaGlance] = OrderedDict()


def _kept_glance(row: FormulaRow, tables: Tables, key: tuple[Any, ...]) -> FormulaGlance:
    """Judge a formula once for as long as neither it nor anything its figures rest on has changed."""
    glance = _kept.pop(key, None) or _glance(row, record_of(row), tables)
    _kept[key] = glance
    while len(_kept) > MOST_KEPT:
        _kept.popitem(last=False)
    return glance


def _rests_on(tables: Tables) -> str:
    """Everything of the studio's own that moves a figure of the list: its ingredients and prices."""
    own = sorted(repr(item) for item in tables.ingredients.values() if item.based_on)
    told = repr((own, sorted(tables.price_per_kg.items()), sorted(tables.price_breaks.items()), tables.parameters))
    return hashlib.sha256(told.encode()).hexdigest()


def _glance(row: FormulaRow, formula: Formula, tables: Tables) -> FormulaGlance:
    doughs, mass_g, cost_piece = _doughs(formula, tables)
    first = doughs[0] if doughs else None
    method = tables.method_of(formula)
    names = [
        tables.ingredients[line.ingredient].short_name
        for line in formula.lines
        if line.ingredient and line.ingredient in tables.ingredients
    ]
    return FormulaGlance(
        id=row.id,
        name=row.name,
        method=method.id,
        method_name=method.name,
        version=row.working.number,
        updated_at=row.updated_at,
        lines=len(formula.lines),
        mass_g=mass_g,
        saturation=first.saturation if first else None,
        state=first.state if first else None,
        wanted_states=first.wanted.states if first else method.wanted.states,
        fits=all(dough.state in dough.wanted.states for dough in doughs) if doughs else None,
        ingredients=tuple(dict.fromkeys(names)),
        cost_piece=cost_piece,
    )


def _doughs(formula: Formula, tables: Tables) -> tuple[list[Dough], float, str | None]:
    """Doughs of all portions; none while an amount is half typed or nothing is weighed."""
    try:
        result = evaluate(formula, tables)
    except WorkbenchError:
        return [], 0.0, None
    blocks = result.portions or (result,)
    return [block.dough for block in blocks if block.dough and block.dough.state], result.mass_g, result.cost.piece
