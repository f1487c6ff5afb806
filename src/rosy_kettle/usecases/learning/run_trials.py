"""Designs of mini-batches in the studio: designed from a formula, weighed as its versions, read back, fitted."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace

from sqlalchemy.orm import Session

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.learning.mixture_design import Bounds, check_bounds, design_trials
from rosy_kettle.core.learning.mixture_response import MixtureResponse, fit_response
from rosy_kettle.core.making.bench import in_grams
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.readings.registry import declared, notable
from rosy_kettle.core.records import Formula, Line, Tables
from rosy_kettle.core.records.reading import Reading
from rosy_kettle.core.words.trials import TRIALS_ALIKE
from rosy_kettle.store.formulas import FormulaRow, find_formula, find_formula_ever, find_version, keep_version, record_of
from rosy_kettle.store.trial_designs import (
    TrialDesignRow,
    TrialResultRow,
    add_trial_design,
    add_trial_result,
    designed_with,
    find_trial_design,
    list_trial_designs,
    list_trial_results,
)
from rosy_kettle.usecases.each_alone import each_alone, passed_over
from rosy_kettle.usecases.formulas.save_formula import store_formula, store_new_formula
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = [
    "DesignAsk", "Trial", "TrialBound", "TrialDesign", "TrialResult", "amend_result", "design_from_formula", "look_at_design",
    "look_at_designs", "read_back",
]  # fmt: skip


WORTH_SHARE = 0.05  # of a reading nobody has said what is noticed of [-]
LONGEST_NAME = 180
"""Of the formula trials are designed from; what is longer is cut, for the name has to say that these are trials."""


@dataclass(frozen=True, slots=True)
class DesignAsk:
    """What is asked for: bounds in per cent of the formula, a reading, and how many batches of what size."""

    formula_id: int
    reading: str
    wanted: str
    bounds: Sequence[tuple[str, float, float]]
    """Ingredient, low and high [% of the formula]."""
    trials: int
    batch_g: float
    key: str | None = None


@dataclass(frozen=True, slots=True)
class TrialResult:
    """What a trial read."""

    id: int
    value: float


@dataclass(frozen=True, slots=True)
class Trial:
    """One mini-batch."""

    number: int
    """From 1; also its version."""
    shares: tuple[float, ...]
    grams: tuple[float, ...]
    """Of the varied ingredients in the mini-batch [g]."""
    said: float | None
    """What the Desk says of it [the reading's unit]."""
    results: tuple[TrialResult, ...]


@dataclass(frozen=True, slots=True)
class TrialBound:
    """A varied ingredient, with its bounds as they were asked for."""

    ingredient: str
    name: str
    low_pct: float
    high_pct: float


@dataclass(frozen=True, slots=True)
class TrialDesign:
    """A design as it stands."""

    row: TrialDesignRow
    reading: Reading
    bounds: tuple[TrialBound, ...]
    trials: tuple[Trial, ...]
    response: MixtureResponse
    warning: str = ""
    """What speaks against beginning: that the chosen lines hardly move the reading by the Desk; "" where nothing does."""


def design_from_formula(session: Session, ask: DesignAsk) -> int:
    """Design trials, keep each as a version of a formula of their own, and return the number of the design.

    Raises
    ------
    InputError
        If an ingredient is no line of the formula, the reading is none, or the bounds cannot hold.
    """
    known = designed_with(session, ask.key)
    if known is not None:
        return known
    if ask.reading not in declared():
        raise InputError(f'There is no reading "{ask.reading[:60]}".', quantity="reading")
    tables = studio_tables(session)
    origin = find_formula(session, ask.formula_id)
    base = in_grams(record_of(origin), tables, ask.batch_g)
    together_g = _together(base, tables, [id_ for id_, _low, _high in ask.bounds])
    share = together_g / ask.batch_g
    bounds = [Bounds(id_, low / 100 / share, high / 100 / share) for id_, low, high in ask.bounds]
    check_bounds(bounds)
    design = design_trials(bounds, ask.trials)
    name = f"{origin.name[:LONGEST_NAME]}, trials"
    trials = _keep_versions(session, replace(base, name=name, batch_g=ask.batch_g), bounds, design.points, tables)
    return add_trial_design(session, TrialDesignRow(
        formula_id=ask.formula_id, trials_formula_id=trials.id, name=name, reading=ask.reading, wanted=ask.wanted,
        bounds=[asdict(each) for each in bounds], batch_g=ask.batch_g, degree=design.degree, efficiency=design.efficiency,
        points=[list(point) for point in design.points], request_key=ask.key,
    )).id  # fmt: skip


def _together(base: Formula, tables: Tables, ingredients: Sequence[str]) -> float:
    """Return what the varied ingredients weigh together [g]."""
    masses: dict[str, float] = {}
    for item in weigh_formula(base, tables)[0]:
        masses[item.ingredient.id] = masses.get(item.ingredient.id, 0.0) + item.mass_g
    missing = next((id_ for id_ in ingredients if not masses.get(id_)), None)
    if missing is not None:
        known = tables.ingredients.get(missing)
        raise InputError(f"{missing if known is None else known.name} weighs nothing in this formula.", quantity="ingredients")
    return sum(masses[id_] for id_ in ingredients)


def _keep_versions(
    session: Session, base: Formula, bounds: Sequence[Bounds], points: Sequence[Sequence[float]], tables: Tables
) -> FormulaRow:
    """Store the trials as versions, one after the other."""
    row: FormulaRow | None = None
    for number, point in enumerate(points, start=1):
        made = trial_formula(base, tables, [each.ingredient for each in bounds], point)
        row = (
            store_new_formula(session, made, tables)
            if row is None
            else store_formula(session, row.id, row.revision, made, tables)
        )
        keep_version(session, row.id, f"Trial {number}")
    if row is None:
        raise InputError("A design has at least one trial.", quantity="trials")
    return row


def trial_formula(base: Formula, tables: Tables, ingredients: Sequence[str], point: Sequence[float]) -> Formula:
    """Return one trial: the varied ingredients share their weight anew, lines of one ingredient as before among themselves."""
    together_g = _together(base, tables, ingredients)
    before: dict[str, float] = {}
    for line in base.lines:
        if line.ingredient is not None and line.ingredient in ingredients:
            before[line.ingredient] = before.get(line.ingredient, 0.0) + float(line.amount)
    factor = {id_: share * together_g / before[id_] for id_, share in zip(ingredients, point, strict=True)}

    def shared(each: Line) -> Line:
        if each.ingredient is None or each.ingredient not in factor:
            return each
        return replace(each, amount=f"{float(each.amount) * factor[each.ingredient]:.2f}")

    portions = tuple(replace(portion, lines=tuple(shared(each) for each in portion.lines)) for portion in base.portions)
    return replace(base, portions=portions)


def read_back(session: Session, design_id: int, trial: int, value: float) -> None:
    """Keep what a trial read; a second result of one trial is a repeat.

    Raises
    ------
    InputError
        If the design has no such trial.
    """
    row = find_trial_design(session, design_id)
    if not 1 <= trial <= len(row.points):
        raise InputError(f"There is no trial {trial}; the design has {len(row.points)}.", quantity="trial", value=trial)
    add_trial_result(session, TrialResultRow(design_id=design_id, trial=trial - 1, value=value))


def amend_result(session: Session, design_id: int, result_id: int, value: float | None) -> None:
    """Say what a result should have been; None leaves it out.

    Raises
    ------
    InputError
        If the design has no such result.
    """
    results = list_trial_results(session, [design_id])[find_trial_design(session, design_id).id]
    of = next((each for each in results if each.id == result_id and each.amends is None), None)
    if of is None:
        raise InputError("There is no such result to amend.", quantity="result", value=result_id)
    add_trial_result(session, TrialResultRow(design_id=design_id, trial=of.trial, value=value, amends=result_id))


def look_at_designs(session: Session, *, query: str, before: int | None, limit: int) -> list[TrialDesign]:
    """Return designs as they stand, the newest first."""
    rows = list_trial_designs(session, query=query, before=before, limit=limit)
    results, tables = list_trial_results(session, [row.id for row in rows]), studio_tables(session)
    return each_alone(rows, lambda some: [_looked_at(session, row, results[row.id], tables) for row in some], passed_over)


def look_at_design(session: Session, design_id: int) -> TrialDesign:
    """Return one design as it stands.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    row = find_trial_design(session, design_id)
    return _looked_at(session, row, list_trial_results(session, [row.id])[row.id], studio_tables(session))


def _warning(told: Sequence[float | None], reading: Reading) -> str:
    """Say where the Desk expects the trials to read all the same: then the batches teach little."""
    known = [each for each in told if each is not None]
    if len(known) < 2 or max(known) - min(known) >= notable(reading.id, WORTH_SHARE * max(map(abs, known))):  # noqa: PLR2004 - one is no range
        return ""
    return TRIALS_ALIKE.format(label=reading.label, low=min(known), high=max(known), unit=f" {reading.unit}".rstrip())


def _looked_at(session: Session, row: TrialDesignRow, results: Sequence[TrialResultRow], tables: Tables) -> TrialDesign:
    bounds = [Bounds(**each) for each in row.bounds]
    counting = _counting(results)
    trials = find_formula_ever(session, row.trials_formula_id)
    made = [record_of(trials, find_version(trials, number)) for number in range(1, len(row.points) + 1)]
    together_g = _together(made[0], tables, [each.ingredient for each in bounds])
    told = [_said(each, row.reading, tables) for each in made]
    return TrialDesign(
        row, declared()[row.reading],
        tuple(_bound(each, together_g / row.batch_g, tables) for each in bounds),
        tuple(
            Trial(
                index + 1, tuple(point), tuple(share * together_g for share in point), told[index],
                tuple(result for trial, result in counting if trial == index),
            )
            for index, point in enumerate(row.points)
        ),
        fit_response(
            bounds, [row.points[trial] for trial, _ in counting], [result.value for _, result in counting], row.wanted
        ),
        "" if results else _warning(told, declared()[row.reading]),
    )  # fmt: skip


def _bound(bound: Bounds, share: float, tables: Tables) -> TrialBound:
    known = tables.ingredients.get(bound.ingredient)
    name = bound.ingredient if known is None else known.short_name
    return TrialBound(bound.ingredient, name, 100 * bound.low * share, 100 * bound.high * share)


def _said(made: Formula, reading: str, tables: Tables) -> float | None:
    try:
        told = evaluate(made, tables)
    except InputError:
        return None  # made in a way of another version: its results stand all the same
    group, _, name = reading.partition(".")
    value = getattr(getattr(told, group, None), name, None) if name else getattr(told, group, None)
    return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else None


def _counting(results: Sequence[TrialResultRow]) -> list[tuple[int, TrialResult]]:
    """Return the results that count, each with its latest amendment, by their trial."""
    amended = {row.amends: row.value for row in results if row.amends is not None}
    found = []
    for row in results:
        value = amended.get(row.id, row.value)
        if row.amends is None and value is not None:
            found.append((row.trial, TrialResult(row.id, value)))
    return found
