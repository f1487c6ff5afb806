"""Lots of ingredients, their movements, and the lots of a batch."""

from __future__ import annotations

from collections.abc import Mapping
from decimal import Decimal

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.batches import BatchPath
from rosy_kettle.api.schemas.lots import (
    BatchLots,
    CertificateRows,
    CertificateText,
    CountSave,
    DrawnLot,
    LineLots,
    LotAnswer,
    LotList,
    LotPath,
    LotQuery,
    LotSave,
    LotStateAnswer,
    LotStateSave,
    LotTraceAnswer,
    LotUseAnswer,
    MovementAnswer,
    MovementList,
    MovementQuery,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.records import Ingredient
from rosy_kettle.core.safety.sheet_text import read_sheet
from rosy_kettle.files.product_file import CertificateFile
from rosy_kettle.store.lot_states import states_of_lot
from rosy_kettle.store.lots import LotRow, MovementRow, list_lots, list_movements
from rosy_kettle.usecases.batches.run_batch import open_bench
from rosy_kettle.usecases.pantry.draw_stock import Drawn, drawn_by
from rosy_kettle.usecases.pantry.keep_lots import (
    LotEntry,
    certify_lot,
    cost_of_batch,
    cost_of_mass,
    count_lot,
    enter_lot,
    hold_lot,
    lots_to_use,
    said_of,
    trace_lot,
    withdraw_lot,
)
from rosy_kettle.usecases.studio.studio_tables import current_tables

__all__ = ["blueprint"]

blueprint = part("lots", __name__, "/api", (404, 409, 422))


@blueprint.get("/lots", summary="Lots, the newest first", responses={200: LotList})
def list_(query: LotQuery) -> Response:
    studio = current_studio()
    known = current_tables(studio).ingredients
    with studio.reading() as session:
        rows = list_lots(session, query=query.q, ingredient_id=query.ingredient, before=query.cursor, limit=query.limit + 1)
        items = [_lot(row, known) for row in rows[: query.limit]]
    return respond(LotList(items=items, next=items[-1].id if len(rows) > query.limit else None))


@blueprint.post("/lots", summary="Enter a purchase", responses={201: LotAnswer})
def enter(body: LotSave) -> Response:
    sheet = {"active_fraction": body.active_fraction, "water_fraction": body.water_fraction}
    entry = LotEntry(
        ingredient_id=body.ingredient, code=body.code, quantity_g=body.quantity_g, supplier=body.supplier,
        bought_on=body.bought_on, price=body.price, currency=body.currency, best_before=body.best_before,
        opened_on=body.opened_on, properties={name: value for name, value in sheet.items() if value is not None},
        certificate=None if body.certificate is None else body.certificate.model_dump(), key=body.key,
    )  # fmt: skip
    studio = current_studio()
    with studio.writing() as session:
        answer = _lot(enter_lot(session, entry), current_tables(studio).ingredients)
    return respond(answer, 201)


@blueprint.get("/lots/<int:lot_id>", summary="Where a lot went", responses={200: LotTraceAnswer})
def trace(path: LotPath) -> Response:
    return _traced(path.lot_id)


@blueprint.put("/lots/<int:lot_id>/stock", summary="Count a lot", responses={200: LotTraceAnswer})
def count(path: LotPath, body: CountSave) -> Response:
    with current_studio().writing() as session:
        count_lot(session, path.lot_id, body.left_g, body.reason)
    return _traced(path.lot_id)


@blueprint.put("/lots/<int:lot_id>/certificate", summary="Enter a lot's own certificate", responses={200: LotTraceAnswer})
def enter_paper(path: LotPath, body: CertificateFile) -> Response:
    with current_studio().writing() as session:
        certify_lot(session, path.lot_id, body.model_dump())
    return _traced(path.lot_id)


@blueprint.put("/lots/<int:lot_id>/state", summary="Hold a lot back, or release it", responses={200: LotTraceAnswer})
def hold(path: LotPath, body: LotStateSave) -> Response:
    with current_studio().writing() as session:
        hold_lot(session, path.lot_id, body.state, body.reason, body.who, body.key)
    return _traced(path.lot_id)


@blueprint.post("/certificate-readings", summary="Read a pasted allergen sheet", responses={200: CertificateRows})
def read_pasted(body: CertificateText) -> Response:
    names = current_tables(current_studio()).safety.substances
    return respond(CertificateRows(rows=read_sheet(body.text, names)))


@blueprint.delete("/lots/<int:lot_id>", summary="Take out a lot that was entered by mistake", responses={200: LotTraceAnswer})
def withdraw(path: LotPath) -> Response:
    with current_studio().writing() as session:
        withdraw_lot(session, path.lot_id)
    return _traced(path.lot_id)


@blueprint.get("/movements", summary="What came and went, the newest first", responses={200: MovementList})
def movements(query: MovementQuery) -> Response:
    with current_studio().reading() as session:
        rows = list_movements(
            session, lot_id=query.lot_id, batch_id=query.batch_id, before=query.cursor, limit=query.limit + 1
        )  # fmt: skip
        items = [_movement(row) for row in rows[: query.limit]]
    return respond(MovementList(items=items, next=items[-1].id if len(rows) > query.limit else None))


@blueprint.get("/batches/<int:batch_id>/lots", summary="Lots a batch can be taken from, and was", responses={200: BatchLots})
def of_batch(path: BatchPath) -> Response:
    studio = current_studio()
    known = current_tables(studio).ingredients
    with studio.reading() as session:
        bench = open_bench(session, path.batch_id)
        ids = list(dict.fromkeys(line.ingredient for line in bench.made.lines if line.ingredient))
        order = lots_to_use(session, ids)
        cost, whole = cost_of_batch(session, path.batch_id)
        return respond(BatchLots(
            lines=[
                LineLots(
                    ingredient=id_, name=_named(id_, known), chosen=bench.state.lots.get(id_),
                    jars=list(bench.state.jars.get(id_, ())),
                    lots=[_lot(row, known) for row in order[id_]],
                )
                for id_ in ids
            ],
            drawn=[_drawn(each, known) for each in drawn_by(session, path.batch_id)],
            cost={currency: _money(value) for currency, value in cost.items()}, every_lot_priced=whole,
        ))  # fmt: skip


def _traced(lot_id: int) -> Response:
    studio = current_studio()
    known = current_tables(studio).ingredients
    with studio.reading() as session:
        found = trace_lot(session, lot_id)
        uses = [
            LotUseAnswer(
                batch_id=use.batch_id,
                name=use.name,
                made_at=use.made_at,
                mass_g=use.mass_g,
                assumed_g=use.assumed_g,
                pieces=use.pieces,
            )
            for use in found.uses
        ]
        states = [
            LotStateAnswer(state=row.state, reason=row.reason, who=row.who, at=row.at) for row in states_of_lot(session, lot_id)
        ]
        return respond(LotTraceAnswer(
            lot=_lot(found.row, known), movements=[_movement(m) for m in found.movements], uses=uses, states=states,
        ))  # fmt: skip


def _named(ingredient_id: str, known: Mapping[str, Ingredient]) -> str:
    return known[ingredient_id].short_name if ingredient_id in known else ingredient_id


def _form(ingredient_id: str, known: Mapping[str, Ingredient]) -> str:
    return known[ingredient_id].form if ingredient_id in known else ""


def _lot(row: LotRow, known: Mapping[str, Ingredient]) -> LotAnswer:
    return LotAnswer(
        id=row.id, ingredient=row.ingredient_id, name=_named(row.ingredient_id, known), form=_form(row.ingredient_id, known),
        code=row.code, supplier=row.supplier,
        bought_on=row.bought_on, price=None if row.price is None else str(row.price), currency=row.currency,
        quantity_g=row.quantity_g, left_g=row.left_g, best_before=row.best_before, opened_on=row.opened_on,
        properties={name: said for name, said in row.properties.items() if isinstance(said, int | float)},
        certificate=row.certificate, said=said_of(row), held=row.held is not None,
    )  # fmt: skip


def _movement(row: MovementRow) -> MovementAnswer:
    return MovementAnswer(
        id=row.id, lot_id=row.lot_id, batch_id=row.batch_id, kind=row.kind, mass_g=row.mass_g, reason=row.reason, at=row.at,
        assumed=row.assumed,
    )  # fmt: skip


def _drawn(drawn: Drawn, known: Mapping[str, Ingredient]) -> DrawnLot:
    lot = drawn.lot
    cost = cost_of_mass(lot, drawn.mass_g)
    return DrawnLot(
        lot_id=lot.id, code=lot.code, ingredient=lot.ingredient_id, name=_named(lot.ingredient_id, known), mass_g=drawn.mass_g,
        assumed=drawn.assumed, cost=None if cost is None else _money(cost), currency=lot.currency,
    )  # fmt: skip


def _money(value: Decimal) -> str:
    return f"{value:.4f}"
