"""Levers: grams of one thing that bring a reading where it is wanted, and what that does to all the others."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from rosy_kettle.core.change.balance.aims import Aims
from rosy_kettle.core.change.balance.guards import Watch, watch_of
from rosy_kettle.core.change.balance.one_line import mass_for
from rosy_kettle.core.change.balance.problem import BalanceProblem, Target
from rosy_kettle.core.change.sense import ANOTHER_FORMULA, WATER_ON_ACID, moved_share
from rosy_kettle.core.change.why.lines import Lines, lines_of, portion_of
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.readings.registry import notable, watched, watched_paths
from rosy_kettle.core.records import Formula, Method, Tables

__all__ = ["Effect", "Lever", "effects_between", "levers"]

SHELF = (
    "baking-soda", "corn-starch", "kaolin", "cream-of-tartar", "slsa-fine", "capb-liquid", "glycerin", "sweet-almond-oil",
    "polysorbate-80", "distilled-water", "isopropyl-alcohol-91", "citric-acid-anhydrous", "cocoa-butter",
)  # fmt: skip
"""What most studios have at hand to correct a dough with; common practice."""
WATER_STEP = 0.003  # water is never added by more than this share of the batch [-]; common practice
LEAST_STEP_G = 0.05  # less than a scale shows [g]
WORSE = 2.0  # a dough that leaves its band weighs this much more than another change [-]
CLOSE, NEAR = 0.02, 0.5  # of a noticeable change: what is sought, and what is offered [-]
NO_LEVERS = frozenset({"colorant", "fragrance", "decoration", "preservative"})
"""Nobody mends a dough with these."""
WATERY = frozenset({"distilled-water", "witch-hazel-distillate"})
BULK_SHARE, BULK_KEPT = 0.10, 0.70  # a line above this share is bulk, and this much of its mass is to stay [-]; common practice
WATERY_FROM = 0.2  # of water in it, a liquid brings water onto an acid [-]
MOVES_WEIGH, LEAVING_OUT = 10.0, 5.0  # what moving all of the batch, and leaving a line out, weigh [noticed changes]; estimate


@dataclass(frozen=True, slots=True)
class Effect:
    """A watched reading before and after."""

    reading: str
    label: str
    unit: str
    before: float
    after: float | None


@dataclass(frozen=True, slots=True)
class Lever:
    """One change of one ingredient. ``position`` is None where the ingredient is not in the formula yet."""

    ingredient: str
    name: str
    position: int | None
    before_g: float
    after_g: float
    value: float
    """The reading after the change."""
    reaches: bool
    """Whether it brings the reading into the wanted band; a step of water may stop short of it."""
    disturbance: float
    """How much the other readings move, in changes a maker would notice."""
    effects: tuple[Effect, ...]
    message: str
    why_not: str = ""
    """What a maker would have against it; "" where nothing speaks against it."""
    effort: float = 0.0
    """How late a maker would try it: what it disturbs, how much it moves, whether it takes out what the formula is made of."""


def levers(
    formula: Formula, tables: Tables, reading: str, low: float | None, high: float | None, also: Sequence[str] = (),
    portion: int = 0,
) -> tuple[Lever, ...]:  # fmt: skip
    """Return the single changes that bring a reading to the middle of a band, what a maker would try first before the others.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables
    reading : str
        Dotted path of the reading
    low : float or None
        Lower end of what is wanted [reading's unit]
    high : float or None
        Upper end [reading's unit]
    also : Sequence
        Further ingredients to try
    portion : int
        Whose dough is looked at, where the reading belongs to a dough and there are several [-]

    Returns
    -------
    tuple
        Every lever's figures are those of the true model after the change

    Raises
    ------
    InputError
        If the band has no end, or the reading cannot be said for the formula as it is.
    """
    if low is None and high is None:
        raise InputError("A lever needs a wanted band; give its lower or its upper end.", quantity="band")
    if low is not None and high is not None and low > high:
        raise InputError(f"The low end {low:g} is above the high end {high:g}.", quantity="band")
    lines = lines_of(formula, tables, (*SHELF, *also))
    aims = lines.aims((reading, *watched_paths()), formula, tables)
    values = aims.at(lines.mass_g, sloped=False)[0]
    if math.isnan(values[0]) and len(formula.portions) > 1:
        dough_alone, before = portion_of(formula, portion)
        found_there = levers(dough_alone, tables, reading, low, high, also)
        return tuple(replace(each, position=None if each.position is None else each.position + before) for each in found_there)
    if math.isnan(values[0]):
        raise InputError(f"{reading} cannot be said for this formula as it is.", quantity="reading", value=reading)
    wish = _wish(reading, float(values[0]), low, high, notable(reading, abs(float(values[0])) * 0.1 or 1.0))
    method = tables.method_of(formula)
    wanted = method.wanted
    aimed = BalanceProblem(formula, (Target(reading, low, high),))
    watch = watch_of(aimed, tables, lines.ingredients, lines.mass_g)
    dough = (wanted.saturation_low, wanted.saturation_high)
    locked = {position for position, line in enumerate(formula.lines) if line.locked or line.poured_g is not None}
    found = []
    for index in range(lines.mass_g.size):
        if lines.positions[index] in locked or lines.ingredients[index].role in NO_LEVERS:
            continue
        target_g = _search(aims, lines, index, wish)
        if target_g is not None:
            lever = _lever(aims, lines, index, target_g, values, (low, high), reading, dough)
            found.append(_weighed(lever, lines, index, watch, method))
    return tuple(sorted(found, key=lambda each: (bool(each.why_not), not each.reaches, each.effort)))


def _weighed(lever: Lever, lines: Lines, index: int, watch: Watch, method: Method) -> Lever:
    """Say what a maker would have against a lever, and how late it would be tried."""
    mass_g, item = lines.mass_g.copy(), lines.ingredients[index]
    mass_g[index] = lever.after_g
    batch_g, before_g = float(lines.mass_g.sum()), lever.before_g
    bulk_gone = before_g > BULK_SHARE * batch_g and lever.after_g < BULK_KEPT * before_g
    adds_water = not method.kneaded and lever.after_g > before_g and item.water_fraction is not None and item.is_liquid
    acid_there = any(guard.target.reading == WATER_ON_ACID for guard in watch.guards)
    onto_acid = adds_water and (item.water_fraction or 0.0) > WATERY_FROM and acid_there
    broken = next((guard for guard in watch.broken(mass_g) if guard.hard), None)
    why_not = broken.against() if broken else "its water would meet the acid" if onto_acid else ""
    if not why_not and bulk_gone:
        why_not = f"{100 * (1 - lever.after_g / before_g):.0f} % of the bulk would be gone"
    effort = lever.disturbance + MOVES_WEIGH * moved_share(lines.mass_g, mass_g) + (LEAVING_OUT if lever.after_g == 0 else 0.0)
    return replace(lever, why_not=why_not, effort=effort)


def _wish(reading: str, value: float, low: float | None, high: float | None, step: float) -> float:
    """Aim at the middle of a dough's state; elsewhere just inside the nearer end, or a noticeable step further."""
    width = high - low if low is not None and high is not None else math.inf
    if reading == "dough.saturation" and low is not None and high is not None:
        return (low + high) / 2
    inset = min(step / 4, width / 2)
    if low is not None and value < low:
        return low + inset
    if high is not None and value > high:
        return high - inset
    return value + step if low is not None else value - step


def _search(aims: Aims, lines: Lines, index: int, wish: float) -> float | None:
    """Find the mass of one line that meets the wish; None where no sensible amount does.

    A step of water may stop short of it where the dough's own wetness is sought: a little, then judged again.
    """
    batch_g, start_g = float(lines.mass_g.sum()), float(lines.mass_g[index])
    watery = lines.ingredients[index].reference_id in WATERY
    most_g = (WATER_STEP if watery else ANOTHER_FORMULA) * batch_g
    bounds_g = (max(0.0, start_g - ANOTHER_FORMULA * batch_g), start_g + most_g)
    visible = notable(aims.paths[0], max(abs(wish), 1e-3) * 0.1)
    now, value = mass_for(aims, lines.mass_g, index, wish, bounds_g, CLOSE * visible)
    near = abs(value - wish) <= NEAR * visible
    if (
        math.isnan(value)
        or abs(now - start_g) < LEAST_STEP_G
        or not (near or (watery and now > start_g and aims.paths[0] == "dough.saturation"))
    ):
        return None
    return round(now, 1)


def _lever(
    aims: Aims,
    lines: Lines,
    index: int,
    target_g: float,
    values: FloatArray,
    band: tuple[float | None, float | None],
    reading: str,
    dough: tuple[float | None, float | None],
) -> Lever:
    mass_g = lines.mass_g.copy()
    mass_g[index] = target_g
    after = aims.at(mass_g, sloped=False)[0]
    low, high = band
    inside = (low is None or after[0] >= low) and (high is None or after[0] <= high)
    effects = effects_between(values[1:], after[1:], reading)
    moved = np.array([_disturbed(effect, dough) for effect in effects])
    item, before_g = lines.ingredients[index], float(lines.mass_g[index])
    return Lever(
        ingredient=item.id, name=item.short_name, position=lines.positions[index], before_g=before_g, after_g=target_g,
        value=float(after[0]), reaches=bool(inside), disturbance=float(np.minimum(moved, 9.0).sum()), effects=effects,
        message=_sentence(item.short_name, before_g, target_g),
    )  # fmt: skip


def _disturbed(effect: Effect, dough: tuple[float | None, float | None]) -> float:
    """Weigh a side effect: a dough that comes nearer to what its method wants is not disturbed."""
    if effect.after is None:
        return math.inf
    if effect.reading == "dough.saturation":
        return WORSE * max(0.0, _off(effect.after, dough) - _off(effect.before, dough)) / notable(effect.reading, 1.0)
    return abs(effect.after - effect.before) / notable(effect.reading, 1.0)


def _off(value: float, band: tuple[float | None, float | None]) -> float:
    low, high = band
    return max(0.0, 0.0 if low is None else low - value, 0.0 if high is None else value - high)


def effects_between(before: FloatArray, after: FloatArray, but: str) -> tuple[Effect, ...]:
    """Return the watched readings before and after.

    Parameters
    ----------
    before : FloatArray
        Values of the watched readings [each its own unit]
    after : FloatArray
        The same after the change [each its own unit]
    but : str
        The reading that is aimed at, left out

    Returns
    -------
    tuple
        Readings that could be said before
    """
    return tuple(
        Effect(reading.id, reading.label, reading.unit, float(was), None if math.isnan(now) else float(now))
        for reading, was, now in zip(watched(), before, after, strict=True)
        if reading.id != but and not math.isnan(was)
    )


def _sentence(name: str, before_g: float, after_g: float) -> str:
    change = after_g - before_g
    if before_g == 0:
        return f"Add {change:.1f} g {name}"
    if after_g == 0:
        return f"Leave out {name}"
    return f"{abs(change):.1f} g {'more' if change > 0 else 'less'} {name}"
