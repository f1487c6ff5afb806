"""Orders: what is to be made for whom, by when."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, find, keep_once, newest_first, speaking_of

__all__ = ["OrderRow", "add_order", "find_order", "list_orders"]


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
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


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
