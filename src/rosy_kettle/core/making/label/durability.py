"""Days that are typed on a label."""

from __future__ import annotations

import calendar
import re
from datetime import date

__all__ = ["european", "last_day_of"]

DAY = re.compile(r"(\d{4})-(\d{1,2})(?:-(\d{1,2}))?")
MONTH_FIRST = re.compile(r"(\d{1,2})[/.](\d{4})")
DAY_FIRST = re.compile(r"(\d{1,2})[/.](\d{1,2})[/.](\d{4})")


def last_day_of(text: str) -> date | None:
    """Return the last day that a durability on a label promises.

    Parameters
    ----------
    text : str
        Year-month-day, year-month, day/month/year or month/year

    Returns
    -------
    date or None
        A month promises its last day; None where no day can be read
    """
    plain = text.strip()
    try:
        if found := DAY.fullmatch(plain):
            return _day(int(found[1]), int(found[2]), int(found[3]) if found[3] else None)
        if found := DAY_FIRST.fullmatch(plain):
            return _day(int(found[3]), int(found[2]), int(found[1]))
        if found := MONTH_FIRST.fullmatch(plain):
            return _day(int(found[2]), int(found[1]), None)
    except ValueError:
        return None
    return None


def european(text: str) -> str:
    """Return a day as Reg. (EC) 1223/2009, Art. 19(1)(c) wants it: month and year, or day, month and year, in that order.

    Parameters
    ----------
    text : str
        As typed; what is no day stays as it is
    """
    found = DAY.fullmatch(text.strip())
    if found is None:
        return text
    day = f"{int(found[3]):02d}/" if found[3] else ""
    return f"{day}{int(found[2]):02d}/{found[1]}"


def _day(year: int, month: int, day: int | None) -> date:
    return date(year, month, calendar.monthrange(year, month)[1] if day is None else day)
