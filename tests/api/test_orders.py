"""Orders and their week over HTTP, and the settings the week follows."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from itertools import pairwise
from typing import Any

import pytest
from flask.testing import FlaskClient
from icalendar import Calendar

from tests.api.test_api import SCOOP, created

Answer = dict[str, Any]
ALL_DAYS = [{"from_h": 0, "to_h": 24}] * 7


def settings(client: FlaskClient, status: int = 200, **said: Any) -> Answer:
    answer = client.put("/api/settings", json={"week": ALL_DAYS, **said})
    assert answer.status_code == status, answer.text
    told: Answer = answer.json
    return told


def order(client: FlaskClient, formula_id: int, status: int = 201, **ask: Any) -> Answer:
    due = (datetime.now(UTC) + timedelta(days=6)).isoformat()
    body = {"who": "Saturday market", "formula_id": formula_id, "pieces": 12, "due_at": due, **ask}
    answer = client.post("/api/orders", json=body)
    assert answer.status_code == status, answer.text
    made: Answer = answer.json
    return made


def week(client: FlaskClient, **ask: Any) -> Answer:
    answer = client.post("/api/week", json=ask)
    assert answer.status_code == 200, answer.text
    told: Answer = answer.json
    return told


def test_orders_find_their_places_and_a_dragged_one_stays(client: FlaskClient) -> None:
    formula = created(client)
    settings(client, hands=1)
    orders = [order(client, formula["id"], pieces=20 + n) for n in range(3)]
    told = week(client, seconds=2.0)
    assert [each["order"]["id"] for each in told["orders"]] == [each["id"] for each in orders]
    assert told["searched"] is True
    assert told["gap"] is not None
    spans = sorted((each["starts_at"], each["hands_end_at"]) for each in told["orders"])
    assert all(first[1] <= second[0] for first, second in pairwise(spans)), "one pair of hands"
    assert all(each["dry_at"] <= each["order"]["due_at"] for each in told["orders"])
    later = (datetime.now(UTC) + timedelta(days=1)).replace(hour=10, minute=0, second=0, microsecond=0)
    moved = client.put(f"/api/orders/{orders[0]['id']}", json={"starts_at": later.isoformat()})
    assert moved.status_code == 200
    again = {each["order"]["id"]: each for each in week(client)["orders"]}
    assert again[orders[0]["id"]]["fixed"] is True
    assert datetime.fromisoformat(again[orders[0]["id"]]["starts_at"]) == later
    client.put(f"/api/orders/{orders[0]['id']}", json={"free": True, "state": "cancelled"})
    assert len(week(client)["orders"]) == 2
    assert len(client.get("/api/orders?state=cancelled").json["items"]) == 1


def test_what_cannot_be_ordered_or_made_is_said(client: FlaskClient) -> None:
    formula = created(client)
    past = (datetime.now(UTC) - timedelta(days=1)).isoformat()
    assert "past" in order(client, formula["id"], 422, due_at=past)["message"]
    assert "Who is it for" in order(client, formula["id"], 422, who=" ")["message"]
    assert order(client, formula["id"], 422, pieces=0)["code"]
    assert client.post("/api/orders", json={"who": "x", "formula_id": 999, "pieces": 3}).status_code == 404
    order(client, formula["id"])
    settings(client, week=[{"from_h": 9, "to_h": 9}] * 7)
    refused = client.post("/api/week", json={})
    assert refused.status_code == 422
    assert "no hours" in refused.json["message"]
    settings(client, 422, week=[{"from_h": 17, "to_h": 9}] * 7)
    settings(client)
    soon = (datetime.now(UTC) + timedelta(hours=3)).isoformat()
    late = order(client, formula["id"], due_at=soon)
    told = {each["order"]["id"]: each for each in week(client)["orders"]}[late["id"]]
    assert told["starts_at"] is None
    assert "later would do" in told["why_not"]


def test_settings_are_kept_with_what_is_usual(client: FlaskClient) -> None:
    usual = client.get("/api/settings").json["settings"]
    assert (usual["currency"], usual["hands"], usual["mass_unit"]) == ("USD", 1, "g")
    assert [day["to_h"] - day["from_h"] for day in usual["week"]] == [8] * 5 + [0, 0]
    told = settings(client, maker="Ferry stair studio", currency="EUR", markets=["EU", "UK"], decimal_sign=",")["settings"]
    assert (told["maker"], told["currency"], told["markets"]) == ("Ferry stair studio", "EUR", ["EU", "UK"])
    assert client.get("/api/settings").json["settings"] == told
    settings(client, 422, hands=4)
    settings(client, 422, markets=["MARS"])


def test_the_shopping_list_is_what_the_orders_lack(client: FlaskClient) -> None:
    formula = created(client)
    taken = order(client, formula["id"], pieces=40)
    client.post("/api/lots", json={"ingredient": "glycerin", "quantity_g": 100.0, "code": "G-1", "price": "1.20"})
    client.post("/api/lots", json={"ingredient": "baking-soda", "quantity_g": 90_000.0, "code": "S-1", "price": "60"})
    told = client.get("/api/shopping-list").json
    lines = {line["ingredient"]: line for line in told["items"]}
    assert set(lines) == {"slsa-fine", "glycerin"}, "there is soda enough"
    assert lines["slsa-fine"]["packs"] == []
    glycerin = lines["glycerin"]
    assert glycerin["short_g"] == glycerin["needed_g"] - 100.0
    assert glycerin["packs"][0]["packs"] == -(-glycerin["short_g"] // 100)
    assert told["cost"]["USD"] == f"{glycerin['packs'][0]['packs'] * 1.2:.2f}"
    assert "Glycerin" in client.get("/api/shopping-list.csv").data.decode("utf-8-sig")
    client.put(f"/api/orders/{taken['id']}", json={"state": "made", "for": "own"})
    assert client.get("/api/shopping-list").json["items"] == []


def test_the_weeks_hours_reach_a_calendar_and_leave_it_with_their_order(client: FlaskClient) -> None:
    """RFC 5545: one UID for as long as there is the order (3.8.4.7), CANCELLED when it is made (3.8.1.11)."""
    formula = created(client)
    settings(client)
    orders = [order(client, formula["id"], pieces=20 + n) for n in range(2)]

    def told() -> dict[str, Any]:
        events = Calendar.from_ical(client.get("/api/calendar.ics?utc_offset_min=60").data).walk("VEVENT")
        return {str(each["UID"]): each for each in events if str(each["UID"]).startswith("bench-")}

    places = week(client, utc_offset_min=60, days=14)["orders"]
    before = told()
    assert {str(each["STATUS"]) for each in before.values()} == {"CONFIRMED"}
    spans = {(each["DTSTART"].dt, each["DTEND"].dt) for each in before.values()}
    assert spans == {tuple(datetime.fromisoformat(each[key]) for key in ("starts_at", "hands_end_at")) for each in places}
    client.put(f"/api/orders/{orders[0]['id']}", json={"state": "made", "for": "own"})
    after = told()
    assert set(after) == set(before)
    assert sorted(str(each["STATUS"]) for each in after.values()) == ["CANCELLED", "CONFIRMED"]
    settings(client, week=[{"from_h": 9, "to_h": 9}] * 7)
    assert {str(each["STATUS"]) for each in told().values()} == {"CANCELLED"}, "closed all week, nothing is promised"


def test_few_moulds_are_filled_again_and_the_week_waits_for_each_filling(client: FlaskClient) -> None:
    formula = created(client)
    settings(client)
    taken = order(client, formula["id"], pieces=24, tool="cube-40", due_at=None)
    (plenty,) = week(client, days=28)["orders"]
    assert plenty["fillings"] == 1
    client.put("/api/moulds/cube-40", json={"count": 8})
    (few,) = week(client, days=28)["orders"]
    assert few["fillings"] == 3
    stages = client.post(
        f"/api/formulas/{formula['id']}/plans", json={"wishes": [{"pieces": 24, "tool": "cube-40"}]}
    ).json["schedule"]["stages"]  # fmt: skip
    minutes = {each["id"]: each["minutes"] for each in stages}
    assert minutes["fillings"] == pytest.approx(2 * minutes["dry"]), "this method names no hour to unmould: all of the drying"
    assert abs(few["dry_h"] - plenty["dry_h"] - minutes["fillings"] / 60) <= 1
    assert taken["pieces"] == 24


def test_what_lies_in_the_pantry_stands_in_where_the_readings_hold(client: FlaskClient) -> None:
    """One starch for another: common practice, no published source."""
    short = "corn-starch"
    portions = [{"name": "body", "lines": [*SCOOP["portions"][0]["lines"], {"ingredient": short, "amount": "40", "unit": "g"}]}]
    formula = created(client, portions=portions)
    order(client, formula["id"], pieces=6)

    def found() -> dict[str, Answer]:
        (told,) = client.get(f"/api/shopping-list/substitutes?ingredient={short}").json["items"]
        assert told["formula"] == "Scoop"
        return {each["ingredient"]: each for each in told["found"]}

    assert found() == {}, "nothing is there"
    lots = [
        {"ingredient": name, "quantity_g": 5000.0, "code": f"{name}-1"}
        for name in ("arrowroot-powder", "cream-of-tartar", "tapioca-starch")
    ]
    for lot in lots:
        assert client.post("/api/lots", json=lot).status_code == 201
    offered = found()
    assert offered
    for each in offered.values():
        assert each["needed_g"] <= each["on_hand_g"] == 5000.0
        saturation = next((effect for effect in each["effects"] if effect["reading"] == "dough.saturation"), None)
        assert saturation is None or abs(saturation["after"] - saturation["before"]) <= 0.05
    assert client.get("/api/shopping-list/substitutes?ingredient=nothing-known").status_code == 404
    assert client.get("/api/shopping-list/substitutes").status_code == 422
