"""Factors from an observations file."""

from __future__ import annotations

from typing import Any

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.learning.factors import Learnt, learn
from rosy_kettle.core.learning.observations import Observation
from rosy_kettle.core.records import Tables
from rosy_kettle.files import FormulaFile, formula_from_file
from rosy_kettle.usecases.formulas.check_formula import check_formula

__all__ = ["learn_from_file"]


def learn_from_file(told: list[tuple[Any, FormulaFile]], tables: Tables) -> Learnt:
    """Return what observations say; a formula whose ingredients have gone sets its observation aside."""
    return learn([_observation(seen, file, tables) for seen, file in told], tables)


def _observation(seen: Any, file: FormulaFile, tables: Tables) -> Observation:
    facts = seen.model_dump(exclude={"kind"}, exclude_none=True)
    try:
        return Observation(seen.kind, check_formula(file, tables), facts)
    except InputError as error:
        return Observation(seen.kind, formula_from_file(file), facts, error.message.rstrip("."))
