"""Lists of stock and prices, in and out."""

from __future__ import annotations

import base64
import binascii

from flask import Response, current_app

from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond, respond_file
from rosy_kettle.api.schemas.backups import TransferAnswer
from rosy_kettle.api.schemas.stock_imports import BackAnswer, ImportAnswer, ImportPath, ImportRow, ImportSave
from rosy_kettle.api.studio import current_studio
from rosy_kettle.api.transfer import Transfer
from rosy_kettle.core.errors import InputError
from rosy_kettle.files.spreadsheet import to_csv, to_xlsx
from rosy_kettle.reader.stock_list import COLUMNS, DATE_ORDERS, ReadStockRow
from rosy_kettle.usecases.pantry.import_stock import (
    STOCK_HEADINGS,
    ImportAsk,
    StockImport,
    Watch,
    read_list,
    stock_rows,
    take_import_back,
    take_list,
)

__all__ = ["blueprint"]

blueprint = part("stock_imports", __name__, "/api", (404, 409, 422))
MOST_SHOWN = 300
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


@blueprint.post("/stock-imports", summary="Look at a list of stock, or take it over", responses={200: ImportAnswer})
def take(body: ImportSave) -> Response:
    try:
        data = base64.b64decode(body.content, validate=True)
    except (binascii.Error, ValueError) as error:
        raise InputError("The file did not arrive whole; choose it again.", quantity="content") from error
    ask = ImportAsk(data, body.key, body.columns, body.date_order, body.decimal_sign, body.currency, body.meanings, body.dry)
    transfer = _transfer()
    watch = Watch(transfer.report, transfer.stopped)
    with transfer.begin("list"):
        with current_studio().reading() as session:  # read before the studio is locked for writing
            made = read_list(session, ask, watch)
        if not ask.dry:
            with current_studio().writing() as session:
                made = take_list(session, ask, made, watch)
    return respond(_answer(made))


@blueprint.get("/stock-imports/progress", summary="How far the running list is", responses={200: TransferAnswer})
def progress() -> Response:
    return _progress()


@blueprint.delete("/stock-imports/progress", summary="Stop it", responses={200: TransferAnswer})
def stop() -> Response:
    _transfer().stop()
    return _progress()


def _transfer() -> Transfer:
    transfer: Transfer = current_app.extensions["list_transfer"]
    return transfer


def _progress() -> Response:
    transfer = _transfer()
    return respond(TransferAnswer(running=transfer.running, kind=transfer.kind, done=transfer.done, whole=transfer.whole))


@blueprint.delete("/stock-imports/<string:key>", summary="Take an import back", responses={200: BackAnswer})
def take_back(path: ImportPath) -> Response:
    with current_studio().writing() as session:
        return respond(BackAnswer(withdrawn=take_import_back(session, path.key)))


@blueprint.get("/stock.csv", summary="All lots as a table", responses=file_of("text/csv", "CSV"))
def as_csv() -> Response:
    return respond_file(to_csv(STOCK_HEADINGS, _rows()), "text/csv", "lots.csv")


@blueprint.get("/stock.xlsx", summary="All lots as a spreadsheet", responses=file_of(XLSX, "XLSX"))
def as_xlsx() -> Response:
    return respond_file(to_xlsx("Lots", STOCK_HEADINGS, _rows()), XLSX, "lots.xlsx")


def _rows() -> list[tuple[str, ...]]:
    with current_studio().reading() as session:
        return stock_rows(session)


def _answer(made: StockImport) -> ImportAnswer:
    ordered = sorted(made.rows, key=lambda row: (row.fate != "asked", row.row))
    return ImportAnswer(
        headings=list(made.headings), columns=made.columns, known_columns=list(COLUMNS), date_orders=list(DATE_ORDERS),
        rows=[_row(row) for row in ordered[:MOST_SHOWN]], in_all=len(made.rows),
        asked=sum(row.fate == "asked" for row in made.rows), taken=made.taken,
    )  # fmt: skip


def _row(row: ReadStockRow) -> ImportRow:
    return ImportRow(
        row=row.row, text=row.text, fate=row.fate, ingredient=row.ingredient, quantity_g=row.quantity_g,
        price=None if row.price is None else str(row.price), currency=row.currency, code=row.code, best_before=row.best_before,
        why=row.why, suggestions=list(row.suggestions),
    )  # fmt: skip
