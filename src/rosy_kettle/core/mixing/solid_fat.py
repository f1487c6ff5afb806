"""Solid fat content of single fats and of what lies in a formula, waxes dissolving included."""

from __future__ import annotations

import numpy as np

from rosy_kettle.core.mixing.palette import FloatArray, Palette
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.mixing import MixingParameters
from rosy_kettle.core.records import SolidFatCurve

__all__ = ["curve_solid_fraction", "solid_fractions", "weighted_solid_fat"]


def curve_solid_fraction(
    curve: SolidFatCurve, melt_high_c: float | None, temperature_c: FloatArray, p: MixingParameters = USUAL.mixing
) -> FloatArray:
    """Return the solid share of one fat by its table.

    Parameters
    ----------
    curve : SolidFatCurve
        Solid share at fixed temperatures
    melt_high_c : float or None
        Upper end of the melting range [°C]
    temperature_c : FloatArray
        Temperatures, any shape [°C]
    p : MixingParameters
        Where the tables end

    Returns
    -------
    FloatArray
        Solid share [-], same shape

    Notes
    -----
    Linear between the table's points; below the first the first value holds; above 40 °C it runs straight
    to zero at the end of melting, at the soonest 42 °C.
    """
    end_c = max(p.fat_gone_from_c, melt_high_c or p.fat_gone_from_c)
    points = (*curve.temperatures_c, end_c) if end_c > p.fat_table_ends_c else curve.temperatures_c
    return np.interp(temperature_c, points, (*curve.solid_fractions, 0.0))


def solid_fractions(palette: Palette, mass_g: FloatArray, temperature_c: FloatArray, *, fresh: bool = False) -> FloatArray:
    """Return the solid share of every fat at every temperature, waxes partly dissolved.

    .. math:: solid_w = \\max(0,\\; m_w SFC - f_w \\frac{w}{1-w} m_L),\\quad w = w_{ref}\\, e^{growth\\, (T-T_{ref})} \\le limit

    w_ref, growth, T_ref, limit: ``wax_solubility_at_10_c``, ``wax_solubility_growth_per_c``,
    ``wax_reference_c``, ``wax_solubility_limit``.

    Parameters
    ----------
    palette : Palette
        n ingredients
    mass_g : FloatArray
        Masses, shape (..., n) [g]
    temperature_c : FloatArray
        Temperatures, shape (t,) [°C]
    fresh : bool
        Take the fresh, untempered curve where there is one

    Returns
    -------
    FloatArray
        Solid share, shape (..., t, k) for the k columns of ``palette.fat_columns`` [-]

    Notes
    -----
    m_L is all that is molten: molten fat and liquid oil. The dissolving factor f_w is a property of the wax. A wax on several
    lines is one wax: what dissolves is taken from all of them together.

    References
    ----------
    .. [1] Solid shares: pulsed-NMR tables, typical values from memory (Shukla 1995; Bailey's Industrial Oil and Fat Products).
    .. [2] Waxes: fitted to the ideal solubility of cetyl alcohol.
    """
    columns = palette.fat_columns
    table = _table(palette, temperature_c, fresh=fresh)[:, columns]
    fats_g = mass_g[..., columns]
    solid = np.broadcast_to(table, (*fats_g.shape[:-1], *table.shape))
    factors = palette.wax_solubility_factor[columns]
    if not factors.any():
        return solid
    oil_g = (mass_g @ palette.is_liquid_oil)[..., None]
    molten_g = oil_g + np.matmul(1 - solid, fats_g[..., None])[..., 0]
    dissolved_g = factors * (_dissolved_per_gram(temperature_c, palette.parameters.mixing) * molten_g)[..., None]
    of_its_kind_g = _of_its_kind(palette, mass_g)[..., columns][..., None, :]
    kept_g = np.maximum(0.0, of_its_kind_g * solid - dissolved_g)
    dissolving = np.divide(kept_g, of_its_kind_g, out=np.zeros(kept_g.shape), where=of_its_kind_g > 0)
    return np.where(factors > 0, dissolving, solid)


def _of_its_kind(palette: Palette, mass_g: FloatArray) -> FloatArray:
    """Mass of all lines that hold the same thing, for each line [g]."""
    first = palette.first_of_its_kind
    if bool((first == np.arange(first.size)).all()):
        return mass_g
    sums = np.zeros(mass_g.shape)
    for line, kind in enumerate(first):
        sums[..., kind] += mass_g[..., line]
    return np.asarray(sums[..., first])


def weighted_solid_fat(
    palette: Palette, mass_g: FloatArray, temperature_c: float, weights: FloatArray
) -> tuple[float, FloatArray]:
    """Return a weighted sum of the solid fat of one formula, and its derivative by every mass.

    Parameters
    ----------
    palette : Palette
        n ingredients
    mass_g : FloatArray
        Masses of one formula, shape (n,) [g]
    temperature_c : float
        Temperature [°C]
    weights : FloatArray
        Weight of a gram of each line's solid, shape (n,) [any unit per g]

    Returns
    -------
    tuple
        Sum [that unit] and derivatives, shape (n,) [that unit per g]

    Notes
    -----
    A wax that is wholly dissolved has no solid and no slope; a fat's slope is its solid share.
    """
    at = np.array([temperature_c])
    table = _table(palette, at, fresh=False)[0]
    factors = palette.wax_solubility_factor
    slopes = weights * table
    if not factors.any():
        return float(slopes @ mass_g), slopes
    molten = palette.is_liquid_oil + palette.is_fat * (1 - table)
    dissolves = factors * _dissolved_per_gram(at, palette.parameters.mixing)[0]
    left = (factors > 0) & (_of_its_kind(palette, mass_g) * table > dissolves * float(molten @ mass_g))
    once = left & (palette.first_of_its_kind == np.arange(mass_g.size))
    slopes = np.where((factors > 0) & ~left, 0.0, slopes) - float((weights * dissolves)[once].sum()) * molten
    # Dissolution is proportional to what is molten, so the sum is linear in the masses on this side of the kink.
    return float(slopes @ mass_g), slopes


def _table(palette: Palette, temperature_c: FloatArray, *, fresh: bool) -> FloatArray:
    table = np.zeros((temperature_c.size, len(palette.ingredients)))
    for column in palette.fat_columns:
        item = palette.ingredients[column]
        curve = (item.fresh_fat if fresh else None) or item.tempered_fat
        if curve is not None:
            table[:, column] = curve_solid_fraction(curve, item.melt_high_c, temperature_c, palette.parameters.mixing)
    return table


def _dissolved_per_gram(temperature_c: FloatArray, p: MixingParameters) -> FloatArray:
    """Wax that a gram of molten fat and oil holds, before the wax's own factor [g/g]."""
    share = np.minimum(
        p.wax_solubility_limit,
        p.wax_solubility_at_10_c * np.exp(p.wax_solubility_growth_per_c * (temperature_c - p.wax_reference_c)),
    )
    return np.asarray(share / (1 - share), dtype=np.float64)
