"""Guided measurements, kept with the formula they were made of: rope and drops. Tray and bucket are weigh-ins and tub tests."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError, NotFoundError
from rosy_kettle.core.learning.factors import learn
from rosy_kettle.core.learning.observations import Observation
from rosy_kettle.files import formula_to_file
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.measurements import MeasurementRow, add_measurement, list_measurements
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["MOST_MEASUREMENTS", "RopeSeen", "keep_drops", "keep_rope", "leave_measurement_out"]

MOST_MEASUREMENTS = 150


@dataclass(frozen=True, slots=True)
class RopeSeen:
    """What the rope test found, on the powders of a formula with so much of its wetter."""

    formula_id: int
    wetter: str
    temperature_c: float
    rolls_at_g: float | None
    """Wetter at which a rope first rolls without cracks, in the whole formula [g]."""
    smears_at_g: float | None
    """Wetter at which it first smears the glove [g]."""
    key: str | None = None


def keep_rope(session: Session, seen: RopeSeen) -> MeasurementRow:
    """Keep a rope test.

    Raises
    ------
    InputError
        If nothing was found, the second figure is not above the first, or the formula cannot be judged by it.
    """
    if seen.rolls_at_g is None and seen.smears_at_g is None:
        raise InputError("Give at least one figure: where the rope rolls, or where it smears.", quantity="rolls_at_g")
    if seen.rolls_at_g is not None and seen.smears_at_g is not None and seen.smears_at_g <= seen.rolls_at_g:
        raise InputError("It smears only after it has rolled; the second figure is the larger one.", quantity="smears_at_g")
    return _keep(session, "rope", seen.formula_id, {
        "wetter": seen.wetter, "temperature_c": seen.temperature_c,
        "rolls_at_g": seen.rolls_at_g, "smears_at_g": seen.smears_at_g,
    }, seen.key)  # fmt: skip


def keep_drops(session: Session, formula_id: int, drops: float, key: str | None) -> MeasurementRow:
    """Keep a drop test: how often a dried piece falls from 10 cm until a corner breaks, the mean of some pieces.

    Raises
    ------
    InputError
        If of its formula no firmness is known.
    """
    return _keep(session, "scratch", formula_id, {"drops": drops}, key)


def _keep(session: Session, kind: str, formula_id: int, facts: dict[str, Any], key: str | None) -> MeasurementRow:
    row = find_formula(session, formula_id)
    made = record_of(row)
    learnt = learn([Observation(kind, made, facts)], studio_tables(session, {}))
    if learnt.set_aside:
        raise InputError(f"Nothing can be learnt from this: {learnt.set_aside[0].reason}.", quantity="formula_id")
    file = formula_to_file(made).model_dump(mode="json")
    return add_measurement(session, MeasurementRow(
        kind=kind, formula_id=row.id, name=row.name, formula=file, facts=facts, request_key=key,
    ))  # fmt: skip


def leave_measurement_out(session: Session, measurement_id: int) -> None:
    """Let a measurement count no more; it stays in the file.

    Raises
    ------
    NotFoundError
        If there is none that counts under that number.
    """
    row = next((each for each in list_measurements(session, MOST_MEASUREMENTS) if each.id == measurement_id), None)
    if row is None:
        raise NotFoundError(f"There is no measurement {measurement_id}.", noun="measurement", id=measurement_id)
    add_measurement(session, MeasurementRow(
        kind=row.kind, formula_id=row.formula_id, name=row.name, formula=row.formula, facts=row.facts, leaves_out=row.id,
    ))  # fmt: skip
