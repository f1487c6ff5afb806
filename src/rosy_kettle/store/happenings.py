"""Things that happen in their order: each names the one it follows, so that two browsers never write over each other."""

from __future__ import annotations

from sqlalchemy import func, select
from sqlalchemy.orm import InstrumentedAttribute, Session

from rosy_kettle.core.errors import ConflictError

__all__ = ["next_seq"]


def next_seq(
    session: Session, seq: InstrumentedAttribute[int], owner: InstrumentedAttribute[int], owner_id: int, after: int, noun: str
) -> int:
    """Return the number of the next thing to happen to a batch or a tray.

    Raises
    ------
    ConflictError
        If something else has happened since ``after``: another browser was faster, or this one asks twice.
    """
    last = session.scalar(select(func.max(seq)).where(owner == owner_id)) or 0
    if last != after:
        raise ConflictError(f"The {noun} has moved on; look again.", noun=noun, reason="moved on", seq=last)
    return last + 1
