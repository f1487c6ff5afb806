"""Days of 23 and 25 hours: when clocks change by the rules of the IANA time zone database, a workshop opens at its hour all the same.

United States: second Sunday of March and first of November at two (15 U.S.C. 260a). United Kingdom: last Sundays of March and October
at one, Greenwich (Summer Time Order 2002).
"""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest

from rosy_kettle.core.making.week.clock_hours import clock_hours, midnight, tonight
from rosy_kettle.core.making.week.jobs import Job, Workshop, feasible_starts
from rosy_kettle.core.making.week.solve import cost_of_start

CHANGES = [
    ("America/New_York", date(2026, 11, 1), 25), ("America/New_York", date(2027, 3, 14), 23),
    ("Europe/London", date(2026, 10, 25), 25), ("Europe/London", date(2027, 3, 28), 23),
]  # fmt: skip


@pytest.mark.parametrize(("zone", "sunday", "hours"), CHANGES)
def test_the_sunday_of_a_change_has_an_hour_more_or_less(zone: str, sunday: date, hours: int) -> None:
    here = ZoneInfo(zone)
    shown = clock_hours(sunday - timedelta(days=1), 3, here)
    assert [sum(each.day == day for each in shown) for day in range(3)] == [24, hours, 24]
    assert [each.minute for each in shown if each.day == 2] == [60 * hour for hour in range(24)]
    noon = datetime.combine(sunday, datetime.min.time(), here) + timedelta(hours=12)
    assert tonight(noon, here) - midnight(sunday, here) == timedelta(hours=hours)


def test_zones_of_half_hours_and_midnights_that_are_not_are_kept_too() -> None:
    """Lord Howe Island changes by half an hour; in Beirut the clock jumps over midnight itself (IANA tz database)."""
    howe = clock_hours(date(2026, 10, 4), 1, ZoneInfo("Australia/Lord_Howe"))
    assert [each.minute % 60 for each in howe][-1] == 30
    begin = midnight(date(2026, 3, 29), ZoneInfo("Asia/Beirut"))
    assert begin.astimezone(ZoneInfo("Asia/Beirut")).hour == 1
    assert clock_hours(date(2026, 3, 29), 1, ZoneInfo("Asia/Beirut"))[0].minute == 60
    assert midnight(date(2026, 7, 1), UTC) == datetime(2026, 7, 1, tzinfo=UTC)


def test_a_batch_ends_on_its_own_day_and_evening_is_what_the_clock_says() -> None:
    here = ZoneInfo("Europe/London")
    clock = clock_hours(date(2026, 10, 25), 2, here)
    shop = Workshop(range(49), 1, 1, [9] * 49, clock=clock)
    assert [start for start in feasible_starts(Job("a", "a", 2, 1, 1), shop) if start in {23, 24}] == [23], (
        "24 is that day's last hour"
    )
    evening = [cost_of_start(Job("a", "a", 1, 1, 1), hour, shop) > 1 for hour in range(49)]
    assert [hour for hour, late in enumerate(evening) if late] == [*range(19, 25), *range(43, 49)]
