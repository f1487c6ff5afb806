"""Targeted readings with their slopes by every line, in one pass and nothing that is not asked for."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.sense.figures import figure_at
from rosy_kettle.core.deadline import check_time
from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mixing.palette import FloatArray, Palette, make_palette
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.mixing.sloped import slopes_of
from rosy_kettle.core.models.cost.formula_cost import price_per_kg
from rosy_kettle.core.readings.look import Look
from rosy_kettle.core.records import Formula, Ingredient, Tables

__all__ = ["Aims", "aims_of"]

UNKNOWN = float("nan")
LATE = frozenset({"bath.ph_soak", "bath.ph_aired"})
"""Readings for which the bath is followed past step-in."""


@dataclass(frozen=True, slots=True)
class Aims:
    """What is looked at while balancing: dotted paths over the lines of one formula."""

    paths: tuple[str, ...]
    formula: Formula
    tables: Tables
    palette: Palette
    prices: FloatArray
    """Price of each line [USD/g]; NaN where there is none."""
    whole: bool
    """Whether the formula is one dough; a formula of several portions has no dough of its own."""

    def at(self, mass_g: FloatArray, *, sloped: bool = True) -> tuple[FloatArray, FloatArray]:
        """Return the readings at some masses, and their slopes.

        Parameters
        ----------
        mass_g : FloatArray
            Masses, shape (n,) [g]
        sloped : bool
            Whether slopes are wanted; without them they are zero

        Returns
        -------
        tuple
            Values, shape (m,) [each its own unit], NaN where a reading cannot be said; slopes, shape (m, n) [unit per g]
        """
        check_time()
        if not mass_g.sum() > 0:  # the cheapest formula on the way may be no formula at all: nothing can be said of it
            return np.full(len(self.paths), UNKNOWN), np.zeros((len(self.paths), mass_g.size))
        mix = setting_of(self.formula, self.tables, float(mass_g.sum())).mix(self.palette, mass_g, sloped=sloped)
        setting = setting_of(self.formula, self.tables, mix.total_g)  # what is lost has slopes too
        late = any(path in LATE for path in self.paths)
        looked = Look(mix, setting, whole=self.whole, prices=self.prices, until_aired=late)
        found = [figure_at(path, looked) for path in self.paths]
        values = np.array([UNKNOWN if value is None else float(value) for value in found])
        return values, np.array([slopes_of(value, mass_g.size) for value in found]).reshape(len(found), mass_g.size)


def aims_of(paths: Sequence[str], formula: Formula, tables: Tables, ingredients: Sequence[Ingredient]) -> Aims:
    """Return what is looked at while balancing a formula.

    Parameters
    ----------
    paths : Sequence
        Dotted paths of readings
    formula : Formula
        The setting, and how many portions there are
    tables : Tables
        Reference tables and prices
    ingredients : Sequence
        The ingredient of each line

    Returns
    -------
    Aims
        To be asked at any masses
    """
    taken_g = _taken(formula, tables) if tables.prices.breaks else {}
    return Aims(
        tuple(paths), formula, tables, make_palette(ingredients, tables.parameters),
        np.array([_price(item, tables, taken_g.get(item.id, 0.0)) for item in ingredients]), len(formula.portions) <= 1,
    )  # fmt: skip


def _taken(formula: Formula, tables: Tables) -> dict[str, float]:
    """How much of each ingredient the formula takes as it is [g]: the price of that amount stands while balancing."""
    taken_g: dict[str, float] = {}
    for item in weigh_formula(formula, tables)[0]:
        taken_g[item.ingredient.id] = taken_g.get(item.ingredient.id, 0.0) + item.mass_g
    return taken_g


def _price(item: Ingredient, tables: Tables, mass_g: float) -> float:
    try:
        return float(price_per_kg(item, tables.prices, mass_g)[0]) / 1000
    except MissingDataError:
        return UNKNOWN
