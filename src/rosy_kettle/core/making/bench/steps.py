"""The steps of one bowl at the bench: weigh everything first, then do, one thing at a time."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import groupby, pairwise
from typing import Any

from rosy_kettle.core.making.plan import PRE_DRY_H, drying_hours
from rosy_kettle.core.making.plan.air import KIT
from rosy_kettle.core.making.plan.run_sheet import RunSheet, RunSheetStep
from rosy_kettle.core.making.plan.stages import REST_MIN
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Ingredient, Tables
from rosy_kettle.core.records.evaluation import Dough, Evaluation

__all__ = ["BenchStep", "bench_steps", "step_from"]

MELT_MARGIN_C = 6.0
ASKS = frozenset({"rest", "feel", "split", "shape", "decorate", "dry"})
"""Kinds of work that the bench has a step of its own for; the others are things to do."""
DRY_PHASES = frozenset({"dry", "acid-last"})


@dataclass(frozen=True, slots=True)
class BenchStep:
    """One thing to do, and all that is needed to do it."""

    key: str
    kind: str
    """conditions, weigh, do, temperature, rest, feel, split, shape, decorate or dry."""
    title: str
    text: str
    caution: str = ""
    portion: str = ""
    position: int | None = None
    """Line of the formula that is weighed."""
    ingredient: str | None = None
    target_g: float | None = None
    tolerance_g: float | None = None
    minutes: float | None = None
    low_c: float | None = None
    high_c: float | None = None
    shares: tuple[tuple[str, float], ...] = ()
    """Portions that are split off this dough, by mass [g]."""
    share_lines: tuple[tuple[str, tuple[int, ...]], ...] = ()
    """Places in the formula of the lines that are in each share when it is split off."""
    pieces: int | None = None
    piece_mass_g: float | None = None
    gate_rh_pct: float | None = None
    """How damp the air may be at most for the work [%]."""


def bench_steps(formula: Formula, tables: Tables, sheet: RunSheet) -> tuple[BenchStep, ...]:
    """Return all steps of one bowl.

    Parameters
    ----------
    formula : Formula
        The formula that is made
    tables : Tables
        Reference tables
    sheet : RunSheet
        Its run sheet, scaled to the bowl

    Returns
    -------
    tuple
        Conditions, one step a line to weigh, then the method's steps
    """
    prepare = next(step for step in sheet.steps if step.kind == "prepare")
    # The air as it is goes before the air that was planned for.
    gate = tables.method_of(formula).humidity_gate_pct
    steps = [BenchStep("conditions", "conditions", "Read the air", prepare.text, KIT, gate_rh_pct=gate)]
    several = len({group.portion for group in sheet.groups}) > 1
    for group in sheet.groups:
        whither = f", {group.portion}" if several else ""
        for line in group.lines:
            title = f"Weigh {_lower(line.name)}{whither}"
            steps.append(BenchStep(
                f"weigh-{line.position}", "weigh", title, group.label, line.note, group.portion, line.position,
                line.ingredient, line.mass_g, tables.tolerance.of(line.mass_g),
            ))  # fmt: skip
    whole = evaluate(formula, tables)
    dough = whole.dough or (whole.portions[0].dough if whole.portions else None)
    flash_c = _flash_point(formula, tables)
    made = [
        _step(number, step, formula, tables, sheet, flash_c) for number, step in enumerate(sheet.steps) if step is not prepare
    ]
    # Where shaping takes several steps, pieces are counted at the last.
    last = max((index for index, step in enumerate(made) if step.kind == "shape"), default=-1)
    made = [replace(step, kind="do") if step.kind == "shape" and at != last else step for at, step in enumerate(made)]
    steps += _counted(_reminded(_timed(made, whole)))
    return tuple(_with_window(steps, formula, tables, dough))


def step_from(stored: Mapping[str, Any]) -> BenchStep:
    """Return a step as it was stored with its batch; later changes of a method do not reach a batch that is begun.

    Parameters
    ----------
    stored : Mapping
        The step's fields as JSON keeps them

    Returns
    -------
    BenchStep
        The step
    """
    shares = tuple((str(name), float(mass_g)) for name, mass_g in stored["shares"])
    lines = tuple((str(name), tuple(int(each) for each in held)) for name, held in stored.get("share_lines", ()))
    return BenchStep(**{**stored, "shares": shares, "share_lines": lines})


def _timed(steps: Sequence[BenchStep], whole: Evaluation) -> list[BenchStep]:
    """Give each drying its clock: a surfactant that dries in before shaping, pieces that dry after."""
    shape = next((index for index, step in enumerate(steps) if step.kind == "shape"), len(steps))
    found = drying_hours(whole)
    after = None if isinstance(found, str) else 60 * found[0]
    return [
        step if step.kind != "dry" else replace(step, minutes=60 * PRE_DRY_H if index < shape else after)
        for index, step in enumerate(steps)
    ]


def _counted(steps: Sequence[BenchStep]) -> list[BenchStep]:
    """Give each of several steps of one name its number, so that a glance tells the next one from the last."""
    counted: list[BenchStep] = []
    for title, run in groupby(steps, key=lambda step: step.title):
        same = list(run)
        counted += [
            step if len(same) == 1 else replace(step, title=f"{title}, {number} of {len(same)}")
            for number, step in enumerate(same, start=1)
        ]
    return counted


def _reminded(steps: Sequence[BenchStep]) -> list[BenchStep]:
    """Say while shaping what has to go on while the pieces are damp; after drying it is too late."""
    reminded = list(steps)
    for index, (step, then) in enumerate(pairwise(steps)):
        if step.kind == "shape" and then.kind == "decorate":
            caution = f"{step.caution} Decorate tray by tray, while damp: {_lower(then.text)}".strip()
            reminded[index] = replace(step, caution=caution)
    return reminded


def _step(
    number: int, step: RunSheetStep, formula: Formula, tables: Tables, sheet: RunSheet, flash_c: float | None
) -> BenchStep:  # fmt: skip
    kind = step.kind if step.kind in ASKS else "do"
    key = f"do-{number}"
    made = BenchStep(key, kind, step.stage, step.text, step.caution)
    if kind == "rest":
        return replace(made, minutes=REST_MIN)
    if kind == "split":
        lines = _share_lines(step, formula, tables, sheet)
        mass_g = {line.position: line.mass_g for group in sheet.groups for line in group.lines}
        return replace(made, share_lines=lines, shares=tuple((name, sum(mass_g[each] for each in held)) for name, held in lines))
    if kind == "shape":
        return replace(made, pieces=sheet.pieces, piece_mass_g=sheet.piece_mass_g)
    melt_c = tables.methods[sheet.method].melt_c
    if step.kind == "melt" and melt_c is not None:
        return replace(made, kind="temperature", low_c=melt_c - MELT_MARGIN_C, high_c=melt_c + 5 * MELT_MARGIN_C)
    if step.kind == "scent" and flash_c is not None:
        return replace(made, kind="temperature", high_c=flash_c)
    return made


def _share_lines(
    step: RunSheetStep, formula: Formula, tables: Tables, sheet: RunSheet
) -> tuple[tuple[str, tuple[int, ...]], ...]:  # fmt: skip
    """Return the lines each portion is split off with: of the whole dough, or of what is in the bowl when wetting comes later."""
    wetting = next((each.number for each in sheet.steps if each.kind in {"wet", "melt"}), 0)
    held_back = {school.id for school in sheet.schools if school.taken in {"after", "last"}}
    shares: dict[str, tuple[int, ...]] = {portion.name: () for portion in formula.portions}
    for group in sheet.groups:
        for line in group.lines:
            waits = _waits(tables.ingredients[line.ingredient], held_back) or group.phase not in DRY_PHASES
            if step.number > wetting or not waits:
                shares[group.portion] += (line.position,)
    return tuple(shares.items())


def _waits(item: Ingredient, held_back: set[str]) -> bool:
    """Say whether a powder comes after the wetting."""
    if item.has("fast-acid"):
        return "acid" in held_back
    return item.role == "surfactant" and "surfactant" in held_back


def _with_window(steps: Sequence[BenchStep], formula: Formula, tables: Tables, dough: Dough | None) -> list[BenchStep]:
    """Put a step before the judging of a warm dough: wait for the working window."""
    method = tables.method_of(formula)
    window = None if dough is None else dough.working_window_c
    if window is None or not (method.kneaded and method.wet_c):
        return list(steps)
    cool = BenchStep(
        "window", "temperature", "Cool to the window", f"Shape between {window[0]:.0f} and {window[1]:.0f} °C.",
        low_c=window[0], high_c=window[1],
    )  # fmt: skip
    at = next((index for index, step in enumerate(steps) if step.kind == "feel"), len(steps))
    return [*steps[:at], cool, *steps[at:]]


def _flash_point(formula: Formula, tables: Tables) -> float | None:
    """Find the lowest flash point of the scents that is known [°C]."""
    papers = {**tables.certificates, **formula.product.certificates}
    points = []
    for line in formula.lines:
        item = tables.ingredients.get(line.ingredient or "")
        if item is None or item.role != "fragrance":
            continue
        paper = papers.get(item.id)
        known = item.flash_point_c if paper is None or paper.flash_c is None else paper.flash_c
        points += [] if known is None else [known]
    return min(points) if points else None


def _lower(name: str) -> str:
    """Begin a name small, unless it is an abbreviation."""
    return name if name[:2].isupper() else name[:1].lower() + name[1:]
