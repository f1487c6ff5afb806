"""Orders: what is to be made for whom, by when."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.store.base import Base, UtcTime, now_utc

__all__ = ["OrderRow", "add_order", "find_order", "list_orders"]


class OrderRow(Base):
    """Some pieces of one formula, wanted by a day."""

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
    if row.request_key is not None:
        kept = session.scalar(select(OrderRow).where(OrderRow.request_key == row.request_key))
        if kept is not None:
            return kept
    session.add(row)
    session.flush()
    return row


def find_order(session: Session, order_id: int) -> OrderRow:
    """Return an order.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    row = session.get(OrderRow, order_id)
    if row is None:
        raise NotFoundError(f"There is no order {order_id}.", noun="order", id=order_id)
    return row


def list_orders(session: Session, *, query: str, state: str | None, before: int | None, limit: int) -> list[OrderRow]:
    """Return orders, the newest first."""
    asked = select(OrderRow)
    if query:
        asked = asked.where(OrderRow.who.icontains(query, autoescape=True))
    if state is not None:
        asked = asked.where(OrderRow.state == state)
    if before is not None:
        asked = asked.where(OrderRow.id < before)
    return list(session.scalars(asked.order_by(OrderRow.id.desc()).limit(limit)))
