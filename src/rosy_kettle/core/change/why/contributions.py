"""What each line does to a reading: the reading with the line against the reading without it."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from rosy_kettle.core.change.why.lines import lines_of, portion_of
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import Formula, Tables

__all__ = ["Contribution", "contributions"]


@dataclass(frozen=True, slots=True)
class Contribution:
    """One line's part in a reading."""

    position: int
    ingredient: str
    name: str
    mass_g: float
    without: float | None
    """The reading of the formula without this line; None where it could not be said then."""
    adds: float | None
    """The reading as it is, less the reading without this line."""


def contributions(formula: Formula, tables: Tables, reading: str, portion: int = 0) -> tuple[Contribution, ...]:
    """Return what each line does to a reading, the strongest first.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables
    reading : str
        Dotted path of a reading that is one number
    portion : int
        Whose dough is looked at, where the reading belongs to a dough and there are several [-]

    Returns
    -------
    tuple
        One entry a line; the dose and the piece stay as heavy, so a line that does nothing itself thins out the others

    Raises
    ------
    InputError
        If the reading cannot be said for the formula as it is.
    """
    lines = lines_of(formula, tables)
    aims = lines.aims((reading,), formula, tables)
    whole = float(aims.at(lines.mass_g, sloped=False)[0][0])
    if math.isnan(whole) and len(formula.portions) > 1:
        dough_alone, before = portion_of(formula, portion)
        return tuple(replace(each, position=each.position + before) for each in contributions(dough_alone, tables, reading))
    if math.isnan(whole):
        raise InputError(f"{reading} cannot be said for this formula as it is.", quantity="reading", value=reading)
    found = []
    for index, item in enumerate(lines.ingredients):
        left = lines.mass_g.copy()
        left[index] = 0.0
        without = float(aims.at(left, sloped=False)[0][0]) if left.sum() > 0 else math.nan
        position = lines.positions[index]
        assert position is not None  # noqa: S101 - only candidates have none, and there are none here
        known = not math.isnan(without)
        found.append(
            Contribution(
                position, item.id, item.short_name, float(lines.mass_g[index]),
                without if known else None, whole - without if known else None,
            )
        )  # fmt: skip
    return tuple(sorted(found, key=lambda each: -abs(each.adds) if each.adds is not None else 0.0))
