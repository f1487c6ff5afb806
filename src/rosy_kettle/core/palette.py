"""The ingredients of a formula as columns, so that a model is one line of array arithmetic.

Masses run along the last axis: ``(n,)`` is one formula, ``(k, n)`` is k variants of it.
A property that is not known is NaN in its column; ``require`` refuses before it can spread.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.records import Ingredient

__all__ = ["FloatArray", "Palette", "make_palette", "require"]

FloatArray = NDArray[np.float64]
BoolArray = NDArray[np.bool_]

SOFT_FAT_DENSITY_G_ML = 0.90  # every butter, oil or wax with a solid fat curve, in a dough [g/mL]; Bailey, 0.895-0.915 at 40 °C
BINDS_ITS_WATER = frozenset({"honey", "sorbitol-70"})  # their water stays with the sugar
USUAL_POWDER_CP_J_GK = 1.1  # heat capacity where none is listed [J/(g K)]; most powders lie at 0.9 to 1.3


@dataclass(frozen=True, eq=False)
class Palette:
    """Properties of n ingredients, one array of length n each."""

    ingredients: tuple[Ingredient, ...]
    is_fat: BoolArray
    is_liquid_oil: BoolArray
    is_lean_liquid: BoolArray
    """Liquids without a solid fat curve."""
    dough_volume_ml_g: FloatArray
    """Volume a gram brings into the pores when liquid [mL/g]; 0 for powders."""
    true_volume_ml_g: FloatArray
    """Volume of a gram without any air [mL/g]."""
    liquid_demand_ml_g: FloatArray
    """Liquid a gram drinks up to the plastic limit [mL/g]; 0 for liquids."""
    active_fraction: FloatArray
    acid_mol_g: FloatArray
    """Acid equivalents in a gram [mol/g]."""
    acid_speed: FloatArray
    base_mol_g: FloatArray
    """Base equivalents in a gram [mol/g]."""
    carbon_mol_g: FloatArray
    """Carbonate carbon in a gram [mol/g]."""
    free_water: FloatArray
    """Water that a liquid or paste brings and that can dry off, as a share of it; bound water of powders is not counted."""
    alcohol: FloatArray
    """Alcohol as a share."""
    humectant: FloatArray
    """Humectant strength per gram; glycerin is 1."""
    hidden_fat: FloatArray
    """Fat inside milk, cocoa and oat, as a share."""
    heat_capacity_j_gk: FloatArray

    @cached_property
    def free_water_known(self) -> FloatArray:
        """Free water with 0 where it is not known; only beside a refusal."""
        return np.nan_to_num(self.free_water)

    @cached_property
    def alcohol_known(self) -> FloatArray:
        """Alcohol with 0 where it is not known; only beside a refusal."""
        return np.nan_to_num(self.alcohol)

    @cached_property
    def dough_volume_known(self) -> FloatArray:
        """Dough volume with 0 where it is not known; only beside a refusal."""
        return np.nan_to_num(self.dough_volume_ml_g)

    @cached_property
    def liquid_demand_known(self) -> FloatArray:
        """Liquid demand with 0 where it is not known; only beside a refusal."""
        return np.nan_to_num(self.liquid_demand_ml_g)


def make_palette(ingredients: Sequence[Ingredient]) -> Palette:
    """Return the columns of a list of ingredients.

    Parameters
    ----------
    ingredients : Sequence[Ingredient]
        One entry per line; the same ingredient may come twice

    Returns
    -------
    Palette
        Columns of the same length and order
    """
    items = tuple(ingredients)
    is_fat = np.array([item.is_fat for item in items], dtype=bool)
    is_liquid = np.array([item.is_liquid for item in items], dtype=bool)
    return Palette(
        ingredients=items,
        is_fat=is_fat,
        is_liquid_oil=np.array([item.is_liquid_oil for item in items], dtype=bool),
        is_lean_liquid=is_liquid & ~is_fat,
        dough_volume_ml_g=_column(_dough_volume(item) for item in items),
        true_volume_ml_g=_column(_inverse(item.true_density_g_ml) for item in items),
        liquid_demand_ml_g=_column(_liquid_demand(item) for item in items),
        active_fraction=_column(_active(item) for item in items),
        acid_mol_g=_column(_acid_mol_g(item) for item in items),
        acid_speed=_column(item.acid.speed if item.acid else 1.0 for item in items),
        base_mol_g=_column(
            item.base.base_equivalents_per_mol / item.base.molar_mass_g_mol if item.base else 0.0 for item in items
        ),
        carbon_mol_g=_column(item.base.carbons_per_mol / item.base.molar_mass_g_mol if item.base else 0.0 for item in items),
        free_water=_column(_free_water(item) for item in items),
        alcohol=_column(_alcohol(item) for item in items),
        humectant=_column(item.traits.humectant_strength for item in items),
        hidden_fat=_column(item.traits.hidden_fat_share for item in items),
        heat_capacity_j_gk=_column(USUAL_POWDER_CP_J_GK if item.cp_j_gk is None else item.cp_j_gk for item in items),
    )


def require(palette: Palette, column: FloatArray, used: BoolArray, property_name: str) -> None:
    """Refuse when a line that counts lacks a property.

    Parameters
    ----------
    palette : Palette
        The ingredients
    column : FloatArray
        The column that will be used [its own unit]
    used : BoolArray
        Lines whose mass is above zero
    property_name : str
        Name of the property, as in the reference table

    Raises
    ------
    MissingDataError
        Naming the first ingredient whose property is not known.
    """
    unknown = np.isnan(column) & used
    if unknown.any():
        ingredient = palette.ingredients[int(np.argmax(unknown))]
        raise MissingDataError(
            f"{ingredient.short_name} has no {property_name}; enter it in the Pantry",
            ingredient=ingredient.id,
            property=property_name,
        )


def _column(values: Iterable[float | None]) -> FloatArray:
    return np.array([np.nan if value is None else value for value in values], dtype=np.float64)


def _inverse(value: float | None) -> float | None:
    return None if value is None else 1.0 / value


def _dough_volume(item: Ingredient) -> float | None:
    if not item.is_liquid:
        return 0.0
    if item.is_fat and item.role in {"butter", "oil", "wax"}:
        return 1.0 / SOFT_FAT_DENSITY_G_ML
    return _inverse(item.true_density_g_ml)


def _free_water(item: Ingredient) -> float | None:
    if item.form not in {"liquid", "paste"} or (item.based_on or item.id) in BINDS_ITS_WATER:
        return 0.0
    return item.water_fraction


def _alcohol(item: Ingredient) -> float | None:
    if item.role != "binder":
        return 0.0
    return None if item.water_fraction is None else 1.0 - item.water_fraction


def _liquid_demand(item: Ingredient) -> float | None:
    if item.is_liquid or item.role == "decoration":
        return 0.0
    return None if item.liquid_demand_ml_100g is None else item.liquid_demand_ml_100g / 100


def _active(item: Ingredient) -> float | None:
    return item.active_fraction if item.role == "surfactant" else 0.0


def _acid_mol_g(item: Ingredient) -> float:
    from_acid = item.acid.protons / item.acid.molar_mass_g_mol if item.acid else 0.0
    from_base = item.base.own_acid_equivalents_per_mol / item.base.molar_mass_g_mol if item.base else 0.0
    return from_acid + from_base
