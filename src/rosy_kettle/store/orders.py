"""Orders: what is to be made for whom, by when."""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime

from sqlalchemy import ForeignKey, delete, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import Base, UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, find, keep_once, newest_first, speaking_of

__all__ = [
    "OrderBatchRow", "OrderRow", "add_order", "batches_of_orders", "find_order", "list_orders", "orders_of_batches",
    "put_batches_of_order",
]  # fmt: skip


class OrderRow(AskedForRow):
    """Some pieces of one formula, wanted by a day."""

    __noun__ = "order"
    __tablename__ = "orders"

    id: Mapped[int] = mapped_column(primary_key=True)
    who: Mapped[str]
    formula_id: Mapped[int] = mapped_column(ForeignKey("formulas.id", ondelete="RESTRICT"), index=True)
    pieces: Mapped[int]
    tool: Mapped[str | None]
    due_at: Mapped[datetime | None] = mapped_column(UtcTime)
    note: Mapped[str] = mapped_column(default="")
    state: Mapped[str] = mapped_column(default="open", index=True)
    """open, made or cancelled."""
    starts_at: Mapped[datetime | None] = mapped_column(UtcTime)
    """Where it was dragged to; null lets the week find a place."""
    batch_id: Mapped[int | None]
    for_: Mapped[str] = mapped_column("for", default="sale")
    """sale, gift or own: what it is for."""
    market: Mapped[str | None]
    """Where it is sold or given; None asks for every market of its formula."""
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


class OrderBatchRow(Base):
    """A batch that an order was made from."""

    __tablename__ = "order_batches"

    id: Mapped[int] = mapped_column(primary_key=True)
    order_id: Mapped[int] = mapped_column(ForeignKey("orders.id", ondelete="RESTRICT"), index=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batches.id", ondelete="RESTRICT"), index=True)


def batches_of_orders(session: Session, order_ids: Collection[int]) -> dict[int, list[int]]:
    """Return the batches of some orders, by order."""
    found: dict[int, list[int]] = {id_: [] for id_ in order_ids}
    asked = select(OrderBatchRow).where(OrderBatchRow.order_id.in_(order_ids)).order_by(OrderBatchRow.id)
    for row in session.scalars(asked):
        found[row.order_id].append(row.batch_id)
    return found


def put_batches_of_order(session: Session, order_id: int, batch_ids: Collection[int]) -> None:
    """Say which batches an order was made from, in place of what was said before."""
    session.execute(delete(OrderBatchRow).where(OrderBatchRow.order_id == order_id))
    session.add_all(OrderBatchRow(order_id=order_id, batch_id=batch_id) for batch_id in dict.fromkeys(batch_ids))
    session.flush()


def orders_of_batches(session: Session, batch_ids: Collection[int]) -> list[tuple[OrderRow, int]]:
    """Return the orders that were made from some batches, each with the batch."""
    asked = select(OrderRow, OrderBatchRow.batch_id).join(OrderBatchRow, OrderBatchRow.order_id == OrderRow.id)
    found = session.execute(asked.where(OrderBatchRow.batch_id.in_(batch_ids)).order_by(OrderRow.id, OrderBatchRow.id))
    return [(order, batch_id) for order, batch_id in found]


def add_order(session: Session, row: OrderRow) -> OrderRow:
    """Take an order; the same key twice takes one."""
    return keep_once(session, row)


def find_order(session: Session, order_id: int) -> OrderRow:
    """Return an order; a NotFoundError where there is none under that number."""
    return find(session, OrderRow, order_id)


def list_orders(session: Session, *, query: str, state: str | None, before: int | None, limit: int) -> list[OrderRow]:
    """Return orders, the newest first."""
    asked = select(OrderRow)
    asked = speaking_of(asked, query, OrderRow.who)
    if state is not None:
        asked = asked.where(OrderRow.state == state)
    return newest_first(session, asked, OrderRow, before, limit)
