"""Tests in the tub, and every thing that happened in them, never changed."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, Index, UniqueConstraint, or_, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import JsonObject, UtcTime, now_utc
from rosy_kettle.store.happenings import HappenedRow, add_happened
from rosy_kettle.store.rows import AskedForRow, find, keep, kept_with, newest_first, speaking_of
from rosy_kettle.store.test_series import TestSeriesRow

__all__ = [
    "TubTestEventRow",
    "TubTestRow",
    "add_tub_test",
    "add_tub_test_event",
    "find_tub_test",
    "list_tests_of_series",
    "list_tub_test_events",
    "list_tub_tests",
    "tub_test_begun_with",
]  # fmt: skip


class TubTestRow(AskedForRow):
    """One test: what went into which bath, and what the Desk had said of it."""

    __noun__ = "test"
    __tablename__ = "tub_tests"

    id: Mapped[int] = mapped_column(primary_key=True)
    formula_id: Mapped[int | None] = mapped_column(ForeignKey("formulas.id", ondelete="RESTRICT"), index=True)
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batches.id", ondelete="RESTRICT"), index=True)
    version: Mapped[int | None]
    name: Mapped[str]
    formula: Mapped[dict[str, Any] | None] = mapped_column(JsonObject)
    """As made, a formula file; null for a piece from elsewhere."""
    use: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """Dose [g], way, tub [L, m2], bath [°C], water."""
    foretold: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """What the Desk said when the test was begun."""
    begun_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    closed_at: Mapped[datetime | None] = mapped_column(UtcTime)
    request_key: Mapped[str | None] = mapped_column(unique=True)
    series_id: Mapped[int | None] = mapped_column(index=True)
    series_place: Mapped[int | None]
    """Which bath of its series, from 0."""


class TubTestEventRow(HappenedRow):
    """One thing that happened. Rows are only ever added."""

    __tablename__ = "tub_test_events"
    __table_args__ = (
        UniqueConstraint("test_id", "seq"),
        Index("ix_tub_test_events_test_id_event_id", "test_id", "event_id", unique=True),
    )

    test_id: Mapped[int] = mapped_column(ForeignKey("tub_tests.id", ondelete="RESTRICT"), sort_order=-1)


def add_tub_test(session: Session, row: TubTestRow) -> TubTestRow:
    """Begin a test."""
    return keep(session, row)


def tub_test_begun_with(session: Session, key: str | None) -> int | None:
    """Return the number of the test that was begun with a key, or None."""
    return kept_with(session, TubTestRow, key)


def find_tub_test(session: Session, test_id: int) -> TubTestRow:
    """Return a test; a NotFoundError where there is none under that number."""
    return find(session, TubTestRow, test_id)


def list_tub_tests(session: Session, *, query: str, formula_id: int | None, before: int | None, limit: int) -> list[TubTestRow]:
    """Return tests, the newest first."""
    asked = select(TubTestRow)
    asked = speaking_of(asked, query, TubTestRow.name)
    if formula_id is not None:
        opened = select(TestSeriesRow.opened).where(TestSeriesRow.id == TubTestRow.series_id).scalar_subquery()
        told = or_(TubTestRow.series_id.is_(None), TubTestRow.series_place < opened)  # a blind test is nobody's yet
        asked = asked.where(TubTestRow.formula_id == formula_id, told)
    return newest_first(session, asked, TubTestRow, before, limit)


def list_tests_of_series(session: Session, series_id: int) -> list[TubTestRow]:
    """Return the tests of a series in their order."""
    asked = select(TubTestRow).where(TubTestRow.series_id == series_id).order_by(TubTestRow.series_place)
    return list(session.scalars(asked))


def list_tub_test_events(session: Session, test_ids: list[int]) -> dict[int, list[TubTestEventRow]]:
    """Return everything that happened in some tests, in its order, asked for at once."""
    found: dict[int, list[TubTestEventRow]] = {id_: [] for id_ in test_ids}
    asked = select(TubTestEventRow).where(TubTestEventRow.test_id.in_(test_ids))
    for row in session.scalars(asked.order_by(TubTestEventRow.test_id, TubTestEventRow.seq)):
        found[row.test_id].append(row)
    return found


def add_tub_test_event(
    session: Session, test_id: int, after: int, kind: str, data: dict[str, Any], event_id: str | None = None,
    made_at: datetime | None = None,
) -> TubTestEventRow:  # fmt: skip
    """Add one thing that happened; one without a name of its own is given one.

    Raises
    ------
    ConflictError
        If something else has happened since ``after``.
    """
    row = TubTestEventRow(kind=kind, data=data, event_id=event_id, made_at=made_at)
    return add_happened(session, row, TubTestEventRow.test_id, test_id, after, "test")
