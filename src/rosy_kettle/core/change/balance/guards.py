"""What an answer may not spoil unasked: ends that hold (guards) and ends that count (side effects)."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from rosy_kettle.core.change.balance.aims import aims_of
from rosy_kettle.core.change.balance.doughs import dough_paths
from rosy_kettle.core.change.balance.problem import BalanceProblem, Target
from rosy_kettle.core.change.sense import MASS_KEPT, RULES, ends_beside, ends_of
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.models.bath.readings import PH_WANTED
from rosy_kettle.core.readings.registry import declared, watched_paths
from rosy_kettle.core.records import Ingredient, Tables
from rosy_kettle.core.safety.measures import lines_of_harshness

__all__ = ["Guard", "Watch", "watch_of"]

SLACK = 0.02  # of the present value: what is outside already may stay, and so may its rounding [-]
SIDE = (
    ("dough.stickiness", None, 60.0), ("release.minutes", None, 30.0), ("drying.hours", None, 72.0), ("feel.ring", None, 45.0),
    ("firmness.at_20_c", 45.0, None), ("lather.score", 40.0, None),
)  # fmt: skip
"""Ends that a maker would not give up without being asked [each its own unit]; common practice, project defaults.

What lies beyond such an end already may stay there, but not go further than a tenth.
"""
FURTHER = 0.10  # how much further out a side effect may go where it is out already [-]
KEPT_MASS = 0.10  # how far the batch may shrink or grow while an objective chases another reading [-]; project default
KEPT_BY_CHASE = (
    ("lather.score", -10.0, None),
    ("firmness.at_20_c", -10.0, None),
    ("feel.oil_g", -2.0, 4.0),
    ("feel.ring", None, 10.0),
)
"""How far scent, feel and hold may move when an objective chases another reading [each its own unit]; project default."""
GIVES = 3e-4  # of an end's own size: a little more than an answer may leave by rounding [-]
SIZE = "the batch stays about as large"
STILL_SAID = "what could be said of it can still be said"
CHASED = {"cheapest": "cost.piece", "gentlest": "skin.harshness_mg_l", "most-lather": "lather.score"}


@dataclass(frozen=True, slots=True)
class Guard:
    """An end that an answer keeps. ``hard`` ones hold like a target; the others count as a cost."""

    target: Target
    hard: bool
    why: str

    def against(self) -> str:
        """Return what a maker would have against a change that breaks it."""
        if self.target.low is None and self.target.high is None:
            return f"{declared()[self.target.reading].label} could not be said any more"
        return f"out of line: {self.why}"


@dataclass(frozen=True, slots=True)
class Watch:
    """All ends that are watched for one problem."""

    guards: tuple[Guard, ...]
    problem: BalanceProblem
    tables: Tables
    items: tuple[Ingredient, ...]

    @property
    def hard(self) -> tuple[Guard, ...]:
        """Return the ends that hold like a target."""
        return tuple(guard for guard in self.guards if guard.hard)

    def of_any_size(self) -> Watch:
        """Return the same watch over a batch that may become as large or small as it likes."""
        return replace(self, guards=tuple(guard for guard in self.guards if guard.why != SIZE))

    def broken(self, mass_g: FloatArray) -> tuple[Guard, ...]:
        """Return the guards that some masses break; a reading that can no longer be said is broken too.

        Parameters
        ----------
        mass_g : FloatArray
            Masses, shape (n,) [g]

        Returns
        -------
        tuple
            Guards
        """
        paths = tuple(dict.fromkeys(guard.target.reading for guard in self.guards))
        values = dict(zip(paths, _read(paths, self.problem, self.tables, self.items, mass_g), strict=True))
        return tuple(guard for guard in self.guards if not _holds(guard.target, values[guard.target.reading]))


def _holds(target: Target, value: float) -> bool:
    low, high = target.low, target.high
    slack = GIVES * max(abs(low or 0.0), abs(high or 0.0)) + 1e-9
    return not math.isnan(value) and (low is None or value >= low - slack) and (high is None or value <= high + slack)


def watch_of(problem: BalanceProblem, tables: Tables, items: Sequence[Ingredient], mass_g: FloatArray) -> Watch:
    """Return what is watched while balancing a formula.

    Parameters
    ----------
    problem : BalanceProblem
        Targets and objective; a reading that is targeted is not guarded besides
    tables : Tables
        Reference tables
    items : Sequence
        Ingredient of each line
    mass_g : FloatArray
        Masses now, shape (n,) [g]

    Returns
    -------
    Watch
        Nothing where guards are off
    """
    if not problem.guarded:
        return Watch((), problem, tables, tuple(items))
    method = tables.method_of(problem.formula)
    wanted = [*_hard(problem), *_soft(problem, tables)]
    rules = (*(rule.path for rule in RULES), *watched_paths())
    paths = tuple(dict.fromkeys((*(path for path, *_rest in wanted), *rules)))
    now = dict(zip(paths, _read(paths, problem, tables, items, mass_g), strict=True))
    aimed = {target.reading for target in problem.targets}
    aimed |= {CHASED.get(problem.objective, "")}
    aimed |= {"sense.soda_to_acid"} if "fizz.base_to_acid" in aimed else set()
    guards = [
        Guard(Target(end.path, end.low, end.high), hard=True, why=end.why)
        for end in ends_of(method, now)
        if end.path not in aimed
    ]
    for path, low, high, hard, why in wanted:
        value = now[path]
        if math.isnan(value) or path in aimed:
            continue
        guards.append(Guard(Target(path, *ends_beside(value, low, high, SLACK if hard else FURTHER)), hard, why))
    guards += _kept(problem, now_of(problem, tables, items, mass_g), aimed)
    if not any(guard.target.reading == "mass_g" for guard in guards) and "mass_g" not in aimed:
        guards.append(Guard(Target("mass_g", *(share * float(mass_g.sum()) for share in MASS_KEPT)), hard=True, why=SIZE))
    said = [Guard(Target(path, None, None), hard=True, why=STILL_SAID) for path in watched_paths() if not math.isnan(now[path])]
    return Watch((*guards, *said), problem, tables, tuple(items))


def now_of(problem: BalanceProblem, tables: Tables, items: Sequence[Ingredient], mass_g: FloatArray) -> dict[str, float]:
    """Return the readings that a chasing objective keeps, as they are now.

    Parameters
    ----------
    problem : BalanceProblem
        The formula
    tables : Tables
        Reference tables
    items : Sequence
        Ingredient of each line
    mass_g : FloatArray
        Masses now, shape (n,) [g]

    Returns
    -------
    dict
        By dotted path [each its own unit]
    """
    if problem.objective not in CHASED:
        return {}
    paths = ("mass_g", *(path for path, *_ends in KEPT_BY_CHASE))
    return dict(zip(paths, _read(paths, problem, tables, items, mass_g), strict=True))


def _kept(problem: BalanceProblem, now: dict[str, float], aimed: set[str]) -> list[Guard]:
    why = f'"{problem.objective.replace("-", " ")}" keeps hold and feel'
    found = []
    if "mass_g" in now and "mass_g" not in aimed:
        ends = (now["mass_g"] * (1 - KEPT_MASS), now["mass_g"] * (1 + KEPT_MASS))
        found.append(Guard(Target("mass_g", *ends), hard=True, why=f"{why[: why.rindex('keeps')]}keeps the batch about as large"))
    for path, less, more in KEPT_BY_CHASE:
        if path in aimed or math.isnan(now.get(path, math.nan)):
            continue
        low = None if less is None else max(0.0, now[path] + less)
        found.append(Guard(Target(path, low, None if more is None else now[path] + more), hard=True, why=why))
    return found


def _hard(problem: BalanceProblem) -> list[tuple[str, float | None, float | None, bool, str]]:
    harsh = lines_of_harshness(problem.formula.product)[0]
    return [
        ("bath.ph_stepin", *PH_WANTED, True, "the bath stays kind at step-in"),
        ("bath.ph_soak", *PH_WANTED, True, "the bath stays kind after twenty minutes"),
        ("skin.scent_share", None, 1.0, True, "scent stays under its limit"),
        ("skin.harshness_mg_l", None, harsh, True, "the bath stays mild for its profile"),
    ]


def _soft(problem: BalanceProblem, tables: Tables) -> list[tuple[str, float | None, float | None, bool, str]]:
    wanted = tables.method_of(problem.formula).wanted
    doughs = [
        (path, wanted.saturation_low, wanted.saturation_high, True, "the dough stays workable")
        for path in dough_paths("dough.saturation", problem.formula, tables)
    ]
    return [*doughs, *((path, low, high, False, "side effect") for path, low, high in SIDE)]


def _read(
    paths: Sequence[str], problem: BalanceProblem, tables: Tables, items: Sequence[Ingredient], mass_g: FloatArray
) -> list[float]:
    if not paths:
        return []
    values = aims_of(paths, problem.formula, tables, items).at(mass_g, sloped=False)[0]
    return [float(value) for value in np.asarray(values)]
