"""Orders and the week."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.orders import (
    OrderAnswer,
    OrderChange,
    OrderList,
    OrderPath,
    OrderQuery,
    OrderSave,
    PlannedOrderAnswer,
    Span,
    WeekAnswer,
    WeekSave,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.making.label.gate import Block
from rosy_kettle.store.orders import OrderRow, batches_of_orders, list_orders
from rosy_kettle.usecases.labels.clear_order import blocks_of_order
from rosy_kettle.usecases.studio.studio_zone import name_of_zone, studio_zone
from rosy_kettle.usecases.week.plan_week import PlannedOrder, WeekAsk, plan_week
from rosy_kettle.usecases.week.take_orders import OrderChange as OrderChanged
from rosy_kettle.usecases.week.take_orders import OrderTake, change_order, take_order

__all__ = ["blueprint", "order_answer"]

blueprint = part("orders", __name__, "/api", (404, 409, 422))


@blueprint.get("/orders", summary="Orders, the newest first", responses={200: OrderList})
def list_(query: OrderQuery) -> Response:
    with current_studio().reading() as session:
        rows = list_orders(session, query=query.q, state=query.state, before=query.cursor, limit=query.limit + 1)
        made_from = batches_of_orders(session, [row.id for row in rows])
        items = [order_answer(row, made_from[row.id]) for row in rows[: query.limit]]
    return respond(OrderList(items=items, next=items[-1].id if len(rows) > query.limit else None))


@blueprint.post("/orders", summary="Take an order", responses={201: OrderAnswer})
def take(body: OrderSave) -> Response:
    asked = OrderTake(
        body.who, body.formula_id, body.pieces, body.tool, body.due_at, body.note, body.key, body.for_, body.market
    )  # fmt: skip
    with current_studio().writing() as session:
        return respond(order_answer(take_order(session, asked, datetime.now(UTC))), 201)


@blueprint.put("/orders/<int:order_id>", summary="Change an order", responses={200: OrderAnswer})
def change(path: OrderPath, body: OrderChange) -> Response:
    with current_studio().writing() as session:
        asked = OrderChanged(body.state, body.starts_at, body.free, body.batch_ids, body.for_, body.market)
        row = change_order(session, path.order_id, asked, datetime.now(UTC))
        stands = blocks_of_order(session, row) if row.state == "made" else ()
        return respond(order_answer(row, batches_of_orders(session, [row.id])[row.id], stands))


@blueprint.post("/week", summary="The week of the open orders", responses={200: WeekAnswer})
def week(body: WeekSave) -> Response:
    now = datetime.now(UTC)
    with current_studio().reading() as session:
        zone = studio_zone(session, body.zone, body.utc_offset_min)
        planned = plan_week(session, WeekAsk(now, body.days, zone, body.seconds))
    return respond(WeekAnswer(
        begins_at=planned.begins_at, days=planned.days, zone=name_of_zone(zone, now),
        days_begin_at=list(planned.days_begin_at), orders=[_planned(each) for each in planned.orders],
        open_hours=[Span(from_at=a, to_at=b) for a, b in planned.open_hours], hands=planned.hands, trays=planned.trays,
        trays_taken=planned.trays_taken, cost=planned.cost, gap=planned.gap, searched=planned.searched,
    ))  # fmt: skip


def order_answer(row: OrderRow, batch_ids: Sequence[int] = (), blocks: Sequence[Block] = ()) -> OrderAnswer:
    return OrderAnswer(
        id=row.id, who=row.who, formula_id=row.formula_id, pieces=row.pieces, tool=row.tool, due_at=row.due_at, note=row.note,
        state=row.state, starts_at=row.starts_at, created_at=row.created_at, for_=row.for_, market=row.market,
        batch_ids=list(batch_ids), blocks=list(blocks),
    )  # fmt: skip


def _planned(each: PlannedOrder) -> PlannedOrderAnswer:
    return PlannedOrderAnswer(
        order=order_answer(each.row), name=each.name, batch_g=each.batch_g, bowls=each.bowls, fillings=each.fillings,
        hands_h=each.hands_h, dry_h=each.dry_h, trays=each.trays,
        starts_at=each.starts_at, hands_end_at=each.hands_end_at, dry_at=each.dry_at, fixed=each.fixed, why_not=each.why_not,
    )  # fmt: skip
