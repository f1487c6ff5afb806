"""Readings of the dough in the bowl: texture over temperature, window, band."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from rosy_kettle.core.dough import DoughFill, TextureCurve, texture_curve, wanted_states, working_window
from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mix import Mix
from rosy_kettle.core.palette import FloatArray, Palette, require
from rosy_kettle.core.records import Method
from rosy_kettle.core.records.evaluation import Assumed, Dough, DoughPoint, Missing, Wanted

__all__ = ["SCAN_C", "dough_fault", "read_dough"]

SCAN_C = np.arange(10.0, 61.0)  # temperatures of the texture curve [°C]
SATURATION_BAND = 0.17  # 90 % band of S when all is weighed [-]; estimate, replaced by the studio's rope test
FAST_ACID_SPEED = 0.5  # acids at least this fast count as fast; cream of tartar and fumaric acid do not [-]


def dough_fault(mix: Mix) -> MissingDataError | None:
    """Return what keeps the dough from being judged: a powder without liquid demand, a liquid without density.

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    MissingDataError or None
        The first property that is not known
    """
    palette, used = mix.palette, mix.mass_g > 0
    try:
        require(palette, palette.liquid_demand_ml_g, used, "liquid_demand_ml_100g")
        require(palette, palette.dough_volume_ml_g, used, "true_density_g_ml")
    except MissingDataError as error:
        return error
    return None


def read_dough(
    mix: Mix | None, spread: FloatArray, method: Method, assumed: Assumed, judged_c: float, missing: list[Missing]
) -> Dough:
    """Return the texture readings of one dough.

    Parameters
    ----------
    mix : Mix or None
        The formula; None when it is empty
    spread : FloatArray
        Half width of each line's mass band as a share [-]
    method : Method
        What dough is wanted
    assumed : Assumed
        The room
    judged_c : float
        Temperature the dough is judged at [°C]
    missing : list
        Takes what cannot be said

    Returns
    -------
    Dough
        Readings; the mix temperature is filled in with the tub's readings
    """
    acid_share = 0.0 if mix is None else _fast_acid_share(mix)
    states = wanted_states(method.wanted, acid_share)
    wanted = Wanted(states, method.wanted.saturation_low, method.wanted.saturation_high, method.wanted.state_when_cold)
    unknown = Dough(judged_c, None, None, None, (), DoughPoint(assumed.room_c, None, None), None, "missing data", None, wanted)
    if mix is None:
        missing.append(Missing("dough.saturation", None, None, "the formula is empty"))
        return replace(unknown, window_reason="no fat")
    if fault := dough_fault(mix):
        missing.append(Missing("dough.saturation", str(fault.facts["ingredient"]), str(fault.facts["property"]), fault.message))
        return unknown
    return _known_dough(mix, spread, method, assumed, judged_c, wanted, missing)


def _known_dough(
    mix: Mix, spread: FloatArray, method: Method, assumed: Assumed, judged_c: float, wanted: Wanted, missing: list[Missing]
) -> Dough:
    fill, grid_c = mix.fill, mix.fill.temperature_c
    curve = texture_curve(fill)
    scanned = np.searchsorted(grid_c, SCAN_C)
    window, reason = working_window(
        TextureCurve(grid_c[scanned], curve.saturation[scanned], curve.state_index[scanned]),
        replace(fill, temperature_c=grid_c[scanned], saturation=fill.saturation[scanned], solid_share=fill.solid_share[scanned]),
        wanted.states,
        kneaded=method.kneaded,
    )
    judged = _point(curve, int(np.searchsorted(grid_c, judged_c)))
    if judged.saturation is None:
        missing.append(Missing("dough.saturation", None, None, "no powder that drinks"))
    return Dough(
        temperature_c=judged_c,
        saturation=judged.saturation,
        saturation_band=_saturation_band(mix.palette, mix.mass_g, spread, fill, judged.saturation),
        state=judged.state,
        by_temperature=tuple(_point(curve, int(index)) for index in scanned),
        when_cold=_point(curve, int(np.searchsorted(grid_c, assumed.room_c))),
        working_window_c=window,
        window_reason=reason,
        mix_temperature_c=None,
        wanted=wanted,
    )


def _point(curve: TextureCurve, index: int) -> DoughPoint:
    saturation = float(curve.saturation[index])
    return DoughPoint(float(curve.temperature_c[index]), None if math.isnan(saturation) else saturation, curve.state(index))


def _saturation_band(
    palette: Palette, mass_g: FloatArray, spread: FloatArray, fill: DoughFill, saturation: float | None
) -> tuple[float, float] | None:
    """Spread of the entries and of the model, as independent errors."""
    if saturation is None:
        return None
    demand_ml = float(fill.demand_ml)
    from_powders = saturation * palette.liquid_demand_ml_g * mass_g / demand_ml
    liquid_ml = saturation * demand_ml
    volumes = palette.dough_volume_ml_g * mass_g
    from_liquids = volumes / demand_ml * (liquid_ml / float(volumes.sum()) if volumes.sum() > 0 else 0.0)
    entries = float(np.sqrt((((from_powders + from_liquids) * spread) ** 2).sum()))
    half_width = math.hypot(entries, SATURATION_BAND * saturation)
    return max(0.0, saturation - half_width), saturation + half_width


def _fast_acid_share(mix: Mix) -> float:
    fast = np.array([bool(item.acid and item.acid.speed >= FAST_ACID_SPEED) for item in mix.palette.ingredients], dtype=bool)
    return float(mix.mass_g[fast].sum()) / mix.total_g
