"""One formula in one setting, with the sums and shares that the models ask for again and again."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property, wraps
from typing import TypeVar, cast

import numpy as np

from rosy_kettle.core.mixing.carried import fat_carries
from rosy_kettle.core.mixing.fill import DoughFill, dough_fill
from rosy_kettle.core.mixing.palette import BoolArray, FloatArray, Palette
from rosy_kettle.core.mixing.sloped import Sloped, sqrt
from rosy_kettle.core.mixing.solid_fat import weighted_solid_fat
from rosy_kettle.core.parameters import Parameters
from rosy_kettle.core.records import Ingredient

__all__ = ["Mix", "make_mix", "once_per_mix"]

Found = TypeVar("Found")

GRID_C = tuple(float(t) for t in range(76))  # temperatures the fat is looked up at [°C]


@dataclass(frozen=True, eq=False)
class Mix:
    """Masses of one formula; every sum over them is a plain float, or carries its slopes when ``sloped``."""

    palette: Palette
    mass_g: FloatArray
    also_c: tuple[float, ...] = ()
    """Temperatures the fat is looked up at exactly, besides whole degrees [°C]."""
    sloped: bool = False

    @property
    def parameters(self) -> Parameters:
        """What the models rest on."""
        return self.palette.parameters

    @cached_property
    def fill(self) -> DoughFill:
        """What fills the dough over ``GRID_C`` and the temperatures asked for besides; values only."""
        return dough_fill(self.palette, self.mass_g, np.unique((*GRID_C, *self.also_c)), lenient=True)

    def of(self, column: FloatArray | BoolArray) -> float:
        """Sum of the masses, each times its entry in a column [column's unit times g]."""
        value = float(self.mass_g.dot(column))
        return Sloped(value, np.asarray(column, dtype=np.float64)) if self.sloped else value

    @cached_property
    def total_g(self) -> float:
        """Mass of the batch [g]."""
        return self.of(np.ones(self.mass_g.size))

    @cached_property
    def fat_g(self) -> float:
        """Fat with a solid fat curve [g]."""
        return self.of(self.palette.is_fat)

    @cached_property
    def liquid_oil_g(self) -> float:
        """Liquid oil [g]."""
        return self.of(self.palette.is_liquid_oil)

    @cached_property
    def oily_g(self) -> float:
        """Fat and liquid oil [g]."""
        return self.fat_g + self.liquid_oil_g

    @cached_property
    def fat_share(self) -> float:
        """Fat with a solid fat curve, as a share of the mass."""
        return self.fat_g / self.total_g

    @cached_property
    def oily_share(self) -> float:
        """Fat and liquid oil, as a share of the mass."""
        return self.oily_g / self.total_g

    @cached_property
    def water_share(self) -> float:
        """Free water, as a share of the mass."""
        return self.of(self.palette.free_water_known) / self.total_g

    def wet_share(self, *, dried_first: bool) -> float:
        """Free water once a surfactant's own has been dried off where the method does that, as a share of the mass."""
        if not dried_first:
            return self.water_share
        return self.of(self.palette.free_water_known * (self.palette.role != "surfactant")) / self.total_g

    @cached_property
    def spray_share(self) -> float:
        """Water of what is sprayed on, as a share of the mass."""
        return self.of(self.palette.free_water_known * self.palette.is_sprayed) / self.total_g

    @cached_property
    def alcohol_share(self) -> float:
        """Alcohol, as a share of the mass."""
        return self.of(self.palette.alcohol_known) / self.total_g

    @cached_property
    def humectant_share(self) -> float:
        """Humectants by strength, as a share of the mass."""
        return self.of(self.palette.humectant) / self.total_g

    @cached_property
    def fast_acid_share(self) -> float:
        """Fast acid, as a share of the mass."""
        return self.of(self.palette.is_fast_acid) / self.total_g

    @cached_property
    def coarse_share(self) -> float:
        """Coarse crystals, as a share of the mass."""
        return self.of(self.palette.is_coarse) / self.total_g

    @cached_property
    def fizzes(self) -> bool:
        """Whether there is carbonate for an acid to meet."""
        return float(self.mass_g @ self.palette.carbon_mol_g) > 0

    @cached_property
    def demand_ml(self) -> float:
        """Liquid the powders drink up to the plastic limit [mL]."""
        return self.of(self.palette.liquid_demand_known)

    @cached_property
    def lean_saturation(self) -> float:
        """Saturation by the liquids that are no fat; 0 where no powder drinks."""
        if self.demand_ml <= 0:
            return 0.0
        return self.of(self.palette.dough_volume_known * self.palette.is_lean_liquid) / self.demand_ml

    @cached_property
    def carried(self) -> float:
        """How far the fat, not the powder, carries the piece, 0 to 1."""
        liquid_ml = self.of(self.palette.dough_volume_known)
        fat_ml = self.of(self.palette.dough_volume_known * self.palette.is_fat)
        molten = liquid_ml / self.demand_ml if self.demand_ml > 0 else math.nan
        return fat_carries(molten, fat_ml / liquid_ml if liquid_ml > 0 else 0.0, self.fat_share, self.parameters.mixing)

    def solid_fat_g(self, temperature_c: float) -> float:
        """Fat that is solid at a temperature [g]."""
        if not self.sloped:
            return self.solid_share(temperature_c) * self.holding_g
        if temperature_c not in self._solid_fat:
            value, slopes = weighted_solid_fat(self.palette, self.mass_g, temperature_c, np.ones(self.mass_g.size))
            self._solid_fat[temperature_c] = Sloped(value, slopes)
        return self._solid_fat[temperature_c]

    def solid_share(self, temperature_c: float) -> float:
        """Solid share of fat and oil at a temperature."""
        if self.sloped:
            return self.solid_fat_g(temperature_c) / self.holding_g if self.holding_g > 0 else 0.0
        return float(np.interp(temperature_c, self.fill.temperature_c, self.fill.solid_share))

    def firm_share(self, temperature_c: float) -> float:
        """Share that carries as if it were solid: solid fat, and the network of a gelling wax."""
        if not self.sloped:
            return float(np.interp(temperature_c, self.fill.temperature_c, self.fill.firm_share))
        solid = self.solid_share(temperature_c)
        gels = self.palette.gels_from > 0
        if not gels.any() or not self.holding_g > 0:
            return solid
        value, slopes = weighted_solid_fat(self.palette, self.mass_g, temperature_c, gels.astype(np.float64))
        wax = Sloped(value, slopes) / self.holding_g
        weighed, _ = weighted_solid_fat(self.palette, self.mass_g, temperature_c, self.palette.gels_from)
        threshold = weighed / value if value > 0 else 0.0
        if float(wax) <= threshold:
            return solid - wax
        gel = min(1.0, self.parameters.mixing.gel_strength * sqrt((wax - threshold) / (1 - threshold)))
        return solid - wax + (1 - (solid - wax)) * gel

    @cached_property
    def undrunk_g(self) -> float:
        """Liquids other than fat and oil that no powder drinks [g]."""
        loose = self.palette.is_lean_liquid & ~self.palette.is_liquid_oil
        loose_ml = self.of(self.palette.dough_volume_known * loose)
        if not loose_ml > self.demand_ml:
            return 0.0
        return self.of(loose) * (1 - self.demand_ml / loose_ml)

    @cached_property
    def holding_g(self) -> float:
        """What the solid fat has to hold: fat, oil and the liquids no powder drinks [g]."""
        return self.oily_g + self.undrunk_g

    def solid_share_per_c(self, temperature_c: float) -> float:
        """Change of the solid share with temperature, along the line between two points of the grid [1/°C]; a value only."""
        grid_c, share = self.fill.temperature_c, self.fill.solid_share
        above = int(np.clip(np.searchsorted(grid_c, temperature_c), 1, grid_c.size - 1))
        return float((share[above] - share[above - 1]) / (grid_c[above] - grid_c[above - 1]))

    def saturation(self, temperature_c: float) -> float | None:
        """Saturation at a temperature; None where no powder drinks."""
        if self.demand_ml <= 0:
            return None
        if not self.sloped:
            return float(np.interp(temperature_c, self.fill.temperature_c, self.fill.saturation))
        volumes = self.palette.dough_volume_known
        value, slopes = weighted_solid_fat(self.palette, self.mass_g, temperature_c, volumes)
        return (self.of(volumes) - Sloped(value, slopes)) / self.demand_ml

    def grams_of_role(self, role: str) -> float:
        """Mass of the lines of a role [g]."""
        return self.of(self.palette.role == role)

    def grams_of_nature(self, nature: str) -> float:
        """Mass of the lines of a nature, such as "dye" or "lauric" [g]."""
        return self.of(np.array([item.has(nature) for item in self.palette.ingredients], dtype=bool))

    def items(self) -> Sequence[tuple[Ingredient, float]]:
        """Ingredients with their masses [g]."""
        return self._items

    @cached_property
    def kinds(self) -> list[tuple[Ingredient, float]]:
        """Ingredients with their masses, each once: what a limit counts, however many lines hold it [g]."""
        merged: dict[str, tuple[Ingredient, float]] = {}
        for item, mass_g in self.items():
            before = merged.get(item.id)
            merged[item.id] = (item, mass_g if before is None else before[1] + mass_g)
        return list(merged.values())

    @cached_property
    def _items(self) -> list[tuple[Ingredient, float]]:
        masses = self.mass_g.tolist()
        if self.sloped:
            masses = [Sloped(mass, row) for mass, row in zip(masses, np.eye(len(masses)), strict=True)]
        return list(zip(self.palette.ingredients, masses, strict=True))

    @cached_property
    def kept(self) -> dict[object, object]:
        """What functions of this mix alone have returned; see ``once_per_mix``."""
        return {}

    @cached_property
    def _solid_fat(self) -> dict[float, float]:
        return {}


def once_per_mix(work: Callable[[Mix], Found]) -> Callable[[Mix], Found]:
    """Return a function of a mix that is worked out once for each mix, however many readings ask for it.

    Parameters
    ----------
    work : Callable
        A pure function of a mix alone

    Returns
    -------
    Callable
        The same, with its answer kept with the mix
    """

    @wraps(work)
    def asked(mix: Mix) -> Found:
        if work not in mix.kept:
            mix.kept[work] = work(mix)
        return cast("Found", mix.kept[work])

    return asked


def make_mix(palette: Palette, mass_g: FloatArray, also_c: Sequence[float] = (), *, sloped: bool = False) -> Mix:
    """Return a formula ready for the models.

    Parameters
    ----------
    palette : Palette
        n ingredients
    mass_g : FloatArray
        Masses of one formula, shape (n,), above zero in sum [g]
    also_c : Sequence
        Temperatures the fat is looked up at exactly, besides whole degrees [°C]
    sloped : bool
        Whether every sum carries its derivative by each mass

    Returns
    -------
    Mix
        Shares are of the whole mass; readings that need a property refuse by themselves where it is not known
    """
    return Mix(palette, mass_g, tuple(also_c), sloped)
