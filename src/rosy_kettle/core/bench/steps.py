"""The steps of one bowl at the bench: weigh everything first, then do, one thing at a time."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from rosy_kettle.core.evaluate import evaluate
from rosy_kettle.core.plan.run_sheet import RunSheet, RunSheetStep
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import Dough

__all__ = ["BenchStep", "bench_steps", "tolerance_g"]

LEAST_TOLERANCE_G, TOLERANCE_SHARE = 0.5, 0.01  # the larger counts [g], [-]; common practice
REST_MIN = 10.0  # a kneaded dough drinks [min]; common practice
MELT_C = {"moulded-truffle": 59.0, "butter-dough": 60.0, "melt": 70.0}
"""Where butters and waxes are clear [°C]; common practice."""
MELT_MARGIN_C = 6.0
KINDS = {
    "Rest": "rest",
    "Judge": "feel",
    "Colour": "split",
    "Shape": "shape",
    "Mould": "shape",
    "Decorate": "decorate",
    "Fill": "shape",
}
DRYING = frozenset({"Dry", "Set"})


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
    pieces: int | None = None
    piece_mass_g: float | None = None


def tolerance_g(target_g: float) -> float:
    """Return how far a weighing may be off: the larger of 0.5 g and 1 %, and never half of what is weighed.

    Parameters
    ----------
    target_g : float
        What is to be weighed [g]

    Returns
    -------
    float
        Tolerance either way [g]

    Examples
    --------
    >>> tolerance_g(37.0)
    0.5
    >>> tolerance_g(220.0)
    2.2
    """
    return min(max(LEAST_TOLERANCE_G, TOLERANCE_SHARE * target_g), target_g / 2)


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
    steps = [BenchStep("conditions", "conditions", "Read the air", "Room, humidity and tap, as they are now.")]
    for group in sheet.groups:
        for line in group.lines:
            title = f"Weigh {_lower(line.name)}"
            steps.append(BenchStep(
                f"weigh-{line.position}", "weigh", title, group.label, line.note, group.portion, line.position,
                line.ingredient, line.mass_g, tolerance_g(line.mass_g),
            ))  # fmt: skip
    whole = evaluate(formula, tables)
    dough = whole.dough or (whole.portions[0].dough if whole.portions else None)
    flash_c = _flash_point(formula, tables)
    made = [_step(number, step, formula, sheet, flash_c) for number, step in enumerate(sheet.steps)]
    # Where shaping takes several steps, pieces are counted at the last.
    last = max((index for index, step in enumerate(made) if step.kind == "shape"), default=-1)
    steps += [replace(step, kind="do") if step.kind == "shape" and at != last else step for at, step in enumerate(made)]
    return tuple(_with_window(steps, formula, tables, dough))


def _step(number: int, step: RunSheetStep, formula: Formula, sheet: RunSheet, flash_c: float | None) -> BenchStep:
    kind = "dry" if step.stage in DRYING else KINDS.get(step.stage, "do")
    key = f"do-{number}"
    made = BenchStep(key, kind, step.stage, step.text, step.caution)
    if kind == "rest":
        return replace(made, minutes=REST_MIN)
    if kind == "split":
        whole = sum(group.mass_g for group in sheet.groups)
        shares = {portion.name: 0.0 for portion in formula.portions}
        for group in sheet.groups:
            shares[group.portion] += group.mass_g
        return replace(made, shares=tuple(shares.items()) if whole > 0 else ())
    if kind == "shape":
        return replace(made, pieces=sheet.pieces, piece_mass_g=sheet.piece_mass_g)
    if step.stage == "Melt" and sheet.method in MELT_C:
        low = MELT_C[sheet.method] - MELT_MARGIN_C
        return replace(made, kind="temperature", low_c=low, high_c=MELT_C[sheet.method] + 5 * MELT_MARGIN_C)
    if step.stage == "Scent" and flash_c is not None:
        return replace(made, kind="temperature", high_c=flash_c)
    return made


def _with_window(steps: Sequence[BenchStep], formula: Formula, tables: Tables, dough: Dough | None) -> list[BenchStep]:
    """Put a step before the judging of a warm dough: wait for the working window."""
    method = tables.methods[formula.method]
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
