"""Storing a formula together with the grams its amounts come to."""

from __future__ import annotations

from sqlalchemy.orm import Session

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.store.formulas import FormulaRow, add_formula, save_formula

__all__ = ["store_formula", "store_new_formula"]


def store_new_formula(session: Session, formula: Formula, tables: Tables) -> FormulaRow:
    """Store a new formula.

    Raises
    ------
    InputError
        If it has no name.
    """
    _named(formula)
    return add_formula(session, formula, _grams(formula, tables))


def store_formula(session: Session, formula_id: int, revision: int, formula: Formula, tables: Tables) -> FormulaRow:
    """Store what is being worked on, even while an amount is half typed.

    Raises
    ------
    ConflictError
        If the formula was saved elsewhere since ``revision``.
    InputError
        If it has no name.
    """
    _named(formula)
    return save_formula(session, formula_id, revision, formula, _grams(formula, tables))


def _named(formula: Formula) -> None:
    if not formula.name.strip():
        raise InputError("The formula has no name; give it one, so that it is found again.", quantity="name")


def _grams(formula: Formula, tables: Tables) -> dict[int, float]:
    """Grams by line; none at all while a line cannot be meant, so that nothing typed is lost."""
    try:
        weighed, _missing = weigh_formula(formula, tables)
    except InputError:
        return {}
    return {item.position: item.mass_g for item in weighed}
