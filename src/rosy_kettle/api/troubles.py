"""Troubles: what is seen, what it may be, what it was."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.troubles import (
    AnswersSave,
    CauseAnswer,
    ChangeSave,
    EvidenceAnswer,
    OutcomeSave,
    QuestionAnswer,
    SymptomAnswer,
    SymptomList,
    TakenChange,
    TroubleAnswer,
    TroubleGlance,
    TroubleList,
    TroublePath,
    TroubleQuery,
    TroubleSave,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.clinic.diagnose import Cause
from rosy_kettle.reference import load_symptoms
from rosy_kettle.store.troubles import list_troubles
from rosy_kettle.usecases.clinic.look_into import (
    LookedInto,
    TroubleAsk,
    answer_trouble,
    decide_trouble,
    look_into,
    open_trouble,
    take_change,
    title_of,
)

__all__ = ["blueprint"]

blueprint = part("troubles", __name__, "/api", (404, 409, 422))


@blueprint.get("/symptoms", summary="What can be seen, in makers' words", responses={200: SymptomList})
def symptoms() -> Response:
    return respond(SymptomList(items=[SymptomAnswer(**asdict(each)) for each in load_symptoms()]))


@blueprint.get("/troubles", summary="Troubles, the newest first", responses={200: TroubleList})
def list_(query: TroubleQuery) -> Response:
    with current_studio().reading() as session:
        rows = list_troubles(session, query=query.q, batch_id=query.batch_id, before=query.cursor, limit=query.limit + 1)
        items = [
            TroubleGlance(
                id=row.id, symptom=row.symptom, title=title_of(row.symptom), name=row.name, batch_id=row.batch_id,
                outcome=row.outcome, created_at=row.created_at,
            )
            for row in rows[: query.limit]
        ]  # fmt: skip
    return respond(TroubleList(items=items, next=items[-1].id if len(rows) > query.limit else None))


@blueprint.post("/troubles", summary="Look into a trouble", responses={201: TroubleAnswer})
def begin(body: TroubleSave) -> Response:
    ask = TroubleAsk(body.symptom, body.formula_id, body.batch_id, body.tray_id, body.test_id, body.answers, body.key)
    with current_studio().writing() as session:
        trouble_id = open_trouble(session, ask).id
    return _told(trouble_id, 201)


@blueprint.get("/troubles/<int:trouble_id>", summary="One trouble with its causes", responses={200: TroubleAnswer})
def read(path: TroublePath) -> Response:
    return _told(path.trouble_id)


@blueprint.put("/troubles/<int:trouble_id>/answers", summary="Answer questions", responses={200: TroubleAnswer})
def answer(path: TroublePath, body: AnswersSave) -> Response:
    with current_studio().writing() as session:
        answer_trouble(session, path.trouble_id, body.answers)
    return _told(path.trouble_id)


@blueprint.put("/troubles/<int:trouble_id>/outcome", summary="Say what it was", responses={200: TroubleAnswer})
def decide(path: TroublePath, body: OutcomeSave) -> Response:
    with current_studio().writing() as session:
        decide_trouble(session, path.trouble_id, body.cause, body.remark)
    return _told(path.trouble_id)


@blueprint.post("/troubles/<int:trouble_id>/change", summary="Take the change into the formula", responses={201: TakenChange})
def change(path: TroublePath, body: ChangeSave) -> Response:
    with current_studio().writing() as session:
        row = take_change(session, path.trouble_id, body.cause)
        answer = TakenChange(formula_id=row.id, version=row.working.number)
    return respond(answer, 201)


def _told(trouble_id: int, status: int = 200) -> Response:
    with current_studio().reading() as session:
        return respond(_answer(look_into(session, trouble_id)), status)


def _answer(looked: LookedInto) -> TroubleAnswer:
    row, found = looked.row, looked.found
    drawing = next(each.drawing for each in load_symptoms() if each.id == row.symptom)
    return TroubleAnswer(
        id=row.id, symptom=row.symptom, title=title_of(row.symptom), drawing=drawing, name=row.name, formula_id=row.formula_id,
        batch_id=row.batch_id, tray_id=row.tray_id, test_id=row.test_id, answers=row.answers,
        causes=[_cause(each, looked) for each in found.causes],
        questions=[QuestionAnswer(id=each.id, text=each.text, choices=list(each.choices)) for each in found.questions],
        caution=found.caution, outcome=row.outcome, remark=row.remark, created_at=row.created_at,
    )  # fmt: skip


def _cause(cause: Cause, looked: LookedInto) -> CauseAnswer:
    return CauseAnswer(
        id=cause.id, chance=cause.chance,
        evidence=[EvidenceAnswer(supports=each.supports, what=each.what, source=each.source) for each in cause.evidence],
        now=cause.now, next_time=cause.next_time,
        change=None if cause.change is None else [asdict(each) for each in cause.change],
        effects=list(looked.effects.get(cause.id, ())),
    )  # fmt: skip
