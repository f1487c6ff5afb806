"""The hours of a week by the maker's clock: where a zone's clock changes, a day has 23 or 25 of them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta, tzinfo

__all__ = ["ClockHour", "clock_hours", "midnight", "tonight"]

HOUR = timedelta(hours=1)


@dataclass(frozen=True, slots=True)
class ClockHour:
    """What the clock on the wall shows when an hour of the week begins."""

    day: int
    """Days since the first one [-]."""
    minute: int
    """Since that day's midnight [min]."""


def midnight(on: date, zone: tzinfo) -> datetime:
    """Return the first moment of a day.

    Parameters
    ----------
    on : date
        The day, by the maker's calendar
    zone : tzinfo
        The maker's zone

    Returns
    -------
    datetime
        In UTC; where the clock jumps over midnight, what it shows next
    """
    return datetime.combine(on, time.min, zone).astimezone(UTC)


def tonight(now: datetime, zone: tzinfo) -> datetime:
    """Return when the present day ends.

    Parameters
    ----------
    now : datetime
        This moment, with its offset
    zone : tzinfo
        The maker's zone

    Returns
    -------
    datetime
        The midnight to come [UTC]
    """
    return midnight(now.astimezone(zone).date() + timedelta(days=1), zone)


def clock_hours(first: date, days: int, zone: tzinfo) -> tuple[ClockHour, ...]:
    """Return what the clock shows at the beginning of every hour of some days.

    Parameters
    ----------
    first : date
        The first day
    days : int
        How many [-]
    zone : tzinfo
        The maker's zone, with its rules

    Returns
    -------
    tuple of ClockHour
        One for every hour that passes between the first midnight and the last
    """
    begin = midnight(first, zone)
    hours = math.ceil((midnight(first + timedelta(days=days), zone) - begin) / HOUR)
    shown = [(begin + hour * HOUR).astimezone(zone) for hour in range(hours)]
    return tuple(ClockHour((at.date() - first).days, 60 * at.hour + at.minute) for at in shown)
