"""Labels, kept as they were printed: nothing of them is worked out again."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, or_, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import JsonObject, UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, find, keep_once, newest_first

__all__ = ["LabelRow", "add_label", "find_label", "list_labels"]


class LabelRow(AskedForRow):
    """One label as it was printed. Rows are only ever added."""

    __noun__ = "label"
    __tablename__ = "labels"

    id: Mapped[int] = mapped_column(primary_key=True)
    formula_id: Mapped[int | None] = mapped_column(ForeignKey("formulas.id", ondelete="RESTRICT"), index=True)
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batches.id", ondelete="RESTRICT"), index=True)
    version: Mapped[int | None]
    name: Mapped[str]
    market: Mapped[str]
    width_mm: Mapped[float]
    height_mm: Mapped[float]
    facts: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """What the maker had said."""
    made: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """Texts, what was missing, and where every line stood."""
    draft: Mapped[bool]
    """Whether it lacked something, and was crossed as a draft."""
    copies: Mapped[int]
    sheet: Mapped[dict[str, Any] | None] = mapped_column(JsonObject(none_as_null=True))
    """How the paper was cut; null for single labels of their own size."""
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


def add_label(session: Session, row: LabelRow) -> LabelRow:
    """Keep a label; the same key twice keeps one."""
    return keep_once(session, row)


def find_label(session: Session, label_id: int) -> LabelRow:
    """Return a label; a NotFoundError where there is none under that number."""
    return find(session, LabelRow, label_id)


def list_labels(
    session: Session, *, query: str, formula_id: int | None, batch_id: int | None, before: int | None, limit: int
) -> list[LabelRow]:
    """Return labels, the newest first."""
    asked = select(LabelRow)
    if query:
        asked = asked.where(or_(LabelRow.name.icontains(query, autoescape=True), LabelRow.market == query.upper()))
    if formula_id is not None:
        asked = asked.where(LabelRow.formula_id == formula_id)
    if batch_id is not None:
        asked = asked.where(LabelRow.batch_id == batch_id)
    return newest_first(session, asked, LabelRow, before, limit)
