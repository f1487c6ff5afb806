"""What the Desk says of a test in the tub before it is made, kept with the test as it was said."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.models.lather.over_time import share_after
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables

__all__ = ["Foretold", "ForetoldHeight", "foretell"]

MINUTES = (1.0, 5.0, 8.0, 10.0, 15.0, 20.0, 30.0)


@dataclass(frozen=True, slots=True)
class ForetoldHeight:
    """Foam some minutes after the tap was opened."""

    minutes: float
    height_cm: float


@dataclass(frozen=True, slots=True)
class Foretold:
    """What was said; None where it was not known."""

    heights: tuple[ForetoldHeight, ...]
    gone_after_min: float | None
    floats: str | None
    ring: float | None
    tint: float | None
    cloud: float | None
    slip: str | None


def foretell(formula: Formula, tables: Tables) -> Foretold:
    """Return what the Desk says of one bath.

    Parameters
    ----------
    formula : Formula
        With the tub, dose and way of the test as its use
    tables : Tables
        Reference tables

    Returns
    -------
    Foretold
        Heights rise over the fill and fall by their half-life
    """
    told = evaluate(formula, tables)
    lather, p = told.lather, tables.parameters.lather
    heights: tuple[ForetoldHeight, ...] = ()
    if lather.height_cm and lather.half_life_min:
        height_cm, half_life_min = lather.height_cm, lather.half_life_min
        heights = tuple(ForetoldHeight(at, height_cm * share_after(at, half_life_min, p)) for at in MINUTES)
    return Foretold(
        heights, told.release.minutes, told.piece.float, told.feel.ring, told.feel.tint, told.feel.cloud, told.feel.slip
    )
