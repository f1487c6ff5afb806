"""What comes nearest to an impossible wish, against a global search (differential evolution, SciPy) with the same maker's sense."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.optimize import differential_evolution

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.change.balance.guards import watch_of
from rosy_kettle.core.change.balance.task import Task, task_of
from rosy_kettle.core.change.sense import ANOTHER_FORMULA, moved_share
from rosy_kettle.core.records import Formula, Tables
from tests.conftest import make_formula

NEAR = 1.2  # of the miss the global search finds, as is asked of the nearest answer [-]
GENERATIONS = 30
BAR = make_formula(
    "glycerin-dough",
    baking_soda=280,
    cream_of_tartar=110,
    slsa_fine=70,
    sci_powder=30,
    tapioca_starch=50,
    glycerin=60,
    cocoa_butter=15,
)
MELT = make_formula("melt", cocoa_butter=60, mango_butter=40, avocado_oil=20, emulsifying_wax=8)
BALL = make_formula(
    "damp-press",
    baking_soda=400,
    citric_acid_anhydrous=200,
    corn_starch=40,
    kaolin=10,
    apricot_kernel_oil=18,
    isopropyl_alcohol_91=8,
)
BUTTER_BAR = make_formula(
    "butter-dough", baking_soda=240, citric_acid_anhydrous=80, slsa_fine=60, corn_starch=50, cocoa_butter=60, shea_butter=30
)


def kept_task(formula: Formula, wish: str, tables: Tables) -> Task:
    """The wish with every hard guard as an end of its own."""
    problem = BalanceProblem(formula, (parse_target(wish),))
    bare = task_of(problem, tables)
    return task_of(
        problem, tables, watch_of(problem, tables, [tables.ingredients[name] for name in bare.ids], bare.before_g).hard
    )


def searched(task: Task) -> float:
    """The least miss of the wish that the search finds among formulas that keep a maker's sense."""
    free = np.flatnonzero(task.high_g > task.low_g)
    reach = task.high_g[free] - task.low_g[free]

    def cost(shares: np.ndarray) -> float:
        mass_g = task.start_g.copy()
        mass_g[free] = task.low_g[free] + shares * reach
        missed = task.shortfall(task.values(mass_g))
        return float(missed[0] + 10 * missed[1:].sum() + 10 * max(0.0, moved_share(task.start_g, mass_g) - ANOTHER_FORMULA))

    begin = np.clip((task.start_g[free] - task.low_g[free]) / reach, 0, 1)
    return float(
        differential_evolution(
            cost, [(0, 1)] * free.size, x0=begin, popsize=8, seed=1, maxiter=GENERATIONS, polish=False, tol=1e-6
        ).fun
    )


@pytest.mark.parametrize(
    ("formula", "wish"),
    [
        (BAR, "cost.piece<=0.15"), (MELT, "release.minutes<=4"), (BALL, "firmness.at_20_c>=85"), (BUTTER_BAR, "feel.ring<=10"),
    ],
    ids=["a bar for next to nothing", "a melt that is gone at once", "a ball as hard as a stone", "butter without a ring"],
)  # fmt: skip
def test_the_nearest_answer_is_near_the_best_and_keeps_the_sense(formula: Formula, wish: str, tables: Tables) -> None:
    result = balance(BalanceProblem(formula, (parse_target(wish),)), tables)
    assert result.status == "infeasible"
    task = kept_task(formula, wish, tables)
    after_g = np.array([line.after_g for line in result.lines])
    missed = task.shortfall(task.values(after_g))
    assert missed[1:].max() <= 5e-3, "no wish, however far, buys what a maker never does"
    assert moved_share(task.start_g, after_g) <= ANOTHER_FORMULA + 0.005
    assert missed[0] <= NEAR * searched(task) + 0.002
