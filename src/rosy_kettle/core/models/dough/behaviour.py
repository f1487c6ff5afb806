"""How a dough behaves in the hand and in the bowl: tack, rest, what the alcohol does (practice)."""

from __future__ import annotations

import math
from itertools import pairwise

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import clip
from rosy_kettle.core.models.dough.texture import LOWER_EDGES

__all__ = ["REST_EFFECT", "alcohol_left_g", "saturation_without", "state_chances", "stickiness"]

TACKY_FROM, TACKY_SPAN = 0.80, 0.60  # saturation from which a dough begins to smear, and over which it grows [-]; estimate
REST_EFFECT = 1.15  # a fresh dough with liquid surfactant is this much wetter than the rested one [-]; common practice
ALCOHOL_KG_M2_H = 0.4  # isopropyl alcohol leaving an open surface at 21 °C [kg/(m2 h)]; estimate
ALCOHOL_DOUBLES_PER_C = 12.0  # warming that doubles it [°C]; vapour pressure of isopropyl alcohol, from memory
BOWL_AREA_M2 = 0.05  # open surface of a mixing bowl [m2]; 25 cm across
NINETY_PCT = 1.6449  # half width of a 90 % band in standard deviations [-]; normal distribution
CHANCE_SHOWN = 0.01  # rarer states are left out [-]


def stickiness(mix: Mix, temperature_c: float) -> float | None:
    """Return how much a dough smears the glove.

    .. math:: K = 100\\; clip\\left(\\frac{S-0.80}{0.60}\\right) \\frac{\\sum V_j t_j}{\\sum V_j}

    Parameters
    ----------
    mix : Mix
        The formula
    temperature_c : float
        Temperature it is worked at [°C]

    Returns
    -------
    float or None
        Index from 0 to 100 [-]; None where no powder drinks; band 20
    """
    saturation = mix.saturation(temperature_c)
    if saturation is None:
        return None
    liquid_ml = mix.of(mix.palette.dough_volume_known)
    if liquid_ml <= 0:
        return 0.0
    tack = mix.of(mix.palette.dough_volume_known * mix.palette.tack) / liquid_ml
    return 100 * clip((saturation - TACKY_FROM) / TACKY_SPAN) * tack


def state_chances(saturation: float, half_width: float) -> tuple[tuple[str, float], ...]:
    """Return how likely each state is, given the band of S.

    Parameters
    ----------
    saturation : float
        Centre [-]
    half_width : float
        Half width of the 90 % band [-]

    Returns
    -------
    tuple
        State and chance [-], likeliest first, as a normal distribution has it; below 1 % left out
    """
    spread = max(half_width, 1e-9) / NINETY_PCT
    edges = [*LOWER_EDGES.values(), math.inf]
    chances = {
        name: _below((high - saturation) / spread) - (0.0 if low == 0 else _below((low - saturation) / spread))
        for name, (low, high) in zip(LOWER_EDGES, pairwise(edges), strict=True)
    }
    return tuple(sorted(((name, p) for name, p in chances.items() if p >= CHANCE_SHOWN), key=lambda each: -each[1]))


def alcohol_left_g(alcohol_g: float, minutes: float, room_c: float) -> float:
    """Return the alcohol still in the bowl after a while.

    .. math:: m(t) = \\max(0,\\; m_0 - 0.4\\cdot 2^{(T-21)/12}\\, A\\, t)

    Parameters
    ----------
    alcohol_g : float
        Alcohol at the start [g]
    minutes : float
        Time in the open bowl [min]
    room_c : float
        Room temperature [°C]

    Returns
    -------
    float
        Alcohol [g]
    """
    per_minute_g = 1000 * ALCOHOL_KG_M2_H * 2 ** ((room_c - 21) / ALCOHOL_DOUBLES_PER_C) * BOWL_AREA_M2 / 60
    return max(0.0, alcohol_g - per_minute_g * minutes)


def saturation_without(mix: Mix, saturation: float, alcohol_gone_g: float) -> float:
    """Return S once some of the alcohol has left.

    Parameters
    ----------
    mix : Mix
        The formula, with a powder that drinks
    saturation : float
        S with all of it [-]
    alcohol_gone_g : float
        Alcohol that has left [g]

    Returns
    -------
    float
        S [-]
    """
    binder_g = mix.of(mix.palette.alcohol_known)
    if binder_g <= 0:
        return saturation
    alcohol_ml = mix.of(mix.palette.dough_volume_known * mix.palette.alcohol_known)
    return max(0.0, saturation - alcohol_ml * min(1.0, alcohol_gone_g / binder_g) / mix.demand_ml)


def _below(z: float) -> float:
    return 0.5 * (1 + math.erf(z / math.sqrt(2)))
