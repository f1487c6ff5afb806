"""The run sheet: what to weigh, in which order, and what to do with it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from rosy_kettle.core.amounts import Weighed, weigh_formula
from rosy_kettle.core.amounts.units import OUNCE_G
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.plan.air import before_the_work, while_it_dries
from rosy_kettle.core.making.plan.piece_mass import piece_mass
from rosy_kettle.core.making.plan.schools import AskedSchool, ask_schools, kinds_of, steps_hold
from rosy_kettle.core.mixing.batch_loss import batch_loss
from rosy_kettle.core.models.pieces import batch_for_pieces
from rosy_kettle.core.records import Formula, Ingredient, Method, MethodStep, Room, Tables

__all__ = ["RunSheet", "RunSheetGroup", "RunSheetLine", "RunSheetStep", "make_run_sheet", "sheet_of"]

PHASE_LABELS = {
    "dry": "Powders",
    "acid-last": "Acid",
    "liquid": "Liquids",
    "melt": "Butters and waxes",
    "scent": "Scent",
    "colour": "Colour",
    "spray": "Spray",
    "decoration": "Decoration",
}
HEADINGS = {
    "powders": ("dry", "acid-last"),
    "butters and waxes": ("melt",),
    "liquids": ("liquid", "spray"),
    "scent and colour": ("scent", "colour", "decoration"),
}
"""Phases under the headings that a line can be put under at the Desk; the first is where a stranger goes."""
STANDING_CAUTIONS = (
    "Clear bench, gloves, eye cover; no draught over the powders.",
    "Clean with water only once no loose mix is left in the bowl. No bleach near acid or alcohol.",
    "Before anything is sold, local rules and a licensed assessor decide; this sheet does not.",
)
ALCOHOL_CAUTION = "Alcohol in the mix: no flame, no heater, no warm oven; window open."
STRONG_ACID_CAUTION = "Sodium bisulfate is a strong acid and not meant for skin: leave it out."


@dataclass(frozen=True, slots=True)
class RunSheetLine:
    """One thing to weigh."""

    position: int
    """Place of the line in the formula, counted from 0."""
    ingredient: str
    name: str
    mass_g: float
    mass_oz: float
    note: str


@dataclass(frozen=True, slots=True)
class RunSheetGroup:
    """What is weighed together, in the order of weighing."""

    portion: str
    phase: str
    label: str
    mass_g: float
    lines: tuple[RunSheetLine, ...]


@dataclass(frozen=True, slots=True)
class RunSheetStep:
    """One thing to do."""

    number: int
    stage: str
    """Its heading, for people."""
    text: str
    caution: str
    kind: str = "do"
    """What kind of work it is."""


@dataclass(frozen=True, slots=True)
class RunSheet:
    """Everything that goes on one page."""

    name: str
    method: str
    method_name: str
    pieces: int
    piece_mass_g: float
    piece_basis: str
    batch_g: float
    batch_oz: float
    loss_fraction: float
    scale: float
    set_time: str
    schools: tuple[AskedSchool, ...]
    """Where makers differ, and the way this bowl is made."""
    groups: tuple[RunSheetGroup, ...]
    steps: tuple[RunSheetStep, ...]
    cautions: tuple[str, ...]
    left_out: tuple[str, ...]


def make_run_sheet(
    formula: Formula,
    tables: Tables,
    pieces: int,
    piece_mass_g: float | None = None,
    tool: str | None = None,
    scoop_fill: str = "level",
) -> RunSheet:
    """Return the run sheet for a number of pieces.

    Parameters
    ----------
    formula : Formula
        The formula to make
    tables : Tables
        Reference tables
    pieces : int
        How many pieces are wanted [-]
    piece_mass_g : float or None
        Mass of one piece [g]; None takes the tool, or else the formula's own piece
    tool : str or None
        Id of a tool; its piece mass follows from volume, density and packing
    scoop_fill : str
        level, rounded or domed; for scoops only

    Returns
    -------
    RunSheet
        Weigh-out, steps and cautions

    Raises
    ------
    InputError
        If nothing is weighed yet, or pieces, tool or fill cannot be meant.
    """
    weighed, _ = weigh_formula(formula, tables)
    if sum(item.mass_g for item in weighed) <= 0:
        raise InputError("The formula has no weighed line yet; give at least one amount.", quantity="lines")
    mass_g, basis = piece_mass(formula, tables, weighed, piece_mass_g, tool, scoop_fill)
    batch_g = batch_for_pieces(pieces, mass_g, tables.method_of(formula).loss_fraction, tables.parameters.mixing)
    return sheet_of(formula, tables, batch_g, pieces, mass_g, basis)


def sheet_of(
    formula: Formula, tables: Tables, batch_g: float, pieces: int, piece_mass_g: float, basis: str,
    schools: Mapping[str, str] | None = None,
) -> RunSheet:  # fmt: skip
    """Return the run sheet of one bowl.

    Parameters
    ----------
    formula : Formula
        The formula to make
    tables : Tables
        Reference tables
    batch_g : float
        What goes into the bowl [g]
    pieces : int
        How many pieces it gives [-]
    piece_mass_g : float
        Mass of one piece [g]
    basis : str
        Where that mass comes from
    schools : Mapping or None
        Option by school, where it is not made as usual

    Returns
    -------
    RunSheet
        Weigh-out, steps and cautions

    Raises
    ------
    InputError
        If nothing is weighed yet, or a school is not one of the method's.
    """
    weighed, missing = weigh_formula(formula, tables)
    total_g = sum(item.mass_g for item in weighed)
    if total_g <= 0:
        raise InputError("The formula has no weighed line yet; give at least one amount.", quantity="lines")
    method = tables.method_of(formula)
    scale = batch_g / total_g
    asked = ask_schools(formula, tables, schools or {})
    held = [item.ingredient for item in weighed if item.mass_g > 0]
    left_out = [f'"{line.text}" is not understood' for line in formula.lines if line.ingredient is None]
    return RunSheet(
        name=formula.name,
        method=method.id,
        method_name=method.name,
        pieces=pieces,
        piece_mass_g=piece_mass_g,
        piece_basis=basis,
        batch_g=batch_g,
        batch_oz=batch_g / OUNCE_G,
        loss_fraction=batch_loss(method.loss_fraction, batch_g, tables.parameters.mixing),
        scale=scale,
        set_time=method.set_time,
        groups=_groups(formula, method, weighed, scale),
        schools=asked,
        steps=_steps(method, kinds_of(formula, tables), asked, formula.room),
        cautions=_cautions(held),
        left_out=tuple(left_out + [error.message for error in missing]),
    )


def _groups(formula: Formula, method: Method, weighed: Sequence[Weighed], scale: float) -> tuple[RunSheetGroup, ...]:
    groups: list[RunSheetGroup] = []
    for index, portion in enumerate(formula.portions):
        for phase in method.phases:
            members = [w for w in weighed if w.portion == index and _weighed_with(w) == phase and w.mass_g > 0]
            if members:
                lines = tuple(_line(item, scale) for item in members)
                groups.append(RunSheetGroup(portion.name, phase, PHASE_LABELS[phase], sum(line.mass_g for line in lines), lines))
    return tuple(groups)


def _weighed_with(weighed: Weighed) -> str:
    """Where the maker put a line by hand, it goes; slow acids such as cream of tartar are sieved with the powders."""
    item = weighed.ingredient
    usual = "dry" if item.role == "acid" and not item.has("fast-acid") else item.phase_default
    by_hand = HEADINGS.get(weighed.line.phase.lower())
    return usual if by_hand is None or usual in by_hand else by_hand[0]


def _line(item: Weighed, scale: float) -> RunSheetLine:
    mass_g = item.mass_g * scale
    note = "from a volume: weigh your own cup once" if item.spread > 0 else ""
    return RunSheetLine(item.position, item.ingredient.id, item.ingredient.short_name, mass_g, mass_g / OUNCE_G, note)


def _steps(method: Method, kinds: set[str], asked: Sequence[AskedSchool], room: Room) -> tuple[RunSheetStep, ...]:
    stand = steps_hold(method, kinds, asked)
    steps = [step for step, stands in zip(method.steps, stand, strict=True) if stands]
    last = max((at for at, step in enumerate(steps) if step.kind == "dry"), default=-1)
    if last >= 0 and (air := while_it_dries(kinds, room)):
        steps[last] = replace(steps[last], caution=f"{steps[last].caution} {air}".strip())
    text, caution = before_the_work(method, room)
    steps.insert(0, MethodStep("Prepare", text, caution, kind="prepare"))
    return tuple(
        RunSheetStep(number, step.stage, step.text, step.caution, step.kind) for number, step in enumerate(steps, start=1)
    )


def _cautions(held: Sequence[Ingredient]) -> tuple[str, ...]:
    cautions = list(STANDING_CAUTIONS)
    if any(item.has("flammable") for item in held):
        cautions.insert(0, ALCOHOL_CAUTION)
    if any(item.has("strong-acid") for item in held):
        cautions.insert(0, STRONG_ACID_CAUTION)
    return tuple(cautions)
