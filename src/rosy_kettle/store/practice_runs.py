"""Practice runs: which bowl, and what was done; nothing else in the studio knows of them."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import JsonList, UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, find, keep_once, newest_first

__all__ = ["PracticeRunRow", "add_practice_run", "find_practice_run", "list_practice_runs"]


class PracticeRunRow(AskedForRow):
    """One time at a practice bowl."""

    __noun__ = "practice run"
    __tablename__ = "practice_runs"

    id: Mapped[int] = mapped_column(primary_key=True)
    scenario: Mapped[str]
    seed: Mapped[int]
    acts: Mapped[list[dict[str, Any]]] = mapped_column(JsonList, default=list)
    """What was done, in order; the bowl is worked out from it."""
    ended: Mapped[bool] = mapped_column(default=False)
    score: Mapped[float | None]
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


def add_practice_run(session: Session, row: PracticeRunRow) -> PracticeRunRow:
    """Begin a run; the same key twice begins one."""
    return keep_once(session, row)


def find_practice_run(session: Session, run_id: int) -> PracticeRunRow:
    """Return a run; a NotFoundError where there is none under that number."""
    return find(session, PracticeRunRow, run_id)


def list_practice_runs(session: Session, *, before: int | None, limit: int) -> list[PracticeRunRow]:
    """Return runs, the newest first."""
    asked = select(PracticeRunRow)
    return newest_first(session, asked, PracticeRunRow, before, limit)
