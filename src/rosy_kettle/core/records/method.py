"""A method: how a dough is bound and worked."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = ["Method", "MethodStep", "School", "SchoolOption", "WantedDough"]


@dataclass(frozen=True, slots=True)
class WantedDough:
    """The dough a method is after."""

    states: tuple[str, ...]
    saturation_low: float | None
    saturation_high: float | None
    states_with_acid: tuple[str, ...] = ()
    """States that are right too once fast acid passes 2 % of the mass."""
    state_when_cold: str | None = None


@dataclass(frozen=True, slots=True)
class MethodStep:
    """One thing to do, with what to look out for while doing it."""

    stage: str
    text: str
    caution: str = ""
    only_with: tuple[str, ...] = ()
    """Roles or ingredient ids; the step stands only if the formula holds one of them."""
    taken: tuple[tuple[str, str], ...] = ()
    """School and option; the step stands only where that way is taken."""


@dataclass(frozen=True, slots=True)
class SchoolOption:
    """One of the ways a thing is done."""

    id: str
    name: str


@dataclass(frozen=True, slots=True)
class School:
    """Something that makers of one method do in different ways."""

    id: str
    question: str
    options: tuple[SchoolOption, ...]
    usual: str
    """The option that stands unless another one is taken."""
    only_with: tuple[str, ...] = ()
    """Roles or ingredient ids; asked only if the formula holds one of them."""


@dataclass(frozen=True, slots=True)
class Method:
    """A way of working as data for the planner: defaults, wanted dough, loss, steps."""

    id: str
    name: str
    summary: str
    piece_mass_g: float
    half_thickness_mm: float
    dose_g: float
    packing: str
    judged_at_c: float | None
    """None: judged at room temperature."""
    wanted: WantedDough
    wet_c: float | None
    bowl_j_k: float
    loss_fraction: float
    least_hours: float
    """What a piece rests before it is handled, however dry it went in [h]; common practice."""
    binder: str
    """Role of the liquid, or the fat, that binds the dough."""
    way: str
    kneaded: bool
    set_time: str
    phases: tuple[str, ...]
    schools: tuple[School, ...]
    steps: tuple[MethodStep, ...]
