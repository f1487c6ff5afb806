"""Successive linear programs with the true model checked at the end."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from rosy_kettle.core.change.balance.aims import PORTION
from rosy_kettle.core.change.balance.doughs import of_every_dough, told_of_the_whole
from rosy_kettle.core.change.balance.guards import Watch, watch_of
from rosy_kettle.core.change.balance.linear import CHANGE_TIE_BREAK, linear_step
from rosy_kettle.core.change.balance.nudge import nudged
from rosy_kettle.core.change.balance.problem import BalanceProblem, BalanceResult, Target
from rosy_kettle.core.change.balance.result import MET_WITHIN, result_of
from rosy_kettle.core.change.balance.search import Found, search
from rosy_kettle.core.change.balance.task import Point, Task, task_of, unseen
from rosy_kettle.core.change.sense import ANOTHER_FORMULA, moved_share
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.readings.registry import notable
from rosy_kettle.core.records import Tables

__all__ = ["balance"]

ROUNDS = 10
SPARE_LINES = 1  # more lines than targets may move before fewer are looked for
LEFT_BEHIND = 0.10  # of the change: what moves less than this altogether is tried without [-]
LITTLE_DEARER = 1.03  # what fewer lines may cost more [-]
GUARD_ROUNDS = 4  # an answer that breaks a guard is worked out again with it, at most so often
FIRST_TRUST, SMALLEST_TRUST = 1.0, 0.003  # how far a line may move in one round, against its own size [-]
RESTORING_ROUNDS, RESTORING_TRUST = 4, 0.3
TIGHTENING_TRUSTS = (0.3, 0.05, 0.01)  # how far lines may move to take a little in hand [-]
MOST_CUTS, CUTS_BEFORE_SHRINKING = 4, 2  # rejected points remembered; how many before the reach is shortened
SURE_OF_BAND = 0.1  # of a band, where nothing says how sure its reading is [-]
STILL = 1e-5  # a round that moves less than this share of the batch changes nothing [-]
DIGITS = 9  # of a gram, so that 28.7 is 28.7
OUT_OF_REACH = 0.01  # missed by more than this of its size before rounding, a target is not met by a margin [-]
NEARLY = 0.005  # missed by less than this of its size, a step of the scale may still meet it [-]
FIRM = 100.0  # a hard guard beside an impossible wish, against its usual weight [-]
MARGINS = (0.004, 0.015)  # of a target's size kept in hand, so that rounding to the scale cannot undo it [-]


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
        solved, another-formula, or infeasible with the targets in conflict; always evaluated with the true model after rounding

    Raises
    ------
    InputError
        If the objective is unknown, a bound is crossed, or a targeted reading cannot be said for this formula.
    """
    return told_of_the_whole(_balanced(of_every_dough(problem, tables), tables))


def _balanced(problem: BalanceProblem, tables: Tables) -> BalanceResult:
    task = task_of(problem, tables)
    items = [tables.ingredients[name] for name in task.ids]
    watch = watch_of(problem, tables, items, task.before_g)
    loose = _keeping(task, watch.of_any_size())
    if loose.found.met:
        kept = _of_its_size(loose, watch)
        if kept is None:
            return result_of(loose.task, loose.found.mass_g, loose.found.last, met=True, of_any_size=True)
        kept = _well_inside(kept, watch)
        found = _fewer(kept.task, kept.found)
        return result_of(kept.task, found.mass_g, found.last, met=True)
    task = task_of(problem, tables, tuple(dict.fromkeys((*loose.task.guards, *watch.hard))))
    found, complete = search(task, _solve(task), _solve)
    if not found.met and problem.guarded:
        found = _of_the_same_formula(task, found)
    return result_of(task, found.mass_g, found.last, met=found.met, complete=complete)


def _of_its_size(loose: _Kept, watch: Watch) -> _Kept | None:
    """Give an answer that keeps the batch's size: the one that was found, or another; None where only another size meets it."""
    if not any(guard.hard and guard not in loose.task.guards for guard in watch.broken(loose.found.mass_g)):
        return loose
    kept = _keeping(task_of(loose.task.problem, loose.task.tables, loose.task.guards), watch)
    return kept if kept.found.met else None


def _well_inside(kept: _Kept, watch: Watch) -> _Kept:
    """Give an answer inside the wanted bands, not on their edge, where that is the same formula still."""
    task, count = kept.task, len(kept.task.problem.targets)
    room = np.array([_inset(target) for target in task.problem.targets] + [0.0] * len(task.guards))
    values = task.values(kept.found.mass_g)
    on_edge = bool(np.any((values < task.low + room)[:count] | (values > task.high - room)[:count]))
    if task.problem.objective != "least-change" or not task.problem.guarded or not on_edge:
        return kept
    found = _solve(replace(task, low=task.low + room, high=task.high - room), kept.found.mass_g)
    inside = found.met and moved_share(task.start_g, found.mass_g) <= ANOTHER_FORMULA and not watch.broken(found.mass_g)
    return _Kept(task, found) if inside else kept


def _inset(target: Target) -> float:
    """How far inside a band its reading is surely in it: a change that is noticed, at most a quarter of the band."""
    if target.low is None or target.high is None or target.reading == "mass_g":
        return 0.0
    width = target.high - target.low
    return min(notable(target.reading.partition(PORTION)[0], width * SURE_OF_BAND), width / 4)


def _of_the_same_formula(task: Task, found: Found) -> Found:
    """Give the nearest answer that is still the same formula, looked for from the formula and from the nearest of all.

    No wish, however far it is missed, buys what a maker never does: the guards weigh more here than any wish can.
    """
    moved = moved_share(task.start_g, found.mass_g)
    guards = np.arange(task.scales.size) >= len(task.problem.targets)
    near = replace(
        task, elastic=np.where(guards & task.hard, FIRM * task.elastic, task.elastic),
        most_moved_g=ANOTHER_FORMULA * float(task.start_g.sum()),
    )  # fmt: skip
    kept = float(task.shortfall(task.values(found.mass_g))[guards & task.hard].max(initial=0.0)) <= OUT_OF_REACH
    if kept and moved <= ANOTHER_FORMULA:
        return found
    far_g = task.start_g + min(1.0, ANOTHER_FORMULA / max(moved, ANOTHER_FORMULA)) * (found.mass_g - task.start_g)
    return min(
        (_solve(near, far_g), _solve(near)), key=lambda each: float(near.elastic @ near.shortfall(near.values(each.mass_g)))
    )


@dataclass(frozen=True, slots=True)
class _Kept:
    """An answer, and the problem with the guards it came up against."""

    task: Task
    found: Found


def _keeping(task: Task, watch: Watch) -> _Kept:
    """Solve, and again with every guard that the answer breaks."""
    found = _solve(task)
    for _ in range(GUARD_ROUNDS):
        broken = [guard for guard in watch.broken(found.mass_g) if guard not in task.guards]
        if not broken:
            break
        task = task_of(task.problem, task.tables, (*task.guards, *broken))
        found = _solve(task)
    kept = not any(guard.hard and guard not in task.guards for guard in watch.broken(found.mass_g))
    return _Kept(task, replace(found, met=found.met and kept))


def _fewer(task: Task, found: Found) -> Found:
    """Give the answer with fewer lines moved where that costs next to nothing: small moves are what steps left behind."""
    moved = np.abs(found.mass_g - task.start_g) > task.problem.step_g / 2
    allowed = len(task.problem.targets) + max(SPARE_LINES, sum(guard.hard for guard in task.guards))
    if task.chases or moved.sum() <= allowed:
        return found
    moves = found.mass_g - task.start_g
    weight = np.where(moves > 0, task.up_cost, -task.down_cost) * moves
    order = np.argsort(-weight)
    left = 1 - np.cumsum(weight[order]) / weight.sum()
    count = max(allowed, int(np.argmax(left < LEFT_BEHIND)) + 1)
    ends = np.minimum(found.mass_g - task.low_g, task.high_g - found.mass_g) < task.problem.step_g
    if count >= moved.sum() or (moved & ends).sum() > allowed:
        return found  # what had to run to its end is not what steps left behind
    dearest = LITTLE_DEARER * _merit(task, task.look(found.mass_g), 0.0)
    for lines in range(allowed, count + 1):
        other = _of_lines(task, found, order[:lines])
        if other.met and _merit(task, task.look(other.mass_g), 0.0) <= dearest:
            return other
    return found


def _of_lines(task: Task, found: Found, lines: np.ndarray) -> Found:
    """Solve again with some lines alone; where that misses by next to nothing, a step of the scale may still meet it."""
    fixed = np.ones(task.start_g.size, dtype=bool)
    fixed[lines] = False
    still = np.clip(task.start_g, task.low_g, task.high_g)
    narrow = replace(task, low_g=np.where(fixed, still, task.low_g), high_g=np.where(fixed, still, task.high_g))
    other = _solve(narrow, found.mass_g)
    if other.met or other.missed > NEARLY:
        return other
    narrow = replace(narrow, slack_g=unseen(narrow, other.last))
    near_g = nudged(narrow, other.mass_g)
    missed = narrow.hard_shortfall(narrow.values(near_g))
    return Found(near_g, other.last, missed, met=bool(missed <= MET_WITHIN))


def _solve(task: Task, begin_g: FloatArray | None = None) -> Found:
    """Approach from one place, round to the scale, and take a little in hand where rounding undoes a target."""
    begin = task.start_g if begin_g is None else begin_g
    start = task.look(np.clip(begin, task.low_g, task.high_g))
    best, missed = start.mass_g, np.inf
    last = _approach(task, start, 0.0)
    task = replace(task, slack_g=unseen(task, last))
    for margin in (0.0, *MARGINS):
        if margin:
            last = _tighten(task, last, margin)
        rounded = _round(task, last.mass_g)
        shortfall = task.hard_shortfall(task.values(rounded))
        if shortfall < missed:
            best, missed = rounded, shortfall
        if missed <= MET_WITHIN or task.hard_shortfall(last.values) > OUT_OF_REACH:
            break  # met after rounding, or out of reach even before it
    return Found(best, last, missed, met=bool(missed <= MET_WITHIN))


def _approach(task: Task, start: Point, margin: float) -> Point:
    """Linearise, solve, check with the true model; keep a step only if it helps."""
    now, trust, cuts = start, FIRST_TRUST, list[Point]()
    merit = _merit(task, now, margin)
    for _ in range(ROUNDS):
        step = task.look(linear_step(task, now, trust, margin, cuts=cuts).mass_g)
        moved = float(np.abs(step.mass_g - now.mass_g).max() / task.start_g.sum())
        new_merit = _merit(task, step, margin)
        if new_merit < merit - 1e-9:
            now, merit, cuts = step, new_merit, []
        elif moved >= STILL:
            # A kink lies between: look at it from the far side too, before reaching less far. Smooth bends need no such
            # memory, and it would hold them back, so it ends with the next step that helps.
            trust = trust if len(cuts) % CUTS_BEFORE_SHRINKING else trust / 3
            cuts = [*cuts, step][-MOST_CUTS:]
        if moved < STILL or trust < SMALLEST_TRUST:
            break
    return _restore(task, now, margin, cuts)


def _restore(task: Task, now: Point, margin: float, cuts: Sequence[Point] = ()) -> Point:
    """Close what little linearisation left open: a few short steps that count only missed targets."""
    for _ in range(RESTORING_ROUNDS):
        missed = _open(task, now, margin)
        if missed <= MET_WITHIN:
            break
        step = task.look(linear_step(task, now, RESTORING_TRUST, margin, cuts=cuts).mass_g)
        if _open(task, step, margin) >= missed:
            break
        now = step
    return now


def _open(task: Task, point: Point, margin: float) -> float:
    """Sum of what the targets and guards still miss, each against its own size [-]."""
    return float(task.shortfall(point.values, margin)[task.hard].sum())


def _tighten(task: Task, now: Point, margin: float) -> Point:
    """Take a little in hand. On a kink a long step falls off to the other side, so shorter ones are tried after it."""
    best, missed = now, np.inf
    for trust in TIGHTENING_TRUSTS:
        point = _restore(task, task.look(linear_step(task, now, trust, margin).mass_g), margin)
        shortfall = task.hard_shortfall(task.values(_round(task, point.mass_g)))
        if shortfall < missed:
            best, missed = point, shortfall
        if missed <= MET_WITHIN:
            break
    return best


def _merit(task: Task, point: Point, margin: float) -> float:
    missed = float(task.elastic @ task.shortfall(point.values, margin))
    aim = task.sign * float(point.values[-1]) if task.chases else 0.0
    return missed + aim + (CHANGE_TIE_BREAK if task.chases else 1.0) * task.change(point.mass_g)


def _round(task: Task, mass_g: FloatArray) -> FloatArray:
    """Round what moved to what the scale can show; a move smaller than half its step is none."""
    step = task.problem.step_g
    free = task.high_g > task.low_g
    still = np.abs(mass_g - task.start_g) < step / 2
    rounded = np.clip(np.round(np.round(mass_g / step) * step, DIGITS), np.maximum(0.0, task.low_g), task.high_g)
    return np.where(free & ~still, rounded, np.where(free, task.start_g, task.low_g))
