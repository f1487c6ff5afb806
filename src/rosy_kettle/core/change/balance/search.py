"""Looks elsewhere before a wish is called out of reach: other starts, then a global search, within a budget of looks."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import product

import numpy as np

from rosy_kettle.core.change.balance.task import Point, Task
from rosy_kettle.core.mixing.palette import FloatArray

__all__ = ["Found", "search"]

RESTARTS = 3  # other starts that are tried
CORNERS, MOST_KINDS = 4, 5  # starts that are taken from the corners, and kinds of ingredient that are moved together
KINDS = {
    "butter": "fat", "wax": "fat", "oil": "fat", "emulsifier": "fat", "base": "base", "acid": "acid", "surfactant": "surfactant",
    "humectant": "wetter", "binder": "wetter",
}  # fmt: skip
"""Which kind a role moves with; the rest are powders that harden and fill."""
LOOKS = 900  # formulas the global search may look at, about a second; what is not found by then is said not to be found
EVOLVING = 12  # members for every free line
SEED = 20  # the same question gets the same answer
CHANGE_COUNTS = 1e-3  # of the change beside what is missed, while evolving [-]


@dataclass(frozen=True, slots=True)
class Found:
    """Rounded masses, the unrounded point they come from with its slopes, and how far the worst target is missed."""

    mass_g: FloatArray
    last: Point
    missed: float
    met: bool


def search(task: Task, first: Found, solve: Callable[[Task, FloatArray], Found]) -> tuple[Found, bool]:
    """Return the best answer from other starts, and whether the search was complete within its budget.

    Parameters
    ----------
    task : Task
        Lines, bounds, bands
    first : Found
        The answer from the formula as it is, which misses a target
    solve : Callable
        Solves from given masses [g]

    Returns
    -------
    tuple
        The nearest answer found, and False where the budget ran out before the search had settled
    """
    best = first
    free = np.flatnonzero(task.high_g > task.low_g)
    if not free.size:
        return best, True
    for begin in (*_corners(task), *_anywhere(task, free)):
        best = _better(best, solve(task, begin))
        if best.met:
            return best, True
    evolved, settled = _evolve(task, best, free)
    best = _better(best, solve(task, evolved))
    return best, settled


def _corners(task: Task) -> list[FloatArray]:
    """Return the most promising starts with kinds of ingredient at their least, as they are, or at their most.

    Fats low and powders high is another valley than fats high and powders low, and steps do not cross from one to the other.
    """
    kinds = [KINDS.get(task.tables.ingredients[name].role, "rest") for name in task.ids]
    names = sorted({kind for kind, low, high in zip(kinds, task.low_g, task.high_g, strict=True) if high > low})[:MOST_KINDS]
    levels = (task.low_g, np.clip(task.start_g, task.low_g, task.high_g), task.high_g)
    tried: list[tuple[float, int, FloatArray]] = []
    for choice in product(range(len(levels)), repeat=len(names)):
        level = dict(zip(names, choice, strict=True))
        begin = np.array([levels[level.get(kind, 1)][line] for line, kind in enumerate(kinds)])
        missed = float(task.shortfall(task.values(begin))[task.hard].sum())
        tried.append((missed, len(tried), begin))
    return [begin for _missed, _order, begin in sorted(tried, key=lambda each: each[:2])[:CORNERS]]


def _anywhere(task: Task, free: np.ndarray) -> Iterator[FloatArray]:
    """Give starts spread at random, evenly in the logarithm of every free line."""
    dice = np.random.default_rng(SEED)
    low, high = np.maximum(task.low_g[free], 1e-3 * task.size_g[free]), np.maximum(task.high_g[free], 1e-3 * task.size_g[free])
    for _ in range(RESTARTS):
        begin = task.start_g.copy()
        begin[free] = low * (high / low) ** dice.random(free.size)
        yield begin


def _better(one: Found, other: Found) -> Found:
    return other if other.missed < one.missed else one


def _evolve(task: Task, best: Found, free: np.ndarray) -> tuple[FloatArray, bool]:
    """Differential evolution of what is missed; True where the population had settled within its budget."""
    from scipy.optimize import differential_evolution  # imported late: it costs half a second that no other reading needs

    def place(shares: FloatArray) -> FloatArray:
        mass_g = best.mass_g.copy()
        mass_g[free] = task.low_g[free] + shares * (task.high_g[free] - task.low_g[free])
        return mass_g

    def missed(shares: FloatArray) -> float:
        mass_g = place(shares)
        return float(task.shortfall(task.values(mass_g))[task.hard].sum()) + CHANGE_COUNTS * task.change(mass_g)

    reach = task.high_g[free] - task.low_g[free]
    begin = np.clip((best.mass_g[free] - task.low_g[free]) / reach, 0.0, 1.0)
    members = max(2, EVOLVING // max(1, free.size // 4))
    done = differential_evolution(
        missed, [(0.0, 1.0)] * free.size, x0=begin, popsize=members, seed=SEED, polish=False, tol=1e-3,
        maxiter=max(1, LOOKS // (members * free.size) - 1),
    )  # fmt: skip
    return place(np.asarray(done.x)), bool(done.success)
