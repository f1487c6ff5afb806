"""Series of tests side by side."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.test_series import (
    MoreSave,
    SeriesAnswer,
    SeriesList,
    SeriesPath,
    SeriesQuery,
    SeriesSave,
    SlipAnswer,
)
from rosy_kettle.api.schemas.tub_tests import TestAnswer
from rosy_kettle.api.studio import current_studio
from rosy_kettle.api.tub_tests import known_use, test_answer
from rosy_kettle.core.learning.blind_series import TEST_READINGS
from rosy_kettle.core.learning.series import Claim
from rosy_kettle.core.records import Use
from rosy_kettle.usecases.tub.run_series import (
    SeriesBegin,
    TestSeries,
    begin_next_bath,
    begin_series,
    look_at_all_series,
    look_at_series,
    more_baths,
    open_codes,
    slip_of,
)
from rosy_kettle.usecases.tub.run_test import look_at_test

__all__ = ["blueprint"]

blueprint = part("series", __name__, "/api/test-series", (404, 409, 422))


@blueprint.get("", summary="Series of tests, the newest first", responses={200: SeriesList})
def list_(query: SeriesQuery) -> Response:
    with current_studio().reading() as session:
        found = look_at_all_series(session, query=query.q, before=query.cursor, limit=query.limit + 1)
        shown = [_answer(each) for each in found[: query.limit]]
    next_ = shown[-1].id if len(found) > query.limit else None
    return respond(SeriesList(items=shown, next=next_, readings=list(TEST_READINGS.values())))


@blueprint.post("", summary="Begin a series", responses={201: SeriesAnswer})
def begin(body: SeriesSave) -> Response:
    claim = Claim(**body.claim.model_dump())
    with current_studio().writing() as session:
        use = known_use(session, body)
        series_id = begin_series(session, SeriesBegin(body.name, body.formula_ids, claim, body.each, use, body.key))
    return _told(series_id, 201)


@blueprint.get("/<int:series_id>", summary="One series as it stands", responses={200: SeriesAnswer})
def read(path: SeriesPath) -> Response:
    return _told(path.series_id)


@blueprint.post("/<int:series_id>/tests", summary="Begin the next bath of a series", responses={201: TestAnswer})
def next_bath(path: SeriesPath) -> Response:
    with current_studio().writing() as session:
        test_id = begin_next_bath(session, path.series_id)
    with current_studio().reading() as session:
        return respond(test_answer(look_at_test(session, test_id)), 201)


@blueprint.post("/<int:series_id>/places", summary="Add further baths of each variant", responses={200: SeriesAnswer})
def more(path: SeriesPath, body: MoreSave) -> Response:
    with current_studio().writing() as session:
        more_baths(session, path.series_id, body.each)
    return _told(path.series_id)


@blueprint.post("/<int:series_id>/open", summary="Open the codes of the baths that are made", responses={200: SeriesAnswer})
def open_(path: SeriesPath) -> Response:
    with current_studio().writing() as session:
        open_codes(session, path.series_id)
    return _told(path.series_id)


@blueprint.post("/<int:series_id>/slip", summary="Codes for the hands that wrap the pieces", responses={200: SlipAnswer})
def slip(path: SeriesPath) -> Response:
    with current_studio().writing() as session:
        return respond(SlipAnswer(places=slip_of(session, path.series_id)))


def _told(series_id: int, status: int = 200) -> Response:
    with current_studio().reading() as session:
        return respond(_answer(look_at_series(session, series_id)), status)


def _answer(series: TestSeries) -> SeriesAnswer:
    row = series.row
    return SeriesAnswer(
        id=row.id, name=row.name, claim=series.claim, reading=TEST_READINGS[series.claim.reading],
        readings=list(TEST_READINGS.values()), use=Use(**row.use),
        begun_at=row.begun_at, opened=row.opened, made=series.made, tests=list(series.tests), variants=list(series.variants),
        judgement=series.judgement,
    )  # fmt: skip
