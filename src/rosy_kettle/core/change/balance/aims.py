"""Targeted readings with their slopes by every line, in one pass and nothing that is not asked for."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.deadline import check_time
from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import FloatArray, Palette, make_palette
from rosy_kettle.core.mixing.setting import Setting, dough_fault, setting_of
from rosy_kettle.core.mixing.sloped import slopes_of
from rosy_kettle.core.models.cost.formula_cost import price_per_kg
from rosy_kettle.core.models.dough.behaviour import stickiness
from rosy_kettle.core.models.fats.mix_temperature import mix_temperature
from rosy_kettle.core.models.firmness import piece_firmness
from rosy_kettle.core.models.gas.prereaction import puff
from rosy_kettle.core.models.gas.readings import read_fizz
from rosy_kettle.core.readings.piece import read_drying, read_piece, read_shelf
from rosy_kettle.core.readings.tub import read_bath, read_feel, read_lather, read_release, read_skin
from rosy_kettle.core.records import Formula, Ingredient, Tables

__all__ = ["Aims", "aims_of"]

UNKNOWN = float("nan")


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
        setting = setting_of(self.formula, self.tables, float(mass_g.sum()))
        looked = _Look(setting.mix(self.palette, mass_g, sloped=sloped), self)
        found = [looked.read(path) for path in self.paths]
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
    taken_g = _taken(formula, tables) if tables.price_breaks else {}
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
        return float(price_per_kg(item, tables.price_per_kg, tables.price_breaks, mass_g)[0]) / 1000
    except MissingDataError:
        return UNKNOWN


class _Look:
    """One formula looked at: each group of readings is worked out once, and only when a path asks for it."""

    def __init__(self, mix: Mix, aims: Aims) -> None:
        self.mix, self.aims = mix, aims
        self.setting: Setting = setting_of(aims.formula, aims.tables, mix.total_g)

    def read(self, path: str) -> float | None:
        group, _, name = path.partition(".")
        if not name:
            return self.mix.total_g
        found = getattr(self, group)
        value = found(name) if callable(found) else getattr(found, name, None)
        return value if isinstance(value, int | float) and not isinstance(value, bool) else None

    @cached_property
    def _dough_known(self) -> bool:
        return dough_fault(self.mix) is None

    @cached_property
    def fizz(self) -> object:
        return read_fizz(self.mix, self.setting)

    @cached_property
    def bath(self) -> object:
        late = any(path in {"bath.ph_soak", "bath.ph_aired"} for path in self.aims.paths)
        return read_bath(self.mix, self.setting, until_aired=late)[0]

    @cached_property
    def lather(self) -> object:
        return self._if_known(lambda: read_lather(self.mix, np.zeros(self.mix.mass_g.size), self.setting))

    @cached_property
    def feel(self) -> object:
        return self._if_known(lambda: self.lather and read_feel(self.mix, self.setting))

    @cached_property
    def skin(self) -> object:
        return read_skin(self.mix, self.setting, [], active_known=self.lather is not None)

    @cached_property
    def drying(self) -> object:
        return read_drying(self.mix, self.setting) if self._dough_known else None

    @cached_property
    def release(self) -> object:
        return read_release(self.mix, self.setting, [])

    @cached_property
    def piece(self) -> object:
        return read_piece(self.mix, self.setting, []) if self._dough_known else None

    @cached_property
    def shelf(self) -> object:
        return read_shelf(self.mix, self.setting)

    def dough(self, name: str) -> float | None:
        """Only the dough's figures that move with the masses; several portions have no dough together."""
        if not self.aims.whole or (name != "mix_temperature_c" and not self._dough_known):
            return None
        setting = self.setting
        if name == "mix_temperature_c":
            return mix_temperature(self.mix, setting.wet_c, setting.assumed.room_c, setting.bowl_j_k)
        if name == "saturation":
            return self.mix.saturation(setting.judged_c)
        if name == "stickiness":
            return stickiness(self.mix, setting.judged_c)
        if name == "puff_pct":
            return puff(self.mix, dried_first=setting.dried_first).standing_pct
        return puff(self.mix, dried_first=setting.dried_first).stirred_pct if name == "puff_stirred_pct" else None

    def firmness(self, name: str) -> float | None:
        """Firmness at one temperature, without its band."""
        temperature_c = {"at_20_c": 20.0, "at_30_c": 30.0}.get(name)
        if temperature_c is None or not self._dough_known or self.setting.method.loose:
            return None
        assumed, kneaded = self.setting.assumed, self.setting.method.kneaded
        return piece_firmness(self.mix, temperature_c, assumed.room_c, assumed.packing, kneaded=kneaded)

    def cost(self, name: str) -> float | None:
        """Money unrounded: a slope of whole cents would be zero or a jump."""
        assumed = self.setting.assumed
        if np.isnan(self.aims.prices).any():
            return None
        batch = self.mix.of(self.aims.prices)
        per_gram = batch / (self.mix.total_g * (1 - assumed.loss_fraction))
        return {"batch": batch, "piece": per_gram * assumed.piece_mass_g, "bath": per_gram * assumed.dose_g}.get(name)

    def _if_known(self, read: Callable[[], object]) -> object:
        try:
            return read()
        except MissingDataError:
            return None
