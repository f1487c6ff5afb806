"""What is wanted of a formula, and what came of it: immutable records."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass, field, fields, is_dataclass
from types import MappingProxyType
from typing import Any, Literal, get_type_hints

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.readings.registry import declared
from rosy_kettle.core.records import Formula
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.core.records.wishes import OBJECTIVES

__all__ = [
    "OBJECTIVES", "BalanceProblem", "BalanceResult", "Change", "Conflict", "HeldBack", "Marginal", "Status", "Target",
    "numeric_readings",
    "parse_target", "target_of",
]  # fmt: skip

NOT_AIMED_AT = frozenset(
    {"piece.float", "piece.spin", "dough.saturation_unrested", "dough.temperature_c", "bath.ionic_strength_mol_l"}
)
"""Figures that are no wish, or that hang on more than the masses of one dough."""
_NUMBER = r"[+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?"
_BAND = re.compile(rf"([a-z_0-9.]+)\s*=\s*({_NUMBER})\s*\.\.\s*({_NUMBER})")
_LIMIT = re.compile(rf"([a-z_0-9.]+)\s*(>=|<=|=)\s*({_NUMBER})")


Status = Literal["solved", "infeasible", "another-formula"]


@dataclass(frozen=True, slots=True)
class Target:
    """A band on one reading, by its dotted path in the evaluation result."""

    reading: str
    low: float | None
    high: float | None

    def __str__(self) -> str:
        if self.low is not None and self.high is not None:
            return f"{self.reading}={self.low:g}" if self.low == self.high else f"{self.reading}={self.low:g}..{self.high:g}"
        if self.low is None and self.high is None:
            return self.reading
        return f"{self.reading}>={self.low:g}" if self.low is not None else f"{self.reading}<={self.high:g}"


@dataclass(frozen=True, slots=True)
class BalanceProblem:
    """A formula, what is wanted of it, and what must stay."""

    formula: Formula
    targets: tuple[Target, ...]
    objective: str = "least-change"
    locks: frozenset[str] = frozenset()
    bounds_g: Mapping[str, tuple[float, float]] = field(default_factory=lambda: MappingProxyType({}))
    step_g: float = 0.1
    """What the scale can show."""
    frees: frozenset[str] = frozenset()
    """Scents, colours and preservatives that may move all the same."""
    guarded: bool = True
    """Whether the answer keeps what makers keep: proportion, pH, skin shares, a workable dough."""


@dataclass(frozen=True, slots=True)
class Change:
    """One line before and after."""

    ingredient: str
    before_g: float
    after_g: float
    position: int = 0
    """Index among all lines of the formula."""


@dataclass(frozen=True, slots=True)
class Conflict:
    """A target that cannot be met with the others, and how far it would have to give."""

    target: str
    give: float
    unit: str
    message: str
    against: tuple[str, ...] = ()
    """The other targets it stands against; empty where the lines' own bounds are in the way."""


@dataclass(frozen=True, slots=True)
class Marginal:
    """What a little more of a binding target takes."""

    target: str
    more: float
    cost_per_piece: float | None
    message: str


@dataclass(frozen=True, slots=True)
class HeldBack:
    """A guard that the answer came up against: an end of a reading, or how far a line may go."""

    guard: str
    message: str
    reading: str | None = None
    """Its path; None where it is a line."""
    low: float | None = None
    high: float | None = None
    value: float | None = None
    """As the answer has it [the reading's own unit, or g of the line]; None where it cannot be said."""
    kept: bool = True
    binding: bool = True
    """Whether it held the answer back."""


@dataclass(frozen=True, slots=True)
class BalanceResult:
    """How it ended: solved, infeasible, or another-formula where too much of it would move. ``lines`` lists all lines."""

    status: Status
    lines: tuple[Change, ...]
    changes: tuple[Change, ...]
    readings_before: Evaluation
    readings_after: Evaluation
    conflicts: tuple[Conflict, ...]
    marginals: tuple[Marginal, ...] = ()
    guards: tuple[HeldBack, ...] = ()
    """Which guards held the answer back."""


def parse_target(text: str) -> Target:
    """Return a target written as READING>=N, READING<=N, READING=N or READING=LOW..HIGH.

    Parameters
    ----------
    text : str
        The target as typed

    Returns
    -------
    Target
        Its reading exists and is a number

    Raises
    ------
    InputError
        If it cannot be read, its ends are crossed, or the reading is unknown.
    """
    if match := _BAND.fullmatch(text.strip()):
        target = Target(match[1], float(match[2]), float(match[3]))
    elif match := _LIMIT.fullmatch(text.strip()):
        number = float(match[3])
        target = Target(match[1], None if match[2] == "<=" else number, None if match[2] == ">=" else number)
    else:
        sentence = f'Target "{text[:60]}" must be READING>=N, READING<=N, READING=N or READING=LOW..HIGH.'
        raise InputError(sentence, quantity="target")
    return target_of(target.reading, target.low, target.high, text[:60])


def target_of(reading: str, low: float | None, high: float | None, text: str = "") -> Target:
    """Return a target whose reading exists and whose ends are not crossed.

    Parameters
    ----------
    reading : str
        Dotted path of the reading
    low : float or None
        Lower end [reading's unit]
    high : float or None
        Upper end [reading's unit]
    text : str
        How it was written, for the refusal

    Returns
    -------
    Target
        A band with one end at least

    Raises
    ------
    InputError
        If it has no end, the ends are crossed, or the reading is unknown.
    """
    named = text or reading[:60]
    if any(end is not None and not math.isfinite(end) for end in (low, high)):
        raise InputError(f'Target "{named}" must name a finite number.', quantity="target")
    if low is None and high is None:
        raise InputError(f'Target "{named}" needs a lower or an upper end.', quantity="target")
    if low is not None and high is not None and low > high:
        raise InputError(f'Target "{named}": the low end {low:g} is above the high end {high:g}.', quantity="target")
    if reading not in numeric_readings():
        known = "try lather.score or dough.saturation"
        sentence = f'Target "{named}": there is no reading "{reading[:40]}"; {known}.'
        raise InputError(sentence, quantity="target", value=reading[:40])
    return Target(reading, low, high)


def numeric_readings() -> set[str]:
    """Dotted paths of all readings that are one number."""
    paths = {path for path, reading in declared().items() if reading.compute is not None}
    groups = {path.split(".")[0] for path in declared()} - {"cost", "mass_g"}
    for name, kind in get_type_hints(Evaluation).items():
        group = next((each for each in (kind, *getattr(kind, "__args__", ())) if is_dataclass(each)), None)
        if group is None or name not in groups:
            continue
        hints: dict[str, Any] = {item.name: str(item.type) for item in fields(group)}
        paths |= {f"{name}.{key}" for key, hint in hints.items() if "float |" in hint or hint in {"Number | None", "float"}}
    return paths - NOT_AIMED_AT
