"""Hours until a piece is dry or set (practice, until the studio's own weigh-ins speak)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import clip, sqrt
from rosy_kettle.core.models.dough.texture import texture_of
from rosy_kettle.core.parameters.drying import DryingParameters
from rosy_kettle.core.words.drying import not_drying_words

__all__ = ["Drying", "drying_time"]

FLUID_WHEN_COLD = frozenset({"batter", "pour"})


@dataclass(frozen=True, slots=True)
class Drying:
    """Hours with their band, or why it will not dry."""

    hours: float | None
    low_hours: float | None
    high_hours: float | None
    dries: bool
    reason: str | None
    why_not: str | None = None
    """Code of the reason, one of ``words.drying.NOT_DRYING``."""


WhyNot = tuple[str, Mapping[str, float]]
"""Why it will not dry: a code and the facts its sentence names."""


def drying_time(
    mix: Mix, half_thickness_mm: float, room_c: float, humidity_pct: float, *, loose: bool, dried_first: bool = False,
    least_hours: float = 0.0,
) -> Drying:  # fmt: skip
    """Return how long a piece takes to dry or set.

    .. math:: t = \\max(t_{fat}, t_{water}, t_{alcohol}) + t_{glycerin}

    Parameters
    ----------
    mix : Mix
        The formula
    half_thickness_mm : float
        Half thickness of the piece [mm]
    room_c : float
        Room temperature [°C]
    humidity_pct : float
        Relative humidity [%]
    loose : bool
        Whether it is left as dust
    dried_first : bool
        Whether the surfactants' water was dried off before the piece was made
    least_hours : float
        What the method gives a piece before it is handled, however dry it went in [h]

    Returns
    -------
    Drying
        Hours [h] and their band, or the reason why not

    References
    ----------
    .. [1] Greenspan, L. J. Res. Natl. Bur. Stand. 81A (1977) 89 (humidity over NaCl and MgCl2; other salts from memory).
    """
    p, humidity = mix.parameters.drying, humidity_pct / 100
    ceiling = _ceiling(mix)
    water = mix.wet_share(dried_first=dried_first)
    why_not = _why_not(mix, water, humidity, ceiling, room_c)
    if why_not:
        code, facts = why_not
        return Drying(None, None, None, dries=False, reason=not_drying_words(code, facts), why_not=code)
    resting = least_hours * max(1.0, _resistance(room_c, humidity, ceiling, p))
    hours = resting if loose else max(resting, _hours(mix, water, half_thickness_mm, room_c, humidity, ceiling))
    scatters = mix.humectant_share > p.wide_from_humectant or humidity > p.wide_from_humidity
    low, high = (p.wide_low, p.wide_high) if scatters else (p.narrow_low, p.narrow_high)
    return Drying(hours, low * hours, high * hours, dries=True, reason=None)


def _ceiling(mix: Mix) -> float:
    """Air in which the piece no longer dries: that of a dough, brought down by what deliquesces, the more of it the further."""
    p = mix.parameters.drying
    lowest = p.water_activity
    for item, mass_g in mix.kinds:
        point = item.traits.deliquescence_share
        if point is not None and point < p.water_activity:
            rules = clip((mass_g / mix.total_g - p.salt_begins) / (p.salt_rules - p.salt_begins))
            lowest = min(lowest, p.water_activity - (p.water_activity - point) * rules)
    return lowest


def _resistance(room_c: float, humidity: float, ceiling: float, p: DryingParameters) -> float:
    return p.even_margin / max(p.damp_margin, ceiling - humidity) * 2 ** ((p.reference_c - room_c) / p.warmth_halves_per_c)


def _hours(mix: Mix, water_share: float, h: float, room_c: float, humidity: float, ceiling: float) -> float:
    p = mix.parameters.drying
    resistance = _resistance(room_c, humidity, ceiling, p)
    water, alcohol = 100 * water_share, 100 * mix.alcohol_share
    thicker = h / p.reference_half_mm
    little = min(1.0, water / p.little_water_pct)
    t_water = p.water_hours * sqrt(water / p.water_pct) * thicker * resistance * little
    cooler = 2 ** ((p.reference_c - room_c) / p.alcohol_halves_per_c)
    t_alcohol = p.alcohol_hours * sqrt(alcohol / p.water_pct) * thicker * cooler
    # Alcohol leaves: what sets is what stays.
    lasting = 1 - mix.alcohol_share
    t_glycerin = p.glycerin_hours_per_pct * max(0.0, 100 * mix.humectant_share - p.glycerin_free_pct) * resistance
    damp = 1 + p.damp_slows * max(0.0, humidity - p.damp_slows_from)
    set_by_powder = (1 - mix.carried) * p.powder_set_hours * sqrt(mix.fat_share / lasting / p.powder_set_fat) * damp
    set_by_fat = mix.carried * p.fat_set_hours * (h / p.fat_set_half_mm)
    warmer = 2 ** ((room_c - p.reference_c) / p.fat_doubles_per_c)
    t_fat = (set_by_powder + set_by_fat) * clip(warmer, p.fat_quickest, p.fat_slowest)
    return max(t_fat, t_water, t_alcohol) + t_glycerin


def _why_not(mix: Mix, water_share: float, humidity: float, ceiling: float, room_c: float) -> WhyNot | None:
    if mix.demand_ml <= 0 and mix.fat_g <= 0:
        return "nothing_holds", {}
    p = mix.parameters.drying
    draws = water_share >= p.water_that_matters or mix.humectant_share > p.humectant_that_matters
    fizzes = mix.fizzes and mix.fast_acid_share > p.acid_draws_from and mix.carried < 1
    if _weeping(mix, humidity):
        return "weeps", {}
    if (humidity >= ceiling - p.damp_margin and draws) or (fizzes and humidity >= p.acid_deliquesces):
        return "air_too_damp", {}
    if _apart_g(mix) > p.separates_from * mix.total_g:
        return "comes_apart", {}
    setting = p.solid_that_sets + p.solid_that_sets_by_fat * mix.carried
    if mix.fat_share > p.fat_that_must_set and mix.firm_share(room_c) < setting:
        return _sets_below(mix, setting)
    if _cold_state(mix, room_c) in FLUID_WHEN_COLD:
        return "stays_batter" if mix.demand_ml > 0 else "stays_liquid", {}
    dry, drawn = _lasting_saturation(mix, humidity)
    if dry is None or drawn is None:
        return None
    if dry > p.sticky_saturation or (dry > p.sticky_with_humectant and mix.humectant_share > p.humectant_that_matters):
        return "stays_sticky", {}
    return ("sweats", {}) if drawn > p.sticky_saturation else None


def _weeping(mix: Mix, humidity: float) -> bool:
    """Whether salts that deliquesce below this air are enough to wet a piece that draws."""
    p = mix.parameters.drying
    points = ((item.traits.deliquescence_share, mass_g) for item, mass_g in mix.kinds)
    weeping_g = sum(mass_g for point, mass_g in points if point is not None and humidity > point)
    return bool(weeping_g > p.salt_weeps * mix.total_g)


def _cold_state(mix: Mix, room_c: float) -> str:
    """Return the state at room temperature, the one that is shown as "when cold"."""
    curve = texture_of(mix)
    return curve.state(int(np.searchsorted(curve.temperature_c, room_c)))


def _apart_g(mix: Mix) -> float:
    """Return the undrunk water and glycerin that no emulsifier holds beside the fat [g]."""
    loose = mix.palette.is_lean_liquid & ~mix.palette.is_liquid_oil
    liquid_g = mix.of(loose)
    if mix.fat_g <= 0 or not liquid_g > 0:
        return 0.0
    watery = mix.of(loose & mix.palette.mixes_with_water) / liquid_g
    return max(0.0, mix.undrunk_g * watery - mix.grams_of_role("emulsifier"))


def _sets_below(mix: Mix, setting: float) -> WhyNot:
    firm = np.flatnonzero(mix.fill.firm_share >= setting)
    return ("sets_colder", {"below_c": float(mix.fill.temperature_c[firm[-1]])}) if firm.size else ("sets_nowhere", {})


def _lasting_saturation(mix: Mix, humidity: float) -> tuple[float | None, float | None]:
    """Saturation of the liquids that do not dry off, without and with the water they draw from the air."""
    demand_ml = mix.demand_ml
    if demand_ml <= 0 or mix.carried >= 1:
        return None, None
    palette, p = mix.palette, mix.parameters.drying
    stays = np.where(palette.is_fat, 0.0, 1 - palette.free_water_known - palette.alcohol_known)
    lasting_ml = mix.of(palette.dough_volume_known * np.maximum(0.0, stays))
    drawn_ml = p.water_drawn * humidity / max(p.damp_margin, 1 - humidity) * mix.humectant_share * mix.total_g
    return lasting_ml / demand_ml, (lasting_ml + drawn_ml) / demand_ml
