"""The journal: one line of time, made of what happened elsewhere, and its full-text search.

Every entry can be made again from what it tells of. Search is SQLite's FTS5; what is filtered by stands in it as tags, so that a
word and its filters are met in one index.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import Integer, column, func, insert, literal_column, select, table, text
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import Base, UtcTime

__all__ = [
    "Entry", "JournalAsk", "JournalMarkRow", "JournalRow", "add_entries", "batches_told_of", "last_ids", "match_of",
    "months_of_journal", "page_of_journal", "tags_of",
]  # fmt: skip


class JournalRow(Base):
    """One entry; numbered in the order of time."""

    __tablename__ = "journal"

    id: Mapped[int] = mapped_column(primary_key=True)
    source: Mapped[str]
    """What it was made of: a table, with the number of its row beside."""
    source_id: Mapped[int]
    at: Mapped[datetime] = mapped_column(UtcTime)
    month: Mapped[int]
    """Year and month in UTC, as 202611."""
    kind: Mapped[str]
    formula_id: Mapped[int | None]
    batch_id: Mapped[int | None]
    tray_id: Mapped[int | None]
    test_id: Mapped[int | None]
    version: Mapped[int | None]
    gone_wrong: Mapped[bool]
    drawn: Mapped[float | None]
    """Figure its small drawing shows: S of a dough, grams of a correction, share of good pieces."""
    title: Mapped[str]
    text: Mapped[str]
    tags: Mapped[str]


class JournalMarkRow(Base):
    """How far the journal has come with one source."""

    __tablename__ = "journal_marks"

    source: Mapped[str] = mapped_column(primary_key=True)
    last_id: Mapped[int]


Entry = dict[str, Any]
"""The columns of an entry, but for its number."""


@dataclass(frozen=True, slots=True)
class JournalAsk:
    """What is asked of the journal; None leaves a filter open."""

    query: str = ""
    formula_id: int | None = None
    batch_id: int | None = None
    kind: str | None = None
    month: int | None = None
    gone_wrong: bool | None = None
    before: int | None = None
    """Number of the entry the page comes after."""
    limit: int = 50


WORDS = table("journal_words", column("rowid", Integer))
NEW_WORDS = text(
    "INSERT INTO journal_words (rowid, title, text, tags) "
    "SELECT id, title, CASE WHEN kind = 'weigh-in' THEN '' ELSE text END, tags FROM journal WHERE id > :before"
)
"""Weigh-ins are found by what was weighed, not by "weighed": a word of a million entries finds nothing and is slow."""
MONTHS = text(
    "WITH RECURSIVE months (month) AS (SELECT max(month) FROM journal UNION ALL "
    "SELECT (SELECT max(month) FROM journal WHERE month < months.month) FROM months WHERE month IS NOT NULL) "
    "SELECT month FROM months WHERE month IS NOT NULL"
)
"""One step of the index a month, however many entries a month has."""
MATCH = literal_column("journal_words").op("MATCH")


def page_of_journal(session: Session, ask: JournalAsk) -> list[JournalRow]:
    """Return entries, the newest first."""
    asked = select(JournalRow)
    match = match_of(ask)
    if match:
        found = select(WORDS.c.rowid).where(MATCH(match))
        if ask.before is not None:
            found = found.where(WORDS.c.rowid < ask.before)
        found = found.order_by(WORDS.c.rowid.desc()).limit(ask.limit)
        asked = asked.where(JournalRow.id.in_(found))
    else:
        for filtered, value in ((JournalRow.formula_id, ask.formula_id), (JournalRow.batch_id, ask.batch_id),
                                (JournalRow.kind, ask.kind), (JournalRow.month, ask.month)):  # fmt: skip
            if value is not None:
                asked = asked.where(filtered == value)
        if ask.gone_wrong:
            asked = asked.where(JournalRow.gone_wrong)
        if ask.before is not None:
            asked = asked.where(JournalRow.id < ask.before)
    return list(session.scalars(asked.order_by(JournalRow.id.desc()).limit(ask.limit)))


def batches_told_of(query: str) -> Any:
    """Select the numbers of the batches whose entries hold the words asked for."""
    found = select(WORDS.c.rowid).where(MATCH(match_of(JournalAsk(query))))
    return select(JournalRow.batch_id).where(JournalRow.id.in_(found), JournalRow.batch_id.is_not(None))


def tags_of(kind: str, month: int, formula_id: int | None, batch_id: int | None, *, gone_wrong: bool) -> str:
    """Return the words an entry is filtered by."""
    found = [f"kind{kind.replace('_', '')}", f"month{month}"]
    found += [] if formula_id is None else [f"formula{formula_id}"]
    found += [] if batch_id is None else [f"batch{batch_id}"]
    return " ".join([*found, *(["wrong"] if gone_wrong else [])])


def match_of(ask: JournalAsk) -> str:
    """Return what FTS5 is asked: every word as a prefix, what stands in quotes as a phrase, filters as tags.

    "" where one filter or none is asked for without a word: then an index of the table answers.
    """
    said = []
    for phrase, word in re.findall(r'"([^"]+)"|([^\s"]+)', ask.query):
        parts = re.findall(r"[^\W_]+", phrase or word)
        if parts:
            said.append(f'"{" ".join(parts)}"' + ("" if phrase else "*"))
    tags = [] if ask.kind is None else [f"kind{ask.kind.replace('_', '')}"]
    for name, value in (("month", ask.month), ("formula", ask.formula_id), ("batch", ask.batch_id)):
        tags += [] if value is None else [f"{name}{value}"]
    tags += ["wrong"] if ask.gone_wrong else []
    if not said and len(tags) <= 1:
        return "" if not ask.query.strip() else "{title} : nothinglikethis"
    words = [f"{{title text}} : ({' AND '.join(said)})"] if said else []
    return " AND ".join([*words, *(f'tags : "{tag}"' for tag in tags)])


def last_ids(session: Session) -> dict[str, int]:
    """Return how far the journal has come, by source."""
    return {row.source: row.last_id for row in session.scalars(select(JournalMarkRow))}


def add_entries(session: Session, entries: list[Entry], marks: dict[str, int]) -> None:
    """Write entries in their order, with their words for the search, and how far they come.

    The words are written here and not by a trigger: the file is opened so that what stands in it runs nothing of its own.
    """
    if entries:
        before = session.scalar(select(func.max(JournalRow.id))) or 0
        session.execute(insert(JournalRow.__table__), entries)  # type: ignore[arg-type]
        session.execute(NEW_WORDS, {"before": before})
    for source, last in marks.items():
        session.merge(JournalMarkRow(source=source, last_id=last))


def months_of_journal(session: Session) -> list[int]:
    """Return the months that have an entry, the newest first."""
    return [int(row) for row in session.scalars(MONTHS)]
