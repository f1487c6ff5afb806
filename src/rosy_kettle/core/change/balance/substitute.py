"""Something else in place of one line: which candidates move the readings least, and how much of them it takes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.aims import aims_of
from rosy_kettle.core.change.balance.guards import watch_of
from rosy_kettle.core.change.balance.one_line import mass_for
from rosy_kettle.core.change.balance.problem import BalanceProblem, BalanceResult, Target
from rosy_kettle.core.change.balance.solve import balance
from rosy_kettle.core.change.why.levers import Effect, effects_between
from rosy_kettle.core.errors import InputError, MissingDataError
from rosy_kettle.core.models.cost.formula_cost import price_per_kg
from rosy_kettle.core.readings.registry import notable, watched_paths
from rosy_kettle.core.records import Formula, Ingredient, Line, Tables
from rosy_kettle.core.safety.rules.use import FOOD_ALLERGENS

__all__ = ["HELD_BY_ROLE", "KEPT_SATURATION", "Substitute", "substitutes", "swap_in", "with_substitute"]

HELD_BY_ROLE = {
    "acid": "fizz.brisk_co2_l", "base": "fizz.co2_l", "surfactant": "lather.active_g", "starch": "firmness.at_20_c",
    "clay": "firmness.at_20_c", "milk": "feel.cloud", "salt": "mass_g", "butter": "mass_g", "wax": "firmness.at_20_c",
    "oil": "feel.oil_g", "humectant": "dough.saturation", "binder": "dough.saturation", "emulsifier": "feel.free_oil_g",
    "additive": "mass_g", "colorant": "feel.tint", "fragrance": "mass_g", "decoration": "mass_g", "preservative": "mass_g",
}  # fmt: skip
"""What a line of each role is there for, and so what its substitute should hold; common practice."""
STANDS_IN = {
    "cream-of-tartar": ("corn-starch", "kaolin", "arrowroot-powder", "tapioca-starch"),
    "corn-starch": ("cream-of-tartar", "kaolin"),
    "kaolin": ("corn-starch",),
    "polysorbate-80": ("emulsifying-wax",),
    "polysorbate-20": ("emulsifying-wax",),
    "emulsifying-wax": ("cetyl-alcohol",),
    "glycerin": ("capb-liquid",),
    "capb-liquid": ("glycerin",),
    "coconut-oil-76": ("babassu-oil", "shea-butter"),
}
"""Stand-ins of another role that makers use; a surfactant out for a children's batch leaves starch in its place."""
WAY_OUT = "corn-starch"  # in place of a surfactant powder where children help: no dust, no foam of its own
BULK_SHARE, BULK_KEPT = 0.20, 0.75  # a line above this share is bulk, and this much of its mass is to stay [-]; common practice
NOT_OFFERED_NATURE = "strong-acid"  # not meant for skin
HAZARDS = {
    "strong-alkali": "a strong alkali: the bath turns alkaline",
    "ready-mixed-base": "it holds its own acid: most of its soda is spent already",
    "melts-only": "it does not come apart in a cold dough",
    "sulfide-pigment": "acid breaks it down",
    "cationic": "it curdles with a foamer",
}
"""What keeps an ingredient at the end of the list, by nature."""
BODY = frozenset({"butter", "oil", "wax", "starch", "clay", "base", "acid", "salt", "milk"})
"""Roles that give a piece its body: next to nothing in their place is no stand-in."""
LEAST_LEFT = 0.25  # of a line's mass: less of a stand-in is none [-]; common practice
KEPT_TOGETHER = {"butter": ("feel.oil_g", "firmness.at_20_c")}
"""What a stand-in of a role holds besides, within a change a maker would notice: a butter's oil and its hold."""
CHILDREN = "where children help at the bench: no dust to breathe, no foam of its own"
MOST_TIMES = 4.0  # a substitute beyond this many times the mass is none [-]
KEPT_SATURATION = 0.05  # how far S may move with a swap [-]
NEAR = 0.25  # of a noticeable change: the held reading counts as held [-]


@dataclass(frozen=True, slots=True)
class Substitute:
    """One candidate in place of a line, with the amount that holds what the line was there for."""

    ingredient: str
    name: str
    role: str
    before_g: float
    after_g: float
    held: str
    holds: bool
    disturbance: float
    price_per_kg: str | None
    cost_per_piece_change: float | None
    dust_hazard: str | None
    vegan: str | None
    why_not: str
    """What speaks against it; "" where nothing does."""
    note: str
    """What it is for, where it is a way out and not a like for like."""
    allergen_tags: tuple[str, ...]
    effects: tuple[Effect, ...]


def substitutes(formula: Formula, tables: Tables, position: int, held: str | None = None) -> tuple[Substitute, ...]:
    """Return what could stand in for one line, ranked by how little the readings move.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables and prices
    position : int
        Index of the line among all lines [-]
    held : str or None
        Dotted path of the reading to hold; None takes what the line's role is there for

    Returns
    -------
    tuple
        Candidates of the same role, and the usual stand-ins of another

    Raises
    ------
    InputError
        If there is no such line, or it has no mass.
    """
    weighed, _ = weigh_formula(formula, tables)
    at = next((index for index, item in enumerate(weighed) if item.position == position), None)
    if at is None or weighed[at].mass_g <= 0:
        raise InputError(f"Line {position + 1} has no mass; weigh it before looking for a substitute.", quantity="line")
    line = weighed[at].ingredient
    hardener = line.has("hardener")  # an acid by role, a hardener by use: other acids cannot stand in for it
    reading = held or ("firmness.at_20_c" if hardener else HELD_BY_ROLE.get(line.role, "mass_g"))
    mass_g = np.array([item.mass_g for item in weighed])
    items = [item.ingredient for item in weighed]
    before = aims_of((reading, *watched_paths()), formula, tables, items).at(mass_g, sloped=False)[0]
    names = set(STANDS_IN.get(line.reference_id, ()))
    if line.has("surfactant-powder"):
        names.add(WAY_OUT)
    if not hardener:
        names |= {item.id for item in tables.ingredients.values() if item.role == line.role}
    found = []
    for name in sorted(names - {line.id}):
        candidate = tables.ingredients[name]
        if candidate.has(NOT_OFFERED_NATURE):
            continue
        found.append(_judge(formula, tables, items, mass_g, at, candidate, reading, before))
    return tuple(sorted((each for each in found if each is not None), key=_rank))


def _rank(each: Substitute) -> tuple[bool, bool, float]:
    """Those with something against them last, then what does not hold; a way out stands before it."""
    return bool(each.why_not), not each.holds and not each.note, each.disturbance


def _against(
    formula: Formula, tables: Tables, swapped: Sequence[Ingredient], before_g: np.ndarray, moved: np.ndarray, at: int
) -> str:
    """Say what speaks against a candidate: a hazard, bulk that would be gone, a guard it breaks; "" where nothing does."""
    hazard = next((said for nature, said in HAZARDS.items() if swapped[at].has(nature)), "")
    if hazard:
        return hazard
    if before_g[at] > BULK_SHARE * before_g.sum() and moved[at] < BULK_KEPT * before_g[at]:
        return f"{100 * (1 - moved[at] / before_g[at]):.0f} % of the bulk would be gone"
    if moved[at] < LEAST_LEFT * before_g[at] and swapped[at].role in BODY:
        return f"hardly any of it would be left: {moved[at]:.1f} g in place of {before_g[at]:.1f} g"
    weighed, _ = weigh_formula(formula, tables)
    watch = watch_of(BalanceProblem(formula, ()), tables, [item.ingredient for item in weighed], before_g)
    broken = replace(watch, items=tuple(swapped)).broken(moved)
    settled = "dough.saturation"  # the other lines take the dough back to where it was, once it is swapped in
    return next((guard.against() for guard in broken if guard.hard and guard.target.reading != settled), "")


def _judge(
    formula: Formula, tables: Tables, items: Sequence[Ingredient], mass_g: np.ndarray, at: int, candidate: Ingredient,
    reading: str, before: np.ndarray,
) -> Substitute | None:  # fmt: skip
    swapped = [candidate if index == at else item for index, item in enumerate(items)]
    aims = aims_of((reading, *watched_paths()), formula, tables, swapped)
    start_g, wish = float(mass_g[at]), float(before[0])
    visible = notable(reading, max(abs(wish), 1e-3) * 0.1)
    now, value = start_g, wish
    if not math.isnan(wish):
        now, value = mass_for(aims, mass_g, at, wish, (0.0, MOST_TIMES * start_g), 0.02 * visible)
    if math.isnan(value) or math.isnan(wish) or abs(value - wish) > NEAR * visible:
        now = start_g  # no amount of it holds the reading by itself: weight for weight, and the other lines must give
    moved = mass_g.copy()
    moved[at] = round(now, 1)
    after = aims.at(moved, sloped=False)[0]
    effects = effects_between(before[1:], after[1:], reading)
    cost = next((e for e in effects if e.reading == "cost.piece"), None)
    change = None if cost is None or cost.after is None else cost.after - cost.before
    disturbance = sum(
        min(9.0, abs((math.inf if e.after is None else e.after) - e.before) / notable(e.reading, 1.0)) for e in effects
    )
    tags = tables.safety.tags.get(candidate.reference_id)
    holds = bool(abs(float(after[0]) - wish) <= NEAR * visible) and _together(items[at], effects)
    return Substitute(
        ingredient=candidate.id, name=candidate.short_name, role=candidate.role, before_g=start_g, after_g=float(moved[at]),
        held=reading, holds=holds, disturbance=float(disturbance),
        price_per_kg=_price(candidate, tables), cost_per_piece_change=change, dust_hazard=candidate.dust_hazard,
        vegan=candidate.vegan, why_not=_against(formula, tables, swapped, mass_g, moved, at),
        note=CHILDREN if candidate.id == WAY_OUT and items[at].has("surfactant-powder") else "",
        allergen_tags=tuple(sorted((tags.tags if tags else frozenset()) & FOOD_ALLERGENS)),
        effects=effects,
    )  # fmt: skip


def _together(line: Ingredient, effects: Sequence[Effect]) -> bool:
    """Whether what a line of its role holds besides is held too."""
    also = [each for each in effects if each.reading in KEPT_TOGETHER.get(line.role, ())]
    return all(each.after is not None and abs(each.after - each.before) <= notable(each.reading, 1.0) for each in also)


def _price(item: Ingredient, tables: Tables) -> str | None:
    try:
        return str(price_per_kg(item, tables.prices)[0].quantize(Decimal("0.01")))
    except MissingDataError:
        return None


def swap_in(formula: Formula, tables: Tables, position: int, ingredient: str, held: str | None = None) -> BalanceResult:
    """Return the formula with one line swapped and then balanced with least change.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables and prices
    position : int
        Index of the line among all lines [-]
    ingredient : str
        What takes its place
    held : str or None
        Dotted path of the reading to hold; None takes what the line's role is there for

    Returns
    -------
    BalanceResult
        The held reading within a quarter of a noticeable change, the dough's S within 0.05 where it has one

    Raises
    ------
    InputError
        If the ingredient is not one of the candidates.
    """
    found = next((each for each in substitutes(formula, tables, position, held) if each.ingredient == ingredient), None)
    if found is None:
        raise InputError(f'"{ingredient[:60]}" is no candidate for line {position + 1}.', quantity="ingredient")
    weighed, _ = weigh_formula(formula, tables)
    mass_g = np.array([item.mass_g for item in weighed])
    paths = tuple(dict.fromkeys((found.held, "dough.saturation")))
    values = aims_of(paths, formula, tables, [item.ingredient for item in weighed]).at(mass_g, sloped=False)[0]
    targets = tuple(
        Target(path, float(value) - give, float(value) + give)
        for path, value in zip(paths, values, strict=True)
        if not math.isnan(value)
        for give in (KEPT_SATURATION if path == "dough.saturation" else NEAR * notable(path, max(abs(value), 1e-3) * 0.1),)
    )
    swapped = with_substitute(formula, position, ingredient, found.after_g)
    bounds = {ingredient: (0.0, MOST_TIMES * max(found.before_g, found.after_g))}
    return balance(BalanceProblem(swapped, targets, bounds_g=bounds), tables)


def with_substitute(formula: Formula, position: int, ingredient: str, mass_g: float) -> Formula:
    """Return the formula with one line swapped.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    position : int
        Index of the line among all lines [-]
    ingredient : str
        What takes its place
    mass_g : float
        How much of it [g]

    Returns
    -------
    Formula
        The other lines as they were
    """
    count, portions = 0, []
    for portion in formula.portions:
        lines: list[Line] = []
        for line in portion.lines:
            swapped = replace(line, ingredient=ingredient, amount=f"{mass_g:g}", unit="g", text="")
            lines.append(swapped if count == position else line)
            count += 1
        portions.append(replace(portion, lines=tuple(lines)))
    return replace(formula, portions=tuple(portions))
