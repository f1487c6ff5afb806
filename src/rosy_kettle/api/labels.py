"""Labels and product records."""

from __future__ import annotations

import io
import json
import zipfile
from dataclasses import asdict
from typing import Any

from flask import Response, current_app

from rosy_kettle.api.label_pages import pages_of
from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond, respond_file
from rosy_kettle.api.schemas.batches import BatchPath
from rosy_kettle.api.schemas.labels import (
    DrawnLabel,
    LabelAnswer,
    LabelAsk,
    LabelDrawing,
    LabelList,
    LabelPath,
    LabelQuery,
    LabelSave,
    RuleWords,
    SheetSave,
    SmallestLabel,
)
from rosy_kettle.api.schemas.records import RecordAnswer
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.errors import ConflictError
from rosy_kettle.core.making.label.differences import differences
from rosy_kettle.core.making.label.sheet import LabelSheet
from rosy_kettle.core.records import Tables, certificate_to_data
from rosy_kettle.devices.label_printer import LabelPrinter
from rosy_kettle.files import formula_to_file
from rosy_kettle.files.exposure_file import exposure_xlsx
from rosy_kettle.files.label_file import LabelFactsFile
from rosy_kettle.store.labels import LabelRow, find_label, list_labels
from rosy_kettle.usecases.formulas.check_formula import check_formula
from rosy_kettle.usecases.labels.assessor_folder import exposure_notes, exposure_of, folder_parts
from rosy_kettle.usecases.labels.keep_label import (
    DrawnLabels,
    LabelOrder,
    LabelSource,
    draw_labels,
    keep_label,
    layout_of,
)
from rosy_kettle.usecases.labels.make_label import MadeLabel
from rosy_kettle.usecases.labels.product_record import ProductRecord, product_record
from rosy_kettle.usecases.labels.tell_record import lead_of, parts_of_record
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.studio.studio_tables import current_tables

__all__ = ["blueprint"]

blueprint = part("labels", __name__, "/api", (404, 409, 422))
ZIP = file_of("application/zip", "Record, exposure sheet, formula, certificates and labels")
PDF, SVG = file_of("application/pdf", "Pages at true size"), file_of("image/svg+xml", "A drawing in millimetres")


def _printer() -> LabelPrinter:
    printer: LabelPrinter = current_app.extensions["label_printer"]
    return printer


@blueprint.post("/labels/drawing", summary="Labels at true size, as they are typed", responses={200: LabelDrawing})
def draw(body: LabelAsk) -> Response:
    studio = current_studio()
    tables = current_tables(studio)
    formula = None if body.formula is None else check_formula(body.formula, tables)
    source = LabelSource(formula, body.formula_id, body.batch_id)
    with studio.reading() as session:
        drawn = draw_labels(session, source, body.facts.facts(), body.markets, body.width_mm, body.height_mm)
    return respond(_drawing(drawn, body, tables))


@blueprint.post("/labels", summary="Keep a label and print it", responses={201: LabelAnswer})
def keep(body: LabelSave) -> Response:
    source = LabelSource(None, body.formula_id, body.batch_id)
    sheet = None if body.sheet is None else LabelSheet(**body.sheet.model_dump())
    order = LabelOrder(body.market, body.width_mm, body.height_mm, body.copies, sheet, body.draft, body.key)
    with current_studio().writing() as session:
        row = keep_label(session, source, body.facts.facts(), order)
        answer, job, pages = _label(row), f"label-{row.id:06d}", pages_of(row)
    try:
        _printer().take(job, pages)
    except OSError as error:
        raise ConflictError(f"The label is kept, but the printer did not take it: {error.strerror}. Print it again.") from error
    return respond(answer, 201)


@blueprint.post("/labels/<int:label_id>/print", summary="Print a kept label again, as it was", responses={200: LabelAnswer})
def print_again(path: LabelPath) -> Response:
    with current_studio().reading() as session:
        row = find_label(session, path.label_id)
        answer, pages = _label(row), pages_of(row)
    try:
        _printer().take(f"label-{path.label_id:06d}", pages)
    except OSError as error:
        raise ConflictError(f"The printer did not take it: {error.strerror}. Try again.") from error
    return respond(answer)


@blueprint.get("/labels", summary="Labels, the newest first", responses={200: LabelList})
def list_(query: LabelQuery) -> Response:
    with current_studio().reading() as session:
        rows = list_labels(
            session, query=query.q, formula_id=query.formula_id, batch_id=query.batch_id, before=query.cursor,
            limit=query.limit + 1,
        )  # fmt: skip
        items = [_label(row) for row in rows[: query.limit]]
    return respond(LabelList(items=items, next=items[-1].id if len(rows) > query.limit else None))


@blueprint.get("/labels/<int:label_id>", summary="One label as it was printed", responses={200: LabelAnswer})
def read(path: LabelPath) -> Response:
    with current_studio().reading() as session:
        return respond(_label(find_label(session, path.label_id)))


@blueprint.get("/labels/<int:label_id>/label.pdf", summary="Its pages", responses=PDF)
def pdf(path: LabelPath) -> Response:
    with current_studio().reading() as session:
        pages = pages_of(find_label(session, path.label_id))
    return respond_file(pages, "application/pdf", f"label-{path.label_id}.pdf")


@blueprint.get("/labels/<int:label_id>/label.svg", summary="Its drawing", responses=SVG)
def svg(path: LabelPath) -> Response:
    from rosy_kettle.papers.label import label_svg  # here: the paper packages are a tenth of the start

    with current_studio().reading() as session:
        row = find_label(session, path.label_id)
        drawing = label_svg(layout_of(row), f"{row.name}, {row.market}", draft=row.draft)
    return respond_file(drawing.encode(), "image/svg+xml", f"label-{path.label_id}.svg")


@blueprint.get("/records/<int:batch_id>.pdf", summary="The product record of a batch, for an assessor", responses=PDF)
def record_pdf(path: BatchPath) -> Response:
    from rosy_kettle.papers.product_record import product_record_pdf  # here: the paper packages are a tenth of the start

    with current_studio().reading() as session:
        record = product_record(session, path.batch_id)
        row = record.facts.bench.row
        title = f"Product record: {row.name}, batch {row.id}"
        pages = product_record_pdf(title, lead_of(record), parts_of_record(record), studio_settings(session).paper)
    return respond_file(pages, "application/pdf", f"product-record-{path.batch_id}.pdf")


@blueprint.get("/records/<int:batch_id>.zip", summary="The assessor's folder of a batch", responses=ZIP)
def folder_zip(path: BatchPath) -> Response:
    from rosy_kettle.papers.product_record import product_record_pdf  # here: the paper packages are a tenth of the start

    with current_studio().reading() as session:
        record = product_record(session, path.batch_id)
        row, paper = record.facts.bench.row, studio_settings(session).paper
        parts = [*parts_of_record(record), *folder_parts(session, record)]
        title = f"Assessor's folder: {row.name}, batch {row.id}"
        rows, people = exposure_of(record)
        held = {
            "folder.pdf": product_record_pdf(title, lead_of(record), parts, paper),
            "exposure.xlsx": exposure_xlsx(rows, people, exposure_notes(record)),
            "formula.json": json.dumps(formula_to_file(record.facts.formula).model_dump(mode="json"), indent=1).encode(),
            "certificates.json": json.dumps(_papers_of(record), indent=1, ensure_ascii=False).encode(),
        }
        held |= {f"labels/label-{label.id}-{label.market}.pdf": pages_of(label) for label in record.printed}
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as made:
        for name, data in held.items():
            made.writestr(zipfile.ZipInfo(name, date_time=(1980, 1, 1, 0, 0, 0)), data)
    return respond_file(target.getvalue(), "application/zip", f"assessor-folder-{path.batch_id}.zip")


def _papers_of(record: ProductRecord) -> dict[str, Any]:
    used = {line.ingredient for line in record.lines}
    return {id_: certificate_to_data(paper) for id_, paper in record.facts.tables.certificates.items() if id_ in used}


@blueprint.get("/records/<int:batch_id>.json", summary="The same as data", responses={200: RecordAnswer})
def record_json(path: BatchPath) -> Response:
    with current_studio().reading() as session:
        record = product_record(session, path.batch_id)
        row = record.facts.bench.row
        parts = [
            {"title": each.title, "sentences": list(each.sentences), "rows": [list(cells) for cells in each.rows]}
            for each in parts_of_record(record)
        ]
        answer = RecordAnswer.model_validate({
            "batch_id": row.id, "name": row.name, "version": row.version, "lead": lead_of(record), "made_at": record.made_at,
            "lines": [asdict(line) for line in record.lines], "unknown": list(record.unknown),
            "labels": {made.market: [asdict(text) for text in made.texts] for made in record.labels}, "parts": parts,
        }, strict=False)  # fmt: skip
    response = respond(answer)
    response.headers["Content-Disposition"] = f'attachment; filename="product-record-{path.batch_id}.json"'
    return response


def _drawing(drawn: DrawnLabels, body: LabelAsk, tables: Tables) -> LabelDrawing:
    found = differences(drawn.made[0].texts, drawn.made[1].texts) if len(drawn.made) > 1 else []
    told = {each.rule for made in drawn.made for each in made.texts.texts}
    told |= {each.rule for made in drawn.made for each in made.texts.missing}
    told |= {rule for each in found for rule in each.rules}
    return LabelDrawing(
        width_mm=body.width_mm, height_mm=body.height_mm, facts=LabelFactsFile(**_said(asdict(drawn.facts))),
        labels=[_drawn(made) for made in drawn.made], differences=found,
        rules=[
            RuleWords(id=rule.id, message=rule.message, citation=rule.citation)
            for rule in tables.safety.rules if rule.id in told
        ],
        known=list(drawn.known),
    )  # fmt: skip


def _said(facts: dict[str, Any]) -> dict[str, Any]:
    return {name: list(value) if isinstance(value, tuple) else value or None for name, value in facts.items()}


def _drawn(made: MadeLabel) -> DrawnLabel:
    smallest = made.smallest_mm
    return DrawnLabel(
        market=made.texts.market, texts=list(made.texts_told()), missing=list(made.texts.missing),
        blocks=list(made.blocks), draft=made.draft, lines=list(made.layout.lines),
        used_mm=made.layout.used_mm, fits=made.fits,
        smallest=None if smallest is None else SmallestLabel(width_mm=smallest[0], height_mm=smallest[1]),
    )  # fmt: skip


def _label(row: LabelRow) -> LabelAnswer:
    return LabelAnswer(
        id=row.id, formula_id=row.formula_id, batch_id=row.batch_id, version=row.version, name=row.name, market=row.market,
        width_mm=row.width_mm, height_mm=row.height_mm, facts=row.facts,
        texts=row.made["texts"], missing=row.made["missing"], blocks=row.made.get("blocks", []),
        draft=row.draft, copies=row.copies, sheet=None if row.sheet is None else SheetSave(**row.sheet),
        created_at=row.created_at,
    )  # fmt: skip
