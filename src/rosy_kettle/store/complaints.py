"""Complaints: what somebody said of a piece, and what was done."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, find, keep_once, newest_first, speaking_of

__all__ = ["COMPLAINT_KINDS", "ComplaintRow", "add_complaint", "complaints_of_batches", "find_complaint", "list_complaints"]

COMPLAINT_KINDS = ("skin", "eyes", "swallowed", "breathing", "slip", "fire", "other")


class ComplaintRow(AskedForRow):
    """One complaint."""

    __noun__ = "complaint"
    __tablename__ = "complaints"

    id: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(UtcTime)
    """When it was heard."""
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batches.id", ondelete="RESTRICT"), index=True)
    code: Mapped[str] = mapped_column(default="")
    """What was printed on the piece, where they read it out."""
    what: Mapped[str]
    who: Mapped[str] = mapped_column(default="")
    kind: Mapped[str]
    serious: Mapped[bool] = mapped_column(default=False)
    done: Mapped[str] = mapped_column(default="")
    """What was done about it; empty while it is open."""
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


def add_complaint(session: Session, row: ComplaintRow) -> ComplaintRow:
    """Keep a complaint; the same key twice keeps one."""
    return keep_once(session, row)


def find_complaint(session: Session, complaint_id: int) -> ComplaintRow:
    """Return a complaint; a NotFoundError where there is none under that number."""
    return find(session, ComplaintRow, complaint_id)


def list_complaints(
    session: Session, *, query: str, batch_id: int | None, before: int | None, limit: int
) -> list[ComplaintRow]:  # fmt: skip
    """Return complaints, the newest first."""
    asked = speaking_of(select(ComplaintRow), query, ComplaintRow.what, ComplaintRow.who, ComplaintRow.code, ComplaintRow.kind)
    if batch_id is not None:
        asked = asked.where(ComplaintRow.batch_id == batch_id)
    return newest_first(session, asked, ComplaintRow, before, limit)


def complaints_of_batches(session: Session, batch_ids: list[int]) -> list[ComplaintRow]:
    """Return the complaints of some batches, the newest first."""
    asked = select(ComplaintRow).where(ComplaintRow.batch_id.in_(batch_ids))
    return list(session.scalars(asked.order_by(ComplaintRow.id.desc())))
