"""Nothing stands in the record that nobody measured: stand-ins say so, jars are named or assumed, shares follow the scale."""

from __future__ import annotations

import io
from typing import Any
from uuid import uuid4

import pdfplumber
import pytest
from flask.testing import FlaskClient

from rosy_kettle.store import Studio
from rosy_kettle.usecases.learning.observe import NOT_WEIGHED, observe
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from tests.api.test_api import created
from tests.api.test_batches import begun, conditions, happen, in_hand
from tests.api.test_lots import enter

Answer = dict[str, Any]


def weigh_everything(client: FlaskClient, batch: Answer, source: str = "hand") -> Answer:
    while (step := in_hand(batch))["kind"] == "weigh":
        batch = happen(client, batch, kind="weighed", step=step["key"], actual_g=step["target_g"], source=source)
    return batch


def test_air_that_was_neither_read_nor_typed_is_not_in_the_record(client: FlaskClient) -> None:
    batch = begun(client)
    told = happen(client, batch, kind="conditions", step=in_hand(batch)["key"])
    assert told["events"][-1]["text"] == "Room not said, humidity not read, tap not said."
    assert {name for name, value in told["state"]["conditions"].items() if isinstance(value, float)} == set()
    assert client.get("/api/air").json["items"] == []


def test_what_a_stand_in_shows_says_so_and_is_never_learnt_from(client: FlaskClient, studio: Studio) -> None:
    batch = begun(client)
    air = {"humidity_pct": 46.0, "room_c": 20.0, "source": "stand-in"}
    batch = happen(client, batch, kind="conditions", step=in_hand(batch)["key"], **air)
    assert batch["events"][-1]["text"].endswith("by a stand-in: nobody measured it.")
    batch = weigh_everything(client, batch, "stand-in")
    assert {each["source"] for each in batch["state"]["weighings"]} == {"stand-in"}
    assert "by a stand-in: nobody weighed it" in batch["events"][-1]["text"]
    for mass_g in (57.0, 57.5, 56.8):
        batch = happen(client, batch, kind="sampled", mass_g=mass_g, source="stand-in")
    batch = happen(client, batch, kind="felt", state="play dough")
    batch = happen(client, batch, kind="closed")
    with studio.reading() as session:
        tables = studio_tables(session)
        seen = [
            each for kind in ("felt", "shaped") for _id, found in observe(session, kind, [batch["id"]], tables) for each in found
        ]
    assert seen
    assert {each.refused for each in seen} == {NOT_WEIGHED}
    with client.get(f"/api/records/{batch['id']}.pdf") as answer, pdfplumber.open(io.BytesIO(answer.data)) as pdf:
        printed = "\n".join(page.extract_text() for page in pdf.pages)
    assert "stand-in" in printed


def test_more_than_the_jar_holds_is_assumed_until_it_is_named(client: FlaskClient) -> None:
    """100 g of a chosen jar and 128.6 g weighed: 28.6 g are assumed, and named right by an amendment after closing."""
    first, second = (
        enter(client, "S-1", ingredient="baking-soda", quantity_g=100.0),
        enter(client, "S-2", ingredient="baking-soda"),
    )
    batch = conditions(client, begun(client))
    step = in_hand(batch)
    assert step["ingredient"] == "baking-soda"
    batch = happen(client, batch, kind="lot", ingredient="baking-soda", code="S-1")
    batch = happen(client, batch, kind="weighed", step=step["key"], actual_g=128.6)
    batch = happen(client, batch, kind="closed")

    def drawn() -> set[tuple[str, float, bool]]:
        told = client.get(f"/api/batches/{batch['id']}/lots").json["drawn"]
        return {(each["code"], round(each["mass_g"], 6), each["assumed"]) for each in told}

    assert drawn() == {("S-1", 100.0, False), ("S-2", 28.6, True)}
    (use,) = client.get(f"/api/lots/{second['id']}").json["uses"]
    assert (use["mass_g"], use["assumed_g"]) == (pytest.approx(28.6), pytest.approx(28.6))
    known = client.post("/api/labels/drawing", json={"market": "US", "batch_id": batch["id"]}).json["known"]
    assert [each["value"] for each in known if each["fact"] == "assumed_lot"] == ["S-2"]
    batch = happen(client, batch, kind="lot", ingredient="baking-soda", code="S-2", mass_g=28.6)
    assert drawn() == {("S-1", 100.0, False), ("S-2", 28.6, False)}
    assert batch["state"]["amendments"][-1][1] == "Taken from lot S-2: 28.6 g of the baking soda."
    assert client.get(f"/api/lots/{first['id']}").json["lot"]["left_g"] == pytest.approx(0.0)
    batch = happen(client, batch, kind="lot", ingredient="baking-soda", code="S-2", mass_g=128.6)
    assert sum(mass_g for _code, mass_g, _assumed in drawn()) == pytest.approx(128.6), "put right, and no gram more or less"


def test_a_jar_is_not_counted_below_nothing(client: FlaskClient) -> None:
    lot = enter(client, "G-1")
    refused = client.put(f"/api/lots/{lot['id']}/stock", json={"left_g": -1.0, "reason": "counted"})
    assert refused.status_code == 422


def test_shares_and_pieces_follow_what_was_weighed(client: FlaskClient) -> None:
    """Too much of the first line, everything still to come weighed on by the same factor: each share and the count go along."""
    formula = created(client)["formula"]
    lines = formula["portions"][0]["lines"]
    portions = [{"name": "heather", "share_pct": 67, "lines": lines}, {"name": "cream", "share_pct": 33, "lines": lines}]
    two = client.post("/api/formulas", json={**formula, "name": "Two colours", "portions": portions}).json
    batch = client.post("/api/batches", json={"formula_id": two["id"], "wishes": [{"pieces": 6}], "capacity_g": 4000.0}).json
    before = {name: mass for step in batch["state"]["steps"] for name, mass in step["shares"]}
    batch = conditions(client, batch)
    step = in_hand(batch)
    over = step["target_g"] * 1.341
    batch = happen(client, batch, kind="rescued", step=step["key"], actual_g=over, way="scale-up", source="hand")
    batch = weigh_everything(client, batch)
    after = {name: mass for step in batch["state"]["steps"] for name, mass in step["shares"]}
    assert before
    for name, mass_g in before.items():
        assert after[name] == pytest.approx(1.341 * mass_g, rel=1e-3)
    assert sum(after.values()) == pytest.approx(batch["now"]["mass_g"], rel=1e-6)
    shaping = next(step for step in batch["state"]["steps"] if step["pieces"] is not None)
    assert (batch["pieces"], shaping["pieces"], batch["pieces_now"]) == (6, 8, 8)
    counted = happen(client, batch, kind="pieces", count=7, id=str(uuid4()))
    assert counted["pieces_now"] == 7, "and what was counted goes before what was worked out"
