"""Tests in the tub."""

from __future__ import annotations

from flask import Response
from sqlalchemy.orm import Session

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.happenings import coming_of
from rosy_kettle.api.schemas.tub_tests import BathSave, TestAnswer, TestEventSave, TestList, TestPath, TestQuery, TestSave
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.tub.foretold import Foretold, ForetoldHeight
from rosy_kettle.core.making.tub.tub_test import baths_of_piece
from rosy_kettle.core.records import Use
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.tub.run_test import (
    NOTHING_FORETOLD,
    TestBegin,
    TubTest,
    begin_test,
    let_test_happen,
    look_at_test,
    look_at_tests,
)

__all__ = ["blueprint", "known_use", "test_answer"]

blueprint = part("tub", __name__, "/api/tub-tests", (404, 409, 422))


@blueprint.get("", summary="Tests in the tub, the newest first", responses={200: TestList})
def list_(query: TestQuery) -> Response:
    with current_studio().reading() as session:
        tests = look_at_tests(session, query=query.q, formula_id=query.formula_id, before=query.cursor, limit=query.limit + 1)
        shown = [test_answer(each) for each in tests[: query.limit]]
    return respond(TestList(items=shown, next=shown[-1].id if len(tests) > query.limit else None))


@blueprint.post("", summary="Begin a test", responses={201: TestAnswer})
def begin(body: TestSave) -> Response:
    with current_studio().writing() as session:
        use = known_use(session, body)
        test_id = begin_test(session, TestBegin(use, body.batch_id, body.formula_id, body.name, body.key))
    return _told(test_id, 201)


@blueprint.get("/<int:test_id>", summary="One test as it stands", responses={200: TestAnswer})
def read(path: TestPath) -> Response:
    return _told(path.test_id)


@blueprint.post("/<int:test_id>/events", summary="Let one thing happen in a test", responses={200: TestAnswer, 201: TestAnswer})
def happen(path: TestPath, body: TestEventSave) -> Response:
    with current_studio().writing() as session:
        new = let_test_happen(session, path.test_id, coming_of(body))
    return _told(path.test_id, 201 if new else 200)


def _told(test_id: int, status: int = 200) -> Response:
    with current_studio().reading() as session:
        return respond(test_answer(look_at_test(session, test_id)), status)


def known_use(session: Session, bath: BathSave) -> Use:
    """Return a bath for the core.

    Raises
    ------
    InputError
        If its water is not known.
    """
    known = studio_tables(session).waters
    if bath.hardness not in known:
        raise InputError(f'There is no water "{bath.hardness[:20]}"; choose {", ".join(known)}.', quantity="hardness")
    return Use(
        dose_g=bath.dose_g, way=bath.way, tub_l=bath.tub_l, tub_area_m2=bath.tub_area_m2, bath_c=bath.bath_c,
        hardness=bath.hardness,
    )  # fmt: skip


def test_answer(test: TubTest) -> TestAnswer:
    """Return a test as it is told; while its code is closed, without what would give its formula away."""
    row = test.row
    told = NOTHING_FORETOLD if test.blind else row.foretold
    heights = tuple(ForetoldHeight(**each) for each in told["heights"])
    return TestAnswer(
        id=row.id, formula_id=None if test.blind else row.formula_id, batch_id=None if test.blind else row.batch_id,
        version=None if test.blind else row.version, name=row.name, use=Use(**row.use),
        foretold=Foretold(**{**told, "heights": heights}), begun_at=row.begun_at, closed_at=row.closed_at, state=test.state,
        series_id=row.series_id, blind=test.blind,
        baths=baths_of_piece(float(row.use["dose_g"] or 0.0), test.state.left_g),
    )  # fmt: skip
