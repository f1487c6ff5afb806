"""A balancing problem in numbers: lines, bounds, bands, and what is looked at."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from rosy_kettle.core.amounts import Weighed, weigh_formula
from rosy_kettle.core.balance.aims import Aims, aims_of
from rosy_kettle.core.balance.problem import OBJECTIVES, BalanceProblem
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.evaluate import evaluate
from rosy_kettle.core.judge.setting import setting_of
from rosy_kettle.core.palette import FloatArray
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import Evaluation

__all__ = ["Point", "Task", "task_of", "with_masses", "with_masses_at"]

HIGHEST_FACTOR = 3.0  # a line may grow to this many times its present amount unless bounds say otherwise [-]
SMALLEST_SIZE = 0.01  # a line counts as at least this share of the batch when changes are weighed [-]
UNMOVED_G = 1e-9  # [g]
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
    """What a change of each line is weighed against [g]."""
    low: FloatArray
    """Lower ends of the targets, minus infinity where open, shape (m,)."""
    high: FloatArray
    scales: FloatArray
    """A target's own size, shape (m,)."""
    slack_g: FloatArray
    """What a scale cannot show of a target; only the batch mass has any, shape (m,) [g]."""
    aims: Aims

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
        return np.where(np.isnan(missed), 10.0, np.where(missed <= self.slack_g + UNMOVED_G, 0.0, missed) / self.scales)

    def ends(self, margin: float) -> tuple[FloatArray, FloatArray]:
        """Give both ends of every band, drawn in by a margin against each target's size."""
        width = np.where(np.isfinite(self.low) & np.isfinite(self.high), self.high - self.low, np.inf)
        keep = np.minimum(margin * self.scales, width / 3)
        return self.low + keep, self.high - keep

    def evaluation(self, mass_g: FloatArray) -> Evaluation:
        """Evaluate the whole formula at some masses."""
        return evaluate(with_masses(self.problem.formula, mass_g), self.tables)


def task_of(problem: BalanceProblem, tables: Tables) -> Task:
    """Return a balancing problem in numbers.

    Parameters
    ----------
    problem : BalanceProblem
        Formula, targets, objective, locks, bounds
    tables : Tables
        Reference tables and prices

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
    for name in (*problem.locks, *problem.bounds_g):
        if name not in ids:
            raise InputError(f'"{name[:60]}" stands on no line of this formula; lock or bound what is in it.', quantity="lock")
    start_g = np.array([item.mass_g for item in weighed])
    bounds = [_bounds(item, ids[i], problem) for i, item in enumerate(weighed)]
    low = np.array([-np.inf if target.low is None else target.low for target in problem.targets])
    high = np.array([np.inf if target.high is None else target.high for target in problem.targets])
    paths = [target.reading for target in problem.targets]
    extra = [EXTRA_READING[problem.objective]] if problem.objective in EXTRA_READING else []
    task = Task(
        problem, tables, ids, tuple(item.position for item in weighed), start_g,
        low_g=np.array([each[0] for each in bounds]),
        high_g=np.array([each[1] for each in bounds]),
        size_g=np.maximum(start_g, SMALLEST_SIZE * start_g.sum()),
        low=low, high=high,
        scales=np.array([max(abs(t.low or 0.0), abs(t.high or 0.0), LEAST_SCALE) for t in problem.targets]),
        slack_g=np.array([problem.step_g if path == "mass_g" else 0.0 for path in paths]),
        aims=aims_of([*paths, *extra], problem.formula, tables, [item.ingredient for item in weighed]),
    )  # fmt: skip
    for target, value in zip(problem.targets, task.values(start_g), strict=True):
        if np.isnan(value):
            sentence = f'Target "{target}" cannot be aimed at: this reading cannot be said for the formula as it is.'
            raise InputError(sentence, quantity="target")
    return task


def _bounds(weighed: Weighed, name: str, problem: BalanceProblem) -> tuple[float, float]:
    """Bounds of one line [g]: what is poured or locked stays, the tighter of the line's own and the problem's holds.

    Where neither says anything, a line may grow to three times what it is.
    """
    line, start_g = weighed.line, weighed.mass_g
    if line.poured_g is not None:
        return line.poured_g, line.poured_g
    if line.locked or name in problem.locks:
        return start_g, start_g
    usual_g = HIGHEST_FACTOR * start_g if line.max_g is None else line.max_g
    low, high = problem.bounds_g.get(name, (0.0, usual_g))
    low = low if line.min_g is None else max(low, line.min_g)
    high = high if line.max_g is None else min(high, line.max_g)
    if low > high:
        raise InputError(
            f"{weighed.ingredient.short_name}: at least {low:g} g is above at most {high:g} g; lower the one or raise the other.",
            quantity="bound",
        )
    return low, high


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
