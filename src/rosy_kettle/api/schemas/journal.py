"""The journal: what has happened, a page at a time."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import AfterValidator, BaseModel, Field

from rosy_kettle.api.schemas.common import Limit, Number, Query, Response
from rosy_kettle.usecases.journal.keep_journal import FILTERS

__all__ = ["JournalEntry", "JournalList", "JournalQuery"]


def _kind(kind: str) -> str:
    if kind not in FILTERS:
        raise ValueError(f"the journal tells of {', '.join(FILTERS)}")
    return kind


def _month(month: str) -> str:
    if not 1 <= int(month[5:]) <= 12:  # noqa: PLR2004 - months
        raise ValueError("a month is written as 2026-11")
    return month


class JournalQuery(BaseModel):
    """Words and filters, and where the page before ended."""

    q: Query = ""
    formula_id: Number | None = None
    batch_id: Number | None = None
    kind: Annotated[str, Field(max_length=20), AfterValidator(_kind)] | None = None
    month: Annotated[str, Field(pattern=r"^[0-9]{4}-[0-9]{2}$"), AfterValidator(_month)] | None = None
    gone_wrong: bool = False
    cursor: Number | None = None
    limit: Limit = 50


class JournalEntry(Response):
    """One entry; the numbers say where it leads."""

    id: int
    at: datetime
    kind: str
    title: str
    text: str
    formula_id: int | None
    batch_id: int | None
    tray_id: int | None
    test_id: int | None
    version: int | None
    gone_wrong: bool
    drawn: float | None
    """Figure its small drawing shows: S of a dough, grams of a correction, share of good pieces."""


class JournalList(Response):
    """Entries, the newest first."""

    items: list[JournalEntry]
    next: int | None
    kinds: list[str]
    months: list[str]
    """Months that have entries, as 2026-11, the newest first."""
