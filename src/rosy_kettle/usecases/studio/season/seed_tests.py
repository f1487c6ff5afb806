"""What the season's pieces did in the tub: single tests, two claims put to the test, one design, and four ropes."""

from __future__ import annotations

import math
import random
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import insert
from sqlalchemy.orm import Session

from rosy_kettle.core.learning.blind_series import LETTERS, SeriesPlace, next_block
from rosy_kettle.core.learning.series import Claim
from rosy_kettle.core.making.tub.foretold import foretell
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables, Use
from rosy_kettle.files import formula_to_file
from rosy_kettle.store.formulas import find_formula, list_formulas, record_of
from rosy_kettle.store.measurements import MeasurementRow, add_measurement
from rosy_kettle.store.test_series import TestSeriesRow, add_test_series
from rosy_kettle.store.trial_designs import TrialResultRow, add_trial_result, find_trial_design
from rosy_kettle.store.tub_tests import TubTestEventRow, TubTestRow, add_tub_test
from rosy_kettle.usecases.formulas.save_formula import store_new_formula
from rosy_kettle.usecases.learning.run_trials import DesignAsk, design_from_formula, look_at_design
from rosy_kettle.usecases.studio.season.truth import TRUTH
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["seed_season_tests"]

FEWEST_G, MOST_G, HALVINGS = 5.0, 500.0, 13
FOAM_SHAKE, ROPE_SHAKE = 0.07, 0.03
MINUTES = (1.0, 5.0, 10.0, 20.0)
SINGLE = ("Limpet domes", "Oar-blade slices", "Peat bricks", "Ferry-tin scoop, in cups", "Limpet domes", "Oar-blade slices")
ROPES = ("Oar-blade slices", "Limpet domes", "Oar-blade slices", "Limpet domes")
HALF, HALF_OF = "Half-tartar limpets", "Limpet domes"
DESIGNED = "Slipway rounds"
BATH = Use(dose_g=25.0, way="crumbled")


@dataclass(frozen=True, slots=True)
class _Studio:
    session: Session
    tables: Tables
    truth: Tables
    formulas: Mapping[str, int]
    chance: random.Random

    def made(self, name: str) -> Formula:
        return record_of(find_formula(self.session, self.formulas[name]))


def seed_season_tests(session: Session, now: datetime) -> None:
    """Put in what the year's baths, ropes and trials said, each seen by the truth of the studio with noise."""
    tables, truth = studio_tables(session, {}), studio_tables(session, TRUTH)
    half = _half_the_tartar(session, tables, now - timedelta(days=190))
    formulas = {row.name: row.id for row in list_formulas(session)} | {HALF: half}
    studio = _Studio(session, tables, truth, formulas, random.Random(7))  # noqa: S311 - demo noise, no secret
    for index, name in enumerate(SINGLE):
        _bathe(studio, name, name, now - timedelta(days=330 - 50 * index, hours=index))
    for index, name in enumerate(ROPES):
        _roll(studio, name, now - timedelta(days=240 - 45 * index))
    alike = Claim("foam_height_cm", better="A", than="B", worth=1.0)
    _series(studio, "Starch for half the tartar", ("Limpet domes", HALF), alike, now - timedelta(days=180))
    taller = Claim("foam_height_cm", better="A", than="B", worth=0.5)
    _series(studio, "A scoop or a slice", ("Limpet domes", "Oar-blade slices"), taller, now - timedelta(days=80))
    _design(studio, now - timedelta(days=40))


def _half_the_tartar(session: Session, tables: Tables, at: datetime) -> int:
    row = next(row for row in list_formulas(session) if row.name == HALF_OF)
    made = record_of(row)
    amounts = {"cream-of-tartar": "22", "corn-starch": "146"}
    portions = tuple(
        replace(portion, lines=tuple(
            replace(line, amount=amounts.get(line.ingredient or "", line.amount)) for line in portion.lines
        ))
        for portion in made.portions
    )  # fmt: skip
    kept = store_new_formula(session, replace(made, name=HALF, portions=portions), tables)
    kept.created_at = kept.updated_at = kept.working.created_at = at
    return kept.id


def _bathe(studio: _Studio, formula: str, name: str, at: datetime, series: tuple[int, int] | None = None) -> None:
    """Write one test: what the Desk said by its tables, what was seen by the truth."""
    made = replace(studio.made(formula), use=BATH)
    true = {point.minutes: point.height_cm for point in foretell(made, studio.truth).heights}
    tall = math.exp(studio.chance.gauss(0, FOAM_SHAKE))
    heights = [
        ("foam", {"minutes": minutes, "height_cm": round(max(0.1, true.get(minutes, 0.0) * tall), 1)}) for minutes in MINUTES
    ]  # fmt: skip
    events: list[tuple[str, dict[str, Any]]] = [("opened", {}), *heights, ("seen", {"floats": "floats"}), ("closed", {})]
    end = at + timedelta(minutes=40)
    row = add_tub_test(studio.session, TubTestRow(
        formula_id=studio.formulas[formula], version=1, name=name, use=asdict(BATH), begun_at=at, closed_at=end,
        foretold=asdict(foretell(made, studio.tables)), formula=formula_to_file(made).model_dump(mode="json"),
        series_id=series and series[0], series_place=series and series[1],
    ))  # fmt: skip
    studio.session.execute(insert(TubTestEventRow), [
        {"test_id": row.id, "seq": seq, "at": min(end, at + timedelta(minutes=5 * seq)), "kind": kind, "data": data}
        for seq, (kind, data) in enumerate(events, start=1)
    ])  # fmt: skip


def _series(studio: _Studio, name: str, formulas: Sequence[str], claim: Claim, at: datetime) -> None:
    """Write a series of four baths each, its codes open."""
    letters = LETTERS[: len(formulas)]
    places = next_block(letters, 4, (), studio.chance)
    variants = [
        {
            "letter": letter, "formula_id": studio.formulas[each], "version": 1, "name": each,
            "formula": formula_to_file(studio.made(each)).model_dump(mode="json"),
        }
        for letter, each in zip(letters, formulas, strict=True)
    ]  # fmt: skip
    row = add_test_series(studio.session, TestSeriesRow(
        name=name, claim=asdict(claim), variants=variants, use=asdict(BATH), places=[asdict(place) for place in places],
        opened=len(places), begun_at=at,
    ))  # fmt: skip
    for index, place in enumerate(places):
        _bathe_place(studio, row.id, name, formulas[letters.index(place.variant)], place, index, at)


def _bathe_place(
    studio: _Studio, series_id: int, name: str, formula: str, place: SeriesPlace, index: int, begun: datetime
) -> None:
    _bathe(studio, formula, f"{name}, code {place.code}", begun + timedelta(days=index, hours=11), (series_id, index))


def _roll(studio: _Studio, name: str, at: datetime) -> None:
    """Write a rope test: the glycerin at which S truly is what a rope rolls and smears at."""
    made = studio.made(name)
    dough = evaluate(replace(made, portions=made.portions[:1]), studio.tables).dough
    rolls, smears = (_wetter_at(studio, made, aim) * math.exp(studio.chance.gauss(0, ROPE_SHAKE)) for aim in (0.62, 1.02))
    add_measurement(studio.session, MeasurementRow(
        kind="rope", formula_id=studio.formulas[name], name=name, formula=formula_to_file(made).model_dump(mode="json"), at=at,
        facts={
            "wetter": "glycerin", "temperature_c": 20.0 if dough is None else dough.temperature_c,
            "rolls_at_g": round(rolls, 1), "smears_at_g": round(smears, 1),
        },
    ))  # fmt: skip


def _wetter_at(studio: _Studio, made: Formula, aim: float) -> float:
    """Return the glycerin that truly brings the dough to an S, by halving [g]."""
    portion = made.portions[0]
    glycerin = next(line for line in portion.lines if line.ingredient == "glycerin")
    others = tuple(line for line in portion.lines if line.ingredient != "glycerin")
    low, high = FEWEST_G, MOST_G
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        lines = (*others, replace(glycerin, amount=f"{middle:.3f}"))
        dough = evaluate(replace(made, portions=(replace(portion, lines=lines),)), studio.truth).dough
        wet = 0.0 if dough is None else dough.saturation or 0.0
        low, high = (middle, high) if wet < aim else (low, middle)
    return low


def _design(studio: _Studio, at: datetime) -> None:
    """Design eight mini-batches of powder, starch and salt, and read back the foam of all but one."""
    bounds = (("slsa-fine", 1.0, 5.0), ("corn-starch", 2.5, 7.5), ("sea-salt-fine", 1.0, 6.0))
    ask = DesignAsk(studio.formulas[DESIGNED], "lather.height_cm", "more", bounds, 8, 80.0)
    row = find_trial_design(studio.session, design_from_formula(studio.session, ask))
    row.designed_at = at
    trials = find_formula(studio.session, row.trials_formula_id)
    trials.created_at = trials.updated_at = at
    for version in trials.versions:
        version.created_at = at
    for trial in look_at_design(studio.session, row.id).trials[:-1]:
        value = round((trial.said or 0.0) * TRUTH["foam"] * math.exp(studio.chance.gauss(0, 0.03)), 2)
        result = TrialResultRow(design_id=row.id, trial=trial.number - 1, value=value, at=at + timedelta(days=trial.number))
        add_trial_result(studio.session, result)
