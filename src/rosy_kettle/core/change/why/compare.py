"""Two formulas side by side: which line made which reading move."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.aims import aims_of
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.readings.registry import declared, notable, watched_paths
from rosy_kettle.core.records import Formula, Tables

__all__ = ["SETTINGS", "Cause", "ComparedLine", "ComparedReading", "Comparison", "compare"]

SETTINGS = "piece, bath, room or method"
UNMOVED_G = 0.005  # [g]
NOTABLE = 0.1  # of a change a maker would notice; less is not worth a cause [-]


@dataclass(frozen=True, slots=True)
class ComparedLine:
    """Mass of one ingredient in both."""

    ingredient: str
    name: str
    first_g: float
    second_g: float
    first_pct: float
    second_pct: float
    changed: bool


@dataclass(frozen=True, slots=True)
class Cause:
    """What one change alone does to a reading of the first formula."""

    ingredient: str | None
    """None: the setting (piece, bath, room, method)."""
    name: str
    moves: float


@dataclass(frozen=True, slots=True)
class ComparedReading:
    """One reading in both, and what moved it, the strongest first."""

    reading: str
    label: str
    unit: str
    kind: str
    first: float | None
    second: float | None
    causes: tuple[Cause, ...]
    sentence: str


@dataclass(frozen=True, slots=True)
class Comparison:
    """Two formulas side by side."""

    lines: tuple[ComparedLine, ...]
    readings: tuple[ComparedReading, ...]


def compare(first: Formula, second: Formula, tables: Tables) -> Comparison:
    """Return two formulas side by side, with one-at-a-time causes.

    Parameters
    ----------
    first : Formula
        Where the comparison starts from
    second : Formula
        What it became
    tables : Tables
        Reference tables and prices

    Returns
    -------
    Comparison
        Lines by ingredient, readings with their causes; a cause is the change of the first formula's reading when that
        one ingredient alone takes its mass in the second, so causes need not add up where the models bend
    """
    masses = [_by_ingredient(formula, tables) for formula in (first, second)]
    names = list(dict.fromkeys([*masses[0], *masses[1]]))
    a_g, b_g = (np.array([mass.get(name, 0.0) for name in names]) for mass in masses)
    items = [tables.ingredients[name] for name in names]
    aims = [aims_of(watched_paths(), formula, tables, items) for formula in (first, second)]
    none = np.full(len(watched_paths()), math.nan)
    a = aims[0].at(a_g, sloped=False)[0] if a_g.sum() > 0 else none
    b = aims[1].at(b_g, sloped=False)[0] if b_g.sum() > 0 else none
    moves: list[tuple[str | None, str, FloatArray]] = []
    for index in np.flatnonzero(np.abs(a_g - b_g) > UNMOVED_G) if a_g.sum() > 0 else ():
        alone = a_g.copy()
        alone[index] = b_g[index]
        if alone.sum() > 0:
            moves.append((names[index], items[index].short_name, aims[0].at(alone, sloped=False)[0] - a))
    if a_g.sum() > 0:
        moves.append((None, SETTINGS, aims[1].at(a_g, sloped=False)[0] - a))
    lines = tuple(
        ComparedLine(name, item.short_name, float(x), float(y), _pct(x, a_g), _pct(y, b_g), bool(abs(x - y) > UNMOVED_G))
        for name, item, x, y in zip(names, items, a_g, b_g, strict=True)
    )
    readings = tuple(_reading(path, float(a[i]), float(b[i]), [(n, label, float(m[i])) for n, label, m in moves])
                     for i, path in enumerate(watched_paths()))  # fmt: skip
    return Comparison(lines, readings)


def _by_ingredient(formula: Formula, tables: Tables) -> dict[str, float]:
    masses: dict[str, float] = {}
    for item in weigh_formula(formula, tables)[0]:
        masses[item.ingredient.id] = masses.get(item.ingredient.id, 0.0) + item.mass_g
    return masses


def _pct(mass_g: float, all_g: FloatArray) -> float:
    total = float(all_g.sum())
    return 100 * float(mass_g) / total if total > 0 else 0.0


def _reading(path: str, first: float, second: float, moves: list[tuple[str | None, str, float]]) -> ComparedReading:
    named = declared()[path]
    visible = NOTABLE * notable(path, 1.0)
    causes = [Cause(name, label, by) for name, label, by in moves if not math.isnan(by) and abs(by) > visible]
    causes.sort(key=lambda cause: -abs(cause.moves))
    sentence = ""
    if not math.isnan(first) and not math.isnan(second) and abs(second - first) > visible and causes:
        way = "up" if second > first else "down"
        along = [cause for cause in causes if (cause.moves > 0) == (second > first)]
        if along:
            sentence = (
                f"{named.label} goes {way} mostly by {along[0].name} ({along[0].moves:+.3g} {named.unit} alone)".strip() + "."
            )
    return ComparedReading(
        path, named.label, named.unit, named.kind, None if math.isnan(first) else first, None if math.isnan(second) else second,
        tuple(causes), sentence,
    )  # fmt: skip
