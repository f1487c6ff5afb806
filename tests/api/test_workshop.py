"""What stands in the workshop: its own tools, tubs, sprayer and tolerance reach the pages that reckon with them."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from flask.testing import FlaskClient

from rosy_kettle.core.records import USUAL_TUBS, Tables
from rosy_kettle.usecases.formulas.list_formulas import rests_on
from tests.api.test_api import created
from tests.api.test_batches import begun

Answer = dict[str, Any]
TIN = {"id": "own-tin", "name": "Tin", "type": "scoop", "volume_ml": 40.0}


def put(client: FlaskClient, status: int = 200, **said: Any) -> Answer:
    before = client.get("/api/settings").json["settings"]
    answer = client.put("/api/settings", json={**before, **said})
    assert answer.status_code == status, answer.text
    told: Answer = answer.json
    return told


def planned_g(client: FlaskClient, formula: Answer, tool: str) -> float:
    answer = client.post(f"/api/formulas/{formula['id']}/plans", json={"wishes": [{"pieces": 4, "tool": tool}]})
    assert answer.status_code == 200, answer.text
    return float(answer.json["order"]["pieces"][0]["piece_mass_g"])


def test_a_tool_of_the_studio_shapes_pieces_by_its_own_volume(client: FlaskClient) -> None:
    formula = created(client)
    put(client, tools=[TIN])
    assert "own-tin" in {each["id"] for each in client.get("/api/reference").json["tools"]}
    listed = next(each for each in client.get("/api/reference").json["tools"] if each["id"] == "disher-24")
    by_ml = planned_g(client, formula, "disher-24") / listed["volume_ml"]
    assert planned_g(client, formula, "own-tin") == pytest.approx(40.0 * by_ml)
    put(client, tools=[{**TIN, "volume_ml": 50.0}])
    assert planned_g(client, formula, "own-tin") == pytest.approx(50.0 * by_ml)
    assert client.put("/api/moulds/own-tin", json={"count": 3}).json["counts"] == {"own-tin": 3}
    put(client, tools=[])
    gone = client.post(f"/api/formulas/{formula['id']}/plans", json={"wishes": [{"pieces": 4, "tool": "own-tin"}]})
    assert (gone.status_code, "own-tin" in gone.json["message"]) == (422, True)


def test_the_tolerance_is_the_studios_and_a_batch_keeps_the_one_it_began_with(client: FlaskClient) -> None:
    def widest(batch: Answer) -> float:
        return max(step["tolerance_g"] / step["target_g"] for step in batch["state"]["steps"] if step["tolerance_g"])

    usual = begun(client)
    put(client, tolerance={"share": 0.002, "least_g": 0.01})
    fine = begun(client)
    assert widest(fine) <= 0.01
    assert widest(client.get(f"/api/batches/{usual['id']}").json) == widest(usual) > widest(fine)


def test_a_stroke_of_the_sprayer_is_the_studios(client: FlaskClient) -> None:
    body = created(client)["formula"]
    body["portions"][0]["lines"].append({"ingredient": "distilled-water", "amount": "10", "unit": "spray"})

    def water_g() -> float:
        lines = client.post("/api/evaluations", json=body).json["lines"]
        return float(next(each["mass_g"] for each in lines if each["ingredient"] == "distilled-water"))

    usual_g = water_g()
    put(client, spray_ml=0.28)
    assert water_g() == pytest.approx(2 * usual_g)
    put(client, spray_ml=None)
    assert water_g() == usual_g


def test_the_kept_list_rests_on_the_sprayer_as_well(tables: Tables) -> None:
    assert rests_on(tables) != rests_on(replace(tables, spray_ml=0.28))


def test_what_cannot_be_meant_of_a_workshop_is_refused_and_nothing_is_lost(client: FlaskClient) -> None:
    tub = {"name": "tub", "tub_l": 120.0, "tub_area_m2": 0.7}
    put(client, tubs=[tub], tools=[TIN])
    for wrong in (
        {"tubs": []}, {"tubs": [{**tub, "name": "  "}]}, {"tools": [{**TIN, "name": " "}]}, {"tubs": [tub, tub]}, {"tubs": [{**tub, "tub_l": -1}]}, {"tools": [TIN, {**TIN, "id": "own-other"}]},
        {"tools": [{**TIN, "id": "disher-24"}]}, {"tools": [{**TIN, "volume_ml": 0}]}, {"spray_ml": 0}, {"spray_ml": 1e9},
        {"tolerance": {"share": 0.9, "least_g": 0.5}}, {"rooms": [{"temperature_c": 20, "humidity_pct": 50}] * 3},
        {"rooms": [{"temperature_c": 20, "humidity_pct": 500}] * 12},
    ):  # fmt: skip
        assert put(client, 422, **wrong)["message"].endswith(".")  # type: ignore[arg-type]
    said = client.get("/api/settings").json["settings"]
    assert (said["tubs"], said["tools"]) == ([tub], [TIN])


def test_a_studio_that_has_said_nothing_has_the_usual_tubs_and_no_months(client: FlaskClient) -> None:
    said = client.get("/api/settings").json["settings"]
    assert [each["name"] for each in said["tubs"]] == [each.name for each in USUAL_TUBS]
    assert (said["tools"], said["rooms"], said["spray_ml"]) == ([], [], None)
    year = [{"temperature_c": 18.0 + month % 3, "humidity_pct": 50.0 + month} for month in range(12)]
    assert put(client, rooms=year)["settings"]["rooms"] == year
