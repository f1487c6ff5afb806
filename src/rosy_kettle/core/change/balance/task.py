"""A balancing problem in numbers: lines, bounds, bands, and what is looked at."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from rosy_kettle.core.amounts import Weighed, weigh_formula
from rosy_kettle.core.change.balance.aims import Aims, aims_of
from rosy_kettle.core.change.balance.effort import binder_ceiling_g, binds, bounds_of, dearness, is_fixed
from rosy_kettle.core.change.balance.guards import Guard
from rosy_kettle.core.change.balance.problem import OBJECTIVES, BalanceProblem
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.mixing.palette import BoolArray, FloatArray
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Method, Tables
from rosy_kettle.core.records.evaluation import Evaluation

__all__ = ["ELASTIC_WEIGHT", "GUARD_GIVES", "Point", "Task", "task_of", "unseen", "with_masses", "with_masses_at"]

SMALLEST_SIZE = 0.01  # a line counts as at least this share of the batch when changes are weighed [-]
UNMOVED_G = 1e-9  # [g]
ELASTIC_WEIGHT = 100.0  # cost of missing a target by its own size, against changing all of the batch [-]
GUARD_WEIGHT = 10 * ELASTIC_WEIGHT  # the same for a hard guard: an answer that misses its wish keeps the maker's sense [-]
GUARD_GIVES = 2e-4  # of a guard's own size: what rounding to the scale may leave [-]
SIDE_WEIGHT = 2.0  # the same for a side effect: it counts, but it does not stand in the way of a wish [-]
ROUNDED_TWICE = 1.5  # two lines may be rounded the same way [-]
UNREADABLE = 10.0  # a reading that cannot be said counts as missed by this many times its size [-]
LEAST_SCALE = 1e-3  # a target near zero is measured against this [its own unit]
EXTRA_READING: dict[str, str] = {"cheapest": "cost.piece", "gentlest": "skin.harshness_mg_l", "most-lather": "lather.score"}
"""What an objective looks at besides the targets."""


@dataclass(frozen=True, slots=True)
class Point:
    """Masses with the targeted readings and their slopes; an objective's own reading comes last."""

    mass_g: FloatArray
    values: FloatArray
    slopes: FloatArray


@dataclass(frozen=True, slots=True)
class Task:
    """Lines n, targets m."""

    problem: BalanceProblem
    tables: Tables
    ids: tuple[str, ...]
    positions: tuple[int, ...]
    start_g: FloatArray
    low_g: FloatArray
    high_g: FloatArray
    size_g: FloatArray
    """How far a line moves in one step, in its own size [g]."""
    before_g: FloatArray
    """Masses as they were, before a wished batch mass scaled them [g]; ``start_g`` is what changes count against."""
    up_cost: FloatArray
    """What a gram more of each line costs in change [1/g]."""
    down_cost: FloatArray
    guards: tuple[Guard, ...]
    """Ends beside the targets; their rows come behind the targets' own."""
    elastic: FloatArray
    """What missing each end by its own size costs, shape (m,) [-]."""
    low: FloatArray
    """Lower ends of the targets, minus infinity where open, shape (m,)."""
    high: FloatArray
    scales: FloatArray
    """A target's own size, shape (m,)."""
    slack_g: FloatArray
    """What a scale cannot show of a target that is a single value, shape (m,) [its own unit]."""
    aims: Aims
    most_moved_g: float = math.inf
    """What may go in, and what may come out, in all [g]; beyond that it is another formula."""

    @property
    def hard(self) -> BoolArray:
        """Which ends must hold, shape (m,)."""
        return self.elastic >= ELASTIC_WEIGHT

    def change(self, mass_g: FloatArray) -> float:
        """Weigh a change against the start [-]."""
        moved = mass_g - self.start_g
        return float(np.where(moved > 0, self.up_cost, -self.down_cost) @ moved)

    @property
    def piece_mass_g(self) -> float:
        """Mass of a piece [g]."""
        return setting_of(self.problem.formula, self.tables, float(self.start_g.sum())).assumed.piece_mass_g

    @property
    def chases(self) -> bool:
        """Whether the objective is a reading, not least change."""
        return self.problem.objective in EXTRA_READING

    @property
    def sign(self) -> float:
        """1 where the objective's reading is to be small, -1 where large."""
        return -1.0 if self.problem.objective == "most-lather" else 1.0

    def look(self, mass_g: FloatArray) -> Point:
        """Look at some masses with slopes."""
        return Point(mass_g, *self.aims.at(mass_g))

    def values(self, mass_g: FloatArray) -> FloatArray:
        """Read the targeted readings at some masses, shape (m,)."""
        return self.aims.at(mass_g, sloped=False)[0][: self.scales.size]

    def shortfall(self, values: FloatArray, margin: float = 0.0) -> FloatArray:
        """Say how far each target is missed against its own size; what cannot be read is far off."""
        low, high = self.ends(margin)
        seen = values[: self.scales.size]
        missed = np.maximum(0.0, np.maximum(low - seen, seen - high))
        return np.where(np.isnan(missed), UNREADABLE, np.where(missed <= self.slack_g + UNMOVED_G, 0.0, missed) / self.scales)

    def hard_shortfall(self, values: FloatArray) -> float:
        """Say how far the worst of the targets and hard guards is missed against its own size, guards counting more."""
        return float((self.shortfall(values) * self.elastic / ELASTIC_WEIGHT)[self.hard].max(initial=0.0))

    def ends(self, margin: float) -> tuple[FloatArray, FloatArray]:
        """Give both ends of every band, drawn in by a margin against each target's size."""
        width = np.where(np.isfinite(self.low) & np.isfinite(self.high), self.high - self.low, np.inf)
        keep = np.minimum(margin * self.scales, width / 3)
        return self.low + keep, self.high - keep

    def evaluation(self, mass_g: FloatArray) -> Evaluation:
        """Evaluate the whole formula at some masses."""
        return evaluate(with_masses(self.problem.formula, mass_g), self.tables)


def task_of(problem: BalanceProblem, tables: Tables, guards: Sequence[Guard] = ()) -> Task:
    """Return a balancing problem in numbers.

    Parameters
    ----------
    problem : BalanceProblem
        Formula, targets, objective, locks, bounds
    tables : Tables
        Reference tables and prices
    guards : Sequence
        Ends to keep beside the targets

    Returns
    -------
    Task
        With masses of every known line

    Raises
    ------
    InputError
        If the objective is unknown, a bound is crossed, or a targeted reading cannot be said for this formula.
    """
    if problem.objective not in OBJECTIVES:
        wrong = f'Objective must be one of {", ".join(OBJECTIVES)}, got "{problem.objective[:30]}".'
        raise InputError(wrong, quantity="objective")
    weighed, _missing = weigh_formula(problem.formula, tables)
    if not weighed or sum(item.mass_g for item in weighed) <= 0:
        raise InputError("The formula has no weighed line yet; there is nothing to balance.", quantity="lines")
    ids = tuple(item.ingredient.id for item in weighed)
    for name in (*problem.locks, *problem.bounds_g, *problem.frees):
        if name not in ids:
            raise InputError(f'"{name[:60]}" stands on no line of this formula; lock or bound what is in it.', quantity="lock")
    before_g = np.array([item.mass_g for item in weighed])
    factor = _scaling(problem, weighed)
    method = tables.method_of(problem.formula)
    ceilings = _ceilings(weighed, problem, method, factor)
    bounds = [bounds_of(item, problem, factor, ceiling_g) for item, ceiling_g in zip(weighed, ceilings, strict=True)]
    low_g, high_g = np.array([each[0] for each in bounds]), np.array([each[1] for each in bounds])
    start_g = before_g if factor == 1.0 else np.clip(factor * before_g, low_g, high_g)
    up_cost, down_cost = dearness([item.ingredient for item in weighed], float(start_g.sum()), method)
    ends = (*problem.targets, *(guard.target for guard in guards))
    extra = [EXTRA_READING[problem.objective]] if problem.objective in EXTRA_READING else []
    task = Task(
        problem, tables, ids, tuple(item.position for item in weighed), start_g, low_g, high_g,
        size_g=np.maximum(start_g, SMALLEST_SIZE * start_g.sum()),
        before_g=before_g, up_cost=up_cost, down_cost=down_cost, guards=tuple(guards),
        elastic=np.array([ELASTIC_WEIGHT] * len(problem.targets) + [GUARD_WEIGHT if g.hard else SIDE_WEIGHT for g in guards]),
        low=np.array([-np.inf if target.low is None else target.low for target in ends]),
        high=np.array([np.inf if target.high is None else target.high for target in ends]),
        scales=np.array([max(abs(t.low or 0.0), abs(t.high or 0.0), LEAST_SCALE) for t in ends]),
        slack_g=np.zeros(len(ends)),
        aims=aims_of([*(each.reading for each in ends), *extra], problem.formula, tables, [item.ingredient for item in weighed]),
    )  # fmt: skip
    for target, value in zip(problem.targets, task.values(start_g), strict=False):
        if np.isnan(value):
            sentence = f'Target "{target}" cannot be aimed at: this reading cannot be said for the formula as it is.'
            raise InputError(sentence, quantity="target")
    return task


def _ceilings(weighed: Sequence[Weighed], problem: BalanceProblem, method: Method, factor: float) -> list[float]:
    """Return how far each line may grow beside the binder of its own portion; no binder there sets no end [g]."""
    ends = np.cumsum([len(portion.lines) for portion in problem.formula.portions])
    portions = np.searchsorted(ends, [item.position for item in weighed], side="right").tolist()
    binder_g: dict[int, float] = {}
    for item, portion in zip(weighed, portions, strict=True):
        if binds(item.ingredient, method):
            # What may not move is not outgrown by another liquid: it only cannot grow with it.
            more = math.inf if is_fixed(item, problem) else factor * item.mass_g
            binder_g[portion] = binder_g.get(portion, 0.0) + more
    return [
        binder_ceiling_g(item.ingredient, method, binder_g.get(portion, 0.0))
        for item, portion in zip(weighed, portions, strict=True)
    ]


def unseen(task: Task, point: Point) -> FloatArray:
    """Return what the scale cannot show of each end: half a step of the line that moves it most, where one value is wanted.

    Parameters
    ----------
    task : Task
        Lines, bounds, ends
    point : Point
        Where the slopes were taken

    Returns
    -------
    FloatArray
        Shape (m,) [each its own unit]; zero for wished bands and limits, next to nothing for guards
    """
    free = task.high_g > task.low_g
    steepest = np.abs(np.nan_to_num(point.slopes[: task.scales.size]) * free).max(axis=1, initial=0.0)
    exact = task.low == task.high
    mass = np.array([path == "mass_g" for path in task.aims.paths[: task.scales.size]], dtype=bool)
    guard = np.arange(task.scales.size) >= len(task.problem.targets)
    given = np.where(guard, GUARD_GIVES * task.scales, 0.0)
    return np.where(
        mass & ~guard, task.problem.step_g, np.where(exact, ROUNDED_TWICE * task.problem.step_g / 2 * steepest, given)
    )


def _scaling(problem: BalanceProblem, weighed: Sequence[Weighed]) -> float:
    """Return what a wished batch mass makes of every line that is not fixed [-]; 1 without such a wish, or where it is met."""
    wish = next((target for target in problem.targets if target.reading == "mass_g"), None)
    if wish is None:
        return 1.0
    fixed = [is_fixed(item, problem) for item in weighed]
    total_g = sum(item.mass_g for item in weighed)
    fixed_g = sum(item.line.poured_g or item.mass_g for item, is_fixed in zip(weighed, fixed, strict=True) if is_fixed)
    loose_g = sum(item.mass_g for item, is_fixed in zip(weighed, fixed, strict=True) if not is_fixed)
    goal_g = min(max(total_g, wish.low or 0.0), np.inf if wish.high is None else wish.high)
    return float(max(0.0, goal_g - fixed_g) / loose_g) if loose_g > 0 else 1.0


def with_masses(formula: Formula, mass_g: FloatArray) -> Formula:
    """Return a formula with every known line in grams; shares of portions become weights.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    mass_g : FloatArray
        Mass of every known line in order [g]

    Returns
    -------
    Formula
        What was poured, locked or bounded before is no longer marked as poured
    """
    masses = iter(mass_g.tolist())
    portions = tuple(
        replace(
            portion, share_pct=None, mass_g=None,
            lines=tuple(
                line if line.ingredient is None else replace(line, amount=repr(next(masses)), unit="g") for line in portion.lines
            ),
        )
        for portion in formula.portions
    )  # fmt: skip
    return replace(formula, portions=portions)


def with_masses_at(formula: Formula, masses_g: Mapping[int, float]) -> Formula:
    """Return a formula with some lines in grams; all others stay as typed.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    masses_g : Mapping
        Mass by index of the line among all lines [g]

    Returns
    -------
    Formula
        With the changed lines weighed
    """
    position, portions = 0, []
    for portion in formula.portions:
        lines = []
        for line in portion.lines:
            mass_g = masses_g.get(position)
            lines.append(line if mass_g is None else replace(line, amount=f"{mass_g:.10g}", unit="g"))
            position += 1
        portions.append(replace(portion, lines=tuple(lines)))
    return replace(formula, portions=tuple(portions))
