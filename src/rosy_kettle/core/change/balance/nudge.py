"""A step of the scale here and there, where an answer of few lines misses by next to nothing after rounding."""

from __future__ import annotations

from itertools import combinations

import numpy as np

from rosy_kettle.core.change.balance.task import Task
from rosy_kettle.core.mixing.palette import FloatArray

__all__ = ["nudged"]

MOST_NUDGES = 20
MOST_LINES = 5  # of more lines the neighbours are too many to look at


def nudged(task: Task, mass_g: FloatArray) -> FloatArray:
    """Return masses on the scale's steps that miss less, one step of one or two lines at a time; what they were where none does.

    Parameters
    ----------
    task : Task
        Lines, bounds, bands
    mass_g : FloatArray
        Rounded masses, shape (n,) [g]

    Returns
    -------
    FloatArray
        Shape (n,) [g]
    """
    free = np.flatnonzero(task.high_g > task.low_g)
    now, missed = mass_g, task.hard_shortfall(task.values(mass_g))
    for _ in range(MOST_NUDGES if free.size <= MOST_LINES else 0):
        if missed <= 0:
            break
        tried = [(task.hard_shortfall(task.values(each)), index, each) for index, each in enumerate(_neighbours(task, now, free))]
        if not tried or min(each[0] for each in tried) >= missed:
            break
        missed, _index, now = min(tried, key=lambda each: each[:2])
    return now


def _neighbours(task: Task, mass_g: FloatArray, free: np.ndarray) -> list[FloatArray]:
    """Give the masses with one line a step more or less, and with two."""
    step = task.problem.step_g
    moves = [{int(line): sign * step} for line in free for sign in (1, -1)]
    moves += [
        {int(one): a * step, int(other): b * step} for one, other in combinations(free, 2) for a in (1, -1) for b in (1, -1)
    ]  # fmt: skip
    found = []
    for move in moves:
        near = mass_g.copy()
        for line, by_g in move.items():
            near[line] = round(near[line] + by_g, 9)
        if np.all(near >= task.low_g - 1e-9) and np.all(near <= task.high_g + 1e-9):
            found.append(near)
    return found
