"""A week of batches: a first plan at once by taking the most urgent first, a better one by a mixed-integer program.

HiGHS through scipy is the solver: it ships with what the project has already, gives a bound and thus a gap, and a week of a dozen
batches on a grid of hours is small for it; a constraint solver would be faster on larger ones and brings 160 MB.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

import numpy as np

from rosy_kettle.core.making.week.jobs import DAY_H, EVENING_FROM_MIN, Job, Workshop, feasible_starts, limit_of, uses_of

if TYPE_CHECKING:
    from scipy.optimize import LinearConstraint

__all__ = ["Unmade", "WeekPlan", "better_week", "cost_of_week", "first_week"]

UNMADE = 10_000.0  # of the objective: one batch not made outweighs anything else [-]
EVENING = 10.0  # an hour of hands after six in the evening [-]
LATER = 0.01  # each hour later, so that of equal plans the earlier is taken [-]
MOST_TRAYS_MORE, MOST_DAYS_MORE = 12, 7


@dataclass(frozen=True, slots=True)
class Unmade:
    """A batch that finds no place, and what would give it one."""

    job: str
    why: str


@dataclass(frozen=True, slots=True)
class WeekPlan:
    """Starts of the batches."""

    starts: Mapping[str, int]
    """Hour from the beginning of the week, by batch [h]."""
    unmade: tuple[Unmade, ...]
    cost: float
    """Of the objective; less is better [-]."""
    gap: float | None
    """How far it may be from the best there is, as a share of it; 0 is proven best, None where it was not asked [-]."""


def cost_of_start(job: Job, start: int, shop: Workshop) -> float:
    """Return what a start costs in the objective.

    Parameters
    ----------
    job : Job
        The batch
    start : int
        Hour from the beginning of the week [h]
    shop : Workshop
        What there is, with its clock

    Returns
    -------
    float
        Evening hours weigh a thousand times an hour later [-]
    """
    evening = sum(shop.shown_at(start + hour).minute >= EVENING_FROM_MIN for hour in range(job.hands_h))
    return EVENING * evening + LATER * start


def cost_of_week(jobs: Sequence[Job], starts: Mapping[str, int], shop: Workshop) -> float:
    """Return what a whole week costs in the objective.

    Parameters
    ----------
    jobs : Sequence
        The batches
    starts : Mapping
        Hour each begins in; one that is left out is not made [h]
    shop : Workshop
        What there is, with its clock

    Returns
    -------
    float
        The sum over all batches [-]
    """
    return sum(cost_of_start(job, starts[job.id], shop) if job.id in starts else UNMADE for job in jobs)


def first_week(jobs: Sequence[Job], shop: Workshop) -> WeekPlan:
    """Return a plan at once: fixed batches first, then the most urgent, each at its cheapest hour that is free.

    Parameters
    ----------
    jobs : Sequence
        The batches
    shop : Workshop
        What there is

    Returns
    -------
    WeekPlan
        Without a gap

    Raises
    ------
    InputError
        If the workshop is never open.
    """
    starts: dict[str, int] = {}
    taken: dict[tuple[str, int], int] = {}
    last = shop.hours
    for job in sorted(jobs, key=lambda job: (job.fixed_h is None, job.due_h or last, -job.dry_h, job.id)):
        free = [start for start in feasible_starts(job, shop) if job.fixed_h is not None or _fits(job, start, taken, shop)]
        if free:
            starts[job.id] = min(free, key=lambda start: cost_of_start(job, start, shop))
            for key, count in uses_of(job, starts[job.id]).items():
                taken[key] = taken.get(key, 0) + count
    return _plan(jobs, starts, shop, None)


def better_week(jobs: Sequence[Job], shop: Workshop, seconds: float, first: WeekPlan | None = None) -> WeekPlan:
    """Return the best plan that is found in a time, never worse than the first one.

    Parameters
    ----------
    jobs : Sequence
        The batches
    shop : Workshop
        What there is
    seconds : float
        How long may be searched [s]
    first : WeekPlan or None
        A plan that is there already

    Returns
    -------
    WeekPlan
        With the gap to the best bound that is known

    Raises
    ------
    InputError
        If the workshop is never open.
    """
    first = first or first_week(jobs, shop)
    choices = [(job, start) for job in jobs for start in feasible_starts(job, shop)]
    if not choices:
        return replace(first, gap=0.0)
    gains = np.array([cost_of_start(job, start, shop) - UNMADE for job, start in choices])
    from scipy.optimize import Bounds, milp  # here: scipy takes a third of a second that starting does not need

    found = milp(
        gains, integrality=np.ones(len(choices)), bounds=Bounds(0, 1), constraints=_constraints(choices, shop),
        options={"time_limit": seconds, "mip_rel_gap": 1e-9},
    )  # fmt: skip
    if found.x is None:
        return first
    starts = {job.id: start for (job, start), taken in zip(choices, found.x, strict=True) if taken > 0.5}  # noqa: PLR2004 - a binary
    if cost_of_week(jobs, starts, shop) > cost_of_week(jobs, first.starts, shop) + 1e-9:
        starts = dict(first.starts)
    gap = None if found.mip_dual_bound is None else _gap(jobs, starts, shop, float(found.mip_dual_bound))
    return _plan(jobs, starts, shop, gap)


def _gap(jobs: Sequence[Job], starts: Mapping[str, int], shop: Workshop, bound: float) -> float:
    cost = cost_of_week(jobs, starts, shop)
    least = bound + UNMADE * len(jobs)
    return max(0.0, (cost - least) / max(abs(cost), 1.0))


def _constraints(choices: Sequence[tuple[Job, int]], shop: Workshop) -> list[LinearConstraint]:
    """Every batch at most once; in every hour no more of anything than there is."""
    rows: dict[tuple[str, int], dict[int, int]] = {}
    for column, (job, start) in enumerate(choices):
        rows.setdefault((f"once {job.id}", 0), {})[column] = 1
        for key, count in uses_of(job, start).items():
            rows.setdefault(key, {})[column] = count
    limits = [1 if what.startswith("once ") else limit_of(shop, what, hour) for what, hour in rows]
    kept = [(columns, limit) for columns, limit in zip(rows.values(), limits, strict=True) if limit is not None]
    binding = [(columns, limit) for columns, limit in dict.fromkeys((tuple(sorted(c.items())), limit) for c, limit in kept)]
    data, row_at, column_at = [], [], []
    for row, (columns, _limit) in enumerate(binding):
        for column, count in columns:
            data.append(float(count))
            row_at.append(row)
            column_at.append(column)
    from scipy.optimize import LinearConstraint
    from scipy.sparse import csr_array  # here: scipy takes a third of a second that starting does not need

    matrix = csr_array((data, (row_at, column_at)), shape=(len(binding), len(choices)))
    return [LinearConstraint(matrix, ub=np.array([limit for _columns, limit in binding], dtype=float))]


def _fits(job: Job, start: int, taken: Mapping[tuple[str, int], int], shop: Workshop) -> bool:
    for (what, hour), count in uses_of(job, start).items():
        limit = limit_of(shop, what, hour)
        if limit is not None and taken.get((what, hour), 0) + count > limit:
            return False
    return True


def _plan(jobs: Sequence[Job], starts: Mapping[str, int], shop: Workshop, gap: float | None) -> WeekPlan:
    taken: dict[tuple[str, int], int] = {}
    for job in jobs:
        if job.id in starts:
            for key, count in uses_of(job, starts[job.id]).items():
                taken[key] = taken.get(key, 0) + count
    unmade = tuple(Unmade(job.id, _why(job, taken, shop)) for job in jobs if job.id not in starts)
    return WeekPlan(starts, unmade, cost_of_week(jobs, starts, shop), gap)


def _why(job: Job, taken: Mapping[tuple[str, int], int], shop: Workshop) -> str:
    """Say the smallest single thing that would give a batch its place while the others keep theirs."""
    if job.hands_h > _longest_day(shop):
        return f"it takes {job.hands_h} hours of hands in one go, and no day of the workshop is so long"
    due = "" if job.due_h is None else " by its day"
    for more in range(1, MOST_TRAYS_MORE + 1):
        if _free(job, taken, replace(shop, trays_free=[each + more for each in shop.trays_free])):
            return f"the rack is full{_until(job, taken, shop)}; {more} {'tray' if more == 1 else 'trays'} more would do"
    if _free(job, taken, replace(shop, hands=shop.hands + 1, bowls=shop.bowls + 1)):
        return f"no hands are free long enough{due}; one more pair would do"
    for tool, count in job.moulds.items():
        counted = shop.moulds.get(tool)
        if counted is not None and _free(job, taken, replace(shop, moulds={**shop.moulds, tool: counted + count})):
            return f"the moulds are all full; {count} more of {tool} would do"
    if job.due_h is not None:
        for days in range(1, MOST_DAYS_MORE + 1):
            if _free(replace(job, due_h=job.due_h + DAY_H * days), taken, shop):
                return f"it is not dry in time; {days} {'day' if days == 1 else 'days'} later would do"
    return "more than one thing stands against it: fewer pieces, a longer week, or more trays and hands"


def _longest_day(shop: Workshop) -> int:
    longest = run = 0
    before = None
    for hour in sorted(shop.open_h):
        goes_on = before is not None and hour == before + 1 and shop.shown_at(hour).day == shop.shown_at(before).day
        run = run + 1 if goes_on else 1
        longest, before = max(longest, run), hour
    return longest


def _until(job: Job, taken: Mapping[tuple[str, int], int], shop: Workshop) -> str:
    """Until which hour of the week so many trays are never free together; empty where they are free at once."""
    full = [hour for hour in range(shop.hours) if taken.get(("trays", hour), 0) + job.trays > shop.trays_free[hour]]
    return f" until hour {full[-1] + 1}" if full else ""


def _free(job: Job, taken: Mapping[tuple[str, int], int], shop: Workshop) -> bool:
    return any(_fits(job, start, taken, shop) for start in feasible_starts(job, shop))
