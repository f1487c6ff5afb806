"""One linear program of the balancer (HiGHS through scipy)."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.change.balance.task import Point, Task
from rosy_kettle.core.mixing.palette import BoolArray, FloatArray

__all__ = ["Step", "linear_step"]

CHANGE_TIE_BREAK = 1e-3  # weight of least change beside another objective [-]


@dataclass(frozen=True, slots=True)
class Step:
    """The answer of one linear program: new masses, and what each target and bound costs."""

    mass_g: FloatArray
    pull_low: FloatArray
    """How hard the lower end of each target pulls, shape (m,) [objective per unit]."""
    pull_high: FloatArray


def linear_step(
    task: Task, now: Point, trust: float, margin: float,
    ends: tuple[FloatArray, FloatArray] | None = None, cuts: Sequence[Point] = (),
) -> Step:  # fmt: skip
    """Return the best point of the linearised problem within reach.

    Parameters
    ----------
    task : Task
        Lines, bounds, bands
    now : Point
        Where the slopes were taken
    trust : float
        How far a line may move against its own size [-]
    margin : float
        How far bands are drawn in against each target's size [-]
    ends : tuple or None
        Other ends of the bands, in place of the task's [each its own unit]
    cuts : Sequence
        Points that were tried in vain; where one missed a target, its own slopes bind that target too, so that a kink
        is seen from both of its sides

    Returns
    -------
    Step
        Masses [g] and how hard each end pulls

    Notes
    -----
    Variables are the increase and the decrease of each line against the start, and a slack for each target.
    """
    from scipy.optimize import linprog  # imported late: it costs half a second that no other reading needs

    n, m = now.mass_g.size, task.scales.size
    low, high = task.ends(margin) if ends is None else ends
    slopes = np.nan_to_num(now.slopes)
    weight = CHANGE_TIE_BREAK if task.chases else 1.0
    cost = np.concatenate((weight * task.up_cost, weight * task.down_cost, task.elastic / task.scales))
    if task.chases:
        cost[:n] += task.sign * slopes[-1]
        cost[n : 2 * n] -= task.sign * slopes[-1]
    above, below = np.isfinite(high), np.isfinite(low)
    blocks = [_rows(task, now, low, high, above, below)]
    if math.isfinite(task.most_moved_g):
        both = np.kron(np.eye(2), np.ones(n))  # what goes in, and what comes out
        blocks.append((np.hstack((both, np.zeros((2, m)))), np.full(2, task.most_moved_g)))
    blocks += [_rows(task, cut, low, high, cut.values[:m] > high, cut.values[:m] < low) for cut in cuts]
    rows, limits = np.vstack([block[0] for block in blocks]), np.concatenate([block[1] for block in blocks])
    up = np.minimum(task.high_g, now.mass_g + trust * task.size_g) - task.start_g
    down = np.maximum(task.low_g, now.mass_g - trust * task.size_g) - task.start_g
    bounds = np.zeros((2 * n + m, 2))
    bounds[:n] = np.column_stack((np.maximum(0.0, down), np.maximum(0.0, up)))
    bounds[n : 2 * n] = np.column_stack((np.maximum(0.0, -up), np.maximum(0.0, -down)))
    bounds[2 * n :, 1] = np.inf
    done = linprog(cost, A_ub=rows, b_ub=limits, bounds=bounds, method="highs")
    pull_high, pull_low = np.zeros(m), np.zeros(m)
    if done.x is None:
        return Step(now.mass_g, pull_low, pull_high)
    marginals = -np.asarray(done.ineqlin.marginals, dtype=np.float64)
    own = int(above.sum() + below.sum())
    pull_high[above], pull_low[below] = marginals[: above.sum()], marginals[above.sum() : own]
    moves = np.asarray(done.x, dtype=np.float64)
    return Step(np.clip(task.start_g + moves[:n] - moves[n : 2 * n], task.low_g, task.high_g), pull_low, pull_high)


def _rows(
    task: Task, at: Point, low: FloatArray, high: FloatArray, above: BoolArray, below: BoolArray
) -> tuple[FloatArray, FloatArray]:
    """Rows of the program that keep chosen targets under their upper and over their lower ends, seen from one point."""
    m = task.scales.size
    slopes = np.nan_to_num(at.slopes[:m])
    offset = np.nan_to_num(at.values[:m]) - slopes @ (at.mass_g - task.start_g)
    plain = np.hstack((slopes, -slopes))
    slack = -np.eye(m)
    rows = np.vstack((np.hstack((plain, slack))[above], np.hstack((-plain, slack))[below]))
    return rows, np.concatenate(((high - offset)[above], (offset - low)[below]))
