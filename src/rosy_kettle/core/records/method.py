"""A method: how a dough is bound and worked."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = ["Method", "MethodGuess", "MethodStep", "RackCheck", "RackTask", "School", "SchoolOption", "WantedDough"]


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
class MethodGuess:
    """What in a pasted recipe speaks for a method; the first rank whose conditions all hold is taken."""

    rank: int
    fat_from: float = 0.0
    """Share of fats and oils that melt, at least [-]."""
    acid_from: float = 0.0
    """Share of fast acids, at least [-]."""
    surfactant_from: float = 0.0
    """Share of surfactant lines, at least [-]."""
    holds: tuple[str, ...] = ()
    """Ids of which one must be there; none is asked for where it is empty."""


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
    kind: str = "do"
    """What kind of work it is: prepare, do, wet, melt, split, scent, rest, feel, shape, decorate or dry."""


@dataclass(frozen=True, slots=True)
class RackTask:
    """Something to do with pieces while they dry or once they are dry; common practice."""

    kind: str
    """unmould, turn, second-side, paint, pipe, dip, drizzle, embed or wrap."""
    title: str
    share: float
    """When, as a share of the likely hours until dry [-]."""
    only_with: tuple[str, ...] = ()
    """Roles or ingredient ids; asked only if the formula holds one of them."""


@dataclass(frozen=True, slots=True)
class RackCheck:
    """A question to the hands that tells how far a piece is; common practice."""

    id: str
    text: str
    share: float
    """From when it is worth asking, as a share of the likely hours until dry [-]."""


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
    product_kind: str
    """What the rules of safety and labelling call the product."""
    humidity_gate_pct: float
    """How damp the air may be at most for the work [%]; common practice."""
    place: int
    """Where it stands in a list of methods."""
    rack_tasks: tuple[RackTask, ...] = ()
    """What is done with its pieces after the bench, wrapping last."""
    rack_checks: tuple[RackCheck, ...] = ()
    usual: bool = False
    """Whether it stands in where nothing is said."""
    pressed: bool = False
    """Whether the mix is pressed in a mould, barely damp."""
    loose: bool = False
    """Whether it stays loose: no piece, so no firmness and no drying through a piece."""
    dried_first: bool = False
    """Whether the surfactant's water is dried off before the acid goes in."""
    water_binds: bool = False
    """Whether water goes in of itself, to bind."""
    melt_c: float | None = None
    """Where its butters and waxes are clear [°C]; common practice. None where nothing is melted."""
    scent_joins_hot: bool = False
    """Whether scent goes into the hot fats, before they meet the powders."""
    guess: MethodGuess | None = None
    """None: never guessed."""
