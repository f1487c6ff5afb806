"""Lots over HTTP: first expiring first, named at the bench, counted, traced both ways, never losing a gram."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from decimal import Decimal
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import func, select, text
from sqlalchemy.exc import IntegrityError

from rosy_kettle.core.making.stock.lots import Lot, draw_from_lots, in_drawing_order, words_of_lot
from rosy_kettle.store import Studio
from rosy_kettle.store.lots import LotRow, MovementRow
from tests.api.test_api import created
from tests.api.test_batches import begun, happen, in_hand

Answer = dict[str, Any]
TODAY = date(2026, 6, 1)


def enter(client: FlaskClient, code: str, status: int = 201, **ask: Any) -> Answer:
    answer = client.post("/api/lots", json={"ingredient": "glycerin", "quantity_g": 100.0, "code": code, **ask})
    assert answer.status_code == status, answer.text
    made: Answer = answer.json
    return made


def whole_batch(client: FlaskClient, batch: Answer) -> Answer:
    """Do every step, weigh a little over, correct once, and close."""
    while batch["state"]["current"] is not None:
        step = in_hand(batch)
        if step["kind"] == "conditions":
            batch = happen(client, batch, kind="conditions", step=step["key"], room_c=20.0, humidity_pct=50.0)
        elif step["kind"] == "weigh":
            batch = happen(client, batch, kind="weighed", step=step["key"], actual_g=round(step["target_g"] + 0.1, 1))
        else:
            batch = happen(client, batch, kind="done", step=step["key"])
    batch = happen(client, batch, kind="corrected", ingredient="glycerin", mass_g=6.0, why="felt crumbly")
    return happen(client, batch, kind="closed")


@given(
    st.lists(st.tuples(st.floats(-50, 500), st.one_of(st.none(), st.integers(-400, 400))), min_size=1, max_size=6),
    st.floats(0, 2000), st.integers(0, 6),
)  # fmt: skip
def test_what_is_drawn_is_what_was_used(rows: list[tuple[float, int | None]], mass_g: float, named: int) -> None:
    lots = [
        Lot(id_, "x", str(id_), left_g, 500.0, None if days is None else TODAY + timedelta(days=days))
        for id_, (left_g, days) in enumerate(rows, start=1)
    ]
    chosen = named if 1 <= named <= len(lots) else None
    draws = draw_from_lots(lots, mass_g, TODAY, chosen)
    assert sum(draw.mass_g for draw in draws) == pytest.approx(mass_g)
    assert len({draw.lot_id for draw in draws}) == len(draws)
    left = {lot.id: lot.left_g for lot in lots}
    below = [draw for draw in draws if left[draw.lot_id] - draw.mass_g < -1e-9]
    assert len(below) <= 1, "at most one lot goes below nothing"
    if below:
        drawn = {draw.lot_id: draw.mass_g for draw in draws}
        others = [lot for lot in lots if lot.left_g > 0 and lot.id != below[0].lot_id]
        assert all(drawn.get(lot.id, 0.0) == pytest.approx(lot.left_g) for lot in others), "and only once all others are empty"
    if chosen is not None and mass_g > 0 and left[chosen] > 0:
        assert draws[0].lot_id == chosen or len(draws) == 1 or below


def test_first_expiring_first_and_expired_ones_last() -> None:
    """First expiring first: common practice of every store room, no published source."""
    lots = [
        Lot(1, "x", "none", 10, 10), Lot(2, "x", "late", 10, 10, TODAY + timedelta(days=90)),
        Lot(3, "x", "gone", 10, 10, TODAY - timedelta(days=1)), Lot(4, "x", "soon", 10, 10, TODAY + timedelta(days=9)),
    ]  # fmt: skip
    assert [lot.code for lot in in_drawing_order(lots, TODAY)] == ["soon", "late", "none", "gone"]
    assert [word.code for word in words_of_lot(lots[2], TODAY)] == ["expired"]
    assert [word.code for word in words_of_lot(lots[3], TODAY)] == ["expires_soon"]
    old = Lot(5, "x", "old", -3.0, 100.0, None, TODAY - timedelta(days=400))
    assert [word.code for word in words_of_lot(old, TODAY)] == ["below_nothing", "open_long"]
    assert [word.code for word in words_of_lot(Lot(6, "x", "end", 9.0, 100.0), TODAY)] == ["nearly_out"]


def test_a_batch_draws_from_named_lots_and_is_found_again(client: FlaskClient, studio: Studio) -> None:
    soon = (datetime.now(UTC).date() + timedelta(days=200)).isoformat()
    first = enter(client, "G-1", quantity_g=10.0, best_before=soon, price="0.50", supplier="Harbour stores")
    second = enter(client, "G-2", quantity_g=500.0, price="4.00")
    enter(client, "S-1", ingredient="baking-soda", quantity_g=5000.0)
    batch = begun(client)
    offered = {line["ingredient"]: line for line in client.get(f"/api/batches/{batch['id']}/lots").json["lines"]}
    assert [lot["code"] for lot in offered["glycerin"]["lots"]] == ["G-1", "G-2"]
    for wrong in ("S-1", "nowhere"):
        event = {"kind": "lot", "ingredient": "glycerin", "code": wrong}
        body = {"after": batch["state"]["seq"], "event": event}
        assert client.post(f"/api/batches/{batch['id']}/events", json=body).status_code == 422
    made = whole_batch(client, batch)
    used = sum(each["actual_g"] for each in made["state"]["weighings"] if each["ingredient"] == "glycerin") + 6.0
    told = client.get(f"/api/batches/{batch['id']}/lots").json
    drawn = {each["code"]: each["mass_g"] for each in told["drawn"] if each["ingredient"] == "glycerin"}
    assert drawn == {"G-1": pytest.approx(10.0), "G-2": pytest.approx(used - 10.0)}
    by_hand = Decimal("0.50") + Decimal("4.00") * Decimal(str(used - 10.0)) / Decimal(500)
    assert sum(Decimal(each["cost"]) for each in told["drawn"] if each["cost"]) == pytest.approx(by_hand, abs=Decimal("0.001"))
    assert told["every_lot_priced"] is False, "the soda has no price"
    trace = client.get(f"/api/lots/{second['id']}").json
    assert [use["batch_id"] for use in trace["uses"]] == [batch["id"]]
    assert trace["uses"][0]["pieces"] > 0
    assert trace["lot"]["left_g"] == pytest.approx(510.0 - used, abs=0.1)
    assert client.delete(f"/api/lots/{first['id']}").status_code == 409, "its trace stays"
    with studio.reading() as session:
        for lot in session.scalars(select(LotRow)):
            moved = session.scalar(select(func.sum(MovementRow.mass_g)).where(MovementRow.lot_id == lot.id))
            assert lot.left_g == pytest.approx(moved), "what is kept is the sum of what moved"
    with pytest.raises(IntegrityError, match="never changed"), studio.writing() as session:
        session.execute(text("DELETE FROM movements"))


def test_a_lot_is_counted_with_a_reason_and_its_sheet_goes_before_the_reference(client: FlaskClient) -> None:
    formula = created(client)
    before = client.post("/api/evaluations", json=formula["formula"]).json["lather"]["active_g"]
    lot = enter(client, "B-7", ingredient="slsa-fine", active_fraction=0.95, water_fraction=0.01)
    after = client.post("/api/evaluations", json=formula["formula"]).json["lather"]["active_g"]
    assert after > before
    why = client.post("/api/explanations", json={"formula": formula["formula"], "reading": "lather.active_g"}).json
    assert any("lot B-7" in sentence for sentence in why["learnt"])
    assert client.put(f"/api/lots/{lot['id']}/stock", json={"left_g": 60.0, "reason": " "}).status_code == 422
    told = client.put(f"/api/lots/{lot['id']}/stock", json={"left_g": 60.0, "reason": "spilt"}).json
    assert [(each["kind"], each["mass_g"]) for each in told["movements"]] == [("stocktake", -40.0), ("bought", 100.0)]
    assert client.delete(f"/api/lots/{lot['id']}").status_code == 200
    assert client.post("/api/evaluations", json=formula["formula"]).json["lather"]["active_g"] == before
    client.put("/api/ingredients/glycerin/stock", json={"on_hand_g": 80.0})
    enter(client, "G-9", quantity_g=20.0)
    client.put("/api/ingredients/glycerin/stock", json={"on_hand_g": 30.0})
    left = [each["left_g"] for each in client.get("/api/lots?ingredient=glycerin").json["items"]]
    assert sum(left) == pytest.approx(30.0)


def test_what_cannot_be_a_lot_is_refused(client: FlaskClient) -> None:
    enter(client, "G-1", key="same-asking-1")
    assert enter(client, "G-1", key="same-asking-1")["code"] == "G-1"
    assert "already" in enter(client, "G-1", 409)["message"]
    assert "best before it was bought" in enter(client, "G-2", 422, bought_on="2026-05-01", best_before="2026-04-01")["message"]
    assert "year-month-day" in enter(client, "G-3", 422, best_before="03/04/05")["message"]
    assert "not known" in enter(client, "G-4", 422, ingredient="moonlight")["message"]
    assert "price" in enter(client, "G-5", 422, price="cheap")["message"]
    assert "code" in enter(client, " ", 422)["message"]


def test_a_jar_past_its_date_is_said_when_a_batch_is_planned(client: FlaskClient) -> None:
    formula = created(client)
    ingredient = formula["formula"]["portions"][0]["lines"][0]["ingredient"]
    enter(client, "STALE", ingredient=ingredient, best_before="2020-01-01")
    planned = client.post(f"/api/formulas/{formula['id']}/plans", json={"wishes": [{"pieces": 4}]})
    assert planned.status_code == 200, planned.text
    assert any("STALE was best before 2020-01-01" in word["text"] for word in planned.json["jars"])


def test_a_lots_certificate_goes_before_the_ingredients(client: FlaskClient) -> None:
    lot = enter(
        client, "SC-1", ingredient="fragrance-oil-generic", certificate={"limit_pct": 0.8, "allergens": {"Linalool": 9.5}}
    )
    assert lot["certificate"]["allergens"] == {"Linalool": 9.5}
    shown = client.get("/api/ingredients/fragrance-oil-generic").json["certificate"]
    assert (shown["limit_pct"], shown["allergens"]) == (0.8, {"Linalool": 9.5})
    taken = client.put(f"/api/lots/{lot['id']}/certificate", json={"limit_pct": None, "allergens": {}})
    assert taken.json["lot"]["certificate"] is None
    assert client.get("/api/ingredients/fragrance-oil-generic").json["certificate"] is None


@pytest.mark.parametrize(
    ("ingredient", "form"),
    [("glycerin", "liquid"), ("decyl-glucoside", "liquid"), ("kaolin", "powder"), ("coconut-oil-76", "solid-fat")],
)
def test_a_jar_says_what_form_its_ingredient_has(client: FlaskClient, ingredient: str, form: str) -> None:
    """It is drawn by that: coconut oil with a melting point of 76 °F is solid in the jar (common practice, no published source)."""
    assert enter(client, "F-1", ingredient=ingredient)["form"] == form
