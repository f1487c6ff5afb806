"""Clearances of batches for a market: signed, and taken back with a reason; every word is kept, the last one counts."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, keep_once

__all__ = ["SIGNED", "TAKEN_BACK", "ClearanceRow", "add_clearance", "clearances_of", "signed_clearances"]

SIGNED, TAKEN_BACK = "signed", "taken-back"


class ClearanceRow(AskedForRow):
    """Somebody signed that a batch may be sold in a market, or took that back. Rows are only ever added."""

    __noun__ = "clearance"
    __tablename__ = "clearances"

    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int] = mapped_column(ForeignKey("batches.id", ondelete="RESTRICT"), index=True)
    market: Mapped[str]
    state: Mapped[str]
    """signed or taken-back."""
    who: Mapped[str]
    reason: Mapped[str] = mapped_column(default="")
    at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


def add_clearance(session: Session, row: ClearanceRow) -> ClearanceRow:
    """Keep that a batch was cleared or taken back; the same key twice keeps one."""
    return keep_once(session, row)


def clearances_of(session: Session, batch_id: int) -> list[ClearanceRow]:
    """Return all that was said of a batch, the newest first."""
    asked = select(ClearanceRow).where(ClearanceRow.batch_id == batch_id)
    return list(session.scalars(asked.order_by(ClearanceRow.id.desc())))


def signed_clearances(session: Session) -> list[ClearanceRow]:
    """Return the signature of every batch and market that still stands, the newest first."""
    last = {(row.batch_id, row.market): row for row in session.scalars(select(ClearanceRow).order_by(ClearanceRow.id))}
    return sorted((row for row in last.values() if row.state == SIGNED), key=lambda row: -row.id)
