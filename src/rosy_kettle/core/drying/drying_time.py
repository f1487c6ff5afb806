"""Hours until a piece is dry or set (practice, until the studio's own weigh-ins speak)."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.mix import Mix
from rosy_kettle.core.sloped import clip, sqrt

__all__ = ["Drying", "drying_time"]

WATER_ACTIVITY = 0.85  # of a drying dough [-]; common practice
SALT_THAT_COUNTS = 0.02  # share from which a deliquescent salt rules the air [-]
DAMP_MARGIN = 0.05  # closer than this the air dries nothing [-]
WATER_THAT_MATTERS, HUMECTANT_THAT_MATTERS = 0.005, 0.05  # shares of the mass [-]
STICKY_SATURATION, STICKY_WITH_HUMECTANT = 1.30, 1.02  # of the liquids that stay [-]
WATER_DRAWN = 0.25  # water a gram of glycerin holds at even humidity [g/g]; sorption of glycerin, from memory
FAT_THAT_MUST_SET = 0.10  # share of the mass [-]
DUST_HOURS = 12.0  # overnight [h]
IN_MOULD_HOURS = 24.0  # of a piece whose surfactant was dried in first: out of the mould sooner, it foams [h]; common practice
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
    mix: Mix, half_thickness_mm: float, room_c: float, humidity_pct: float, *, loose: bool, dried_first: bool = False
) -> Drying:
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
        Whether the surfactants' water was dried off before the piece was made; it then stays in its mould for a day

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
    water = _water_share(mix, dried_first=dried_first)
    reason = _why_not(mix, water, humidity, ceiling, room_c)
    if reason:
        return Drying(None, None, None, dries=False, reason=reason)
    hours = DUST_HOURS if loose else _hours(mix, water, half_thickness_mm, room_c, humidity, ceiling)
    if dried_first:
        hours = max(IN_MOULD_HOURS, hours)
    low, high = WIDE if mix.humectant_share > 0.15 or humidity > 0.65 else NARROW  # noqa: PLR2004 - where makers' reports scatter
    return Drying(hours, low * hours, high * hours, dries=True, reason=None)


def _ceiling(mix: Mix) -> float:
    points = [WATER_ACTIVITY]
    for item, mass_g in mix.kinds:
        if item.traits.deliquescence_share is not None and mass_g > SALT_THAT_COUNTS * mix.total_g:
            points.append(item.traits.deliquescence_share)
    return min(points)


def _water_share(mix: Mix, *, dried_first: bool) -> float:
    if not dried_first:
        return mix.water_share
    return mix.of(mix.palette.free_water_known * (mix.palette.role != "surfactant")) / mix.total_g


def _hours(mix: Mix, water_share: float, h: float, room_c: float, humidity: float, ceiling: float) -> float:
    resistance = 0.45 / max(DAMP_MARGIN, ceiling - humidity) * 2 ** ((21 - room_c) / 10)
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
    if humidity >= ceiling - DAMP_MARGIN and draws:
        return "the air is too damp: closed container, dehumidifier"
    setting = 0.15 + 0.15 * mix.carried
    if mix.fat_share > FAT_THAT_MUST_SET and mix.solid_share(room_c) < setting:
        return f"does not set in this room; {_sets_below(mix, setting)}"
    dry, drawn = _lasting_saturation(mix, humidity)
    if dry is None or drawn is None:
        return None
    if dry > STICKY_SATURATION or (dry > STICKY_WITH_HUMECTANT and mix.humectant_share > HUMECTANT_THAT_MATTERS):
        return "stays sticky"
    return "sweats in this air" if drawn > STICKY_SATURATION else None


def _sets_below(mix: Mix, setting: float) -> str:
    firm = np.flatnonzero(mix.fill.solid_share >= setting)
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
