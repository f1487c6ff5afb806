"""Schools: where makers of one method differ, and which way this batch is made."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import Formula, Ingredient, Method, SchoolOption, Tables

__all__ = ["AskedSchool", "ask_schools", "kinds_of", "steps_hold"]

PORTIONS = "portions"  # stands for: there is more than one portion
COLOURS = "colours"  # stands for: there is more than one colour


@dataclass(frozen=True, slots=True)
class AskedSchool:
    """A choice that this formula leaves open, and what is chosen."""

    id: str
    question: str
    options: tuple[SchoolOption, ...]
    taken: str


def ask_schools(formula: Formula, tables: Tables, chosen: Mapping[str, str]) -> tuple[AskedSchool, ...]:
    """Return the schools that matter for a formula.

    Parameters
    ----------
    formula : Formula
        The formula that is made
    tables : Tables
        Reference tables
    chosen : Mapping
        Option by school; what is not named is done as the method usually does it, or as its portions say

    Returns
    -------
    tuple
        One entry a school, with the option that is taken

    Raises
    ------
    InputError
        If a school or an option is not one of the method's.
    """
    method = tables.method_of(formula)
    known = {school.id: school for school in method.schools}
    for id_, option in chosen.items():
        if id_ not in known:
            raise InputError(f'{method.name} knows no choice of "{id_[:40]}".', quantity="schools")
        if option not in {each.id for each in known[id_].options}:
            names = " or ".join(f'"{each.id}"' for each in known[id_].options)
            raise InputError(f'"{option[:40]}" is no way of {id_}: choose {names}.', quantity="schools")
    kinds = kinds_of(formula, tables)
    split_dry = any(portion.split == "dry" for portion in formula.portions)
    own = {"split": "early"} if split_dry else {}
    return tuple(
        AskedSchool(school.id, school.question, school.options, chosen.get(school.id, own.get(school.id, school.usual)))
        for school in method.schools
        if not kinds.isdisjoint(school.only_with)
    )


def kinds_of(formula: Formula, tables: Tables) -> set[str]:
    """Return what a formula holds, as steps and schools ask for it.

    Parameters
    ----------
    formula : Formula
        The formula that is made
    tables : Tables
        Reference tables

    Returns
    -------
    set
        Ingredient ids, roles and natures
    """
    weighed, _ = weigh_formula(formula, tables)
    kinds = {PORTIONS} if len(formula.portions) > 1 else set()
    colours = {item.ingredient.id for item in weighed if item.ingredient.role == "colorant" and item.mass_g > 0}
    if len(colours) > 1:
        kinds.add(COLOURS)
    return kinds.union(*(_kinds(item.ingredient) for item in weighed if item.mass_g > 0))


def _kinds(item: Ingredient) -> set[str]:
    powder = {"surfactant-powder"} if item.has("surfactant-powder") else set()
    return {item.id, item.reference_id, item.role, *item.natures, *powder}


def steps_hold(method: Method, kinds: Collection[str], asked: Collection[AskedSchool]) -> tuple[bool, ...]:
    """Return for each step of a method whether it stands: its ingredients are there and its way is taken.

    Parameters
    ----------
    method : Method
        The method with all its steps
    kinds : Collection
        What the formula holds
    asked : Collection
        The schools that matter for it, with the option that is taken

    Returns
    -------
    tuple
        One truth a step
    """
    taken = {school.id: school.usual for school in method.schools} | {school.id: school.taken for school in asked}
    return tuple(
        (not step.only_with or any(kind in kinds for kind in step.only_with))
        and all(taken.get(school) == option for school, option in step.taken)
        for step in method.steps
    )
