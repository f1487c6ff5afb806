"""What leaves the machine of a batch: record as JSON and PDF, run sheet as PDF."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated

from flask import Response
from pydantic import BaseModel, Field

from rosy_kettle.api.batches import record_answer
from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond, respond_file
from rosy_kettle.api.schemas.batches import BatchAnswer, BatchPath
from rosy_kettle.api.schemas.formulas import FormulaPath
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.making.plan import sheet_of
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.usecases.batches.run_batch import open_bench
from rosy_kettle.usecases.batches.tell_batch import tell_batch
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["blueprint"]

blueprint = part("papers", __name__, refusals=(404, 422))
PDF = file_of("application/pdf", "Pages")


class SheetQuery(BaseModel):
    """The bowl a sheet is for."""

    batch_g: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)]
    pieces: Annotated[int, Field(ge=1, le=100_000)]
    piece_mass_g: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)]
    schools: Annotated[str, Field(pattern=r"^([a-z]+:[a-z]+(,[a-z]+:[a-z]+)*)?$")] = ""
    """As "acid:last,split:early"."""


@blueprint.get("/formulas/<int:formula_id>/run-sheet.pdf", summary="The run sheet of a bowl as PDF", responses=PDF)
def sheet_pdf(path: FormulaPath, query: SheetQuery) -> Response:
    from rosy_kettle.papers import run_sheet_pdf  # here: the paper packages are a tenth of the start

    with current_studio().reading() as session:
        formula = record_of(find_formula(session, path.formula_id))
        tables = studio_tables(session)
        paper = studio_settings(session).paper
    schools = dict(pair.split(":") for pair in query.schools.split(",") if pair)
    sheet = sheet_of(formula, tables, query.batch_g, query.pieces, query.piece_mass_g, "as planned", schools)
    return respond_file(run_sheet_pdf(sheet, paper), "application/pdf", f"run-sheet-{path.formula_id}.pdf")


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
    return respond_file(made, "application/pdf", f"batch-{path.batch_id}.pdf")


@blueprint.get("/batches/<int:batch_id>/record.json", summary="The record of a batch as JSON", responses={200: BatchAnswer})
def record_json(path: BatchPath) -> Response:
    response = respond(record_answer(path.batch_id))
    response.headers["Content-Disposition"] = f'attachment; filename="batch-{path.batch_id}.json"'
    return response
