"""Targeted readings with their slopes by every line, in one pass and nothing that is not asked for."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

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

__all__ = ["PORTION", "Aims", "aims_of"]

PORTION = "@"
"""Stands between a reading of a dough and the place of its portion, where a formula has several."""

UNKNOWN = float("nan")
ALL = slice(None)
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
    doughs: tuple[Dough, ...] = ()
    """Each portion's own dough, where the formula has several."""

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
        values, slopes = np.empty(len(self.paths)), np.zeros((len(self.paths), mass_g.size))
        for row, path in enumerate(self.paths):
            of_whole, marked, place = path.partition(PORTION)
            value, lines = (
                self.doughs[int(place)].at(of_whole, mass_g, sloped=sloped) if marked else (figure_at(path, looked), ALL)
            )
            values[row] = UNKNOWN if value is None else float(value)
            slopes[row, lines] = slopes_of(value, slopes[row, lines].size)
        return values, slopes


@dataclass(frozen=True, slots=True)
class Dough:
    """One portion as a dough of its own: which lines are in it."""

    formula: Formula
    tables: Tables
    palette: Palette
    lines: NDArray[np.intp]

    def at(self, path: str, mass_g: FloatArray, *, sloped: bool) -> tuple[float | None, NDArray[np.intp]]:
        """Return a reading of this dough, with slopes by its own lines, and which lines these are."""
        own_g = mass_g[self.lines]
        if not own_g.sum() > 0:
            return None, self.lines
        mix = setting_of(self.formula, self.tables, float(own_g.sum())).mix(self.palette, own_g, sloped=sloped)
        look = Look(mix, setting_of(self.formula, self.tables, mix.total_g), whole=True, prices=None, until_aired=False)
        return figure_at(path, look), self.lines


def _doughs(formula: Formula, tables: Tables, ingredients: Sequence[Ingredient]) -> tuple[Dough, ...]:
    """Return the doughs of a formula of several portions; none where the ingredients are not its own lines."""
    weighed, _ = weigh_formula(formula, tables)
    if len(formula.portions) < 2 or len(ingredients) < len(weighed):  # noqa: PLR2004 - one dough is the whole
        return ()
    first, doughs = 0, []
    for portion in formula.portions:
        last = first + len(portion.lines)
        own = np.array([at for at, item in enumerate(weighed) if first <= item.position < last], dtype=np.intp)
        palette = make_palette([ingredients[at] for at in own.tolist()], tables.parameters)
        doughs.append(Dough(replace(formula, portions=(portion,)), tables, palette, own))
        first = last
    return tuple(doughs)


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
    several = any(PORTION in path for path in paths)
    return Aims(
        tuple(paths), formula, tables, make_palette(ingredients, tables.parameters),
        np.array([_price(item, tables, taken_g.get(item.id, 0.0)) for item in ingredients]), len(formula.portions) <= 1,
        _doughs(formula, tables, ingredients) if several else (),
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
