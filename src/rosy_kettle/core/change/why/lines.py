"""A formula's lines as one row of masses, with room for what is not in it yet."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.aims import Aims, aims_of
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.records import Formula, Ingredient, Tables

__all__ = ["Lines", "lines_of", "portion_of"]


@dataclass(frozen=True, slots=True)
class Lines:
    """Ingredients and masses; ``positions`` counts over all lines of the formula, None for what is not in it yet."""

    ingredients: tuple[Ingredient, ...]
    mass_g: FloatArray
    positions: tuple[int | None, ...]

    def aims(self, paths: Sequence[str], formula: Formula, tables: Tables) -> Aims:
        """Look at some readings of these lines."""
        return aims_of(paths, formula, tables, self.ingredients)


def portion_of(formula: Formula, portion: int) -> tuple[Formula, int]:
    """Return one portion as a formula of its own, and how many lines stand before it.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    portion : int
        Which; one that is not there is the first [-]

    Returns
    -------
    tuple
        The formula of that dough alone, number of lines before its first [-]
    """
    at = portion if 0 <= portion < len(formula.portions) else 0
    before = sum(len(each.lines) for each in formula.portions[:at])
    return replace(formula, portions=(formula.portions[at],)), before


def lines_of(formula: Formula, tables: Tables, also: Sequence[str] = ()) -> Lines:
    """Return the lines of a formula, with further ingredients at no mass.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables
    also : Sequence
        Ids of ingredients to have at hand; those in the formula already are not doubled

    Returns
    -------
    Lines
        Masses [g]

    Raises
    ------
    InputError
        If nothing is weighed yet.
    """
    weighed, _ = weigh_formula(formula, tables)
    if not weighed or sum(item.mass_g for item in weighed) <= 0:
        raise InputError("The formula has no weighed line yet; weigh something first.", quantity="lines")
    there = {item.ingredient.id for item in weighed}
    further = [tables.ingredients[name] for name in dict.fromkeys(also) if name not in there]
    return Lines(
        (*(item.ingredient for item in weighed), *further),
        np.array([item.mass_g for item in weighed] + [0.0] * len(further)),
        (*(item.position for item in weighed), *(None for _ in further)),
    )
