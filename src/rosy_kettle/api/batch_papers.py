"""What leaves the machine of a batch: record as JSON and PDF, run sheet as PDF, photos."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime
from typing import Annotated

from flask import Response, request, send_from_directory
from pydantic import BaseModel, Field

from rosy_kettle.api.batches import current_devices, record_answer
from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.batches import BatchAnswer, BatchPath
from rosy_kettle.api.schemas.formulas import FormulaPath
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.errors import InputError, NotFoundError
from rosy_kettle.core.making.plan import sheet_of
from rosy_kettle.store.batches import list_events
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.photos import keep_photo, photo_folder, settle_photo
from rosy_kettle.usecases.batches.run_batch import let_happen, open_bench
from rosy_kettle.usecases.batches.tell_batch import tell_batch
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["blueprint"]

blueprint = part("papers", __name__, refusals=(404, 422))
PDF = file_of("application/pdf", "Pages")
LARGEST_PHOTO_BYTES = 20_000_000


class SheetQuery(BaseModel):
    """The bowl a sheet is for."""

    batch_g: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)]
    pieces: Annotated[int, Field(ge=1, le=100_000)]
    piece_mass_g: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)]
    schools: Annotated[str, Field(pattern=r"^([a-z]+:[a-z]+(,[a-z]+:[a-z]+)*)?$")] = ""
    """As "acid:last,split:early"."""


class PhotoPath(BatchPath):
    """Which photo of which batch."""

    name: Annotated[str, Field(pattern=r"^[0-9a-f]{32}\.jpg$")]


class PhotoQuery(BaseModel):
    """After which event it was taken."""

    after: int


@blueprint.get("/formulas/<int:formula_id>/run-sheet.pdf", summary="The run sheet of a bowl as PDF", responses=PDF)
def sheet_pdf(path: FormulaPath, query: SheetQuery) -> Response:
    from rosy_kettle.papers import run_sheet_pdf  # here: the paper packages are a tenth of the start

    with current_studio().reading() as session:
        formula = record_of(find_formula(session, path.formula_id))
        tables = studio_tables(session)
        paper = studio_settings(session).paper
    schools = dict(pair.split(":") for pair in query.schools.split(",") if pair)
    sheet = sheet_of(formula, tables, query.batch_g, query.pieces, query.piece_mass_g, "as planned", schools)
    return _file(run_sheet_pdf(sheet, paper), "application/pdf", f"run-sheet-{path.formula_id}.pdf")


@blueprint.get("/batches/<int:batch_id>/record.pdf", summary="The record of a batch as PDF", responses=PDF)
def record_pdf(path: BatchPath) -> Response:
    from rosy_kettle.papers import batch_record_pdf  # here: the paper packages are a tenth of the start

    with current_studio().reading() as session:
        bench = open_bench(session, path.batch_id)
        row = bench.row
        state, moment = ("closed", row.closed_at) if row.closed_at else ("still open", datetime.now(UTC))
        begun = f"begun {row.created_at:%Y-%m-%d %H:%M} UTC, {state} {moment:%Y-%m-%d %H:%M} UTC"
        lead = f"Version {row.version}, {row.batch_g:.0f} g as planned, {begun}."
        story = [(e.at[:16].replace("T", " "), text) for e, text in zip(bench.events, tell_batch(bench), strict=True)]
        names = {id_: item.short_name for id_, item in bench.tables.ingredients.items()}
        made = batch_record_pdf(f"{row.name}, batch {row.id}", lead, bench.state, names, story, studio_settings(session).paper)
    return _file(made, "application/pdf", f"batch-{path.batch_id}.pdf")


@blueprint.get("/batches/<int:batch_id>/record.json", summary="The record of a batch as JSON", responses={200: BatchAnswer})
def record_json(path: BatchPath) -> Response:
    response = respond(record_answer(path.batch_id))
    response.headers["Content-Disposition"] = f'attachment; filename="batch-{path.batch_id}.json"'
    return response


@blueprint.post("/batches/<int:batch_id>/photos", summary="Keep a photo, made smaller")
def add_photo(path: BatchPath, query: PhotoQuery) -> Response:
    from rosy_kettle.papers import smaller_photo  # here: the paper packages are a tenth of the start

    request.max_content_length = LARGEST_PHOTO_BYTES
    sent = request.files.get("photo")
    if sent is None:
        raise InputError("No photo was sent; choose a file.", quantity="photo")
    data, name = smaller_photo(sent.read()), f"{uuid.uuid4().hex}.jpg"
    studio, waiting = current_studio(), None
    try:
        with studio.writing() as session:
            let_happen(session, path.batch_id, query.after, "photo", {"name": name}, current_devices().clock)
            waiting = keep_photo(studio.path, name, data)
    except BaseException:
        if waiting is not None:
            waiting.unlink(missing_ok=True)  # its event was not committed
        raise
    settle_photo(waiting)
    return respond(record_answer(path.batch_id), 201)


@blueprint.get("/batches/<int:batch_id>/photos/<string:name>", summary="One photo", responses=file_of("image/jpeg", "A photo"))
def photo(path: PhotoPath) -> Response:
    with current_studio().reading() as session:
        names = {event.data.get("name") for event in list_events(session, path.batch_id) if event.kind == "photo"}
    if path.name not in names:
        raise NotFoundError(f"Batch {path.batch_id} has no such photo.", noun="photo", id=path.name)
    return send_from_directory(photo_folder(current_studio().path), path.name)


def _file(data: bytes, mimetype: str, name: str) -> Response:
    return Response(data, mimetype=mimetype, headers={"Content-Disposition": f'attachment; filename="{name}"'})
