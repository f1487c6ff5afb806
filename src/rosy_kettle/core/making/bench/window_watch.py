"""Minutes until a cooling dough meets its window: the model, corrected by what the thermometer has shown so far."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.models.fats.cooling import minutes_to
from rosy_kettle.core.records import Formula, Tables

__all__ = ["WindowWatch", "bowl_mix", "corrected_minutes", "watch_window"]

READINGS_THAT_CORRECT = 3
LEAST_FALL_C = 0.6  # less than this between first and last reading is the thermometer's own noise [°C]
SLOWEST, FASTEST = 3.0, 1 / 3.0  # bounds of the correction [-]


@dataclass(frozen=True, slots=True)
class WindowWatch:
    """What to do about the temperature now."""

    temperature_c: float
    low_c: float | None
    high_c: float | None
    verdict: str
    """cool, work or warm."""
    sentence: str
    minutes: float | None = None
    """To the upper edge while it is too warm, to the lower edge while it is right [min]."""
    corrected: bool = False
    """Whether the readings of this bowl have corrected the model."""


def corrected_minutes(
    mix: Mix, readings: Sequence[tuple[float, float]], to_c: float, room_c: float, bowl_j_k: float
) -> tuple[float | None, bool]:
    """Return the minutes from the last reading until a temperature is met.

    .. math:: t = s\\,t_{model}(T_{last} \\to T),\\quad s = \\frac{\\sum t_i\\,t_{model,i}}{\\sum t_{model,i}^2}

    Parameters
    ----------
    mix : Mix
        The bowl
    readings : Sequence
        Minutes and temperatures so far, in their order [min, °C]
    to_c : float
        Temperature asked for [°C]
    room_c : float
        Room [°C]
    bowl_j_k : float
        Heat capacity of the bowl at 1.1 kg [J/K]

    Returns
    -------
    tuple
        Minutes [min], None where the room is too warm; and whether three readings have corrected the model

    References
    ----------
    .. [1] Least squares of one factor through the origin; the model it corrects is that of ``fats/cooling.py``.
    """
    began, from_c = readings[0]
    last_c = readings[-1][1]
    ahead = minutes_to(mix, last_c, to_c, room_c, bowl_j_k)
    if ahead is None:
        return None, False
    usual = sum(ahead) / 2
    if len(readings) < READINGS_THAT_CORRECT or from_c - last_c < LEAST_FALL_C:
        return usual, False
    so_far = [
        (at - began, minutes_to(mix, from_c, celsius, room_c, bowl_j_k)) for at, celsius in readings[1:] if celsius < from_c
    ]
    seen = np.array([at for at, model in so_far if model is not None])
    model = np.array([model[1] for _, model in so_far if model is not None])
    if model.size == 0 or not (model > 0).any():
        return usual, False
    scale = float(np.clip((seen * model).sum() / (model**2).sum(), FASTEST, SLOWEST))
    return scale * ahead[1], True


def watch_window(
    formula: Formula,
    tables: Tables,
    readings: Sequence[tuple[float, float]],
    low_c: float | None,
    high_c: float | None,
    room_c: float,
) -> WindowWatch:  # fmt: skip
    """Return what a temperature means for the step in hand.

    Parameters
    ----------
    formula : Formula
        The bowl in grams
    tables : Tables
        Reference tables
    readings : Sequence
        Minutes and temperatures so far, at least one [min, °C]
    low_c : float or None
        Lower edge [°C]
    high_c : float or None
        Upper edge [°C]
    room_c : float
        Room [°C]

    Returns
    -------
    WindowWatch
        Too hot says cool, too cold says warm, with minutes where the model can say them
    """
    now_c = readings[-1][1]
    if low_c is not None and now_c < low_c:
        return WindowWatch(now_c, low_c, high_c, "warm", f"{now_c:.1f} °C: too cold, warm it gently to {low_c:.0f} °C.")
    edge = high_c if high_c is not None and now_c > high_c else low_c
    if edge is None or edge >= now_c:
        return WindowWatch(now_c, low_c, high_c, "work", f"{now_c:.1f} °C: go on.")
    mix, bowl_j_k = bowl_mix(formula, tables)
    minutes, corrected = corrected_minutes(mix, readings, edge, room_c, bowl_j_k)
    basis = "by this bowl's own readings" if corrected else "by the model"
    if edge == high_c:
        when = "it never cools to it in this room" if minutes is None else f"about {minutes:.0f} min to go, {basis}"
        sentence = f"{now_c:.1f} °C: too hot, cool to {edge:.0f} °C; {when}."
        return WindowWatch(now_c, low_c, high_c, "cool", sentence, minutes, corrected)
    left = "it stays workable in this room" if minutes is None else f"workable for about {minutes:.0f} min, {basis}"
    return WindowWatch(now_c, low_c, high_c, "work", f"{now_c:.1f} °C: right; {left}.", minutes, corrected)


def bowl_mix(formula: Formula, tables: Tables) -> tuple[Mix, float]:
    """Return what is in the bowl, and what the bowl itself holds.

    Parameters
    ----------
    formula : Formula
        The bowl in grams
    tables : Tables
        Reference tables

    Returns
    -------
    tuple
        The mix, and the heat capacity of the empty bowl at 1.1 kg [J/K]
    """
    weighed = [item for item in weigh_formula(formula, tables)[0] if item.mass_g > 0]
    mass_g = np.array([item.mass_g for item in weighed])
    setting = setting_of(formula, tables, float(mass_g.sum()))
    return setting.mix(make_palette([item.ingredient for item in weighed], tables.parameters), mass_g), setting.bowl_j_k
