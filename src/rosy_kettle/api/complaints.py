"""Complaints, and the recall by any code."""

from __future__ import annotations

import csv
import io
from dataclasses import asdict
from email.message import EmailMessage

from flask import Response

from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond, respond_file
from rosy_kettle.api.schemas.sales import (
    ComplaintAnswer,
    ComplaintChange,
    ComplaintList,
    ComplaintPath,
    ComplaintQuery,
    ComplaintSave,
    ComplaintTrendAnswer,
    ComplaintTrendList,
    RecallAnswer,
    RecallQuery,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.store.complaints import ComplaintRow, list_complaints
from rosy_kettle.usecases.labels.complaints import (
    ComplaintSaid,
    change_complaint,
    complaint_trends,
    report_by,
    take_complaint,
)
from rosy_kettle.usecases.labels.find_again import Recall, recall
from rosy_kettle.usecases.labels.tell_recall import letter_of, rows_of
from rosy_kettle.usecases.studio.studio_settings import studio_settings

__all__ = ["blueprint"]

blueprint = part("complaints", __name__, "/api", (404, 422))
PDF, CSV = file_of("application/pdf", "The letter, as a draft"), file_of("text/csv", "Everything found, a row each")
EML = file_of("message/rfc822", "The letter as a mail nobody has sent")


@blueprint.get("/complaints", summary="Complaints, the newest first", responses={200: ComplaintList})
def list_(query: ComplaintQuery) -> Response:
    with current_studio().reading() as session:
        rows = list_complaints(
            session, query=query.q, batch_id=query.batch_id, before=query.cursor, limit=query.limit + 1
        )  # fmt: skip
        items = [_answer(row) for row in rows[: query.limit]]
    return respond(ComplaintList(items=items, next=items[-1].id if len(rows) > query.limit else None))


@blueprint.post("/complaints", summary="Take a complaint", responses={201: ComplaintAnswer})
def take(body: ComplaintSave) -> Response:
    with current_studio().writing() as session:
        return respond(_answer(take_complaint(session, ComplaintSaid(**body.model_dump()))), 201)


@blueprint.put("/complaints/<int:complaint_id>", summary="Say what was done about it", responses={200: ComplaintAnswer})
def change(path: ComplaintPath, body: ComplaintChange) -> Response:
    with current_studio().writing() as session:
        return respond(_answer(change_complaint(session, path.complaint_id, done=body.done, serious=body.serious)))


@blueprint.get("/complaints/trends", summary="What is complained of most", responses={200: ComplaintTrendList})
def trends() -> Response:
    with current_studio().reading() as session:
        items = [ComplaintTrendAnswer(**asdict(each)) for each in complaint_trends(session)]
    return respond(ComplaintTrendList(items=items))


@blueprint.get("/recalls", summary="What hangs together with a code", responses={200: RecallAnswer})
def recalls(query: RecallQuery) -> Response:
    return respond(RecallAnswer(**asdict(_found(query.code))))


@blueprint.get("/recalls.csv", summary="The same as a list", responses=CSV)
def recall_csv(query: RecallQuery) -> Response:
    text = io.StringIO()
    csv.writer(text).writerows(rows_of(_found(query.code)))
    return respond_file(text.getvalue().encode("utf-8-sig"), "text/csv", "recall.csv")


@blueprint.get("/recalls/letter.eml", summary="A letter to the people, as a draft", responses=EML)
def letter_eml(query: RecallQuery) -> Response:
    subject, paragraphs = _letter(query.code)
    mail = EmailMessage()
    mail["Subject"], mail["X-Unsent"] = subject, "1"
    mail.set_content("\n\n".join(paragraphs))
    return respond_file(bytes(mail), "message/rfc822", "recall.eml")


@blueprint.get("/recalls/letter.pdf", summary="A letter to the people, as a draft", responses=PDF)
def letter_pdf(query: RecallQuery) -> Response:
    from rosy_kettle.papers.sheet import heading, line, pdf  # here: the paper packages are a tenth of the start

    subject, paragraphs = _letter(query.code)
    return respond_file(
        pdf(subject, [heading(subject, title=True), *(line(each) for each in paragraphs)]), "application/pdf", "recall.pdf"
    )


def _found(code: str) -> Recall:
    with current_studio().reading() as session:
        return recall(session, code)


def _letter(code: str) -> tuple[str, list[str]]:
    with current_studio().reading() as session:
        settings = studio_settings(session)
        return letter_of(recall(session, code), settings.maker, settings.contact)


def _answer(row: ComplaintRow) -> ComplaintAnswer:
    return ComplaintAnswer(
        id=row.id, at=row.at, batch_id=row.batch_id, code=row.code, what=row.what, who=row.who, kind=row.kind,
        serious=row.serious, done=row.done, report_by=report_by(row),
    )  # fmt: skip
