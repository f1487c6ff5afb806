"""Complaints: kept with the batch they are about, and until when a serious one is to be reported."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.store.batches import BatchRow, find_batch
from rosy_kettle.store.complaints import COMPLAINT_KINDS, ComplaintRow, add_complaint, find_complaint
from rosy_kettle.usecases.labels.find_again import recall
from rosy_kettle.usecases.pantry.draw_stock import drawn_by

__all__ = ["ComplaintSaid", "ComplaintTrend", "change_complaint", "complaint_trends", "report_by", "take_complaint"]

REPORT_BUSINESS_DAYS = 15  # a serious adverse event, FD&C Act s. 605 (21 USC 364a), from memory [business days]
SATURDAY = 5


@dataclass(frozen=True, slots=True)
class ComplaintSaid:
    """A complaint as it is typed."""

    what: str
    kind: str
    at: datetime | None = None
    batch_id: int | None = None
    code: str = ""
    who: str = ""
    serious: bool = False
    done: str = ""
    key: str | None = None


@dataclass(frozen=True, slots=True)
class ComplaintTrend:
    """How often something was complained of."""

    of: str
    """product or lot."""
    name: str
    count: int
    serious: int


def take_complaint(session: Session, said: ComplaintSaid) -> ComplaintRow:
    """Keep a complaint; where a printed code was read out, its batch is looked for.

    Raises
    ------
    InputError
        If it says nothing, its kind is none of the list, or it lies in the future.
    NotFoundError
        If there is no such batch.
    """
    if not said.what.strip():
        raise InputError("What was said? One sentence is enough.", quantity="what")
    if said.kind not in COMPLAINT_KINDS:
        raise InputError(f"A complaint is about {', '.join(COMPLAINT_KINDS)}.", quantity="kind")
    now = datetime.now(UTC)
    if said.at is not None and said.at > now + timedelta(minutes=5):
        raise InputError("It cannot have been heard yet; look at the day again.", quantity="at")
    batch_id = said.batch_id
    if batch_id is not None:
        find_batch(session, batch_id)
    elif said.code.strip():
        hung = recall(session, said.code).batches
        batch_id = hung[0]["id"] if len(hung) == 1 else None
    return add_complaint(session, ComplaintRow(
        at=said.at or now, batch_id=batch_id, code=said.code.strip(), what=said.what.strip(), who=said.who.strip(),
        kind=said.kind, serious=said.serious, done=said.done.strip(), request_key=said.key,
    ))  # fmt: skip


def change_complaint(session: Session, complaint_id: int, *, done: str | None, serious: bool | None) -> ComplaintRow:
    """Say what was done about a complaint, or that it is serious after all.

    Raises
    ------
    NotFoundError
        If there is no such complaint.
    """
    row = find_complaint(session, complaint_id)
    if done is not None:
        row.done = done.strip()
    if serious is not None:
        row.serious = serious
    session.flush()
    return row


def report_by(row: ComplaintRow) -> date | None:
    """Return the day a serious complaint is to be reported by in the US, 15 business days on; None where it is not serious.

    Business days are Monday to Friday; holidays are counted as such too, so that the day is never too late.
    """
    if not row.serious:
        return None
    day, left = row.at.date(), REPORT_BUSINESS_DAYS
    while left:
        day += timedelta(days=1)
        left -= day.weekday() < SATURDAY
    return day


def complaint_trends(session: Session) -> list[ComplaintTrend]:
    """Return how often each product, and each lot that went into it, was complained of, the most first."""
    rows = list(session.scalars(select(ComplaintRow).where(ComplaintRow.batch_id.is_not(None))))
    count: Counter[tuple[str, str]] = Counter()
    serious: Counter[tuple[str, str]] = Counter()
    for row in rows:
        batch = None if row.batch_id is None else session.get(BatchRow, row.batch_id)
        if batch is None:
            continue
        names = {("product", batch.name)} | {("lot", drawn.lot.code) for drawn in drawn_by(session, batch.id)}
        count.update(names)
        serious.update(names if row.serious else ())
    return [
        ComplaintTrend(of, name, number, serious[of, name])
        for (of, name), number in sorted(count.items(), key=lambda each: (-each[1], each[0]))
    ]
