"""A task of a tray, as a calendar wants it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

__all__ = ["CalendarTask"]


@dataclass(frozen=True, slots=True)
class CalendarTask:
    """One task of one tray."""

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
