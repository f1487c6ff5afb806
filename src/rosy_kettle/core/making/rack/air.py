"""The air pieces dry in, and what to do about it."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.records import Formula, Ingredient, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.core.words.rack import AIR_ADVICE

__all__ = ["Air", "RackAdvice", "air_advice"]

DAMP_PCT = 50.0  # air from which drying drags on [% RH]; common practice, no published source
VERY_DAMP_PCT = 65.0  # air from which open drying hardly goes on [% RH]; common practice, no published source
ALCOHOL_SHARE = 0.002  # alcohol of a binder from which no warm oven comes near [share of its mass]; caution


@dataclass(frozen=True, slots=True)
class Air:
    """Air as it was logged."""

    at: str
    """UTC, ISO 8601."""
    temperature_c: float
    humidity_pct: float


@dataclass(frozen=True, slots=True)
class RackAdvice:
    """What to do about the air, as a code and in words."""

    code: str
    message: str


def air_advice(air: Air | None, formula: Formula | None, told: Evaluation | None, tables: Tables) -> tuple[RackAdvice, ...]:
    """Return what to do about the air, the simplest first.

    Parameters
    ----------
    air : Air or None
        As logged last
    formula : Formula or None
        What dries
    told : Evaluation or None
        Its readings in that air
    tables : Tables
        To know what holds alcohol

    Returns
    -------
    tuple of RackAdvice
        Empty in dry air; the warmed oven never where there is alcohol, or where it is not known whether there is
    """
    if air is None:
        return (_said("log_air"),)
    if air.humidity_pct < DAMP_PCT:
        return ()
    codes = ["dehumidifier"]
    if air.humidity_pct >= VERY_DAMP_PCT or (told is not None and told.drying.why_not in {"air_too_damp", "sweats", "weeps"}):
        codes.append("closed_box")
    codes.append("oven_off" if formula is not None and not _has_alcohol(formula, tables) else "no_oven")
    return tuple(_said(code, air) for code in codes)


def _said(code: str, air: Air | None = None) -> RackAdvice:
    return RackAdvice(code, AIR_ADVICE[code].format(humidity_pct=0.0 if air is None else air.humidity_pct))


def _has_alcohol(formula: Formula, tables: Tables) -> bool:
    """Whether any line holds alcohol; a line that is not understood may."""
    items = [tables.ingredients.get(line.ingredient or "") for line in formula.lines]
    return any(item is None or _may_burn(item) for item in items)


def _may_burn(item: Ingredient) -> bool:
    """Whether a wetter is partly alcohol: what of a binder is no water is, and unknown water may be."""
    return item.role == "binder" and (item.water_fraction is None or 1 - item.water_fraction > ALCOHOL_SHARE)
