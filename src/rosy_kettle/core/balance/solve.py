"""Successive linear programs with the true model checked at the end (HiGHS through scipy)."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.balance.problem import OBJECTIVES, BalanceProblem, BalanceResult, Change, Conflict, Target
from rosy_kettle.core.cost.formula_cost import formula_cost, price_per_kg
from rosy_kettle.core.errors import InputError, MissingDataError
from rosy_kettle.core.evaluate import evaluate
from rosy_kettle.core.palette import FloatArray
from rosy_kettle.core.readings import READINGS
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import Evaluation

__all__ = ["balance"]

ROUNDS = 10
HIGHEST_FACTOR = 3.0  # a line may grow to this many times its present amount unless bounds say otherwise [-]
FIRST_TRUST, SMALLEST_TRUST = 1.0, 0.003  # how far a line may move in one round, against its own size [-]
RESTORING_ROUNDS, RESTORING_TRUST = 4, 0.3
STILL = 1e-6  # a round that moves less than this share of the batch changes nothing [-]
UNMOVED_G = 1e-9  # [g]
NUDGE = 0.002  # of the batch, for the derivatives [-]
MET_WITHIN = 1e-6  # of a target's own size [-]
ELASTIC_WEIGHT = 100.0  # cost of missing a target by its own size, against moving a line by its own size [-]
MARGINS = (0.0, 0.004, 0.015)  # of a target's size kept in hand, so that rounding to the scale cannot undo it [-]
CHANGE_TIE_BREAK = 1e-3  # weight of least change beside another objective [-]
EXTRA_READING: dict[str, tuple[str, ...]] = {
    "least-change": (),
    "cheapest": ("cost.batch",),
    "gentlest": ("skin.harshness_mg_l",),
    "most-lather": ("lather.score",),
}
"""What an objective looks at besides the targets."""


@dataclass(frozen=True, slots=True)
class _Task:
    problem: BalanceProblem
    tables: Tables
    ids: tuple[str, ...]
    start_g: FloatArray
    low_g: FloatArray
    high_g: FloatArray
    size_g: FloatArray
    scales: FloatArray

    def evaluation(self, mass_g: FloatArray) -> Evaluation:
        return evaluate(_with_masses(self.problem.formula, mass_g), self.tables)

    def values(self, mass_g: FloatArray, extra: tuple[str, ...] = ()) -> FloatArray:
        result = self.evaluation(mass_g)
        paths = (*(target.reading for target in self.problem.targets), *extra)
        return np.array([_value(result, path, self, mass_g) for path in paths])


def balance(problem: BalanceProblem, tables: Tables) -> BalanceResult:
    """Return the formula nearest to the present one (or cheapest, gentlest, most lathering) that meets every target.

    Parameters
    ----------
    problem : BalanceProblem
        Formula, targets, objective, locks, bounds
    tables : Tables
        Reference tables and prices

    Returns
    -------
    BalanceResult
        solved, or infeasible with the targets in conflict; always evaluated with the true model after rounding

    Raises
    ------
    InputError
        If the objective is unknown, a bound is crossed, or a targeted reading cannot be said for this formula.
    """
    if problem.objective not in OBJECTIVES:
        raise InputError(
            f'Objective must be one of {", ".join(OBJECTIVES)}, got "{problem.objective[:30]}".', quantity="objective"
        )
    task = _task(problem, tables)
    best, missed = task.start_g, np.inf
    for margin in MARGINS:
        rounded = _round(task, _approach(task, margin))
        shortfall = _shortfall(task, task.values(rounded)).max(initial=0.0)
        if shortfall < missed:
            best, missed = rounded, shortfall
        if missed <= MET_WITHIN:
            break
    return _result(task, best, solved=bool(missed <= MET_WITHIN))


def _task(problem: BalanceProblem, tables: Tables) -> _Task:
    weighed, _missing = weigh_formula(problem.formula, tables)
    if not weighed or sum(item.mass_g for item in weighed) <= 0:
        raise InputError("The formula has no weighed line yet; there is nothing to balance.", quantity="lines")
    ids = tuple(item.ingredient.id for item in weighed)
    for name in (*problem.locks, *problem.bounds_g):
        if name not in ids:
            raise InputError(f'"{name[:60]}" stands on no line of this formula; lock or bound what is in it.', quantity="lock")
    start_g = np.array([item.mass_g for item in weighed])
    low_g, high_g = np.zeros_like(start_g), HIGHEST_FACTOR * start_g
    for index, item in enumerate(weighed):
        low, high = problem.bounds_g.get(ids[index], (low_g[index], high_g[index]))
        low_g[index] = low if item.line.min_g is None else max(low, item.line.min_g)
        high_g[index] = high if item.line.max_g is None else min(high, item.line.max_g)
        if low_g[index] > high_g[index]:
            raise InputError(f"{ids[index]}: the lower bound {low:g} g is above the upper bound {high:g} g.", quantity="bound")
        if item.line.locked or ids[index] in problem.locks:
            low_g[index] = high_g[index] = start_g[index]
    scales = np.array([max(abs(target.low or 0.0), abs(target.high or 0.0), 1e-3) for target in problem.targets])
    size_g = np.maximum(start_g, 0.01 * start_g.sum())
    task = _Task(problem, tables, ids, start_g, low_g, high_g, size_g, scales)
    unknown = [str(target) for target, value in zip(problem.targets, task.values(start_g), strict=True) if np.isnan(value)]
    if unknown:
        sentence = f'Target "{unknown[0]}" cannot be aimed at: this reading cannot be said for the formula as it is.'
        raise InputError(sentence, quantity="target")
    return task


def _approach(task: _Task, margin: float) -> FloatArray:
    """Linearise, solve, check with the true model; keep a step only if it helps."""
    now, trust = np.clip(task.start_g, task.low_g, task.high_g), FIRST_TRUST
    merit = _merit(task, now, margin)
    for _ in range(ROUNDS):
        step = _linear_step(task, now, trust, margin)
        new_merit = _merit(task, step, margin)
        if new_merit < merit - 1e-9:
            moved = float(np.abs(step - now).max() / task.start_g.sum())
            now, merit = step, new_merit
            if moved < STILL:
                break
        else:
            trust /= 3
            if trust < SMALLEST_TRUST:
                break
    return _restore(task, now, margin)


def _restore(task: _Task, now: FloatArray, margin: float) -> FloatArray:
    """Close what little linearisation left open: a few short steps that count only missed targets."""
    for _ in range(RESTORING_ROUNDS):
        missed = _missed(task, now, margin)
        if missed <= MET_WITHIN:
            break
        step = _linear_step(task, now, RESTORING_TRUST, margin)
        if _missed(task, step, margin) >= missed:
            break
        now = step
    return now


def _missed(task: _Task, mass_g: FloatArray, margin: float) -> float:
    return float(np.nan_to_num(_shortfall(task, task.values(mass_g), margin), nan=10.0).sum())


def _merit(task: _Task, mass_g: FloatArray, margin: float) -> float:
    extra = _extra(task.problem.objective)
    values = task.values(mass_g, extra)
    missed = float(np.nan_to_num(_shortfall(task, values[: len(task.scales)], margin), nan=10.0).sum())
    change = float((np.abs(mass_g - task.start_g) / task.size_g).sum())
    aim = _sign(task.problem.objective) * float(values[-1]) if extra else 0.0
    return ELASTIC_WEIGHT * missed + aim + (CHANGE_TIE_BREAK if extra else 1.0) * change


def _extra(objective: str) -> tuple[str, ...]:
    return {
        "least-change": (),
        "cheapest": ("cost.batch",),
        "gentlest": ("skin.harshness_mg_l",),
        "most-lather": ("lather.score",),
    }[objective]


def _sign(objective: str) -> float:
    return -1.0 if objective == "most-lather" else 1.0


def _shortfall(task: _Task, values: FloatArray, margin: float = 0.0) -> FloatArray:
    """How far each target is missed, against its own size."""
    low, high = _ends(task, margin)
    missed = np.maximum(0.0, np.maximum(low - values, values - high))
    # A scale cannot show the batch any finer than its step.
    shown = np.array([task.problem.step_g if target.reading == "mass_g" else 0.0 for target in task.problem.targets])
    return np.where(missed <= shown + UNMOVED_G, 0.0, missed) / task.scales


def _ends(task: _Task, margin: float) -> tuple[FloatArray, FloatArray]:
    low = np.array([-np.inf if t.low is None else t.low for t in task.problem.targets])
    high = np.array([np.inf if t.high is None else t.high for t in task.problem.targets])
    room = np.where(np.isfinite(high - low), (high - low) / 3, np.inf)
    keep = np.minimum(margin * task.scales, room)
    return low + keep, high - keep


def _linear_step(task: _Task, now: FloatArray, trust: float, margin: float) -> FloatArray:
    from scipy.optimize import linprog  # imported late: it costs half a second that no other reading needs

    extra = _extra(task.problem.objective)
    values = task.values(now, extra)
    slopes = _slopes(task, now, values, extra)
    n, m = now.size, len(task.scales)
    low, high = _ends(task, margin)
    # Variables: increase and decrease of each line against the start, then a slack for each target.
    weight = CHANGE_TIE_BREAK if extra else 1.0
    cost = np.concatenate((weight / task.size_g, weight / task.size_g, ELASTIC_WEIGHT / task.scales))
    if extra:
        aim = _sign(task.problem.objective) * slopes[-1]
        cost[:n] += aim
        cost[n : 2 * n] -= aim
    offset = values[:m] - slopes[:m] @ (now - task.start_g)
    rows, limits = [], []
    for index in range(m):
        slack = np.zeros(m)
        slack[index] = -1.0
        if np.isfinite(high[index]):
            rows.append(np.concatenate((slopes[index], -slopes[index], slack)))
            limits.append(high[index] - offset[index])
        if np.isfinite(low[index]):
            rows.append(np.concatenate((-slopes[index], slopes[index], slack)))
            limits.append(offset[index] - low[index])
    up = np.minimum(task.high_g, now + trust * task.size_g) - task.start_g
    down = np.maximum(task.low_g, now - trust * task.size_g) - task.start_g
    for index in range(n):
        row = np.zeros(2 * n + m)
        row[index], row[n + index] = 1.0, -1.0
        rows += [row, -row]
        limits += [up[index], -down[index]]
    done = linprog(cost, A_ub=np.array(rows), b_ub=np.array(limits), bounds=(0, None), method="highs")
    if done.x is None:
        return now
    moves = np.asarray(done.x, dtype=np.float64)
    return np.clip(task.start_g + moves[:n] - moves[n : 2 * n], task.low_g, task.high_g)


def _slopes(task: _Task, now: FloatArray, values: FloatArray, extra: tuple[str, ...]) -> FloatArray:
    slopes = np.zeros((values.size, now.size))
    nudge = NUDGE * float(now.sum())
    for index in np.flatnonzero(task.high_g > task.low_g):
        moved = now.copy()
        moved[index] += nudge
        slopes[:, index] = np.nan_to_num((task.values(moved, extra) - values) / nudge)
    return slopes


def _round(task: _Task, mass_g: FloatArray) -> FloatArray:
    step = task.problem.step_g
    free = task.high_g > task.low_g
    still = np.abs(mass_g - task.start_g) < step / 2
    rounded = np.round(mass_g / step) * step
    return np.where(free & ~still, np.clip(rounded, np.maximum(0.0, task.low_g), task.high_g), task.start_g)


def _with_masses(formula: Formula, mass_g: FloatArray) -> Formula:
    """Put every known line in grams; shares of portions become weights."""
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


def _value(result: Evaluation, path: str, task: _Task, mass_g: FloatArray) -> float:
    if path.startswith("cost."):
        return _exact_cost(result, path.removeprefix("cost."), task, mass_g)
    found: object = result
    for name in path.split("."):
        found = getattr(found, name, None)
    return float(found) if isinstance(found, int | float) else float("nan")


def _exact_cost(result: Evaluation, name: str, task: _Task, mass_g: FloatArray) -> float:
    """Money unrounded: a derivative of whole cents would be zero or a jump."""
    items = [(task.tables.ingredients[id_], float(mass)) for id_, mass in zip(task.ids, mass_g, strict=True)]
    assumed = result.assumed
    try:
        for item, _mass in items:
            price_per_kg(item, task.tables.price_per_kg)
    except MissingDataError:
        return float("nan")
    cost = formula_cost(items, task.tables.price_per_kg, assumed.piece_mass_g, assumed.dose_g, assumed.loss_fraction)
    money = getattr(cost, name)
    return float("nan") if money is None else float(money)


def _result(task: _Task, mass_g: FloatArray, *, solved: bool) -> BalanceResult:
    before, after = task.evaluation(task.start_g), task.evaluation(mass_g)
    lines = tuple(Change(id_, float(a), float(b)) for id_, a, b in zip(task.ids, task.start_g, mass_g, strict=True))
    values = task.values(mass_g)
    missed = _shortfall(task, values) * task.scales
    conflicts = tuple(
        _conflict(target, float(value), float(by))
        for target, value, by in zip(task.problem.targets, values, missed, strict=True)
        if by > MET_WITHIN * max(1.0, abs(value))
    )
    return BalanceResult(
        status="solved" if solved else "infeasible",
        lines=lines,
        changes=tuple(line for line in lines if abs(line.after_g - line.before_g) > UNMOVED_G),
        readings_before=before,
        readings_after=after,
        conflicts=() if solved else conflicts,
    )


def _conflict(target: Target, value: float, by: float) -> Conflict:
    unit = next((reading.unit for reading in READINGS if reading.id == target.reading), "")
    end = target.low if target.low is not None and value < target.low else target.high
    side = "at least" if end == target.low else "at most"
    message = (
        f"{target.reading} was wanted {side} {end:g}; together with the other wishes and bounds it comes to {value:.3g}, "
        f"so it would have to give {by:.3g} {unit}".rstrip()
        + "."
    )
    return Conflict(str(target), by, unit, message)
