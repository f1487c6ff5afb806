"""Targets on a dough where a formula has several: each portion's is aimed at by itself, under the path "reading@portion"."""

from __future__ import annotations

import re
from dataclasses import replace

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.aims import PORTION, aims_of
from rosy_kettle.core.change.balance.problem import BalanceProblem, BalanceResult, Target
from rosy_kettle.core.records import Formula, Tables

__all__ = ["dough_paths", "of_every_dough", "told_of_the_whole"]

MARKED = re.compile(rf"{PORTION}\d+")


def dough_paths(path: str, formula: Formula, tables: Tables) -> tuple[str, ...]:
    """Return a reading's path for every portion whose dough it can be said of; the path itself where the formula is one dough.

    Parameters
    ----------
    path : str
        Dotted path of a reading
    formula : Formula
        The formula
    tables : Tables
        Reference tables

    Returns
    -------
    tuple of str
        Such as ``("dough.saturation@0", "dough.saturation@1")``; an empty portion has none
    """
    if len(formula.portions) < 2 or not path.startswith("dough."):  # noqa: PLR2004 - one dough needs no place
        return (path,)
    weighed, _ = weigh_formula(formula, tables)
    paths = tuple(f"{path}{PORTION}{place}" for place in range(len(formula.portions)))
    masses = np.array([item.mass_g for item in weighed], dtype=np.float64)
    values = aims_of(paths, formula, tables, [item.ingredient for item in weighed]).at(masses, sloped=False)[0]
    return tuple(each for each, value in zip(paths, values.tolist(), strict=True) if not np.isnan(value)) or (path,)


def of_every_dough(problem: BalanceProblem, tables: Tables) -> BalanceProblem:
    """Return a problem whose targets on the dough are aimed at in every portion.

    Parameters
    ----------
    problem : BalanceProblem
        As it was asked
    tables : Tables
        Reference tables

    Returns
    -------
    BalanceProblem
        The same where the formula is one dough
    """
    if len(problem.formula.portions) < 2:  # noqa: PLR2004 - as above
        return problem
    targets = [
        Target(path, target.low, target.high)
        for target in problem.targets
        for path in dough_paths(target.reading, problem.formula, tables)
    ]
    return replace(problem, targets=tuple(targets))


def told_of_the_whole(result: BalanceResult) -> BalanceResult:
    """Return a result that names targets and readings as they were asked.

    Parameters
    ----------
    result : BalanceResult
        Of a problem whose targets were aimed at in every portion

    Returns
    -------
    BalanceResult
        Without the places of portions; the sentences still say which portion
    """
    return replace(
        result,
        conflicts=tuple(
            replace(each, target=_plain(each.target), against=tuple(map(_plain, each.against))) for each in result.conflicts
        ),
        marginals=tuple(replace(each, target=_plain(each.target)) for each in result.marginals),
        guards=tuple(
            replace(each, guard=_plain(each.guard), reading=None if each.reading is None else _plain(each.reading))
            for each in result.guards
        ),
    )


def _plain(text: str) -> str:
    return MARKED.sub("", text)
