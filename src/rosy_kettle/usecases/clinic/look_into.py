"""A trouble looked into: what the studio knows of the piece, ranked causes, what to ask next, and what it was in the end."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass, replace
from datetime import UTC, datetime
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.task import with_masses_at
from rosy_kettle.core.change.why.levers import Effect
from rosy_kettle.core.clinic.diagnose import Cause, Diagnosis, diagnose
from rosy_kettle.core.clinic.forewarn import with_outcomes
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.bench import effects_of
from rosy_kettle.core.records import Formula, Line, Tables
from rosy_kettle.core.records.trouble import TroubleTables
from rosy_kettle.files import FormulaFile, formula_from_file, formula_to_file
from rosy_kettle.reference import load_symptoms, load_troubles
from rosy_kettle.store.formulas import FormulaRow, find_formula, record_of
from rosy_kettle.store.troubles import NONE_OF_THESE, TroubleRow, add_trouble, find_trouble, list_outcomes
from rosy_kettle.usecases.batches.run_batch import Bench, open_bench
from rosy_kettle.usecases.formulas.save_formula import store_formula
from rosy_kettle.usecases.rack.run_rack import look_at_tray
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.tub.run_test import look_at_test

__all__ = [
    "LookedInto",
    "TroubleAsk",
    "answer_trouble",
    "decide_trouble",
    "look_into",
    "open_trouble",
    "take_change",
]


@dataclass(frozen=True, slots=True)
class TroubleAsk:
    """What is seen, and of what: a batch, a tray, a bath, a formula, or nothing that is known here."""

    symptom: str
    formula_id: int | None = None
    batch_id: int | None = None
    tray_id: int | None = None
    test_id: int | None = None
    answers: Mapping[str, Any] | None = None
    key: str | None = None


@dataclass(frozen=True, slots=True)
class LookedInto:
    """A trouble with all that is made of it."""

    row: TroubleRow
    found: Diagnosis
    effects: Mapping[str, tuple[Effect, ...]]
    """What the change of the formula would do to its readings, by cause."""


@dataclass(frozen=True, slots=True)
class _Of:
    name: str
    formula: Formula | None
    formula_id: int | None = None
    batch_id: int | None = None
    answers: Mapping[str, Any] | None = None
    """What the rack or the tub knows already, in the words of the questions."""


def open_trouble(session: Session, ask: TroubleAsk) -> TroubleRow:
    """Begin to look into a trouble; what the studio knows of the piece is kept with it as it is now.

    Raises
    ------
    InputError
        If the symptom is not known, or an answer cannot be meant.
    NotFoundError
        If there is no such batch, tray, test or formula.
    """
    of = _of(session, ask)
    answers = {**(of.answers or {}), **(ask.answers or {})}
    tables = studio_tables(session)
    diagnose(ask.symptom, of.formula, tables, load_troubles(), None, answers)  # refuses in its own words
    return add_trouble(session, TroubleRow(
        symptom=ask.symptom, name=of.name, formula_id=of.formula_id, batch_id=of.batch_id, tray_id=ask.tray_id,
        test_id=ask.test_id, formula=None if of.formula is None else formula_to_file(of.formula).model_dump(mode="json"),
        answers=answers, request_key=ask.key,
    ))  # fmt: skip


def look_into(session: Session, trouble_id: int) -> LookedInto:
    """Return a trouble with its causes, by all that is known now.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    row = find_trouble(session, trouble_id)
    bench = None if row.batch_id is None else open_bench(session, row.batch_id)
    tables = studio_tables(session)  # with all that is learnt by now, whatever the batch was planned with
    formula = _formula(row, tables)
    found = diagnose(row.symptom, formula, tables, own_tables(session), _record(bench), row.answers)
    effects = {
        cause.id: effects_of(formula, changed(formula, cause, tables), tables)
        for cause in found.causes if cause.change and formula is not None
    }  # fmt: skip
    return LookedInto(row, found, effects)


def answer_trouble(session: Session, trouble_id: int, answers: Mapping[str, Any]) -> None:
    """Add answers; null takes one back.

    Raises
    ------
    InputError
        If an answer cannot be meant.
    """
    row = find_trouble(session, trouble_id)
    after = {key: value for key, value in {**row.answers, **answers}.items() if value is not None}
    tables = studio_tables(session)
    diagnose(row.symptom, _formula(row, tables), tables, load_troubles(), None, after)  # refuses in its own words
    row.answers = after


def decide_trouble(session: Session, trouble_id: int, cause: str | None, remark: str) -> None:
    """Say what it was, that it was none of these, or that nobody knows yet; the studio's own priors follow.

    Raises
    ------
    InputError
        If there is no such cause.
    """
    row = find_trouble(session, trouble_id)
    if cause is not None and cause != NONE_OF_THESE and cause not in load_troubles().advice:
        raise InputError(f'There is no cause "{cause[:40]}".', quantity="cause")
    row.outcome, row.remark = cause, remark.strip()
    row.decided_at = None if cause is None else datetime.now(UTC)


def take_change(session: Session, trouble_id: int, cause_id: str) -> FormulaRow:
    """Take the change that a cause asks for into the formula; the version before stays as it was.

    Raises
    ------
    InputError
        If the trouble is of no stored formula, or the cause asks for no change.
    """
    looked = look_into(session, trouble_id)
    cause = next((each for each in looked.found.causes if each.id == cause_id), None)
    if looked.row.formula_id is None or cause is None or not cause.change:
        raise InputError("There is no change of a stored formula to take.", quantity="cause")
    row = find_formula(session, looked.row.formula_id)
    tables = studio_tables(session)
    after = changed(record_of(row), cause, tables, _formula(looked.row, tables))
    return store_formula(session, row.id, row.revision, after, tables)


def changed(formula: Formula, cause: Cause, tables: Tables, made: Formula | None = None) -> Formula:
    """Return a formula with the change of a cause, which was worked out on what was made of it.

    Every ingredient that changes comes to the same share of all that does not: the formula may hold another amount of it than
    the batch did, which was corrected or tried with less.
    """
    change = {each.ingredient: each.after_g for each in cause.change or ()}
    own, as_made = ([line for line in weigh_formula(each, tables)[0] if line.mass_g > 0] for each in (formula, made or formula))
    unchanged_g, made_g = (sum(line.mass_g for line in lines if line.ingredient.id not in change) for lines in (own, as_made))
    scale = unchanged_g / made_g if made_g > 0 else 1.0
    masses: dict[int, float] = {}
    added: list[Line] = []
    for name, after_g in change.items():
        lines = [line for line in own if line.ingredient.id == name]
        before_g = sum(line.mass_g for line in lines)
        masses |= {line.position: line.mass_g * after_g * scale / before_g for line in lines}
        added += [] if lines or after_g <= 0 else [Line(name, f"{after_g * scale:.4g}", "g")]
    moved = with_masses_at(formula, masses)
    first = moved.portions[0]
    return replace(moved, portions=(replace(first, lines=first.lines + tuple(added)), *moved.portions[1:])) if added else moved


def own_tables(session: Session) -> TroubleTables:
    """Return what practice expects of troubles, with the studio's own outcomes counted in."""
    return with_outcomes(load_troubles(), list_outcomes(session))


def title_of(symptom: str) -> str:
    """Return how a symptom is called."""
    return next((each.title for each in load_symptoms() if each.id == symptom), symptom)


def _of(session: Session, ask: TroubleAsk) -> _Of:
    if ask.test_id is not None:
        test = look_at_test(session, ask.test_id)
        if test.blind:
            raise InputError("The code of this bath is still closed; read it first.", quantity="test_id")
        use = test.row.use
        known = {"tap": use.get("hardness"), "tub_l": use.get("tub_l"), "bath_c": use.get("bath_c"), "way": use.get("way")}
        answers = {key: value for key, value in known.items() if value is not None}
        return _Of(test.row.name, _read(test.row.formula), test.row.formula_id, test.row.batch_id, answers)
    if ask.tray_id is not None:
        tray = look_at_tray(session, ask.tray_id)
        air = tray.reading.air
        answers = {"hours_dried": round(tray.reading.age_h, 1)}
        answers |= {} if air is None else {"room_humidity_pct": air.humidity_pct, "room_c": air.temperature_c}
        formula_id = None if tray.row.batch_id is None else open_bench(session, tray.row.batch_id).row.formula_id
        return _Of(tray.row.name, _read(tray.row.formula), formula_id, tray.row.batch_id, answers)
    if ask.batch_id is not None:
        bench = open_bench(session, ask.batch_id)
        return _Of(f"{bench.row.name}, batch {bench.row.id}", bench.made, bench.row.formula_id, bench.row.id)
    if ask.formula_id is not None:
        row = find_formula(session, ask.formula_id)
        return _Of(row.name, record_of(row), row.id)
    return _Of("a piece from elsewhere", None)


def _read(data: Mapping[str, Any] | None) -> Formula | None:
    return None if data is None else formula_from_file(FormulaFile.model_validate(data))


def _formula(row: TroubleRow, tables: Tables) -> Formula | None:
    """Return the formula as made; None where an ingredient of it is gone."""
    formula = _read(row.formula)
    if formula is None or {line.ingredient for line in formula.lines} - set(tables.ingredients) - {None}:
        return None
    return formula


def _record(bench: Bench | None) -> dict[str, Any] | None:
    return None if bench is None else {"state": asdict(bench.state)}
