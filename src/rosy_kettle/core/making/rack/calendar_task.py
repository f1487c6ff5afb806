"""A task with a date, as a calendar wants it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

__all__ = ["CalendarTask"]


@dataclass(frozen=True, slots=True)
class CalendarTask:
    """One task of a tray, an order's day, or the hours of a batch at the bench."""

    uid: str
    """The same for the same task as long as there is a studio (RFC 5545, 3.8.4.7)."""
    title: str
    due_at: datetime
    changed_at: datetime
    sequence: int
    """How often it was moved, done or taken back (RFC 5545, 3.8.7.4)."""
    cancelled: bool
    """Whether it is done or no longer asked for."""
    place: str
    lasts_min: float = 20.0
    """How long it keeps hands busy [min]."""
