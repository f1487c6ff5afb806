"""Things that happen in their order: each names the one it follows, so that two browsers never write over each other."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import Any, TypeVar

from sqlalchemy import Integer, func, select
from sqlalchemy.orm import InstrumentedAttribute, Mapped, Session, mapped_column

from rosy_kettle.core.errors import ConflictError
from rosy_kettle.core.making.happening import Event
from rosy_kettle.store.base import Base, JsonObject, UtcTime, now_utc

__all__ = ["HappenedRow", "add_happened", "event_of_row", "said_by"]


class HappenedRow(Base):
    """One thing that happened. Rows are only ever added."""

    __abstract__ = True

    id: Mapped[int] = mapped_column(Integer, primary_key=True, sort_order=-2)
    seq: Mapped[int]
    at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    """When the studio heard of it."""
    kind: Mapped[str]
    data: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    event_id: Mapped[str | None]
    """Its own name (UUID), given where it was made; by it a repeat is known. Events of former studios have none."""
    made_at: Mapped[datetime | None] = mapped_column(UtcTime)
    """When it was made, by the clock of the device it was made on."""


Happened = TypeVar("Happened", bound=HappenedRow)


def event_of_row(row: HappenedRow | Any) -> Event:
    """Return what a row tells."""
    made_at = None if row.made_at is None else row.made_at.isoformat()
    return Event(row.seq, row.at.isoformat(), row.kind, said_by(row), row.event_id, made_at)


def said_by(row: HappenedRow | Any) -> dict[str, Any]:
    """Return the facts of a row by name; none where another hand left something else in their place."""
    return row.data if isinstance(row.data, dict) else {}


def add_happened(
    session: Session, row: Happened, owner: InstrumentedAttribute[int], owner_id: int, after: int, noun: str
) -> Happened:
    """Add one thing that happened to a batch, a tray or a test, and return it with its number.

    Raises
    ------
    ConflictError
        If something else has happened since ``after``: another browser was faster, or this one asks twice.
    """
    last = session.scalar(select(func.max(type(row).seq)).where(owner == owner_id)) or 0
    if last != after:
        raise ConflictError(f"The {noun} has moved on; look again.", noun=noun, reason="moved on", seq=last)
    setattr(row, owner.key, owner_id)
    row.seq, row.at = last + 1, now_utc()
    row.event_id = row.event_id or str(uuid.uuid4())
    session.add(row)
    session.flush()
    return row
