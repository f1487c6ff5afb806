"""Week, calendar and today across a change of the clocks: the workshop opens at nine by the clock on its wall."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from flask.testing import FlaskClient
from icalendar import Calendar

import rosy_kettle.api.orders
import rosy_kettle.api.rack
from tests.api.test_api import created
from tests.api.test_orders import order, settings, week

CHANGES = [
    ("America/New_York", "2026-11-02"), ("America/New_York", "2027-03-15"), ("Europe/London", "2026-10-26"),
    ("Europe/London", "2027-03-29"),
]  # fmt: skip
"""Mondays after a change, by the rules of the IANA time zone database."""
WEEKDAYS = [{"from_h": 9, "to_h": 17}] * 5 + [{"from_h": 0, "to_h": 0}] * 2


@pytest.fixture
def saturday(request: pytest.FixtureRequest, monkeypatch: pytest.MonkeyPatch) -> tuple[ZoneInfo, datetime]:
    """Saturday noon before the change, by the studio's clock."""
    zone, monday = ZoneInfo(request.param[0]), datetime.fromisoformat(request.param[1])
    now = (monday - timedelta(days=2)).replace(hour=12, tzinfo=zone)

    class Fixed(datetime):
        @classmethod
        def now(cls, tz: object = None) -> datetime:
            return now.astimezone(UTC)

    monkeypatch.setattr(rosy_kettle.api.orders, "datetime", Fixed)
    monkeypatch.setattr(rosy_kettle.api.rack, "datetime", Fixed)
    return zone, now


@pytest.mark.parametrize("saturday", CHANGES, indirect=True, ids=" ".join)
def test_monday_opens_at_nine(saturday: tuple[ZoneInfo, datetime], client: FlaskClient) -> None:
    zone, now = saturday
    settings(client, week=WEEKDAYS, zone=zone.key)
    order(client, created(client)["id"], due_at=None)
    told = week(client, zone="Asia/Tokyo")  # the studio's zone goes before the asker's
    assert told["zone"] == zone.key
    opens = [(datetime.fromisoformat(each["from_at"]).astimezone(zone), each) for each in told["open_hours"]]
    assert {at.hour for at, _ in opens} == {9}
    assert {datetime.fromisoformat(each["to_at"]).astimezone(zone).hour for _, each in opens} == {17}
    days = [datetime.fromisoformat(each).astimezone(zone) for each in told["days_begin_at"]]
    assert [(each.hour, (each.date() - days[0].date()).days) for each in days] == [(0, day) for day in range(8)]
    (placed,) = told["orders"]
    begins = datetime.fromisoformat(placed["starts_at"]).astimezone(zone)
    assert (begins.weekday(), begins.hour) == (0, 9)
    events = Calendar.from_ical(client.get("/api/calendar.ics").data).walk("VEVENT")
    (bench,) = [each for each in events if str(each["UID"]).startswith("bench-")]
    assert bench["DTSTART"].dt == begins
    tonight = datetime.fromisoformat(client.get("/api/rack?zone=Asia/Tokyo").json["tonight_at"])
    assert tonight.astimezone(zone).isoformat()[:16] == f"{now.date() + timedelta(days=1)}T00:00"


def test_a_zone_that_is_none_is_refused_and_without_one_the_askers_holds(client: FlaskClient) -> None:
    settings(client, week=WEEKDAYS)
    order(client, created(client)["id"], due_at=None)
    for said in ("Mars/Olympus", "../../etc/passwd", "localtime", "Europe"):
        refused = client.put("/api/settings", json={"week": WEEKDAYS, "zone": said})
        assert refused.status_code == 422, said
        assert client.post("/api/week", json={"zone": said}).status_code == 422, said
    opens = {
        datetime.fromisoformat(each["from_at"]).astimezone(ZoneInfo("Asia/Kolkata")).hour
        for each in week(client, zone="Asia/Kolkata")["open_hours"]
    }
    assert opens <= {9, *range(10, 17)}
    assert 9 in opens
