"""Liquid saturation: the liquid in a dough against what its powders can drink."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.mixing.palette import FloatArray, Palette, require
from rosy_kettle.core.mixing.solid_fat import solid_fractions

__all__ = ["DoughFill", "dough_fill", "with_gel"]


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
    """Solid share of fat, oil and what other liquid no powder drinks, (..., t) [-]; 0 without fat"""
    firm_share: FloatArray
    """The same with the network that a gelling wax makes counted, (..., t) [-]: what sets, holds and hardens"""
    undrunk_g: FloatArray
    """Liquids other than fat that no powder drinks, (...) [g]"""
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
    oil_g = mass_g @ palette.is_liquid_oil
    loose = palette.is_lean_liquid & ~palette.is_liquid_oil
    undrunk_g = (mass_g @ loose) * np.maximum(0.0, 1 - _ratio(demand_ml, volume_ml @ loose, np.inf))
    base_g = (fat_g + oil_g + undrunk_g)[..., None]
    solid_share = _ratio(np.matmul(solid, fats_g[..., None])[..., 0], base_g, 0.0)
    firm_share = _firm_share(palette, solid, fats_g, base_g, solid_share)
    total_g = mass_g.sum(axis=-1)
    return DoughFill(
        temperature_c=temperature_c,
        demand_ml=demand_ml,
        saturation=_ratio(liquid_ml, demand_ml[..., None], np.nan),
        saturation_molten=_ratio(molten_ml, demand_ml, np.nan),
        saturation_lean=_ratio(lean_ml, demand_ml, np.nan),
        solid_share=solid_share,
        firm_share=firm_share,
        undrunk_g=undrunk_g,
        fat_share=_ratio(fat_g, total_g, 0.0),
        fat_volume_share=_ratio(molten_ml - lean_ml, molten_ml, 0.0),
    )


def _firm_share(
    palette: Palette, solid: FloatArray, fats_g: FloatArray, base_g: FloatArray, solid_share: FloatArray
) -> FloatArray:
    """Add the network of gelling waxes to the solid share; without any of them it is the solid share."""
    gels_from = palette.gels_from[palette.fat_columns]
    if not gels_from.any():
        return solid_share
    solid_g = solid * fats_g[..., None, :]
    wax_g = np.matmul(solid_g, (gels_from > 0).astype(np.float64))
    threshold = _ratio(np.matmul(solid_g, gels_from), wax_g, 0.0)
    wax_share = _ratio(wax_g, base_g, 0.0)
    return with_gel(solid_share - wax_share, wax_share, threshold, palette.parameters.mixing.gel_strength)


def with_gel(fat_share: FloatArray, wax_share: FloatArray, threshold: FloatArray, gel_strength: float) -> FloatArray:
    """Return the share that carries as if it were solid, from solid fat and from the network of a gelling wax.

    .. math:: s = s_{fat} + (1 - s_{fat})\\, \\min\\left(1,\\; gel\\, \\sqrt{(\\phi - \\phi_c)/(1 - \\phi_c)}\\right)

    gel: ``gel_strength``.

    Parameters
    ----------
    fat_share : FloatArray
        Solid fat without the wax, as a share of all that is fat, oil or undrunk [-]
    wax_share : FloatArray
        Solid wax as a share of the same [-]
    threshold : FloatArray
        Share from which the wax gels [-]
    gel_strength : float
        Share that a network of all wax would carry, before it is capped at 1 [-]

    Returns
    -------
    FloatArray
        Share from 0 to 1 [-]

    Notes
    -----
    Fitted so that a tenth of beeswax in oil just sets and three tenths make a firm balm (common practice).

    References
    ----------
    .. [1] Blake, A. I.; Co, E. D.; Marangoni, A. G. J. Am. Oil Chem. Soc. 91 (2014) 885-903 (waxes gel oil from 0.5 to 4 %;
       thresholds in ``reading_traits.csv``, from memory).
    """
    gel = np.minimum(1.0, gel_strength * np.sqrt(np.maximum(0.0, wax_share - threshold) / (1 - threshold)))
    return np.asarray(fat_share + (1 - fat_share) * gel)


def _ratio(top: FloatArray, bottom: FloatArray, otherwise: float) -> FloatArray:
    shape = np.broadcast_shapes(np.shape(top), np.shape(bottom))
    ratio: FloatArray = np.divide(top, bottom, out=np.full(shape, otherwise), where=bottom > 0)
    return ratio
