"""Hours until a piece is dry or set (practice, until the studio's own weigh-ins speak)."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import clip, sqrt
from rosy_kettle.core.models.dough.texture import texture_curve

__all__ = ["Drying", "drying_time"]

WATER_ACTIVITY = 0.85  # of a drying dough [-]; common practice
SALT_BEGINS, SALT_RULES = 0.005, 0.035  # shares between which a deliquescent salt comes to rule the air [-]; estimate
ACID_DRAWS_FROM, ACID_DELIQUESCES = (
    0.01,
    0.78,
)  # fizz mix: fast acid share that draws damp [-], and the air at which it does; citric acid, from memory [-]
FLUID_WHEN_COLD = frozenset({"batter", "pour"})
SEPARATES_FROM = 0.05  # undrunk water and glycerin beside fat, as a share of the mass, that no emulsifier holds [-]; estimate
DAMP_MARGIN = 0.05  # closer than this the air dries nothing [-]
WATER_THAT_MATTERS, HUMECTANT_THAT_MATTERS = 0.005, 0.05  # shares of the mass [-]
STICKY_SATURATION, STICKY_WITH_HUMECTANT = 1.30, 1.02  # of the liquids that stay [-]
WATER_DRAWN = 0.25  # water a gram of glycerin holds at even humidity [g/g]; sorption of glycerin, from memory
FAT_THAT_MUST_SET = 0.10  # share of the mass [-]
NARROW, WIDE = (0.75, 1.5), (0.6, 2.0)  # band of the hours [-]


@dataclass(frozen=True, slots=True)
class Drying:
    """Hours with their band, or why it will not dry."""

    hours: float | None
    low_hours: float | None
    high_hours: float | None
    dries: bool
    reason: str | None


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
    humidity = humidity_pct / 100
    ceiling = _ceiling(mix)
    water = mix.wet_share(dried_first=dried_first)
    reason = _why_not(mix, water, humidity, ceiling, room_c)
    if reason:
        return Drying(None, None, None, dries=False, reason=reason)
    resting = least_hours * max(1.0, _resistance(room_c, humidity, ceiling))
    hours = resting if loose else max(resting, _hours(mix, water, half_thickness_mm, room_c, humidity, ceiling))
    low, high = WIDE if mix.humectant_share > 0.15 or humidity > 0.65 else NARROW  # noqa: PLR2004 - where makers' reports scatter
    return Drying(hours, low * hours, high * hours, dries=True, reason=None)


def _ceiling(mix: Mix) -> float:
    """Air in which the piece no longer dries: that of a dough, brought down by what deliquesces, the more of it the further."""
    lowest = WATER_ACTIVITY
    for item, mass_g in mix.kinds:
        point = item.traits.deliquescence_share
        if point is not None and point < WATER_ACTIVITY:
            rules = clip((mass_g / mix.total_g - SALT_BEGINS) / (SALT_RULES - SALT_BEGINS))
            lowest = min(lowest, WATER_ACTIVITY - (WATER_ACTIVITY - point) * rules)
    return lowest


def _resistance(room_c: float, humidity: float, ceiling: float) -> float:
    return 0.45 / max(DAMP_MARGIN, ceiling - humidity) * 2 ** ((21 - room_c) / 10)


def _hours(mix: Mix, water_share: float, h: float, room_c: float, humidity: float, ceiling: float) -> float:
    resistance = _resistance(room_c, humidity, ceiling)
    water, alcohol = 100 * water_share, 100 * mix.alcohol_share
    t_water = 24 * sqrt(water / 6) * (h / 16) * resistance * min(1.0, water / 0.3)
    t_alcohol = 7 * sqrt(alcohol / 6) * (h / 16) * 2 ** ((21 - room_c) / 12)
    t_glycerin = 2.2 * max(0.0, 100 * mix.humectant_share - 5) * resistance
    set_by_powder = (1 - mix.carried) * 24 * sqrt(mix.fat_share / 0.30) * (1 + 2 * max(0.0, humidity - 0.5))
    set_by_fat = mix.carried * 10 * (h / 12)
    t_fat = (set_by_powder + set_by_fat) * clip(2 ** ((room_c - 21) / 8), 0.4, 3.0)
    return max(t_fat, t_water, t_alcohol) + t_glycerin


def _why_not(mix: Mix, water_share: float, humidity: float, ceiling: float, room_c: float) -> str | None:
    if mix.demand_ml <= 0 and mix.fat_g <= 0:
        return "there is neither powder nor fat to hold a piece"
    draws = water_share >= WATER_THAT_MATTERS or mix.humectant_share > HUMECTANT_THAT_MATTERS
    fizzes = mix.fizzes and mix.fast_acid_share > ACID_DRAWS_FROM and mix.carried < 1
    if (humidity >= ceiling - DAMP_MARGIN and draws) or (fizzes and humidity >= ACID_DELIQUESCES):
        return "the air is too damp: closed container, dehumidifier"
    if _apart_g(mix) > SEPARATES_FROM * mix.total_g:
        return "water and glycerin come apart from the fat: leave them out, or add powder or an emulsifier"
    setting = 0.15 + 0.15 * mix.carried
    if mix.fat_share > FAT_THAT_MUST_SET and mix.firm_share(room_c) < setting:
        return f"does not set in this room; {_sets_below(mix, setting)}"
    if _cold_state(mix, room_c) in FLUID_WHEN_COLD:
        return "stays a batter in this room" if mix.demand_ml > 0 else "stays liquid in this room"
    dry, drawn = _lasting_saturation(mix, humidity)
    if dry is None or drawn is None:
        return None
    if dry > STICKY_SATURATION or (dry > STICKY_WITH_HUMECTANT and mix.humectant_share > HUMECTANT_THAT_MATTERS):
        return "stays sticky"
    return "sweats in this air" if drawn > STICKY_SATURATION else None


def _cold_state(mix: Mix, room_c: float) -> str:
    """Return the state at room temperature, the one that is shown as "when cold"."""
    curve = texture_curve(mix.fill)
    return curve.state(int(np.searchsorted(curve.temperature_c, room_c)))


def _apart_g(mix: Mix) -> float:
    """Return the undrunk water and glycerin that no emulsifier holds beside the fat [g]."""
    loose = mix.palette.is_lean_liquid & ~mix.palette.is_liquid_oil
    liquid_g = mix.of(loose)
    if mix.fat_g <= 0 or not liquid_g > 0:
        return 0.0
    watery = mix.of(loose & mix.palette.mixes_with_water) / liquid_g
    return max(0.0, mix.undrunk_g * watery - mix.grams_of_role("emulsifier"))


def _sets_below(mix: Mix, setting: float) -> str:
    firm = np.flatnonzero(mix.fill.firm_share >= setting)
    return f"below {mix.fill.temperature_c[firm[-1]]:.0f} °C it does" if firm.size else "no room is cold enough"


def _lasting_saturation(mix: Mix, humidity: float) -> tuple[float | None, float | None]:
    """Saturation of the liquids that do not dry off, without and with the water they draw from the air."""
    demand_ml = mix.demand_ml
    if demand_ml <= 0 or mix.carried >= 1:
        return None, None
    palette = mix.palette
    stays = np.where(palette.is_fat, 0.0, 1 - palette.free_water_known - palette.alcohol_known)
    lasting_ml = mix.of(palette.dough_volume_known * np.maximum(0.0, stays))
    drawn_ml = WATER_DRAWN * humidity / max(DAMP_MARGIN, 1 - humidity) * mix.humectant_share * mix.total_g
    return lasting_ml / demand_ml, (lasting_ml + drawn_ml) / demand_ml
