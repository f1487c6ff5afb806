"""How long a batch dries in some air, and how long at the least where that air lets nothing dry."""

from __future__ import annotations

from dataclasses import replace

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Room, Tables
from rosy_kettle.core.records.evaluation import Evaluation

__all__ = ["drying_hours", "least_hours"]

DRIER_BY_PCT = 2  # steps in which drier air is looked for [% RH]


def drying_hours(whole: Evaluation) -> tuple[float, float] | str:
    """Return how long a batch dries, or why that cannot be said.

    Parameters
    ----------
    whole : Evaluation
        The batch's readings in the air it dries in

    Returns
    -------
    tuple or str
        Likely and at most [h], or the reason
    """
    # Of several doughs the slowest decides; one that does not dry at all decides against.
    parts = [part.drying for part in whole.portions] or [whole.drying]
    found = max(parts, key=lambda part: float("inf") if part.hours is None else part.hours)
    if found.hours is None or found.high_hours is None:
        return found.reason or "the drying time is not known"
    return found.hours, found.high_hours


def least_hours(formula: Formula, tables: Tables, room: Room) -> float:
    """Return the hours in the dampest air that still dries, so that worse air never seems quicker.

    Parameters
    ----------
    formula : Formula
        The formula
    tables : Tables
        Reference tables
    room : Room
        Air that lets nothing dry

    Returns
    -------
    float
        Hours [h]; 0 where no air dries it
    """
    for humidity_pct in range(int(min(room.humidity_pct, 100.0)), 0, -DRIER_BY_PCT):
        found = drying_hours(evaluate(replace(formula, room=replace(room, humidity_pct=float(humidity_pct))), tables))
        if not isinstance(found, str):
            return found[0]
    return 0.0
