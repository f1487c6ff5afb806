"""The change of a formula that would take a cause away: by balance, and for a dough by what hands felt of it."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from rosy_kettle.core.amounts import Weighed, weigh_formula
from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.change.balance.guards import watch_of
from rosy_kettle.core.change.balance.task import with_masses_at
from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.making.bench.by_hand import middle_saturation
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import Dough

__all__ = ["ChangedLine", "change_for"]

TARGETS = {
    "too-little-surfactant": "lather.score>=60", "oil-kills-foam": "lather.score>=60", "too-much-liquid-oil": "feel.ring<=30",
    "too-little-emulsifier": "feel.ring<=30", "high-bath-ph": "bath.ph_soak<=8.5", "too-much-humectant": "drying.hours<=72",
}  # fmt: skip
"""What a change of the formula aims at, by cause."""
OF_THE_DOUGH = frozenset({"too-dry", "too-wet"})
WETTERS = frozenset({"humectant", "binder", "surfactant"})
"""Roles of what wets a dough, where it is liquid."""
LEAST, MOST, HALVINGS = 0.3, 3.0, 24  # of the wetter's mass, between which its change is looked for
WORTH_G = 0.05  # a change below it is none


@dataclass(frozen=True, slots=True)
class ChangedLine:
    """One line before and after."""

    ingredient: str
    before_g: float
    after_g: float


def change_for(
    cause: str, formula: Formula | None, tables: Tables, batch: Mapping[str, Any] | None
) -> tuple[ChangedLine, ...] | None:
    """Return the least change of a formula that takes a cause away.

    Parameters
    ----------
    cause : str
        What it may have been
    formula : Formula or None
        As made
    tables : Tables
        Reference tables, with what the studio has learnt
    batch : Mapping or None
        The record of the batch, with what hands felt

    Returns
    -------
    tuple or None
        Lines that change; None where there is none, or nothing is known to help
    """
    if formula is None:
        return None
    try:
        if cause in OF_THE_DOUGH:
            return _of_dough(cause, formula, tables, batch)
        return _balanced(formula, TARGETS[cause], tables) if cause in TARGETS else None
    except WorkbenchError:  # the formula cannot be balanced as it is: then nothing is offered
        return None


def _balanced(formula: Formula, target: str, tables: Tables) -> tuple[ChangedLine, ...] | None:
    result = balance(BalanceProblem(formula, (parse_target(target),)), tables)
    moved = tuple(ChangedLine(each.ingredient, each.before_g, each.after_g) for each in result.changes)
    return moved if result.status == "solved" and moved else None


def _of_dough(cause: str, formula: Formula, tables: Tables, batch: Mapping[str, Any] | None) -> tuple[ChangedLine, ...] | None:
    """Bring the dough to where it is wanted.

    Hands go before the reading: where they found another state than the reading says, the reading is off by as much as the
    two lie apart, and the dough that is wanted lies as far off by the reading.
    """
    dough = _dough(formula, tables)
    if dough is None or dough.saturation is None:
        return None
    wanted = dough.wanted
    felt = _felt_saturation(batch, tables, wanted.states)
    off = 1.0 if felt is None else dough.saturation / felt
    low, high = (None if edge is None else edge * off for edge in (wanted.saturation_low, wanted.saturation_high))
    if felt is None and len(formula.portions) == 1:
        return _balanced(formula, f"dough.saturation={low}..{high}", tables)
    edge = low if cause == "too-dry" else high
    return None if edge is None else _by_the_wetter(formula, tables, edge)


def _dough(formula: Formula, tables: Tables) -> Dough | None:
    """Return the dough that is judged: of several portions the first, as hands feel it at the bench."""
    told = evaluate(formula, tables)
    return told.dough or (told.portions[0].dough if told.portions else None)


def _felt_saturation(batch: Mapping[str, Any] | None, tables: Tables, wanted: tuple[str, ...]) -> float | None:
    """Return the middle of the state hands found last, as S; None where they found what is wanted, or nothing."""
    state = (batch or {}).get("state")
    felt = [each.get("state") for each in (state or {}).get("felt") or [] if isinstance(each, Mapping)]
    last = str(felt[-1]) if felt else ""
    if last not in tables.parameters.dough.lower_edges or last in wanted:
        return None
    return middle_saturation(last, tables.parameters.dough)


def _by_the_wetter(formula: Formula, tables: Tables, saturation: float) -> tuple[ChangedLine, ...] | None:
    """Return so much more or less of the wetter, wherever it stands, that the dough comes to S; None where none does."""
    weighed = [line for line in weigh_formula(formula, tables)[0] if line.mass_g > 0]
    wetter = _wetter(weighed)
    if wetter is None:
        return None
    lines = [line for line in weighed if line.ingredient.id == wetter]

    def reached(times: float) -> float:
        dough = _dough(with_masses_at(formula, {line.position: times * line.mass_g for line in lines}), tables)
        return math.nan if dough is None or dough.saturation is None else dough.saturation

    times = _where(reached, saturation)
    before_g = sum(line.mass_g for line in lines)
    if times is None or abs(times - 1) * before_g < WORTH_G:
        return None
    if _against_sense(formula, weighed, {line.position: times * line.mass_g for line in lines}, tables):
        return None
    return (ChangedLine(wetter, before_g, round(times * before_g, 1)),)


def _against_sense(formula: Formula, weighed: list[Weighed], after_g: Mapping[int, float], tables: Tables) -> bool:
    """Whether a change breaks what a maker keeps: water on the acid, alcohol, spent acid, the batch's size."""
    before = np.array([line.mass_g for line in weighed])
    after = np.array([after_g.get(line.position, line.mass_g) for line in weighed])
    problem = BalanceProblem(formula, (parse_target("dough.saturation>=0"),))
    watch = watch_of(problem, tables, [line.ingredient for line in weighed], before)
    return any(guard.hard and not guard.target.reading.startswith("dough.") for guard in watch.broken(after))


def _wetter(weighed: list[Weighed]) -> str | None:
    by_mass: dict[str, float] = {}
    for line in weighed:
        if line.ingredient.role in WETTERS and not line.ingredient.is_powder:
            by_mass[line.ingredient.id] = by_mass.get(line.ingredient.id, 0.0) + line.mass_g
    return max(by_mass, key=lambda name: by_mass[name], default=None)


def _where(reached: Callable[[float], float], wanted: float) -> float | None:
    """Return where a rising figure reaches a value, by halving; None where it does not between the ends."""
    low, high = LEAST, MOST
    if not reached(low) <= wanted <= reached(high):
        return None
    for _ in range(HALVINGS):
        middle = math.sqrt(low * high)
        low, high = (middle, high) if reached(middle) < wanted else (low, middle)
    return high
