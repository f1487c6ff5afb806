"""Lots held back and released: every word of it is kept, the last one counts."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, keep_once

__all__ = ["HELD", "RELEASED", "LotStateRow", "add_lot_state", "states_of_lot"]

HELD, RELEASED = "held", "released"


class LotStateRow(AskedForRow):
    """A lot was held back, or released. Rows are only ever added."""

    __noun__ = "lot state"
    __tablename__ = "lot_states"

    id: Mapped[int] = mapped_column(primary_key=True)
    lot_id: Mapped[int] = mapped_column(ForeignKey("lots.id", ondelete="RESTRICT"), index=True)
    state: Mapped[str]
    """held or released."""
    reason: Mapped[str] = mapped_column(default="")
    who: Mapped[str] = mapped_column(default="")
    at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


def add_lot_state(session: Session, row: LotStateRow) -> LotStateRow:
    """Keep that a lot was held or released; the same key twice keeps one."""
    return keep_once(session, row)


def states_of_lot(session: Session, lot_id: int) -> list[LotStateRow]:
    """Return all that was said of a lot, the newest first."""
    return list(session.scalars(select(LotStateRow).where(LotStateRow.lot_id == lot_id).order_by(LotStateRow.id.desc())))
