"""Series of tests: a claim, its variants, and the baths in their shuffled order."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import JsonList, JsonObject, UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, find, keep, kept_with, newest_first, speaking_of

__all__ = ["TestSeriesRow", "add_test_series", "find_test_series", "list_test_series", "series_begun_with", "series_by_id"]


class TestSeriesRow(AskedForRow):
    """One series: what is claimed of which variants, in one bath."""

    __noun__ = "series"
    __test__ = False
    __tablename__ = "test_series"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str]
    claim: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """Reading, better, than, worth [the reading's unit], and whether the lower is the better one."""
    variants: Mapped[list[dict[str, Any]]] = mapped_column(JsonList)
    """Letter, formula and its version, name, and the formula file as it was when the series was begun."""
    use: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """The one bath: dose [g], way, tub [L, m2], bath [°C], water."""
    places: Mapped[list[dict[str, Any]]] = mapped_column(JsonList)
    """The baths in their order: code, variant, blind."""
    opened: Mapped[int] = mapped_column(default=0)
    """How many places have their codes opened."""
    begun_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


def add_test_series(session: Session, row: TestSeriesRow) -> TestSeriesRow:
    """Begin a series."""
    return keep(session, row)


def series_begun_with(session: Session, key: str | None) -> int | None:
    """Return the number of the series that was begun with a key, or None."""
    return kept_with(session, TestSeriesRow, key)


def find_test_series(session: Session, series_id: int) -> TestSeriesRow:
    """Return a series; a NotFoundError where there is none under that number."""
    return find(session, TestSeriesRow, series_id)


def list_test_series(session: Session, *, query: str, before: int | None, limit: int) -> list[TestSeriesRow]:
    """Return series, the newest first."""
    asked = select(TestSeriesRow)
    asked = speaking_of(asked, query, TestSeriesRow.name)
    return newest_first(session, asked, TestSeriesRow, before, limit)


def series_by_id(session: Session, series_ids: set[int]) -> dict[int, TestSeriesRow]:
    """Return some series by their number."""
    return {row.id: row for row in session.scalars(select(TestSeriesRow).where(TestSeriesRow.id.in_(series_ids)))}
