"""The ingredients of a formula as columns, so that a model is one line of array arithmetic.

Masses run along the last axis: ``(n,)`` is one formula, ``(k, n)`` is k variants of it.
A property that is not known is NaN in its column; ``require`` refuses before it can spread.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from itertools import chain

import numpy as np
from numpy.typing import NDArray

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.parameters import USUAL, Parameters
from rosy_kettle.core.parameters.mixing import MixingParameters
from rosy_kettle.core.records import Ingredient

__all__ = ["BoolArray", "FloatArray", "Palette", "dried_palette", "known", "make_palette", "require"]

FloatArray = NDArray[np.float64]
BoolArray = NDArray[np.bool_]

MOST_HELD = 256  # lists of ingredients whose columns are kept, for the next keystroke has the same
FLAGS, FIGURES = 12, 25  # how many columns of each kind


@dataclass(frozen=True, eq=False)
class Palette:
    """Properties of n ingredients, one array of length n each; flags first, then figures."""

    ingredients: tuple[Ingredient, ...]
    role: NDArray[np.str_]
    is_fat: BoolArray
    is_liquid_oil: BoolArray
    is_lean_liquid: BoolArray
    """Liquids without a solid fat curve."""
    is_acid: BoolArray
    is_fast_acid: BoolArray
    is_plain_base: BoolArray
    """Bases that bring no acid of their own, as baking powder does."""
    moves_ph: BoolArray
    """Acids, bases, their salts and the salts that add ionic strength."""
    dissolves_in_water: BoolArray
    """Acids, salts and sugars that free water dissolves, so that the dough gets wetter than its liquids say."""
    is_anionic: BoolArray
    is_sprayed: BoolArray
    is_coarse: BoolArray
    mixes_with_water: BoolArray
    """Liquids that stay apart from fat: water, glycerin and what is mostly water."""
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
    tack: FloatArray
    """How sticky a liquid is, 0 to 1."""
    hidden_fat: FloatArray
    """Fat inside milk, cocoa and oat, as a share."""
    tint_l_g_cm: FloatArray
    cloud_l_g_cm: FloatArray
    stain_per_mg_l: FloatArray
    """What a mg/L stains of the limit at which a warning is due."""
    heat_capacity_j_gk: FloatArray
    wax_solubility_factor: FloatArray
    """How readily a wax dissolves in molten fat; 0 for what is no wax."""
    foam_rel: FloatArray
    """Foam of a gram of active against sodium lauryl sulfate = 100; 0 for what is no surfactant, as in the next three."""
    hardness_loss: FloatArray
    """Share of its foam lost in very hard water."""
    fluff: FloatArray
    irritation_rel: FloatArray
    gels_from: FloatArray
    """Solid wax in oil from which it stands as a gel [-]; 0 for what does not gel oil."""
    citrate_mmol_g: FloatArray
    """Citrate, from the acid in any grade or from its salts."""
    hardness_mmol_g: FloatArray
    """Calcium and magnesium a gram brings into the bath."""
    parameters: Parameters = field(default=USUAL, kw_only=True)
    """What the models rest on."""

    def __len__(self) -> int:
        return len(self.ingredients)

    @cached_property
    def fat_columns(self) -> NDArray[np.intp]:
        """Where the fats stand."""
        return np.flatnonzero(self.is_fat)

    @cached_property
    def first_of_its_kind(self) -> NDArray[np.intp]:
        """For each line the first line that holds the same thing."""
        first: dict[str, int] = {}
        return np.array([first.setdefault(item.reference_id, at) for at, item in enumerate(self.ingredients)], dtype=np.intp)

    @cached_property
    def free_water_known(self) -> FloatArray:
        """Free water with 0 where it is not known; only beside a refusal."""
        return known(self.free_water)

    @cached_property
    def alcohol_known(self) -> FloatArray:
        """Alcohol with 0 where it is not known; only beside a refusal."""
        return known(self.alcohol)

    @cached_property
    def dough_volume_known(self) -> FloatArray:
        """Dough volume with 0 where it is not known; only beside a refusal."""
        return known(self.dough_volume_ml_g)

    @cached_property
    def active_known(self) -> FloatArray:
        """Active fraction with 0 where it is not known; only beside a refusal."""
        return known(self.active_fraction)

    @cached_property
    def foaming(self) -> FloatArray:
        """Active share of what has foam traits; other surfactants count in the dose but make no foam."""
        return self.active_known * (self.foam_rel > 0)

    @cached_property
    def liquid_demand_known(self) -> FloatArray:
        """Liquid demand with 0 where it is not known; only beside a refusal."""
        return known(self.liquid_demand_ml_g)


_MADE: dict[tuple[int, ...], Palette] = {}
"""Palettes by the identity of their ingredients and parameters, which they hold, so that an identity is not used again."""


def known(column: FloatArray) -> FloatArray:
    """Return a column with 0 where a property is not known.

    Parameters
    ----------
    column : FloatArray
        A column [its own unit]

    Returns
    -------
    FloatArray
        The same without NaN [same unit]
    """
    return np.where(np.isnan(column), 0.0, column)


def make_palette(ingredients: Sequence[Ingredient], parameters: Parameters = USUAL) -> Palette:
    """Return the columns of a list of ingredients.

    Parameters
    ----------
    ingredients : Sequence[Ingredient]
        One entry per line; the same ingredient may come twice
    parameters : Parameters
        What the models rest on

    Returns
    -------
    Palette
        Columns of the same length and order
    """
    items = tuple(ingredients)
    asked = (*map(id, items), id(parameters))
    held = _MADE.get(asked)
    if held is not None:
        return held
    if len(_MADE) >= MOST_HELD:
        _MADE.clear()
    made = _made_palette(items, parameters)
    return _MADE.setdefault(asked, made)


def _made_palette(items: tuple[Ingredient, ...], parameters: Parameters) -> Palette:
    p = parameters.mixing
    figures = chain.from_iterable(_floats(item, p) for item in items)
    yes_or_no = chain.from_iterable(_flags(item, p) for item in items)
    floats = np.fromiter(figures, np.float64, len(items) * FIGURES).reshape(-1, FIGURES)
    flags = np.fromiter(yes_or_no, np.bool_, len(items) * FLAGS).reshape(-1, FLAGS)
    roles = np.array([item.role for item in items], dtype=str)
    return Palette(items, roles, *flags.T.copy(), *floats.T.copy(), parameters=parameters)


def _flags(item: Ingredient, p: MixingParameters) -> tuple[bool, ...]:
    """All yes-or-no columns, in the order of ``Palette``."""
    acid = item.acid
    is_fat = item.is_fat
    return (
        is_fat,
        item.role == "oil" and not is_fat,
        item.is_liquid and not is_fat,
        acid is not None,
        acid is not None and acid.speed >= p.fast_acid_from_speed,
        item.base is not None and not item.base.own_acid_equivalents_per_mol,
        acid is not None or item.base is not None or item.role in {"salt", "acid"} or item.traits.citrate_mmol_g > 0,
        item.has("dissolves"),
        item.surfactant_class == "anionic",
        item.phase_default == "spray",
        item.traits.coarse,
        item.is_liquid and not is_fat and ((item.water_fraction or 0.0) > p.watery_from or traits_hold_water(item)),
    )


def _floats(item: Ingredient, p: MixingParameters) -> tuple[float, ...]:
    """All columns of figures, in the order of ``Palette``; NaN where a property is not known."""
    base, traits, surfactant = item.base, item.traits, item.surfactant
    return (
        _dough_volume(item, p),
        _inverse(item.true_density_g_ml),
        _liquid_demand(item),
        _known_or_nan(item.active_fraction) if item.role == "surfactant" else 0.0,
        _acid_mol_g(item),
        item.acid.speed if item.acid else 1.0,
        base.base_equivalents_per_mol / base.molar_mass_g_mol if base else 0.0,
        base.carbons_per_mol / base.molar_mass_g_mol if base else 0.0,
        _free_water(item),
        1.0 - _known_or_nan(item.water_fraction) if item.has("flammable") or item.has("alcoholic") else 0.0,
        traits.humectant_strength,
        traits.tack or 0.0,
        traits.hidden_fat_share,
        traits.tint_l_g_cm,
        traits.cloud_l_g_cm,
        1 / traits.stain_warn_mg_l if traits.stain_warn_mg_l else 0.0,
        p.usual_powder_cp_j_gk if item.cp_j_gk is None else item.cp_j_gk,
        item.wax_solubility_factor or 0.0,
        surfactant.foam_rel if surfactant else 0.0,
        p.hardness_loss[surfactant.hard_water_sensitivity] if surfactant else 0.0,
        surfactant.fluff if surfactant else 0.0,
        surfactant.irritation_rel if surfactant else 0.0,
        traits.gels_from_share or 0.0,
        1000 / item.acid.molar_mass_g_mol if item.acid and item.acid.system == "citric" else traits.citrate_mmol_g,
        traits.hardness_mmol_g,
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


def dried_palette(palette: Palette) -> Palette:
    """Return the columns once the liquid surfactants have been dried into the powder: they wet the dough no more.

    Parameters
    ----------
    palette : Palette
        The ingredients

    Returns
    -------
    Palette
        The same, the volume of liquid surfactants gone; their water still counts as what leaves
    """
    dried = (palette.role == "surfactant") & palette.is_lean_liquid
    if not dried.any():
        return palette
    return replace(
        palette, dough_volume_ml_g=np.where(dried, 0.0, palette.dough_volume_ml_g), is_lean_liquid=palette.is_lean_liquid & ~dried
    )


def traits_hold_water(item: Ingredient) -> bool:
    """Return whether a liquid without water mixes with water and not with fat, as glycerin does.

    Parameters
    ----------
    item : Ingredient
        A liquid

    Returns
    -------
    bool
        True for humectants
    """
    return item.role == "humectant"


def _known_or_nan(value: float | None) -> float:
    return math.nan if value is None else value


def _inverse(value: float | None) -> float:
    return math.nan if value is None else 1.0 / value


def _dough_volume(item: Ingredient, p: MixingParameters) -> float:
    if not item.is_liquid:
        return 0.0
    if item.is_fat and item.role in {"butter", "oil", "wax"}:
        return 1.0 / p.soft_fat_density_g_ml
    return _inverse(item.true_density_g_ml)


def _free_water(item: Ingredient) -> float:
    if item.form not in {"liquid", "paste"} or item.has("binds-its-water"):
        return 0.0
    return _known_or_nan(item.water_fraction)


def _liquid_demand(item: Ingredient) -> float:
    if item.is_liquid or item.role == "decoration":
        return 0.0
    return math.nan if item.liquid_demand_ml_100g is None else item.liquid_demand_ml_100g / 100


def _acid_mol_g(item: Ingredient) -> float:
    from_acid = item.acid.protons / item.acid.molar_mass_g_mol if item.acid else 0.0
    from_base = item.base.own_acid_equivalents_per_mol / item.base.molar_mass_g_mol if item.base else 0.0
    return from_acid + from_base
