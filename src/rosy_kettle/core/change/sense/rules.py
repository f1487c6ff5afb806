"""What a maker never does, as rules with facts: each keeps one figure from getting worse than it is or than an end."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from rosy_kettle.core.change.sense.figures import WATER_ON_ACID
from rosy_kettle.core.records import Method

__all__ = ["RULES", "End", "Rule", "RuleCode", "ends_beside", "ends_of"]

RuleCode = Literal["water-on-acid", "alcohol", "spent-acid", "proportion", "fizzing-proportion", "release"]
For = Literal["all", "kneaded", "not-kneaded", "melt"]


@dataclass(frozen=True, slots=True)
class Rule:
    """A figure, and how far an answer may take it: no further than the end, unless it was beyond it already."""

    code: RuleCode
    path: str
    low: float | None
    high: float | None
    why: str
    applies: For = "all"
    may_stay: float = 0.0
    """How much further out it may go where it is out already, as a share of what it is [-]."""


@dataclass(frozen=True, slots=True)
class End:
    """A rule's ends for one formula [the figure's own unit]."""

    code: RuleCode
    path: str
    low: float | None
    high: float | None
    why: str


ROUNDED = 0.02  # what is out already may be rounded by so much [-]
PROPORTION = "soda and acid keep the proportion of the method"
RULES = (
    Rule("water-on-acid", WATER_ON_ACID, None, 1.5, "no more water comes onto the acid", may_stay=0.0),
    Rule("alcohol", "sense.alcohol_pct", None, 3.0, "alcohol stays a spray"),
    Rule("spent-acid", "fizz.prereaction_share", None, 0.03, "the acid is not spent in the bowl"),
    Rule(
        "proportion", "sense.soda_to_acid", 1.6, None, PROPORTION, "kneaded", ROUNDED
    ),
    Rule(
        "fizzing-proportion", "sense.soda_to_acid", 1.7, 2.5, PROPORTION, "not-kneaded", ROUNDED
    ),
    Rule("release", "release.minutes", None, 30.0, "the melt goes in the bath", "melt"),
)  # fmt: skip
"""Ends: common practice, no published source. Proportions are told as soda to anhydrous citric acid, so that a monohydrate at
equal moles keeps them; two to one is the trade's."""


def ends_of(method: Method, now: Mapping[str, float]) -> tuple[End, ...]:
    """Return what the rules keep of a formula.

    Parameters
    ----------
    method : Method
        How its dough is worked
    now : Mapping
        The rules' figures as they are, by path; NaN where one cannot be said [each its own unit]

    Returns
    -------
    tuple of End
        None for what cannot be said of the formula as it is
    """
    found = []
    for rule in RULES:
        value = now.get(rule.path, math.nan)
        if math.isnan(value) or not _applies(rule, method):
            continue
        if rule.code == "release" and rule.high is not None and value > rule.high:
            continue  # a melt that goes slowly already is wished quicker, not held
        found.append(End(rule.code, rule.path, *ends_beside(value, rule.low, rule.high, rule.may_stay), rule.why))
    return tuple(found)


def ends_beside(value: float, low: float | None, high: float | None, may_stay: float) -> tuple[float | None, float | None]:
    """Return the ends an answer keeps: those that are asked, or what the figure is where it lies beyond one already.

    Parameters
    ----------
    value : float
        The figure as it is [its own unit]
    low : float or None
        Lower end [its own unit]
    high : float or None
        Upper end [its own unit]
    may_stay : float
        How much further out it may go where it is out already, as a share of what it is [-]

    Returns
    -------
    tuple
        Lower and upper end [its own unit]
    """
    further = may_stay * abs(value)
    floor = None if low is None else low if value >= low else value - further
    return floor, None if high is None else high if value <= high else value + further


def _applies(rule: Rule, method: Method) -> bool:
    match rule.applies:
        case "all":
            return True
        case "kneaded":
            return method.kneaded
        case "not-kneaded":
            return not method.kneaded
        case "melt":
            return method.id == "melt"
