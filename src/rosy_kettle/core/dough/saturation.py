"""Liquid saturation: the liquid in a dough against what its powders can drink."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.fats import solid_fractions
from rosy_kettle.core.palette import FloatArray, Palette, require

__all__ = ["DoughFill", "dough_fill"]


@dataclass(frozen=True, slots=True, eq=False)
class DoughFill:
    """What fills the dough, per temperature. Leading axes are variants; t is the temperature axis."""

    temperature_c: FloatArray
    """(t,) [°C]"""
    demand_ml: FloatArray
    """Liquid the powders drink up to the plastic limit, (...) [mL]"""
    saturation: FloatArray
    """S at each temperature, (..., t) [-]; NaN where no powder drinks"""
    saturation_molten: FloatArray
    """S with every fat molten, (...) [-]"""
    saturation_lean: FloatArray
    """S of the liquids that are no fat, (...) [-]"""
    solid_share: FloatArray
    """Solid share of fat and oil, (..., t) [-]; 0 without fat"""
    fat_share: FloatArray
    """Fat with a solid fat curve as a share of the mass, (...) [-]"""
    fat_volume_share: FloatArray
    """Fat as a share of the liquid volume with every fat molten, (...) [-]"""


def dough_fill(
    palette: Palette, mass_g: FloatArray, temperature_c: FloatArray, *, fresh: bool = False, lenient: bool = False
) -> DoughFill:
    """Return the liquid saturation of a dough and what it is made of.

    .. math:: S(T) = \\frac{\\sum_{liquids} V_j (1 - SFC_j(T))}{\\sum_{powders} m_i d_i / 100}

    Parameters
    ----------
    palette : Palette
        n ingredients
    mass_g : FloatArray
        Masses, shape (..., n) [g]
    temperature_c : FloatArray
        Temperatures, shape (t,) [°C]
    fresh : bool
        Take the fresh, untempered fat curves
    lenient : bool
        Count what lacks a property as nothing; only for shares in which it plays no part

    Returns
    -------
    DoughFill
        Saturation and shares

    Raises
    ------
    MissingDataError
        If a powder lacks its liquid demand, or a liquid its density.

    References
    ----------
    .. [1] Newitt, D. M.; Conway-Jones, J. M. A contribution to the theory and practice of granulation.
       Trans. Inst. Chem. Eng. 36 (1958) 422-442 (the states; the demand figures are calibrated to practice).
    """
    if not lenient:
        used = np.asarray((mass_g > 0).reshape(-1, mass_g.shape[-1]).any(axis=0))
        require(palette, palette.liquid_demand_ml_g, used, "liquid_demand_ml_100g")
        require(palette, palette.dough_volume_ml_g, used, "true_density_g_ml")
    demand_ml = mass_g @ palette.liquid_demand_known
    volume_ml = palette.dough_volume_known * mass_g
    solid = solid_fractions(palette, mass_g, temperature_c, fresh=fresh)
    fats_g, fats_ml = mass_g[..., palette.fat_columns], volume_ml[..., palette.fat_columns]
    molten_ml = volume_ml.sum(axis=-1)
    liquid_ml = molten_ml[..., None] - np.matmul(solid, fats_ml[..., None])[..., 0]
    lean_ml = volume_ml @ palette.is_lean_liquid
    fat_g = fats_g.sum(axis=-1)
    oily_g = fat_g + mass_g @ palette.is_liquid_oil
    total_g = mass_g.sum(axis=-1)
    return DoughFill(
        temperature_c=temperature_c,
        demand_ml=demand_ml,
        saturation=_ratio(liquid_ml, demand_ml[..., None], np.nan),
        saturation_molten=_ratio(molten_ml, demand_ml, np.nan),
        saturation_lean=_ratio(lean_ml, demand_ml, np.nan),
        solid_share=_ratio(np.matmul(solid, fats_g[..., None])[..., 0], oily_g[..., None], 0.0),
        fat_share=_ratio(fat_g, total_g, 0.0),
        fat_volume_share=_ratio(molten_ml - lean_ml, molten_ml, 0.0),
    )


def _ratio(top: FloatArray, bottom: FloatArray, otherwise: float) -> FloatArray:
    shape = np.broadcast_shapes(np.shape(top), np.shape(bottom))
    ratio: FloatArray = np.divide(top, bottom, out=np.full(shape, otherwise), where=bottom > 0)
    return ratio
