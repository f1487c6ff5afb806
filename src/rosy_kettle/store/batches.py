"""Batches: what was planned, and every thing that happened, in its order and never changed."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, Index, UniqueConstraint, and_, case, func, or_, select, true
from sqlalchemy.orm import Mapped, Session, defer, mapped_column

from rosy_kettle.store.base import JsonObject, UtcTime, now_utc
from rosy_kettle.store.happenings import HappenedRow, add_happened
from rosy_kettle.store.rows import AskedForRow, find, keep, kept_with, newest_first

__all__ = [
    "PRINTED_CODE", "BatchEventRow", "BatchRow", "PageOfBatches", "add_batch", "add_event", "batch_begun_with", "bowl_begun",
    "count_batches", "count_events", "counted_pieces", "find_batch", "latest_conditions",
    "list_events", "list_remarks", "page_of_batches",
    "planned_pieces", "printed_code",
]  # fmt: skip

PRINTED_CODE = re.compile(r"\d{6}-(\d{1,9})")
"""What is printed on a label for a batch: the day it was begun, and its number."""


def printed_code(row: BatchRow) -> str:
    """Return the code that is printed for a batch: the day it was begun, and its number."""
    return f"{row.created_at:%y%m%d}-{row.id}"


class BatchRow(AskedForRow):
    """One bowl of a formula's version, as planned."""

    __noun__ = "batch"
    __tablename__ = "batches"

    id: Mapped[int] = mapped_column(primary_key=True)
    formula_id: Mapped[int] = mapped_column(ForeignKey("formulas.id", ondelete="RESTRICT"), index=True)
    version: Mapped[int]
    name: Mapped[str]
    method: Mapped[str]
    batch_g: Mapped[float]
    plan: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """The formula in grams as a formula file, pieces, piece mass, bowl, steps."""
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    closed_at: Mapped[datetime | None] = mapped_column(UtcTime)
    request_key: Mapped[str | None] = mapped_column(unique=True)
    """Key the browser gave when it asked for the batch; asking twice begins one."""


class BatchEventRow(HappenedRow):
    """One thing that happened. Rows are only ever added."""

    __tablename__ = "batch_events"
    __table_args__ = (
        UniqueConstraint("batch_id", "seq"),
        Index("ix_batch_events_batch_id_event_id", "batch_id", "event_id", unique=True),
    )

    batch_id: Mapped[int] = mapped_column(ForeignKey("batches.id", ondelete="RESTRICT"), index=True, sort_order=-1)


def add_batch(session: Session, row: BatchRow) -> BatchRow:
    """Store a new batch."""
    return keep(session, row)


def batch_begun_with(session: Session, key: str | None) -> int | None:
    """Return the number of the batch that was asked for with a key, or None."""
    return kept_with(session, BatchRow, key)


def find_batch(session: Session, batch_id: int) -> BatchRow:
    """Return a batch; a NotFoundError where there is none under that number."""
    return find(session, BatchRow, batch_id)


@dataclass(frozen=True, slots=True)
class PageOfBatches:
    """What is asked of a page of batches."""

    query: str = ""
    formula_id: int | None = None
    before: int | None = None
    """Number of the batch the page comes after."""
    limit: int = 50


def page_of_batches(session: Session, ask: PageOfBatches, told_of: Any) -> list[BatchRow]:
    """Return batches, the newest first, whose name holds the words asked for, or that ``told_of`` selects by number."""
    asked = select(BatchRow).options(defer(BatchRow.plan))  # the plan is long, and a list shows none of it
    if ask.query:
        named = [BatchRow.name.icontains(ask.query, autoescape=True), BatchRow.id.in_(told_of)]
        printed = PRINTED_CODE.fullmatch(ask.query.strip())
        named += [BatchRow.id == int(printed[1])] if printed else []
        asked = asked.where(or_(*named))
    if ask.formula_id is not None:
        asked = asked.where(BatchRow.formula_id == ask.formula_id)
    return newest_first(session, asked, BatchRow, ask.before, ask.limit)


def planned_pieces(session: Session, batch_ids: Sequence[int]) -> dict[int, int]:
    """Return how many pieces were planned of each of some batches."""
    item = func.json_each(BatchRow.plan, "$.pieces").table_valued("value")
    asked = select(BatchRow.id, func.sum(func.json_extract(item.c.value, "$.pieces"))).select_from(BatchRow).join(item, true())
    return {row[0]: int(row[1] or 0) for row in session.execute(asked.where(BatchRow.id.in_(batch_ids)).group_by(BatchRow.id))}


def counted_pieces(session: Session, batch_ids: Sequence[int]) -> dict[int, int]:
    """Return how many pieces were counted at the bench, of those of some batches where any were; late counts with them."""
    data = BatchEventRow.data
    late = and_(BatchEventRow.kind == "amended", data["what"]["kind"].as_string() == "pieces")
    counts = case((BatchEventRow.kind == "pieces", data["count"].as_integer()), else_=data["what"]["data"]["count"].as_integer())
    asked = select(BatchEventRow.batch_id, func.sum(counts)).where(or_(BatchEventRow.kind == "pieces", late))
    found = session.execute(asked.where(BatchEventRow.batch_id.in_(batch_ids)).group_by(BatchEventRow.batch_id))
    return {batch_id: max(0, int(count)) for batch_id, count in found}


def count_batches(session: Session) -> tuple[int, int]:
    """Return how many batches there are, and how many of them are still open."""
    still = select(func.count()).select_from(BatchRow).where(BatchRow.closed_at.is_(None))
    return session.scalar(select(func.count(BatchRow.id))) or 0, session.scalar(still) or 0


def bowl_begun(session: Session, formula_id: int, first_id: int, bowl: int) -> int | None:
    """Return the number of the batch that is one bowl of a plan, by the plan's first batch; None if it is not begun."""
    of_plan = (BatchRow.plan["first"].as_integer() == first_id, BatchRow.plan["bowl"].as_integer() == bowl)
    return session.scalar(select(BatchRow.id).where(BatchRow.formula_id == formula_id, *of_plan))


def list_events(session: Session, batch_id: int) -> list[BatchEventRow]:
    """Return everything that happened to a batch, in its order."""
    return list(session.scalars(select(BatchEventRow).where(BatchEventRow.batch_id == batch_id).order_by(BatchEventRow.seq)))


def latest_conditions(session: Session) -> BatchEventRow | None:
    """Return the conditions that were typed last at the bench, with a humidity."""
    asked = select(BatchEventRow).where(BatchEventRow.kind == "conditions", BatchEventRow.data["source"].as_string() == "hand")
    asked = asked.where(BatchEventRow.data["humidity_pct"].as_float().is_not(None))
    return session.scalar(asked.order_by(BatchEventRow.id.desc()).limit(1))


def list_remarks(session: Session, batch_ids: Sequence[int]) -> dict[int, list[BatchEventRow]]:
    """Return what a list tells of some batches: outcomes, notes and amendments, in their order, asked for at once."""
    told = BatchEventRow.kind.in_(("outcome", "note", "amended"))
    asked = select(BatchEventRow).where(BatchEventRow.batch_id.in_(batch_ids), told).order_by(BatchEventRow.seq)
    found: dict[int, list[BatchEventRow]] = {}
    for row in session.scalars(asked):
        found.setdefault(row.batch_id, []).append(row)
    return found


def count_events(session: Session, batch_ids: Sequence[int]) -> dict[int, int]:
    """Return how many things have happened to each of some batches."""
    asked = select(BatchEventRow.batch_id, func.count()).where(BatchEventRow.batch_id.in_(batch_ids))
    return {row[0]: int(row[1]) for row in session.execute(asked.group_by(BatchEventRow.batch_id))}


def add_event(
    session: Session, batch_id: int, after: int, kind: str, data: dict[str, Any], event_id: str | None = None,
    made_at: datetime | None = None,
) -> BatchEventRow:  # fmt: skip
    """Add one thing that happened; one without a name of its own is given one.

    Raises
    ------
    ConflictError
        If something else has happened since ``after``.
    """
    row = BatchEventRow(kind=kind, data=data, event_id=event_id, made_at=made_at)
    return add_happened(session, row, BatchEventRow.batch_id, batch_id, after, "batch")
