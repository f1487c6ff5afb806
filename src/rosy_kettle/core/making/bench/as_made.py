"""The formula of a bowl: as planned in grams, and as it was made so far."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.aims import aims_of
from rosy_kettle.core.change.balance.task import with_masses_at
from rosy_kettle.core.change.why.levers import Effect, effects_between
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.bench.record import BenchState, Correction
from rosy_kettle.core.readings.registry import watched_paths
from rosy_kettle.core.records import Formula, Line, Tables

__all__ = ["as_made", "effects_of", "in_grams"]


def in_grams(formula: Formula, tables: Tables, batch_g: float) -> Formula:
    """Return a formula with every line in grams, scaled to a bowl.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables
    batch_g : float
        What goes into the bowl [g]

    Returns
    -------
    Formula
        Shares of portions have become weights

    Raises
    ------
    InputError
        If a line is not understood or cannot be weighed: the bench guesses nothing.
    """
    weighed, missing = weigh_formula(formula, tables)
    unknown = [line.text or "a line" for line in formula.lines if line.ingredient is None]
    if unknown:
        raise InputError(f'"{unknown[0]}" is not understood; say at the Desk what it is.', quantity="line")
    if missing:
        raise InputError(f"{missing[0].message}; mend it at the Desk.", quantity="line")
    total_g = sum(item.mass_g for item in weighed)
    if total_g <= 0:
        raise InputError("The formula has no weighed line yet; give at least one amount.", quantity="lines")
    return _weighed_out(formula, {item.position: item.mass_g * batch_g / total_g for item in weighed})


def as_made(planned: Formula, state: BenchState) -> Formula:
    """Return the formula as it was made so far: what was weighed, what is still planned, what was added since.

    Parameters
    ----------
    planned : Formula
        The bowl in grams
    state : BenchState
        Where the batch stands

    Returns
    -------
    Formula
        Corrections stand as lines of the first portion
    """
    return with_corrections(_weighed_out(planned, state.mass_g()), state.corrections)


def with_corrections(formula: Formula, corrections: tuple[Correction, ...]) -> Formula:
    """Return a formula with what was added as lines of its first portion."""
    added = tuple(Line(item.ingredient, f"{item.mass_g:.10g}", "g", text=item.why) for item in corrections)
    body = formula.portions[0]
    return replace(formula, portions=(replace(body, lines=body.lines + added), *formula.portions[1:]))


def effects_of(before: Formula, after: Formula, tables: Tables) -> tuple[Effect, ...]:
    """Return the watched readings of two formulas.

    Parameters
    ----------
    before : Formula
        What was meant
    after : Formula
        What it would become
    tables : Tables
        Reference tables

    Returns
    -------
    tuple
        Readings that can be said of the first
    """
    return effects_between(_watched(before, tables), _watched(after, tables), "")


def _watched(formula: Formula, tables: Tables) -> np.ndarray:
    weighed = [item for item in weigh_formula(formula, tables)[0] if item.mass_g > 0]
    if not weighed:
        return np.full(len(watched_paths()), np.nan)
    aims = aims_of(watched_paths(), formula, tables, [item.ingredient for item in weighed])
    return aims.at(np.array([item.mass_g for item in weighed]), sloped=False)[0]


def _weighed_out(formula: Formula, masses_g: Mapping[int, float]) -> Formula:
    plain = replace(formula, portions=tuple(replace(p, share_pct=None, mass_g=None) for p in formula.portions))
    return with_masses_at(plain, masses_g)
