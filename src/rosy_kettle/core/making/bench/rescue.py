"""Too much in the bowl: take it out, scale up what is still to come, or rebalance the rest."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from rosy_kettle.core.change.balance import BalanceProblem, Target, balance
from rosy_kettle.core.change.balance.task import with_masses_at
from rosy_kettle.core.change.why.levers import Effect
from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.making.bench.as_made import effects_of
from rosy_kettle.core.making.bench.record import BenchState
from rosy_kettle.core.making.bench.steps import BenchStep
from rosy_kettle.core.records import Formula, Tables

__all__ = ["RescueOption", "rescue_options"]


LEAST_MOVE_G = 0.05  # half a step of a bench scale: less is no other amount
NOTHING_TO_WEIGH = "nothing is still to be weighed"


@dataclass(frozen=True, slots=True)
class RescueOption:
    """One way out, with its effect on the whole batch."""

    way: str
    """take-out, scale-up, rebalance or keep."""
    text: str
    why_not: str
    """Empty where the way is open."""
    targets: Mapping[int, float]
    """New targets of lines still to be weighed, by place in the formula [g]."""
    batch_g: float
    effects: tuple[Effect, ...]


def rescue_options(
    formula: Formula, tables: Tables, state: BenchState, step: BenchStep, actual_g: float, targets: Sequence[Target],
    capacity_g: float | None, on_hand_g: Mapping[str, float], only: str | None = None,
) -> tuple[RescueOption, ...]:  # fmt: skip
    """Return the ways out of pouring too much of one line.

    Parameters
    ----------
    formula : Formula
        The bowl as planned, in grams
    tables : Tables
        Reference tables
    state : BenchState
        Where the batch stands
    step : BenchStep
        The line in hand
    actual_g : float
        What is in the cup [g]
    targets : Sequence
        What the profile and the method want; the rebalancing holds it
    capacity_g : float or None
        What the bowl holds [g]
    on_hand_g : Mapping
        What is in the Pantry by ingredient [g]
    only : str or None
        One way alone; None looks at all

    Returns
    -------
    tuple
        Take out, scale up, rebalance, keep: the impossible ones say why; one that gains nothing, or that comes to the same
        as another, is not among them
    """
    if step.position is None or step.target_g is None:
        return ()
    planned = state.mass_g()
    before = with_masses_at(formula, planned)
    kept = planned | {step.position: actual_g}
    waiting = [
        other.position for other, status in zip(state.steps, state.status, strict=True)
        if other.position is not None and other.position != step.position and status == "open"
    ]  # fmt: skip
    over, factor = actual_g - step.target_g, actual_g / step.target_g
    out = f"Take {over:.1f} g out again, with a dry spoon, and weigh on."
    ways: dict[str, Callable[[], RescueOption]] = {
        "take-out": lambda: RescueOption("take-out", out, "", {}, sum(planned.values()), ()),
        "scale-up": lambda: _scale_up(before, tables, kept, waiting, factor, capacity_g, on_hand_g, formula),
        "rebalance": lambda: _rebalance(formula, before, tables, state, step, kept, waiting, targets),
        "keep": lambda: RescueOption(
            "keep", "Keep it as it is and change nothing else.", "", {}, sum(kept.values()),
            effects_of(before, with_masses_at(formula, kept), tables),
        ),
    }  # fmt: skip
    return _worth_a_press(tuple(way() for name, way in ways.items() if only in {None, name}), kept)


def _worth_a_press(ways: tuple[RescueOption, ...], kept: Mapping[int, float]) -> tuple[RescueOption, ...]:
    """Leave out what moves nothing, for that is to keep it, and the second of two ways that come to the same."""
    found: list[RescueOption] = []
    for way in ways:
        moves = {position: mass_g for position, mass_g in way.targets.items() if abs(mass_g - kept[position]) >= LEAST_MOVE_G}
        idle = way.way in {"scale-up", "rebalance"} and not way.why_not and not moves
        same = any(moves and _alike(way.targets, other.targets) for other in found)
        if not (idle or same or way.why_not == NOTHING_TO_WEIGH):
            found.append(way)
    return tuple(found)


def _alike(targets: Mapping[int, float], others: Mapping[int, float]) -> bool:
    return targets.keys() == others.keys() and all(abs(targets[each] - others[each]) < LEAST_MOVE_G for each in targets)


def _scale_up(
    before: Formula, tables: Tables, kept: Mapping[int, float], waiting: Sequence[int], factor: float,
    capacity_g: float | None, on_hand_g: Mapping[str, float], formula: Formula,
) -> RescueOption:  # fmt: skip
    targets = {position: kept[position] * factor for position in waiting}
    masses = {**kept, **targets}
    batch_g = sum(masses.values())
    text = f"Weigh everything still to come × {factor:.3f}; the bowl comes to {batch_g:.0f} g."
    why_not = ""
    if not waiting:
        why_not = NOTHING_TO_WEIGH
    elif capacity_g is not None and batch_g > capacity_g:
        why_not = f"the bowl holds {capacity_g:.0f} g"
    else:
        needed: dict[str, float] = {}
        for position, mass_g in masses.items():
            ingredient = formula.lines[position].ingredient or ""
            needed[ingredient] = needed.get(ingredient, 0.0) + mass_g
        short = [name for name, mass_g in needed.items() if name in on_hand_g and mass_g > on_hand_g[name]]
        if short:
            item = tables.ingredients[short[0]]
            why_not = f"only {on_hand_g[short[0]]:.0f} g of {item.short_name.lower()} are in the Pantry"
    effects = () if why_not else effects_of(before, with_masses_at(formula, masses), tables)
    return RescueOption("scale-up", text, why_not, targets, batch_g, effects)


def _rebalance(
    formula: Formula, before: Formula, tables: Tables, state: BenchState, step: BenchStep,
    kept: Mapping[int, float], waiting: Sequence[int], targets: Sequence[Target],
) -> RescueOption:  # fmt: skip
    text = "Rebalance what is still to come, so that the readings stay as wanted."
    nothing = RescueOption("rebalance", text, NOTHING_TO_WEIGH, {}, sum(kept.values()), ())
    if not waiting:
        return nothing
    poured = state.poured() | {step.position}
    start = with_masses_at(formula, kept)
    portions, at = [], 0
    for portion in start.portions:
        lines = []
        for line in portion.lines:
            lines.append(replace(line, poured_g=kept.get(at, 0.0)) if at in poured else line)
            at += 1
        portions.append(replace(portion, lines=tuple(lines)))
    try:
        result = balance(BalanceProblem(formula=replace(start, portions=tuple(portions)), targets=tuple(targets)), tables)
    except WorkbenchError as error:
        return replace(nothing, why_not=str(error))
    if result.conflicts:
        return replace(nothing, why_not=result.conflicts[0].message)
    moved = {line.position: line.after_g for line in result.lines if line.position in waiting}
    masses = {**kept, **moved}
    effects = effects_of(before, with_masses_at(formula, masses), tables)
    return RescueOption("rebalance", text, "", moved, sum(masses.values()), effects)
