"""Troubles that were looked into, and what they turned out to be."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, func, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import JsonObject, UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, find, keep_once, newest_first, speaking_of

__all__ = ["NONE_OF_THESE", "TroubleRow", "add_trouble", "find_trouble", "list_outcomes", "list_troubles"]

NONE_OF_THESE = "none-of-these"
"""Outcome where no cause that was offered was it."""


class TroubleRow(AskedForRow):
    """One trouble: what is seen, of what, what was answered, and what it was in the end."""

    __noun__ = "trouble"
    __tablename__ = "troubles"

    id: Mapped[int] = mapped_column(primary_key=True)
    symptom: Mapped[str]
    name: Mapped[str]
    formula_id: Mapped[int | None] = mapped_column(ForeignKey("formulas.id", ondelete="RESTRICT"), index=True)
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batches.id", ondelete="RESTRICT"), index=True)
    tray_id: Mapped[int | None] = mapped_column(ForeignKey("trays.id", ondelete="RESTRICT"))
    test_id: Mapped[int | None] = mapped_column(ForeignKey("tub_tests.id", ondelete="RESTRICT"))
    formula: Mapped[dict[str, Any] | None] = mapped_column(JsonObject(none_as_null=True))
    """As made when the trouble was looked into, a formula file."""
    answers: Mapped[dict[str, Any]] = mapped_column(JsonObject, default=dict)
    outcome: Mapped[str | None]
    """Id of the cause that it was, or none-of-these; null while nobody has said."""
    remark: Mapped[str] = mapped_column(default="")
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    decided_at: Mapped[datetime | None] = mapped_column(UtcTime)
    request_key: Mapped[str | None] = mapped_column(unique=True)


def add_trouble(session: Session, row: TroubleRow) -> TroubleRow:
    """Keep a trouble; the same key twice keeps one."""
    return keep_once(session, row)


def find_trouble(session: Session, trouble_id: int) -> TroubleRow:
    """Return a trouble; a NotFoundError where there is none under that number."""
    return find(session, TroubleRow, trouble_id)


def list_troubles(session: Session, *, query: str, batch_id: int | None, before: int | None, limit: int) -> list[TroubleRow]:
    """Return troubles, the newest first."""
    asked = select(TroubleRow)
    asked = speaking_of(asked, query, TroubleRow.symptom, TroubleRow.name, TroubleRow.remark)
    if batch_id is not None:
        asked = asked.where(TroubleRow.batch_id == batch_id)
    return newest_first(session, asked, TroubleRow, before, limit)


def list_outcomes(session: Session) -> dict[tuple[str, str], int]:
    """Return how often a symptom turned out to be a cause, by both."""
    asked = select(TroubleRow.symptom, TroubleRow.outcome, func.count()).where(TroubleRow.outcome.is_not(None))
    found = session.execute(asked.group_by(TroubleRow.symptom, TroubleRow.outcome))
    return {(symptom, outcome): count for symptom, outcome, count in found if outcome is not None}
