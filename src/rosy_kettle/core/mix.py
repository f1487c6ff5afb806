"""One formula in one setting, with the shares that the practice models ask for again and again."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.dough import DoughFill, dough_fill
from rosy_kettle.core.dough.texture import fat_carries
from rosy_kettle.core.palette import FloatArray, Palette
from rosy_kettle.core.records import Ingredient

__all__ = ["Mix", "clip", "make_mix"]

GRID_C = tuple(float(t) for t in range(76))  # temperatures the fat is looked up at [°C]


def clip(value: float, low: float = 0.0, high: float = 1.0) -> float:
    """Return a value held between two bounds.

    Parameters
    ----------
    value : float
        Any number [its own unit]
    low : float
        Lower bound [same unit]
    high : float
        Upper bound [same unit]

    Returns
    -------
    float
        The value, or the bound it passed [same unit]
    """
    return min(high, max(low, value))


@dataclass(frozen=True, slots=True, eq=False)
class Mix:
    """Masses of one formula, and shares of them."""

    palette: Palette
    mass_g: FloatArray
    total_g: float
    fill: DoughFill
    """Over ``GRID_C`` and the temperatures asked for besides."""
    carried: float
    """How far the fat carries the piece, 0 to 1."""
    fat_g: float
    liquid_oil_g: float
    water_share: float
    spray_share: float
    """Water of what is sprayed on."""
    alcohol_share: float
    humectant_share: float
    """Humectants by strength."""
    fast_acid_share: float
    fizzes: bool
    """Whether there is carbonate for an acid to meet."""
    coarse_share: float

    @property
    def fat_share(self) -> float:
        """Fat with a solid fat curve, as a share of the mass."""
        return self.fat_g / self.total_g

    @property
    def oily_share(self) -> float:
        """Fat and liquid oil, as a share of the mass."""
        return (self.fat_g + self.liquid_oil_g) / self.total_g

    def solid_share(self, temperature_c: float) -> float:
        """Solid share of fat and oil at a temperature."""
        return float(np.interp(temperature_c, self.fill.temperature_c, self.fill.solid_share))

    def solid_fat_g(self, temperature_c: float) -> float:
        """Fat that is solid at a temperature [g]."""
        return self.solid_share(temperature_c) * (self.fat_g + self.liquid_oil_g)

    def saturation(self, temperature_c: float) -> float | None:
        """Saturation at a temperature; None where no powder drinks."""
        if np.isnan(self.fill.saturation_molten):
            return None
        return float(np.interp(temperature_c, self.fill.temperature_c, self.fill.saturation))

    def grams(self, roles: frozenset[str] | set[str] = frozenset(), ids: frozenset[str] | set[str] = frozenset()) -> float:
        """Mass of the lines of some roles or ingredients [g]."""
        chosen = [item.role in roles or base_id(item) in ids for item in self.palette.ingredients]
        return float(self.mass_g[chosen].sum()) if any(chosen) else 0.0

    def items(self) -> zip[tuple[Ingredient, float]]:
        """Ingredients with their masses [g]."""
        return zip(self.palette.ingredients, self.mass_g.tolist(), strict=True)


def base_id(item: Ingredient) -> str:
    """Return the id in the reference table an ingredient stands on.

    Parameters
    ----------
    item : Ingredient
        One of the table, or a studio's own

    Returns
    -------
    str
        Id in the reference table
    """
    return item.based_on or item.id


def make_mix(palette: Palette, mass_g: FloatArray, also_c: Sequence[float] = ()) -> Mix:
    """Return a formula with its shares worked out.

    Parameters
    ----------
    palette : Palette
        n ingredients
    mass_g : FloatArray
        Masses of one formula, shape (n,), above zero in sum [g]
    also_c : Sequence
        Temperatures the fat is looked up at exactly, besides whole degrees [°C]

    Returns
    -------
    Mix
        Shares are of the whole mass; readings that need a property refuse by themselves where it is not known
    """
    total_g = float(mass_g.sum())
    items = palette.ingredients
    fill = dough_fill(palette, mass_g, np.unique((*GRID_C, *also_c)), lenient=True)
    water = palette.free_water_known
    sprayed = np.array([item.phase_default == "spray" for item in items])
    fast = np.array([bool(item.acid and base_id(item) != "cream-of-tartar") for item in items])
    coarse = np.array([item.traits.coarse for item in items])
    return Mix(
        palette=palette,
        mass_g=mass_g,
        total_g=total_g,
        fill=fill,
        carried=float(fat_carries(fill)),
        fat_g=float(mass_g[palette.is_fat].sum()),
        liquid_oil_g=float(mass_g[palette.is_liquid_oil].sum()),
        water_share=float(mass_g @ water) / total_g,
        spray_share=float(mass_g[sprayed] @ water[sprayed]) / total_g,
        alcohol_share=float(mass_g @ palette.alcohol_known) / total_g,
        humectant_share=float(mass_g @ palette.humectant) / total_g,
        fast_acid_share=float(mass_g[fast].sum()) / total_g,
        fizzes=float(mass_g @ palette.carbon_mol_g) > 0,
        coarse_share=float(mass_g[coarse].sum()) / total_g,
    )
