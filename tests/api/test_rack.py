"""The rack over HTTP: weigh-ins are events, tasks reach a calendar, and the air says what to do."""

from __future__ import annotations

import math
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
import vobject
from flask.testing import FlaskClient
from icalendar import Calendar
from sqlalchemy import text
from sqlalchemy.exc import IntegrityError

from rosy_kettle.store import Studio
from rosy_kettle.store.rack import AirRow, add_air, air_since
from rosy_kettle.usecases.rack.log_air import thin_old_air
from rosy_kettle.usecases.rack.run_rack import look_at_tray
from tests.api.test_api import created

Answer = dict[str, Any]
LONG_AGO = datetime(2020, 1, 1, tzinfo=UTC)


def ago(hours: float) -> str:
    return (datetime.now(UTC) - timedelta(hours=hours)).isoformat()


def set_out(client: FlaskClient, hours: float = 60.0, **ask: Any) -> Answer:
    formula = created(client)
    answer = client.post("/api/rack", json={"pieces": 9, "formula_id": formula["id"], "set_out_at": ago(hours), **ask})
    assert answer.status_code == 201, answer.text
    tray: Answer = answer.json
    return tray


def weigh(client: FlaskClient, tray: Answer, hours_ago: float, mass_g: float, **also: Any) -> Answer:
    body = {"after": tray["state"]["seq"], "mass_g": mass_g, "pieces": 6, "at": ago(hours_ago), **also}
    answer = client.post(f"/api/rack/{tray['id']}/weigh-ins", json=body)
    assert answer.status_code == 201, answer.text
    after: Answer = answer.json
    return after


def happen(client: FlaskClient, tray: Answer, **event: Any) -> Answer:
    answer = client.post(f"/api/rack/{tray['id']}/events", json={"after": tray["state"]["seq"], "event": event})
    assert answer.status_code == 201, answer.text
    after: Answer = answer.json
    return after


def dried(client: FlaskClient, tray: Answer, hours: tuple[float, ...] = (0, 4, 20, 44, 59)) -> Answer:
    for h in hours:
        tray = weigh(client, tray, 60 - h, round(372 * (0.95 + 0.05 * math.exp(-h / 9)), 1))
    return tray


def test_weigh_ins_take_over_from_the_model_and_tell_when_it_is_dry(client: FlaskClient) -> None:
    tray = set_out(client)
    assert tray["reading"]["fit"] is None
    assert tray["reading"]["likely_h"] == tray["reading"]["from_model_h"]
    assert not tray["reading"]["ready"], "sixty hours alone say nothing"
    tray = dried(client, tray)
    truth = 9 * math.log(0.05 * 0.997 / (0.003 * 0.95))
    assert tray["reading"]["likely_h"] == pytest.approx(truth, rel=0.1)
    assert tray["reading"]["low_h"] <= truth <= tray["reading"]["high_h"]
    assert tray["reading"]["ready"]


def test_a_fizzing_piece_is_wrapped_before_a_twentieth_of_its_fizz_is_gone(client: FlaskClient) -> None:
    """By the day it is dry, and as many more as five per cent of the acid last in the open (project default)."""
    lines = [
        {"ingredient": name, "amount": grams, "unit": "g"}
        for name, grams in (("baking-soda", "600"), ("citric-acid-anhydrous", "300"), ("witch-hazel-distillate", "12"))
    ]
    ball = created(client, portions=[{"name": "body", "lines": lines}], method="damp-press")
    answer = client.post("/api/rack", json={"pieces": 9, "formula_id": ball["id"], "set_out_at": ago(2.0)})
    assert answer.status_code == 201, answer.text
    reading = answer.json["reading"]
    assert reading["open_loss_pct_day"] > 0
    assert reading["wrap_by_h"] == pytest.approx(reading["likely_h"] + 24 * 5 / reading["open_loss_pct_day"])


def test_a_swapped_piece_is_set_aside_and_a_wrong_figure_amended_while_the_record_keeps_both(
    client: FlaskClient, studio: Studio
) -> None:
    tray = dried(client, set_out(client))
    swapped = weigh(client, tray, 0.5, 372 * 0.95 + 5)
    assert [each["code"] for each in swapped["reading"]["fit"]["excluded"]] == ["piece_swapped"]
    mended = happen(client, swapped, kind="amended", of=swapped["state"]["seq"], mass_g=372 * 0.95, why="another piece")
    assert mended["reading"]["fit"]["excluded"] == []
    assert client.get(f"/api/rack/{tray['id']}/weigh-ins").json["items"][-1]["mass_g"] == 372 * 0.95
    for act in (
        "UPDATE tray_events SET kind = 'note'",
        "DELETE FROM tray_events",
        "INSERT OR REPLACE INTO tray_events SELECT * FROM tray_events",
    ):
        with studio.engine.connect() as connection, pytest.raises(IntegrityError, match="never changed"):
            connection.execute(text(act))


def test_two_browsers_on_one_tray_stay_in_step(client: FlaskClient) -> None:
    tray = set_out(client)
    weigh(client, tray, 3, 372.0)
    late = client.post(f"/api/rack/{tray['id']}/weigh-ins", json={"after": 0, "mass_g": 371.0, "pieces": 6})
    assert (late.status_code, late.json["code"]) == (409, "conflict")
    again = {"pieces": 4, "name": "from elsewhere", "key": "tray-of-somebody"}
    assert client.post("/api/rack", json=again).json["id"] == client.post("/api/rack", json=again).json["id"]


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"mass_g": 80.0, "pieces": 6, "tare_g": 80.0}, "mass_g"), ({"mass_g": 80.0, "pieces": 10}, "pieces"),
        ({"mass_g": 80.0, "pieces": 6, "at": "2099-01-01T00:00:00Z"}, "at"),
    ],
)  # fmt: skip
def test_what_cannot_be_weighed_is_refused_in_a_sentence(client: FlaskClient, body: Answer, field: str) -> None:
    tray = set_out(client)
    answer = client.post(f"/api/rack/{tray['id']}/weigh-ins", json={"after": 0, **body})
    assert answer.status_code == 422
    assert answer.json["details"]["quantity"] == field
    assert client.get(f"/api/rack/{tray['id']}").json["state"]["weighings"] == []


def test_what_is_wrapped_rests_until_it_is_opened(client: FlaskClient) -> None:
    tray = happen(client, set_out(client), kind="wrapped")
    refused = client.post(f"/api/rack/{tray['id']}/weigh-ins", json={"after": 1, "mass_g": 300.0, "pieces": 6})
    assert refused.status_code == 409
    assert client.get("/api/rack").json["items"] == []
    assert [each["id"] for each in client.get("/api/rack?wrapped=true").json["items"]] == [tray["id"]]
    opened = happen(client, tray, kind="opened")
    assert opened["wrapped_at"] is None
    assert opened["state"]["done"] == {}


def test_a_wrapped_tray_looked_at_again_belongs_to_the_session_that_looks(client: FlaskClient, studio: Studio) -> None:
    tray = happen(client, set_out(client), kind="wrapped")
    with studio.reading() as session:
        assert look_at_tray(session, tray["id"]).row in session


def test_pages_of_the_rack_and_its_search(client: FlaskClient) -> None:
    for name in ("one", "two", "three"):
        client.post("/api/rack", json={"pieces": 2, "name": name})
    first = client.get("/api/rack?limit=2").json
    assert [each["name"] for each in first["items"]] == ["three", "two"]
    rest = client.get(f"/api/rack?limit=2&cursor={first['next']}").json
    assert ([each["name"] for each in rest["items"]], rest["next"]) == (["one"], None)
    assert [each["name"] for each in client.get("/api/rack?q=wo").json["items"]] == ["two"]
    assert client.get("/api/rack").json["places"][0]["taken"] == 3


def test_tasks_reach_a_calendar_and_leave_it_when_they_are_done(client: FlaskClient) -> None:
    """RFC 5545, read by two parsers: one UID a task (3.8.4.7), SEQUENCE grows (3.8.7.4), CANCELLED when done (3.8.1.11)."""
    tray = set_out(client, hours=1.0)

    def told() -> dict[str, Any]:
        answer = client.get("/api/calendar.ics")
        assert answer.mimetype == "text/calendar"
        assert all(len(line) <= 75 for line in answer.data.split(b"\r\n")), "folded (3.1)"
        events = {str(each["UID"]): each for each in Calendar.from_ical(answer.data).walk("VEVENT")}
        second = {str(each.uid.value) for each in vobject.readOne(answer.data.decode()).vevent_list}
        assert second == set(events)
        return events

    before = told()
    turn = next(uid for uid in before if "turn" in uid)
    assert before[turn]["STATUS"] == "CONFIRMED"
    assert len(before[turn].walk("VALARM")) == 1
    to = datetime(2031, 3, 30, 1, 30, tzinfo=UTC)
    tray = happen(client, tray, kind="moved", task="turn", to=to.isoformat())
    moved = told()
    assert set(moved) == set(before)
    assert moved[turn]["DTSTART"].dt == to
    assert moved[turn]["SEQUENCE"] > before[turn]["SEQUENCE"]
    happen(client, tray, kind="done", task="turn")
    assert told()[turn]["STATUS"] == "CANCELLED"


def test_weighings_that_cannot_tell_ask_for_another_and_a_calendar_hears_it(client: FlaskClient) -> None:
    lines = [
        {"ingredient": name, "amount": grams, "unit": "g"}
        for name, grams in (("baking-soda", "225"), ("slsa-fine", "78"), ("corn-starch", "105"), ("capb-liquid", "58"))
    ]
    wet = created(client, portions=[{"name": "body", "lines": lines}])
    tray = client.post("/api/rack", json={"pieces": 6, "formula_id": wet["id"], "set_out_at": ago(1.0)}).json
    for hours_ago in (0.25, 0.2):
        tray = weigh(client, tray, hours_ago, 360.0)
    asked = next(task for task in tray["reading"]["tasks"] if task["kind"] == "weigh-again")
    assert asked["due_h"] > tray["reading"]["age_h"], "later than the weighings that could not tell"

    def told() -> Any:
        events = Calendar.from_ical(client.get("/api/calendar.ics").data).walk("VEVENT")
        return next(each for each in events if "weigh-again" in str(each["UID"]))

    assert (told()["STATUS"], str(told()["SUMMARY"])[:11]) == ("CONFIRMED", "Weigh again")
    to = datetime(2031, 3, 30, 1, 30, tzinfo=UTC)
    tray = happen(client, tray, kind="moved", task="weigh-again", to=to.isoformat())
    assert told()["DTSTART"].dt == to
    tray = happen(client, tray, kind="amended", of=tray["state"]["weighings"][-1]["seq"], mass_g=330.0)
    assert not [task for task in tray["reading"]["tasks"] if task["kind"] == "weigh-again"]
    assert told()["STATUS"] == "CANCELLED"


def test_damp_air_is_answered_and_the_oven_is_never_named_where_alcohol_may_be(client: FlaskClient) -> None:
    tray = set_out(client)
    assert [each["code"] for each in tray["reading"]["advice"]] == ["log_air"]
    assert client.post("/api/air", json={"temperature_c": 18.0, "humidity_pct": 49.0}).status_code == 201
    assert client.get(f"/api/rack/{tray['id']}").json["reading"]["advice"] == []
    client.post("/api/air", json={"temperature_c": 18.0, "humidity_pct": 70.0})
    codes = [each["code"] for each in client.get(f"/api/rack/{tray['id']}").json["reading"]["advice"]]
    assert codes[:2] == ["dehumidifier", "closed_box"]
    unknown = client.post("/api/rack", json={"pieces": 3, "name": "from elsewhere", "set_out_at": ago(2)}).json
    client.post("/api/air", json={"temperature_c": 18.0, "humidity_pct": 71.0})
    advice = client.get(f"/api/rack/{unknown['id']}").json["reading"]["advice"]
    assert "no_oven" in [each["code"] for each in advice]
    assert client.post("/api/air", json={"place": "attic", "temperature_c": 18.0, "humidity_pct": 70.0}).status_code == 422


def test_old_air_is_thinned_to_one_an_hour_and_what_was_written_by_hand_stays(studio: Studio) -> None:
    with studio.writing() as session:
        for minute in range(0, 180, 10):
            add_air(
                session,
                AirRow(
                    place="rack", at=LONG_AGO + timedelta(minutes=minute), temperature_c=19, humidity_pct=50, source="hygrometer"
                ),
            )
        add_air(
            session, AirRow(place="rack", at=LONG_AGO + timedelta(minutes=65), temperature_c=20, humidity_pct=60, source="hand")
        )
        assert thin_old_air(session) == 15
        left = air_since(session, "rack", LONG_AGO, None)
    assert [(each.at.minute, each.source) for each in left] == [
        (0, "hygrometer"),
        (0, "hygrometer"),
        (5, "hand"),
        (0, "hygrometer"),
    ]


def test_air_that_nobody_measured_is_not_logged(client: FlaskClient) -> None:
    air = {"place": "rack", "temperature_c": 20.5, "humidity_pct": 46.0}
    refused = client.post("/api/air", json={**air, "source": "stand-in"})
    assert (refused.status_code, client.get("/api/air").json["items"]) == (422, [])
    assert "measures nothing" in refused.json["message"]
    assert client.get("/api/air/typed").json == {"at": None, "room_c": None, "humidity_pct": None}
    client.post("/api/air", json={**air, "humidity_pct": 78.0})
    typed = client.get("/api/air/typed").json
    assert (typed["room_c"], typed["humidity_pct"]) == (20.5, 78.0)


def test_a_full_rack_is_said_at_the_plan(client: FlaskClient) -> None:
    formula = created(client)
    wish = {"wishes": [{"pieces": 4}]}
    free = client.post(f"/api/formulas/{formula['id']}/plans", json=wish).json["schedule"]["conflicts"]
    client.post("/api/rack", json={"pieces": 40, "trays": 12, "name": "a full rack"})
    full = client.post(f"/api/formulas/{formula['id']}/plans", json=wish).json["schedule"]["conflicts"]
    assert [each for each in full if each not in free] == ['All 12 trays in "rack" are taken: wrap what is dry first.']


def test_a_weigh_in_written_down_late_stands_where_it_belongs(client: FlaskClient) -> None:
    tray = weigh(client, weigh(client, set_out(client), 60, 372.0), 2, 356.0)
    late = weigh(client, tray, 30, 357.0)
    assert [each["mass_g"] for each in late["state"]["weighings"]] == [372.0, 357.0, 356.0]
    assert late["reading"]["fit"]["excluded"] == []
    before = {"after": 3, "mass_g": 371.0, "pieces": 6, "at": ago(90)}
    answer = client.post(f"/api/rack/{tray['id']}/weigh-ins", json=before)
    assert (answer.status_code, answer.json["details"]["quantity"]) == (422, "at")


def test_trays_dry_in_different_places_each_in_its_own_air(client: FlaskClient) -> None:
    assert client.put("/api/rack-places/warm shelf", json={"trays": 3}).status_code == 200
    client.post("/api/air", json={"place": "warm shelf", "temperature_c": 27.0, "humidity_pct": 35.0})
    client.post("/api/air", json={"place": "rack", "temperature_c": 16.0, "humidity_pct": 60.0})
    cool, warm = set_out(client, hours=0.001), set_out(client, hours=0.001)
    moved = happen(client, warm, kind="put", place="warm shelf")
    assert moved["place"] == "warm shelf"
    assert moved["reading"]["from_model_h"] is not None
    assert client.get(f"/api/rack/{cool['id']}").json["place"] == "rack"
    refused = client.post(f"/api/rack/{cool['id']}/events", json={"after": 0, "event": {"kind": "put", "place": "attic"}})
    assert refused.status_code == 422


@pytest.mark.parametrize("body", [
    {"mass_g": 1e-300, "pieces": 1}, {"mass_g": 50.0, "tare_g": 50.0 - 1e-14}, {"mass_g": 50.0, "scale_step_g": 1e-300},
    {"mass_g": 50.0, "at": "0001-01-01T00:00:00+14:00"}, {"mass_g": 50.0, "at": "9999-12-31T23:59:59-12:00"},
])  # fmt: skip
def test_figures_at_the_edge_are_refused_and_break_nothing(client: FlaskClient, body: Answer) -> None:
    tray = set_out(client)
    assert client.post(f"/api/rack/{tray['id']}/weigh-ins", json={"after": 0, "pieces": 1, **body}).status_code == 422
    event = {"after": 0, "event": {"kind": "moved", "task": "turn", "to": "9999-12-31T23:59:59Z"}}
    assert client.post(f"/api/rack/{tray['id']}/events", json=event).status_code == 422
    assert client.get("/api/calendar.ics").status_code == 200
    tiny = {"after": 0, "pieces": 9, "mass_g": 0.01, "scale_step_g": 0.001}
    assert client.post(f"/api/rack/{tray['id']}/weigh-ins", json=tiny).status_code == 201
