"""Guided measurements."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.measurements import DropsSave, MeasurementAnswer, MeasurementList, MeasurementPath, RopeSave
from rosy_kettle.api.studio import current_studio
from rosy_kettle.store.measurements import MeasurementRow, list_measurements
from rosy_kettle.usecases.learning.measure import MOST_MEASUREMENTS, RopeSeen, keep_drops, keep_rope, leave_measurement_out

__all__ = ["blueprint"]

blueprint = part("measurements", __name__, "/api/measurements", (404, 422))


@blueprint.get("", summary="Measurements that count, the newest first", responses={200: MeasurementList})
def list_() -> Response:
    return _told()


@blueprint.post("", summary="Keep a rope test", responses={201: MeasurementAnswer})
def keep(body: RopeSave) -> Response:
    seen = RopeSeen(body.formula_id, body.wetter, body.temperature_c, body.rolls_at_g, body.smears_at_g, body.key)
    with current_studio().writing() as session:
        return respond(_answer(keep_rope(session, seen)), 201)


@blueprint.post("/drops", summary="Keep a drop test", responses={201: MeasurementAnswer})
def keep_dropped(body: DropsSave) -> Response:
    with current_studio().writing() as session:
        return respond(_answer(keep_drops(session, body.formula_id, body.drops, body.key)), 201)


@blueprint.delete("/<int:measurement_id>", summary="Let a measurement count no more", responses={200: MeasurementList})
def leave_out(path: MeasurementPath) -> Response:
    with current_studio().writing() as session:
        leave_measurement_out(session, path.measurement_id)
    return _told()


def _told() -> Response:
    with current_studio().reading() as session:
        found = [_answer(row) for row in list_measurements(session, MOST_MEASUREMENTS)]
    return respond(MeasurementList(items=found, next=None))


def _answer(row: MeasurementRow) -> MeasurementAnswer:
    return MeasurementAnswer(id=row.id, kind=row.kind, formula_id=row.formula_id, name=row.name, facts=row.facts, at=row.at)
