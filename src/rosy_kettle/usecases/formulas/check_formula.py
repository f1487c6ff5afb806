"""From a formula file to a formula whose ingredients all exist."""

from __future__ import annotations

from dataclasses import replace

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.files import FormulaFile, formula_from_file

__all__ = ["check_formula"]


def check_formula(file: FormulaFile, tables: Tables) -> Formula:
    """Return the formula of a file.

    Raises
    ------
    InputError
        If the method or an ingredient is unknown; of ingredients the sentence names the nearest three.
    """
    if file.method and file.method not in tables.methods:
        known = ", ".join(tables.methods)
        sentence = f'The field "method" is wrong: "{file.method}" is no method; take one of {known}.'
        raise InputError(sentence, quantity="method", value=file.method)
    formula = formula_from_file(file)
    formula = replace(formula, method=tables.method_of(formula).id)
    for position, line in enumerate(formula.lines):
        if line.ingredient is not None and line.ingredient not in tables.ingredients:
            from rosy_kettle.reader import NameIndex  # only a refusal needs the reader, which takes long to load

            nearest = NameIndex(tables.ingredients, ()).nearest(line.ingredient.replace("-", " "))
            raise InputError(
                f'Line {position + 1}: ingredient "{line.ingredient[:60]}" is not known; nearest are {", ".join(nearest)}.',
                quantity="ingredient",
                value=line.ingredient[:60],
                line=position + 1,
                suggestions=list(nearest),
            )
    return formula
