"""How a dough behaves in the hand and in the bowl: tack, rest, what the alcohol does (practice)."""

from __future__ import annotations

import math
from itertools import pairwise

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import clip
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.dough import DoughParameters

__all__ = ["alcohol_left_g", "saturation_without", "state_chances", "stickiness"]

NINETY_PCT = 1.6449  # half width of a 90 % band in standard deviations [-]; normal distribution
CHANCE_SHOWN = 0.01  # rarer states are left out [-]


def stickiness(mix: Mix, temperature_c: float) -> float | None:
    """Return how much a dough smears the glove.

    .. math:: K = 100\\; clip\\left(\\frac{S-tacky_{from}}{tacky_{over}}\\right) \\frac{\\sum V_j t_j}{\\sum V_j}

    tacky: ``tacky_from``, ``tacky_over``.

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

    References
    ----------
    .. [1] Estimate, no published source.
    """
    p, saturation = mix.parameters.dough, mix.saturation(temperature_c)
    if saturation is None:
        return None
    liquid_ml = mix.of(mix.palette.dough_volume_known)
    if liquid_ml <= 0:
        return 0.0
    tack = mix.of(mix.palette.dough_volume_known * mix.palette.tack) / liquid_ml
    return 100 * clip((saturation - p.tacky_from) / p.tacky_over) * tack


def state_chances(saturation: float, half_width: float, p: DoughParameters = USUAL.dough) -> tuple[tuple[str, float], ...]:
    """Return how likely each state is, given the band of S.

    Parameters
    ----------
    saturation : float
        Centre [-]
    half_width : float
        Half width of the 90 % band [-]
    p : DoughParameters
        Edges of the states

    Returns
    -------
    tuple
        State and chance [-], likeliest first, as a normal distribution has it; below 1 % left out
    """
    spread = max(half_width, 1e-9) / NINETY_PCT
    edges = [*p.lower_edges.values(), math.inf]
    chances = {
        name: _below((high - saturation) / spread) - (0.0 if low == 0 else _below((low - saturation) / spread))
        for name, (low, high) in zip(p.lower_edges, pairwise(edges), strict=True)
    }
    return tuple(sorted(((name, p) for name, p in chances.items() if p >= CHANCE_SHOWN), key=lambda each: -each[1]))


def alcohol_left_g(alcohol_g: float, minutes: float, room_c: float, p: DoughParameters = USUAL.dough) -> float:
    """Return the alcohol still in the bowl after a while.

    .. math:: m(t) = \\max(0,\\; m_0 - r\\, 2^{(T-T_{ref})/T_2}\\, A\\, t)

    r, T_ref, T_2: ``alcohol_leaves_kg_m2_h``, ``alcohol_reference_c``, ``alcohol_doubles_per_c``; A, the open surface [m2].

    Parameters
    ----------
    alcohol_g : float
        Alcohol at the start [g]
    minutes : float
        Time in the open bowl [min]
    room_c : float
        Room temperature [°C]
    p : DoughParameters
        How fast alcohol leaves

    Returns
    -------
    float
        Alcohol [g]

    References
    ----------
    .. [1] Rate: estimate; its growth with warmth: vapour pressure of isopropyl alcohol, from memory.
    """
    warmer = 2 ** ((room_c - p.alcohol_reference_c) / p.alcohol_doubles_per_c)
    per_minute_g = 1000 * p.alcohol_leaves_kg_m2_h * warmer * p.bowl_area_m2 / 60
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
