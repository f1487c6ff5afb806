"""Readings of the dough in the bowl: texture over temperature, window, band, tack, puff."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from rosy_kettle.core.mixing.fill import DoughFill, dough_fill
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.mixing.setting import Setting, dough_fault, missing_of
from rosy_kettle.core.models.dough import STATES, TextureCurve, texture_curve, wanted_from, wanted_states, working_window
from rosy_kettle.core.models.dough.behaviour import alcohol_left_g, saturation_without, state_chances, stickiness
from rosy_kettle.core.models.dough.texture import texture_of
from rosy_kettle.core.models.fats.mix_temperature import mix_temperature
from rosy_kettle.core.models.gas.prereaction import puff
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.dough import DoughParameters
from rosy_kettle.core.records.evaluation import Dough, DoughPoint, Missing, SaturationAfter, StateChance, Wanted
from rosy_kettle.core.records.reading import Reading, Watched

__all__ = ["READINGS", "SCAN_C", "fresh_texture", "no_dough", "read_dough"]

SCAN_C = np.arange(10.0, 61.0)  # temperatures of the texture curve [°C]
SCAN_ENDS_C = (float(SCAN_C[0]), float(SCAN_C[-1]))
BOWL_MINUTES = (10.0, 20.0)  # when the alcohol is looked at again [min]


READINGS = (
    Reading(
        "dough.saturation", "Dough", "", "physical", "batch",
        "Liquid volume against what the powders drink up to the plastic limit; fats count by their molten share. "
        "Band 17 %, wider with volumes.",
        page="dough", question="hold", place=1, rests_on=("dough", "mixing"),
        compute=lambda look: look.mix.saturation(look.setting.judged_c) if look.one_dough else None, aim=True,
        watched=Watched(0, 0.15), scale=(0.0, 2.4), decimals=2, desk=0, curve="texture",
    ),
    Reading(
        "dough.working_window_c", "Working window", "°C", "physical", "batch",
        "The longest run of temperatures in the wanted state; kneaded doughs keep at least "
        f"{100 * USUAL.dough.least_solid_share:g} % of their fat solid.",
        page="dough", question="hold", place=2, rests_on=("dough", "mixing"), scale=SCAN_ENDS_C, desk=1, curve="texture",
    ),
    Reading(
        "dough.mix_temperature_c", "After mixing", "°C", "physical", "batch",
        "Warm wet phase against powders and bowl at room temperature, melting heat counted. Band 3 °C.",
        page="heat", question="hold", place=10, rests_on=("fats",), compute=lambda look: look.mixed_c(), scale=SCAN_ENDS_C,
        curve="cooling",
    ),
    Reading(
        "dough.stickiness", "Sticks to gloves", "of 100", "practice", "batch",
        f"From S {USUAL.dough.tacky_from:.2f} on, by how tacky the liquids are. Band 20.",
        page="dough", question="hold", place=30, rests_on=("dough", "mixing"),
        compute=lambda look: stickiness(look.mix, look.setting.judged_c) if look.one_dough else None, aim=True,
        watched=Watched(10, 20.0), scale=(0.0, 100.0),
    ),
    Reading(
        "dough.puff_pct", "Puff", "%", "practice", "batch",
        "Lift of the resting dough where acid meets free water; "
        f"about {100 * USUAL.gas.stirred_down:.0f} % is left once stirred down. Factor of 2.",
        page="dough", question="hold", place=31, rests_on=("gas",),
        compute=lambda look: look.puff.standing_pct if look.one_dough else None, aim=True,
    ),
)  # fmt: skip
"""Declarations."""


def no_dough(setting: Setting) -> Dough:
    """Return the dough readings of an empty formula.

    Parameters
    ----------
    setting : Setting
        Method and room

    Returns
    -------
    Dough
        All null
    """
    states = wanted_states(setting.method.wanted, 0.0)
    return replace(_unknown(setting, states, USUAL.dough), window_reason="no fat")


def fresh_texture(mix: Mix) -> tuple[DoughPoint, ...]:
    """Return the texture curve of the first hours, before cocoa butter has settled.

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    tuple
        State at each temperature from 10 to 60 °C; empty where no fat changes
    """
    if not any(item.fresh_fat for item, mass_g in mix.items() if mass_g > 0):
        return ()
    return tuple(_points(texture_curve(dough_fill(mix.palette, mix.mass_g, SCAN_C, fresh=True, lenient=True), mix.parameters)))


def read_dough(mix: Mix, spread: FloatArray, setting: Setting, missing: list[Missing]) -> Dough:
    """Return the texture readings of one dough.

    Parameters
    ----------
    mix : Mix
        The formula
    spread : FloatArray
        Half width of each line's mass band as a share [-]
    setting : Setting
        Method and room
    missing : list
        Takes what cannot be said

    Returns
    -------
    Dough
        Readings
    """
    p = mix.parameters.dough
    unknown = _unknown(setting, wanted_states(setting.method.wanted, mix.fast_acid_share, p), p)
    unknown = replace(unknown, mix_temperature_c=mix_temperature(mix, setting.wet_c, setting.assumed.room_c, setting.bowl_j_k))
    if fault := dough_fault(mix):
        missing.append(missing_of("dough.saturation", fault))
        return unknown
    return _known_dough(mix, spread, setting, unknown, missing)


def _unknown(setting: Setting, states: tuple[str, ...], p: DoughParameters) -> Dough:
    told = setting.method.wanted
    wanted = Wanted(
        states, told.saturation_low, told.saturation_high, told.state_when_cold, wanted_from(told, states, p)
    )  # fmt: skip
    cold = DoughPoint(setting.assumed.room_c, None, None)
    return Dough(setting.judged_c, None, None, None, (), cold, None, "missing data", None, wanted)


def _known_dough(mix: Mix, spread: FloatArray, setting: Setting, unknown: Dough, missing: list[Missing]) -> Dough:
    fill, grid_c = mix.fill, mix.fill.temperature_c
    curve = texture_of(mix)
    scanned = np.searchsorted(grid_c, SCAN_C)
    scan = TextureCurve(grid_c[scanned], curve.saturation[scanned], curve.state_index[scanned])
    window, reason = working_window(
        scan,
        replace(
            fill,
            temperature_c=grid_c[scanned],
            saturation=fill.saturation[scanned],
            solid_share=fill.solid_share[scanned],
            firm_share=fill.firm_share[scanned],
        ),
        unknown.wanted.states,
        kneaded=setting.method.kneaded,
        p=mix.parameters.dough,
    )
    judged, cold = _points(_at(curve, setting.judged_c, setting.assumed.room_c))
    if judged.saturation is None:
        missing.append(Missing("dough.saturation", None, None, "no powder that drinks"))
        missing.append(Missing("dough.stickiness", None, None, "no powder that drinks"))
    half_width = _half_width(mix, spread, fill, judged.saturation)
    lift = puff(mix, dried_first=setting.dried_first)
    return replace(
        unknown,
        saturation=judged.saturation,
        saturation_band=_band(mix, judged.saturation, half_width),
        state=judged.state,
        state_chances=_chances(judged, half_width, mix.parameters.dough),
        by_temperature=tuple(_points(scan)),
        when_cold=cold,
        working_window_c=window,
        window_reason=reason,
        stickiness=stickiness(mix, setting.judged_c),
        puff_pct=lift.standing_pct,
        puff_stirred_pct=lift.stirred_pct,
        saturation_unrested=_unrested(mix, judged.saturation),
        alcohol_leaving=_alcohol(mix, judged.saturation, setting.assumed.room_c),
    )


def _at(curve: TextureCurve, *temperatures_c: float) -> TextureCurve:
    index = np.searchsorted(curve.temperature_c, temperatures_c)
    return TextureCurve(curve.temperature_c[index], curve.saturation[index], curve.state_index[index])


def _points(curve: TextureCurve) -> list[DoughPoint]:
    rows = zip(curve.temperature_c.tolist(), curve.saturation.tolist(), curve.state_index.tolist(), strict=True)
    return [DoughPoint(at_c, None if math.isnan(full) else full, STATES[state]) for at_c, full, state in rows]


def _half_width(mix: Mix, spread: FloatArray, fill: DoughFill, saturation: float | None) -> float:
    """Spread of the entries and of the model, as independent errors."""
    if saturation is None:
        return 0.0
    palette, demand_ml = mix.palette, float(fill.demand_ml)
    from_powders = saturation * palette.liquid_demand_ml_g * mix.mass_g / demand_ml
    volumes = palette.dough_volume_ml_g * mix.mass_g
    molten = saturation * demand_ml / float(volumes.sum()) if volumes.sum() > 0 else 0.0
    entries = float(np.sqrt((((from_powders + volumes / demand_ml * molten) * spread) ** 2).sum()))
    return math.hypot(entries, mix.parameters.dough.saturation_band * saturation)


def _band(mix: Mix, saturation: float | None, half_width: float) -> tuple[float, float] | None:
    if saturation is None:
        return None
    high = saturation + half_width
    if mix.of(mix.palette.dissolves_in_water) >= mix.parameters.dough.dissolving_from * mix.total_g:
        high += mix.parameters.dough.dissolved_ml_per_ml * mix.of(mix.palette.free_water_known) / mix.demand_ml
    return max(0.0, saturation - half_width), high


def _chances(judged: DoughPoint, half_width: float, p: DoughParameters) -> tuple[StateChance, ...]:
    """How likely each state is; one state alone where the fat has set or carries."""
    if judged.saturation is None or judged.state is None:
        return ()
    chances = state_chances(judged.saturation, half_width, p)
    if judged.state not in dict(chances):
        return (StateChance(judged.state, 1.0),)
    return tuple(StateChance(state, chance) for state, chance in chances)


def _unrested(mix: Mix, saturation: float | None) -> float | None:
    """S of the dough just mixed, where a liquid surfactant must first drink in; None where nothing changes."""
    wet = any(item.surfactant and item.is_liquid and mass_g > 0 for item, mass_g in mix.items())
    return mix.parameters.dough.rest_effect * saturation if wet and saturation is not None else None


def _alcohol(mix: Mix, saturation: float | None, room_c: float) -> tuple[SaturationAfter, ...]:
    alcohol_g = mix.of(mix.palette.alcohol_known)
    if alcohol_g <= 0 or saturation is None:
        return ()
    return tuple(
        SaturationAfter(
            minutes,
            saturation_without(mix, saturation, alcohol_g - alcohol_left_g(alcohol_g, minutes, room_c, mix.parameters.dough)),
        )
        for minutes in (0.0, *BOWL_MINUTES)
    )
