"""The best of trials becomes a version of the formula they were designed from, with what proves it as its note."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy.orm import Session

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.task import with_masses_at
from rosy_kettle.core.errors import ConflictError
from rosy_kettle.core.making.bench import in_grams
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.words.trials import BEFORE_POURED, poured_words
from rosy_kettle.store.formulas import find_formula, keep_version, record_of
from rosy_kettle.usecases.formulas.save_formula import store_formula
from rosy_kettle.usecases.learning.run_trials import look_at_design, trial_formula
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["Poured", "pour_winner"]


@dataclass(frozen=True, slots=True)
class Poured:
    """Where the best of trials went."""

    formula_id: int
    version: int
    note: str
    """What proves it: the reading with its interval, results, design."""


def pour_winner(session: Session, design_id: int) -> Poured:
    """Store the best mixture of a design as a kept version of its formula; poured twice, it is the same version.

    Parameters
    ----------
    session : Session
        The studio
    design_id : int
        Number of the design

    Returns
    -------
    Poured
        The version, what was being worked on is kept as one before it

    Raises
    ------
    ConflictError
        If the results do not show a best mixture yet, or the best may be no better than the worst.
    InputError
        If a varied ingredient is no line of the formula any more.
    """
    design = look_at_design(session, design_id)
    best = design.response.best
    if best is None or design.response.flat is not False:
        raise ConflictError(
            "These trials do not show yet which mixture is the best; read back more of them.", noun="trials", reason="flat"
        )
    tables = studio_tables(session)
    row = find_formula(session, design.row.formula_id)
    note = poured_words(
        design.row.id, design.reading.label, design.reading.unit, (best.value, best.low, best.high), design.response.n,
        at_edge=design.response.at_edge,
    )  # fmt: skip
    if row.working.frozen_at is not None and row.working.note == note:
        return Poured(row.id, row.working.number, note)
    if row.working.frozen_at is None:
        keep_version(session, row.id, BEFORE_POURED)
    made = _poured(record_of(row), tables, [each.ingredient for each in design.bounds], best.shares)
    store_formula(session, row.id, row.revision, made, tables)
    return Poured(row.id, keep_version(session, row.id, note).working.number, note)


def _poured(base: Formula, tables: Tables, ingredients: Sequence[str], shares: Sequence[float]) -> Formula:
    """Return the formula with the best mixture: other lines as typed, unless they are shares and would move with it."""
    before = weigh_formula(base, tables)[0]
    in_all = trial_formula(in_grams(base, tables, sum(item.mass_g for item in before)), tables, ingredients, shares)
    wanted_g = {item.position: item.mass_g for item in weigh_formula(in_all, tables)[0]}
    as_typed = with_masses_at(base, {at: wanted_g[at] for at, line in enumerate(base.lines) if line.ingredient in ingredients})
    weighs_g = {item.position: item.mass_g for item in weigh_formula(as_typed, tables)[0]}
    same = weighs_g.keys() == wanted_g.keys() and all(math.isclose(weighs_g[at], wanted_g[at], rel_tol=1e-3) for at in wanted_g)
    return as_typed if same else in_all
