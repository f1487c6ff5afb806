"""All readings of a formula file, on today's date."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.files import FormulaFile
from rosy_kettle.usecases.formulas.check_formula import check_formula

__all__ = ["dated", "judge_formula"]


def judge_formula(file: FormulaFile, tables: Tables, stage: str = "formula") -> Evaluation:
    """Return every reading of a formula file.

    Raises
    ------
    InputError
        If an ingredient is unknown or a line cannot be meant.
    """
    return evaluate(dated(check_formula(file, tables)), tables, stage)


def dated(formula: Formula) -> Formula:
    """Return a formula judged on today's date, unless it names another; rules come into force on dates."""
    if formula.product.today is not None:
        return formula
    return replace(formula, product=replace(formula.product, today=datetime.now(UTC).date().isoformat()))
