"""Practice runs: which bowl, and what was done; nothing else in the studio knows of them."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.store.base import Base, UtcTime, now_utc

__all__ = ["PracticeRunRow", "add_practice_run", "find_practice_run", "list_practice_runs"]


class PracticeRunRow(Base):
    """One time at a practice bowl."""

    __tablename__ = "practice_runs"

    id: Mapped[int] = mapped_column(primary_key=True)
    scenario: Mapped[str]
    seed: Mapped[int]
    acts: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    """What was done, in order; the bowl is worked out from it."""
    ended: Mapped[bool] = mapped_column(default=False)
    score: Mapped[float | None]
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


def add_practice_run(session: Session, row: PracticeRunRow) -> PracticeRunRow:
    """Begin a run; the same key twice begins one."""
    if row.request_key is not None:
        kept = session.scalar(select(PracticeRunRow).where(PracticeRunRow.request_key == row.request_key))
        if kept is not None:
            return kept
    session.add(row)
    session.flush()
    return row


def find_practice_run(session: Session, run_id: int) -> PracticeRunRow:
    """Return a run.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    row = session.get(PracticeRunRow, run_id)
    if row is None:
        raise NotFoundError(f"There is no practice run {run_id}.", noun="practice run", id=run_id)
    return row


def list_practice_runs(session: Session, *, before: int | None, limit: int) -> list[PracticeRunRow]:
    """Return runs, the newest first."""
    asked = select(PracticeRunRow)
    if before is not None:
        asked = asked.where(PracticeRunRow.id < before)
    return list(session.scalars(asked.order_by(PracticeRunRow.id.desc()).limit(limit)))
