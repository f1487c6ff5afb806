"""The run sheet: what to weigh, in which order, and what to do with it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.amounts import Weighed, weigh_formula
from rosy_kettle.core.amounts.units import OUNCE_G
from rosy_kettle.core.errors import InputError, MissingDataError
from rosy_kettle.core.judge.setting import dough_fault, setting_of
from rosy_kettle.core.palette import make_palette
from rosy_kettle.core.pieces import batch_for_pieces, batch_loss, mix_true_density, packing_fraction, tool_piece_mass
from rosy_kettle.core.pieces.yields import SCOOP_FILLS
from rosy_kettle.core.records import Formula, Ingredient, Method, MethodStep, Tables, Tool

__all__ = ["RunSheet", "RunSheetGroup", "RunSheetLine", "RunSheetStep", "make_run_sheet"]

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
FAST_ACIDS = frozenset(
    {"citric-acid-anhydrous", "citric-acid-monohydrate", "tartaric-acid", "malic-acid", "ascorbic-acid", "sodium-bisulfate"}
)
STANDING_CAUTIONS = (
    "Clear bench, gloves, eye cover; no draught over the powders.",
    "Clean with water only once no loose mix is left in the bowl. No bleach near acid or alcohol.",
    "Before anything is sold, local rules and a licensed assessor decide; this sheet does not.",
)
ALCOHOL_CAUTION = "Alcohol in the mix: no flame, no heater, no warm oven; window open."
STRONG_ACID_CAUTION = "Sodium bisulfate is a strong acid and not meant for skin: leave it out."
DRY_PRESS_TYPES = frozenset({"press"})


@dataclass(frozen=True, slots=True)
class RunSheetLine:
    """One thing to weigh."""

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
    text: str
    caution: str


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
    weighed, missing = weigh_formula(formula, tables)
    total_g = sum(item.mass_g for item in weighed)
    if total_g <= 0:
        raise InputError("The formula has no weighed line yet; give at least one amount.", quantity="lines")
    method = tables.methods[formula.method]
    mass_g, basis = _piece_mass(formula, tables, method, weighed, piece_mass_g, tool, scoop_fill)
    batch_g = batch_for_pieces(pieces, mass_g, method.loss_fraction)
    scale = batch_g / total_g
    held = [item.ingredient for item in weighed if item.mass_g > 0]
    left_out = [f'"{line.text}" is not understood' for line in formula.lines if line.ingredient is None]
    return RunSheet(
        name=formula.name,
        method=method.id,
        method_name=method.name,
        pieces=pieces,
        piece_mass_g=mass_g,
        piece_basis=basis,
        batch_g=batch_g,
        batch_oz=batch_g / OUNCE_G,
        loss_fraction=batch_loss(method.loss_fraction, batch_g),
        scale=scale,
        set_time=method.set_time,
        groups=_groups(formula, method, weighed, scale),
        steps=_steps(method, held),
        cautions=_cautions(held),
        left_out=tuple(left_out + [error.message for error in missing]),
    )


def _piece_mass(
    formula: Formula, tables: Tables, method: Method, weighed: Sequence[Weighed],
    piece_mass_g: float | None, tool_id: str | None, scoop_fill: str,
) -> tuple[float, str]:  # fmt: skip
    if piece_mass_g is not None:
        return piece_mass_g, "as entered"
    if tool_id is None:
        own = formula.piece.mass_g
        return (method.piece_mass_g, "usual for the method") if own is None else (own, "of the formula")
    if tool_id not in tables.tools:
        raise InputError(f'Tool "{tool_id[:60]}" is not known; choose one of the list.', quantity="tool", value=tool_id[:60])
    if scoop_fill not in SCOOP_FILLS:
        raise InputError(f'Scoop fill must be level, rounded or domed, got "{scoop_fill[:20]}".', quantity="scoop_fill")
    tool = tables.tools[tool_id]
    try:
        mass_g = _tool_mass(formula, tables, method, weighed, tool, scoop_fill)
    except MissingDataError as error:
        raise InputError(f"{error.message}, or enter the mass of a piece.", quantity="tool", value=tool_id) from error
    return mass_g, f"{tool.name}, {tool.volume_ml:g} mL"


def _tool_mass(
    formula: Formula, tables: Tables, method: Method, weighed: Sequence[Weighed], tool: Tool, scoop_fill: str
) -> float:
    mass_g = np.array([item.mass_g for item in weighed])
    setting = setting_of(formula, tables, float(mass_g.sum()))
    mix = setting.mix(make_palette([item.ingredient for item in weighed]), mass_g)
    if fault := dough_fault(mix):
        raise fault
    packing = formula.piece.packing or method.packing
    if packing == "hand" and tool.type in DRY_PRESS_TYPES:
        packing = "press"
    packed = packing_fraction(packing, mix.saturation(setting.judged_c))
    fill = SCOOP_FILLS[scoop_fill] if tool.type == "scoop" else 1.0
    return tool_piece_mass(tool.volume_ml, mix_true_density(mix), packed, fill)


def _groups(formula: Formula, method: Method, weighed: Sequence[Weighed], scale: float) -> tuple[RunSheetGroup, ...]:
    groups: list[RunSheetGroup] = []
    for index, portion in enumerate(formula.portions):
        for phase in method.phases:
            members = [w for w in weighed if w.portion == index and _weighed_with(w.ingredient) == phase and w.mass_g > 0]
            if members:
                lines = tuple(_line(item, scale) for item in members)
                groups.append(RunSheetGroup(portion.name, phase, PHASE_LABELS[phase], sum(line.mass_g for line in lines), lines))
    return tuple(groups)


def _weighed_with(item: Ingredient) -> str:
    """Slow acids such as cream of tartar are sieved with the powders; only fast ones wait for the end."""
    return "dry" if item.role == "acid" and item.id not in FAST_ACIDS else item.phase_default


def _line(item: Weighed, scale: float) -> RunSheetLine:
    mass_g = item.mass_g * scale
    note = "from a volume: weigh your own cup once" if item.spread > 0 else ""
    return RunSheetLine(item.ingredient.id, item.ingredient.short_name, mass_g, mass_g / OUNCE_G, note)


def _steps(method: Method, held: Sequence[Ingredient]) -> tuple[RunSheetStep, ...]:
    steps = [step for step in method.steps if not step.only_with or any(_answers(item, step) for item in held)]
    return tuple(RunSheetStep(number, step.stage, step.text, step.caution) for number, step in enumerate(steps, start=1))


def _answers(item: Ingredient, step: MethodStep) -> bool:
    kinds = {item.id, item.role}
    if item.role == "surfactant" and item.is_powder:
        kinds.add("surfactant-powder")
    if item.id in FAST_ACIDS:
        kinds.add("fast-acid")
    return not kinds.isdisjoint(step.only_with)


def _cautions(held: Sequence[Ingredient]) -> tuple[str, ...]:
    cautions = list(STANDING_CAUTIONS)
    if any(item.id.startswith("isopropyl-alcohol") for item in held):
        cautions.insert(0, ALCOHOL_CAUTION)
    if any(item.id == "sodium-bisulfate" for item in held):
        cautions.insert(0, STRONG_ACID_CAUTION)
    return tuple(cautions)
