"""How long a warm dough takes to cool into its working window, and out of it (physical, as a bracket)."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.models.fats.mix_temperature import bowl_heat_j_k

__all__ = ["CoolingClock", "CoolingPoint", "bowl_heat", "cooling_clock", "minutes_to"]

STEP_C = 0.1  # width of the integration steps [°C]
NEARLY_ROOM_C = 0.2  # closer to the room than this it does not get in any useful time [°C]
LONGEST_MIN = 240  # the drawn path ends here [min]


@dataclass(frozen=True, slots=True)
class CoolingPoint:
    """Temperature after some minutes: while the fat is still undercooled, and while it sets and gives off its heat."""

    minutes: float
    undercooled_c: float
    setting_c: float


@dataclass(frozen=True, slots=True)
class CoolingClock:
    """Minutes until the dough enters the window from above, and until it is too stiff; each as fast and slow end."""

    from_c: float
    window_c: tuple[float, float]
    ready_min: tuple[float, float] | None
    stiff_min: tuple[float, float] | None
    path: tuple[CoolingPoint, ...]
    sentence: str


def minutes_to(mix: Mix, from_c: float, to_c: float, room_c: float, bowl_j_k: float) -> tuple[float, float] | None:
    """Return the time a dough takes to cool, as a bracket.

    .. math:: t = \\frac{m c_p + C_{bowl}}{h A} \\ln\\frac{T_0 - T_r}{T - T_r} \\;\\dots\\;
              \\int \\frac{m c_p + C_{bowl} + L \\sum m_{fat} (-dSFC/dT)}{h A (T - T_r)} dT

    L, h, A: ``latent_j_g``, ``transfer_w_m2k``, ``area_m2``.

    Parameters
    ----------
    mix : Mix
        The formula
    from_c : float
        Temperature now [°C]
    to_c : float
        Temperature asked for [°C]
    room_c : float
        Temperature of the room [°C]
    bowl_j_k : float
        Heat capacity of the bowl at 1.1 kg [J/K]

    Returns
    -------
    tuple or None
        Minutes while the fat stays undercooled, and while it sets [min]; None where the room is too warm for it

    References
    ----------
    .. [1] Newton's law of cooling; latent heat: Bailey, from memory; transfer and surface: estimates.
    """
    if to_c >= from_c:
        return 0.0, 0.0
    if to_c <= room_c + NEARLY_ROOM_C:
        return None
    plain_j_k, loss_w_k = _plain_heat(mix, bowl_j_k), _loss(mix)
    newton_s = plain_j_k / loss_w_k * math.log((from_c - room_c) / (to_c - room_c))
    grid_c = np.linspace(to_c, from_c, max(2, round((from_c - to_c) / STEP_C) + 1))
    solid_g = mix.holding_g * np.interp(grid_c, mix.fill.temperature_c, mix.fill.solid_share)
    middle_c = (grid_c[1:] + grid_c[:-1]) / 2
    heat_j = plain_j_k * np.diff(grid_c) - mix.parameters.fats.latent_j_g * np.diff(solid_g)
    setting_s = float((heat_j / (loss_w_k * (middle_c - room_c))).sum())
    return newton_s / 60, setting_s / 60


def cooling_clock(mix: Mix, from_c: float, window_c: tuple[float, float], room_c: float, bowl_j_k: float) -> CoolingClock:
    """Return when a dough is ready to shape and when it is too stiff.

    Parameters
    ----------
    mix : Mix
        The formula
    from_c : float
        Temperature after mixing [°C]
    window_c : tuple
        Working window [°C]
    room_c : float
        Temperature of the room [°C]
    bowl_j_k : float
        Heat capacity of the bowl at 1.1 kg [J/K]

    Returns
    -------
    CoolingClock
        Minutes [min], the path [°C] and a sentence
    """
    ready = minutes_to(mix, from_c, window_c[1], room_c, bowl_j_k)
    stiff = minutes_to(mix, from_c, window_c[0], room_c, bowl_j_k)
    return CoolingClock(
        from_c, window_c, ready, stiff, _path(mix, from_c, room_c, bowl_j_k), _sentence(from_c, window_c, ready, stiff)
    )


def bowl_heat(mix: Mix, bowl_j_k: float) -> tuple[float, float, tuple[tuple[float, float], ...]]:
    """Return what a bowl of dough holds and loses.

    Parameters
    ----------
    mix : Mix
        The bowl
    bowl_j_k : float
        Heat capacity of the bowl at 1.1 kg [J/K]

    Returns
    -------
    tuple
        Heat capacity without latent heat [J/K], loss for each degree over the room [W/K], latent heat bound in molten fat by
        temperature, coldest first [(°C, J)]
    """
    molten_g = mix.oily_g - mix.holding_g * mix.fill.solid_share
    latent = tuple(
        (float(at), float(mix.parameters.fats.latent_j_g * grams))
        for at, grams in zip(mix.fill.temperature_c, molten_g, strict=True)
    )
    return _plain_heat(mix, bowl_j_k), _loss(mix), latent


def _plain_heat(mix: Mix, bowl_j_k: float) -> float:
    palette = mix.palette
    powders = mix.of(palette.heat_capacity_j_gk * ~(palette.is_fat | palette.is_lean_liquid))
    bowl = bowl_heat_j_k(mix, bowl_j_k)
    return float(
        powders
        + mix.parameters.fats.fat_cp_j_gk * mix.fat_g
        + mix.parameters.fats.liquid_cp_j_gk * mix.of(palette.is_lean_liquid)
        + bowl
    )


def _loss(mix: Mix) -> float:
    """Heat a bowl loses for each degree over the room [W/K]."""
    return float(
        mix.parameters.fats.transfer_w_m2k
        * mix.parameters.fats.area_m2
        * (mix.total_g / 1000 / mix.parameters.fats.bowl_mass_kg) ** (2 / 3)
    )


def _path(mix: Mix, from_c: float, room_c: float, bowl_j_k: float) -> tuple[CoolingPoint, ...]:
    if from_c <= room_c + NEARLY_ROOM_C:
        return ()
    tau_s = _plain_heat(mix, bowl_j_k) / _loss(mix)
    asked_c = np.arange(from_c, room_c + 2 * NEARLY_ROOM_C, -2 * STEP_C)
    setting = [minutes_to(mix, from_c, float(at_c), room_c, bowl_j_k) for at_c in asked_c]
    slow_min = np.array([found[1] for found in setting if found is not None])
    end = int(min(LONGEST_MIN, math.ceil(slow_min[-1]))) if slow_min.size else 0
    minutes = np.arange(0, end + 1, max(1, end // 60))
    undercooled = room_c + (from_c - room_c) * np.exp(-minutes * 60 / tau_s)
    slowed = np.interp(minutes, slow_min, asked_c[: slow_min.size])
    rows = zip(minutes.tolist(), undercooled.tolist(), slowed.tolist(), strict=True)
    return tuple(CoolingPoint(float(at), fast_c, slow_c) for at, fast_c, slow_c in rows)


def _sentence(
    from_c: float, window_c: tuple[float, float], ready: tuple[float, float] | None, stiff: tuple[float, float] | None
) -> str:
    if from_c < window_c[0]:
        return f"At {from_c:.0f} °C it is already stiffer than its window of {window_c[0]:.0f} to {window_c[1]:.0f} °C: warm it."
    start = "Ready at once" if from_c <= window_c[1] else "It never cools to its window in this room"
    if from_c > window_c[1] and ready is not None:
        start = f"Ready at about minute {ready[0]:.0f}" + (f" to {ready[1]:.0f}" if ready[1] - ready[0] >= 1 else "")
    if stiff is None:
        return f"{start}; in this room it does not get too stiff."
    return f"{start}, too stiff at about minute {min(stiff):.0f} to {max(stiff):.0f}."
