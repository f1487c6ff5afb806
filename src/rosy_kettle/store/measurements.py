"""Guided measurements that stand by themselves; what one should have said is a later row."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, Select, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import JsonObject, UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, keep_once

__all__ = ["MeasurementRow", "add_measurement", "counted_measurements", "list_measurements"]


class MeasurementRow(AskedForRow):
    """One measurement. Rows are only ever added."""

    __noun__ = "measurement"
    __tablename__ = "measurements"

    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str]
    formula_id: Mapped[int | None] = mapped_column(ForeignKey("formulas.id", ondelete="RESTRICT"), index=True)
    name: Mapped[str]
    formula: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """The formula file it was measured on, as it was then."""
    facts: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    leaves_out: Mapped[int | None]
    """The earlier measurement that does not count any more."""
    at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


def add_measurement(session: Session, row: MeasurementRow) -> MeasurementRow:
    """Keep a measurement; the same key twice keeps one."""
    return keep_once(session, row)


def list_measurements(session: Session, limit: int) -> list[MeasurementRow]:
    """Return the measurements that count, the newest first."""
    return list(
        session.scalars(
            select(MeasurementRow).where(MeasurementRow.id.in_(counted_measurements(limit))).order_by(MeasurementRow.id.desc())
        )
    )


def counted_measurements(limit: int) -> Select[int]:
    """Ask for the numbers of the measurements that count, the newest first."""
    left_out = select(MeasurementRow.leaves_out).where(MeasurementRow.leaves_out.is_not(None))
    asked = select(MeasurementRow.id).where(MeasurementRow.leaves_out.is_(None), MeasurementRow.id.not_in(left_out))
    return asked.order_by(MeasurementRow.id.desc()).limit(limit)
