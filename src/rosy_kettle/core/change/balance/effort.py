"""What a change costs in the eyes of a maker: which lines are moved first, which are held, how far each may go."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from rosy_kettle.core.amounts import Weighed
from rosy_kettle.core.change.balance.problem import BalanceProblem
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.records import Ingredient, Method

__all__ = ["HELD_ROLES", "binder_ceiling_g", "binds", "bounds_of", "dearness", "is_fixed", "is_held"]

HELD_ROLES = frozenset({"fragrance", "colorant", "preservative", "decoration"})
"""Roles that stay as they are unless freed: they are there for their own sake, not for the dough's."""
LEAST_FACTOR, HIGHEST_FACTOR = 0.25, 4.0  # how far a line may shrink and grow unless bounds say otherwise [-]
LEAST_BESIDE_LOCKED = 0.5  # a locked line makes no other line halve [-]; common practice
CHASING_FACTORS = (0.5, 2.0)  # the same where an objective chases a reading and would never stop by itself [-]
ADDING = {
    "base": 1.0, "starch": 1.0, "surfactant": 1.3, "humectant": 1.0, "binder": 1.2, "oil": 1.2, "emulsifier": 1.0, "clay": 1.2,
    "butter": 1.2, "wax": 1.4, "acid": 1.2, "milk": 1.6, "salt": 2.0, "additive": 1.6,
}  # fmt: skip
"""Dearness of a gram more, by role: the corrections makers reach for come first; common practice, estimate."""
TAKING_OUT = {"base": 5.0, "acid": 4.0}
"""Dearness of a gram less, by role; the bulk of a formula is its character. Common practice, estimate."""
USUAL_ADDING, USUAL_TAKING_OUT = 1.5, 3.0
OWN_BINDER, OTHER_WETTER = (
    0.6,
    1.6,
)  # dearness of the method's binder, and of another liquid in a kneaded dough [-]; common practice


def binds(item: Ingredient, method: Method) -> bool:
    """Return whether an ingredient is what binds a dough of the method.

    Parameters
    ----------
    item : Ingredient
        Any
    method : Method
        Names the role of its binder

    Returns
    -------
    bool
        True for liquids and fats of that role
    """
    return item.role == method.binder and item.is_liquid


def dearness(items: Sequence[Ingredient], total_g: float, method: Method) -> tuple[FloatArray, FloatArray]:
    """Return what a gram more and a gram less of each line costs, as a share of the batch.

    Parameters
    ----------
    items : Sequence
        Ingredient of each line
    total_g : float
        Mass of the batch [g]
    method : Method
        Its own binder is the first wetter; other liquids come after it

    Returns
    -------
    tuple
        Cost of adding and of taking out, shape (n,) each [1/g]
    """
    up = np.array([ADDING.get(item.role, USUAL_ADDING) * _by_method(item, method) for item in items])
    down = np.array([TAKING_OUT.get(item.role, USUAL_TAKING_OUT) for item in items])
    return up / total_g, down / total_g


def _by_method(item: Ingredient, method: Method) -> float:
    if binds(item, method):
        return OWN_BINDER
    return OTHER_WETTER if method.kneaded and item.is_liquid and not item.is_fat and item.role != "emulsifier" else 1.0


def is_fixed(weighed: Weighed, problem: BalanceProblem) -> bool:
    """Return whether a line stays as it is: poured already, or locked.

    Parameters
    ----------
    weighed : Weighed
        The line
    problem : BalanceProblem
        What is locked

    Returns
    -------
    bool
        True for what may not move at all
    """
    line = weighed.line
    return line.poured_g is not None or line.locked or weighed.ingredient.id in problem.locks


def is_held(weighed: Weighed, problem: BalanceProblem) -> bool:
    """Return whether a line is held for its role: scent, colour, preservative, decoration, unless freed or bounded.

    Parameters
    ----------
    weighed : Weighed
        The line
    problem : BalanceProblem
        Bounds, what is freed

    Returns
    -------
    bool
        True for what stays
    """
    item = weighed.ingredient
    asked = item.id in problem.frees or item.id in problem.bounds_g
    own = weighed.line.min_g is not None or weighed.line.max_g is not None
    return item.role in HELD_ROLES and not asked and not own


def bounds_of(weighed: Weighed, problem: BalanceProblem, factor: float, ceiling_g: float) -> tuple[float, float]:
    """Return how far a line may go.

    What is poured, locked or held stays; the tighter of the line's own bounds and the problem's holds; where neither says
    anything, a line may shrink to a quarter and grow to four times what it is.

    Parameters
    ----------
    weighed : Weighed
        The line
    problem : BalanceProblem
        Locks, bounds, what is freed
    factor : float
        What a wished batch mass makes of every line that is not fixed [-]
    ceiling_g : float
        Default upper end where it is lower: another liquid does not outgrow the method's binder [g]

    Returns
    -------
    tuple
        Least and most [g]

    Raises
    ------
    InputError
        If the bounds are crossed.
    """
    line, mass_g = weighed.line, weighed.mass_g
    if line.poured_g is not None:
        return line.poured_g, line.poured_g
    if is_fixed(weighed, problem):
        return mass_g, mass_g
    if is_held(weighed, problem):
        return factor * mass_g, factor * mass_g
    least, most = (LEAST_FACTOR, HIGHEST_FACTOR) if problem.objective == "least-change" else CHASING_FACTORS
    if problem.locks or any(each.locked for each in problem.formula.lines):
        least = max(least, LEAST_BESIDE_LOCKED)
    usual = (
        _on_scale(least * factor * mass_g, problem),
        _on_scale(max(factor * mass_g, min(most * factor * mass_g, ceiling_g)), problem),
    )
    low, high = problem.bounds_g.get(weighed.ingredient.id, usual)
    low = low if line.min_g is None else line.min_g if weighed.ingredient.id not in problem.bounds_g else max(low, line.min_g)
    high = high if line.max_g is None else line.max_g if weighed.ingredient.id not in problem.bounds_g else min(high, line.max_g)
    if low > high:
        raise InputError(
            f"{weighed.ingredient.short_name}: at least {low:g} g is above at most {high:g} g; lower the one or raise the other.",
            quantity="bound",
        )
    return low, high


def binder_ceiling_g(item: Ingredient, method: Method, binder_g: float) -> float:
    """Return how far another liquid may grow in a kneaded dough: not past the binder, which stays the binder.

    Parameters
    ----------
    item : Ingredient
        The line's ingredient
    method : Method
        Names the binder
    binder_g : float
        Binder in the batch [g]

    Returns
    -------
    float
        Mass [g]; infinite for powders, fats and the binder itself
    """
    rival = method.kneaded and binder_g > 0 and item.is_liquid and not item.is_fat and not binds(item, method)
    return binder_g if rival else float("inf")


def _on_scale(mass_g: float, problem: BalanceProblem) -> float:
    """Return a mass as the scale can show it [g]; what is lighter than its step stays."""
    return round(round(mass_g / problem.step_g) * problem.step_g, 9) if mass_g >= problem.step_g else mass_g
