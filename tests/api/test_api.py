"""The HTTP API: one shape for every answer, one sentence for every refusal."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from openapi_spec_validator import validate
from sqlalchemy import text

from rosy_kettle.api.part import DESCRIBING
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.store import Studio
from rosy_kettle.usecases.formulas import list_formulas

ROOT = Path(__file__).parents[2]
SCOOP: dict[str, Any] = {
    "format": "rosy-kettle/formula", "version": 1, "name": "Scoop",
    "portions": [{"name": "body", "lines": [
        {"ingredient": "baking-soda", "amount": "218", "unit": "g"}, {"ingredient": "slsa-fine", "amount": "82", "unit": "g"},
        {"ingredient": "glycerin", "amount": "2 1/2", "unit": "tbsp"},
    ]}],
}  # fmt: skip


def created(client: FlaskClient, **changes: Any) -> dict[str, Any]:
    answer = client.post("/api/formulas", json=SCOOP | changes)
    assert answer.status_code == 201, answer.text
    result: dict[str, Any] = answer.json
    return result


def refusal(answer: Any, status: int, code: str) -> str:
    assert answer.status_code == status, answer.text
    assert set(answer.json) == {"code", "message", "details"}
    assert answer.json["code"] == code
    assert "Traceback" not in answer.text
    message: str = answer.json["message"]
    return message


def test_health(client: FlaskClient) -> None:
    assert client.get("/api/health").json["status"] == "ok"


def test_the_description_is_valid_and_the_stored_one_is_fresh() -> None:
    """'make api-types' writes openapi.json and the front end's types from it."""
    environment = os.environ | {DESCRIBING: "1"}
    fresh = subprocess.run(
        [sys.executable, "-m", "rosy_kettle.api.openapi"], check=True, capture_output=True, text=True, env=environment
    ).stdout
    validate(json.loads(fresh))
    assert (ROOT / "src/rosy_kettle/api/openapi.json").read_text(encoding="utf-8") == fresh


def test_the_app_describes_itself(client: FlaskClient) -> None:
    document = client.get("/api/openapi.json").json
    assert "/api/evaluations" in document["paths"]


def test_readings_name_unit_kind_and_explanation(client: FlaskClient) -> None:
    readings = client.get("/api/readings").json["readings"]
    assert {"dough.saturation", "fizz.co2_l", "lather.active_g", "cost.piece"} <= {reading["id"] for reading in readings}
    assert all(reading["kind"] in {"exact", "physical", "practice"} and reading["explained"] for reading in readings)


def test_a_formula_is_stored_opened_saved_and_listed(client: FlaskClient) -> None:
    made = created(client)
    opened = client.get(f"/api/formulas/{made['id']}").json
    assert opened["formula"]["portions"][0]["lines"][2]["amount"] == "2 1/2"
    opened["formula"]["name"] = "Renamed"
    saved = client.put(f"/api/formulas/{made['id']}", json={"revision": opened["revision"], "formula": opened["formula"]})
    assert (saved.status_code, saved.json["revision"]) == (200, 2)
    (glance,) = client.get("/api/formulas").json["formulas"]
    assert (glance["name"], glance["lines"], glance["state"], glance["fits"]) == ("Renamed", 3, "crumbly dough", False)


def test_grams_are_stored_beside_what_was_typed(client: FlaskClient, studio: Studio) -> None:
    created(client)
    with studio.reading() as session:
        rows = session.execute(text("SELECT amount, unit, grams FROM lines ORDER BY position")).all()
    assert [row[:2] for row in rows] == [("218", "g"), ("82", "g"), ("2 1/2", "tbsp")]
    assert rows[2][2] == pytest.approx(2.5 / 16 * 298.3)


def test_a_half_typed_amount_is_saved_and_lists_without_readings(client: FlaskClient) -> None:
    made = created(client)
    formula = made["formula"]
    formula["portions"][0]["lines"][0]["amount"] = "1 1/"
    saved = client.put(f"/api/formulas/{made['id']}", json={"revision": 1, "formula": formula})
    assert saved.status_code == 200
    assert saved.json["formula"]["portions"][0]["lines"][0]["amount"] == "1 1/"
    assert client.get("/api/formulas").json["formulas"][0]["fits"] is None


def test_two_tabs_cannot_overwrite_each_other(client: FlaskClient) -> None:
    made = created(client)
    save = {"revision": 1, "formula": made["formula"]}
    assert client.put(f"/api/formulas/{made['id']}", json=save).status_code == 200
    message = refusal(client.put(f"/api/formulas/{made['id']}", json=save), 409, "conflict")
    assert "another tab" in message


def test_versions_are_kept_under_a_note(client: FlaskClient) -> None:
    made = created(client)
    kept = client.post(f"/api/formulas/{made['id']}/versions", json={"note": "as at the fair"})
    assert kept.status_code == 201
    assert kept.json["versions"][0]["note"] == "as at the fair"
    refusal(client.post(f"/api/formulas/{made['id']}/versions", json={"note": "twice"}), 409, "conflict")
    client.put(f"/api/formulas/{made['id']}", json={"revision": 1, "formula": made["formula"]})
    assert client.get(f"/api/formulas/{made['id']}").json["version"] == 2


def test_put_aside_and_bring_back(client: FlaskClient) -> None:
    made = created(client)
    assert client.delete(f"/api/formulas/{made['id']}").status_code == 204
    refusal(client.get(f"/api/formulas/{made['id']}"), 404, "not_found")
    assert client.post(f"/api/formulas/{made['id']}/restore").status_code == 200
    assert client.get(f"/api/formulas/{made['id']}").status_code == 200


def test_evaluation_answers_with_the_contract(client: FlaskClient) -> None:
    result = client.post("/api/evaluations", json=SCOOP).json
    assert result["dough"]["state"] == "crumbly dough"
    assert result["lines"][2]["low_g"] < result["lines"][2]["mass_g"] < result["lines"][2]["high_g"]


def test_a_recipe_is_read_with_its_notes(client: FlaskClient) -> None:
    result = client.post(
        "/api/recipe-readings", json={"text": "Fair scoop\n2 cups bicarb\n1 tsp moon glimmer\n3 tbsp coco betaine"}
    ).json
    assert (result["name"], result["method"]) == ("Fair scoop", "betaine-dough")
    assert [line["ingredient"] for line in result["lines"]] == ["baking-soda", None, "capb-liquid"]


def test_the_run_sheet_follows_pieces_and_tool(demo_client: FlaskClient) -> None:
    formulas = {each["name"]: each["id"] for each in demo_client.get("/api/formulas").json["formulas"]}
    sheet = demo_client.get(f"/api/formulas/{formulas['Slipway rounds']}/run-sheet?pieces=11&tool=ball-2-5in").json
    assert sheet["pieces"] == 11
    assert sheet["groups"][0]["label"] == "Powders"
    assert sheet["piece_mass_g"] == pytest.approx(147, rel=0.05)


@pytest.mark.parametrize(
    ("changes", "sentence"),
    [
        ({"amount": "-1"}, "Line 1 (baking-soda): amount must be 0 or more, got -1."),
        ({"amount": "two"}, "Line 1 (baking-soda): amount must be a number"),
        ({"unit": "stone"}, "Line 1 (baking-soda): unit must be one of"),
        ({"ingredient": "baking-sod"}, "nearest are baking-soda, "),
        ({"amount": ["x"]}, 'Line 1 (baking-soda): the field "amount" is wrong'),
        ({"amount": "1001", "unit": "kg"}, "1 000 kg at most"),
        ({"unit": "drop"}, "drops and sprays are for liquids"),
    ],
)
def test_bad_lines_are_refused_by_line_and_field(client: FlaskClient, changes: dict[str, Any], sentence: str) -> None:
    line = {"ingredient": "baking-soda", "amount": "1", "unit": "g"} | changes
    answer = client.post("/api/evaluations", json=SCOOP | {"portions": [{"name": "body", "lines": [line]}]})
    assert sentence in refusal(answer, 422, "invalid_input")


@pytest.mark.parametrize(
    ("body", "sentence"),
    [
        (b'{"name": ', "broken JSON at line 1"),
        (b"[1]", "one JSON object"),
        (b'{"batch_g": NaN}', "NaN is not a number"),
        (b'{"name": "\xff"}', "not readable JSON"),
        (b'"{\\"name\\": 1}"', "one JSON object"),
    ],
)
def test_bodies_that_are_no_json_object_are_refused(client: FlaskClient, body: bytes, sentence: str) -> None:
    answer = client.post("/api/evaluations", data=body, content_type="application/json")
    assert sentence in refusal(answer, 422, "invalid_input")


def test_a_body_without_json_type_is_refused(client: FlaskClient) -> None:
    assert "content type" in refusal(client.post("/api/evaluations", data=b"x", content_type="text/plain"), 422, "invalid_input")


def test_too_large_a_body_is_refused(client: FlaskClient) -> None:
    body = json.dumps({"text": "x" * 1_200_000})
    answer = client.post("/api/recipe-readings", data=body, content_type="application/json")
    refusal(answer, 413, "request_entity_too_large")


@pytest.mark.parametrize(
    ("method", "path", "status"), [("get", "/api/nothing", 404), ("put", "/api/health", 405), ("get", "/api/formulas/999", 404)]
)
def test_wrong_addresses_answer_in_the_same_shape(client: FlaskClient, method: str, path: str, status: int) -> None:
    answer = getattr(client, method)(path)
    assert answer.status_code == status
    assert set(answer.json) == {"code", "message", "details"}


def test_our_own_bug_shows_no_trace(client: FlaskClient, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("rosy_kettle.api.evaluations.judge_formula", lambda *_: 1 / 0)
    message = refusal(client.post("/api/evaluations", json=SCOOP), 500, "internal_error")
    assert "division" not in message


def test_prices_override_the_band_and_can_be_cleared(client: FlaskClient) -> None:
    before = client.get("/api/ingredients/kaolin").json
    assert (before["price_per_kg"], before["price_basis"]) == ("8.00", "reference")
    after = client.put("/api/ingredients/kaolin/price", json={"price_per_kg": "12,5"}).json
    assert (after["price_per_kg"], after["price_basis"]) == ("12.50", "studio")
    assert client.delete("/api/ingredients/kaolin/price").json["price_basis"] == "reference"


def test_larger_amounts_have_their_own_prices(client: FlaskClient) -> None:
    breaks = [{"from_kg": "25", "price_per_kg": "6"}, {"from_kg": "5", "price_per_kg": "8,50"}]
    after = client.put("/api/ingredients/kaolin/price", json={"price_per_kg": "12.5", "breaks": breaks}).json
    assert after["price_breaks"] == [["5", "8.50"], ["25", "6"]]
    twice = [{"from_kg": "5", "price_per_kg": "8"}, {"from_kg": "5.0", "price_per_kg": "7"}]
    again = client.put("/api/ingredients/kaolin/price", json={"price_per_kg": "12.5", "breaks": twice})
    assert "Two prices begin at 5 kg" in refusal(again, 422, "invalid_input")
    none = client.put(
        "/api/ingredients/kaolin/price", json={"price_per_kg": "12.5", "breaks": [{"from_kg": "0", "price_per_kg": "8"}]}
    )
    assert "kg above 0" in refusal(none, 422, "invalid_input")
    assert client.delete("/api/ingredients/kaolin/price").json["price_breaks"] == []


def test_moulds_are_counted_once_for_every_plan(client: FlaskClient) -> None:
    assert client.put("/api/moulds/ball-2in", json={"count": 12}).json["counts"] == {"ball-2in": 12}
    assert client.get("/api/moulds").json["counts"] == {"ball-2in": 12}
    assert "no tool" in refusal(client.put("/api/moulds/anvil", json={"count": 1}), 404, "not_found")
    assert client.put("/api/moulds/ball-2in", json={"count": None}).json["counts"] == {}


@pytest.mark.parametrize("price", ["abc", "-1", "NaN", "Infinity", "100001", ""])
def test_prices_that_are_none_are_refused(client: FlaskClient, price: str) -> None:
    assert "Price per kg" in refusal(
        client.put("/api/ingredients/kaolin/price", json={"price_per_kg": price}), 422, "invalid_input"
    )


def test_a_learned_name_is_read_from_then_on_and_can_be_forgotten(client: FlaskClient) -> None:
    recipe = {"text": "3 tbsp Loft-Dust"}
    assert client.post("/api/recipe-readings", json=recipe).json["lines"][0]["ingredient"] is None
    assert client.post("/api/ingredients/kaolin/synonyms", json={"phrase": "Loft-Dust"}).json["learned"] == ["loft dust"]
    assert client.post("/api/recipe-readings", json=recipe).json["lines"][0]["ingredient"] == "kaolin"
    assert client.delete("/api/ingredients/kaolin/synonyms/loft dust").json["learned"] == []
    assert client.post("/api/recipe-readings", json=recipe).json["lines"][0]["ingredient"] is None


def test_an_own_ingredient_is_copied_changed_used_and_protected(client: FlaskClient) -> None:
    body = {"based_on": "fragrance-oil-generic", "name": "Larch smoke", "properties": {"flash_point_c": 71, "us_cup_g": None}}
    own = client.post("/api/ingredients", json=body)
    assert (own.status_code, own.json["id"], own.json["own"]) == (201, "own-larch-smoke", True)
    values = {each["property"]: each["value"] for each in own.json["properties"]}
    assert (values["flash_point_c"], values["us_cup_g"]) == ("71", None)
    twin = client.post("/api/ingredients", json=body).json
    assert twin["id"] == "own-larch-smoke-2"
    changed = client.put(
        "/api/ingredients/own-larch-smoke", json=body | {"name": "Larch", "properties": {"flash_point_c": 80}}
    ).json
    assert changed["short_name"] == "Larch"
    made = created(client, portions=[{"name": "body", "lines": [{"ingredient": "own-larch-smoke", "amount": "1", "unit": "g"}]}])
    assert "Scoop" in refusal(client.delete("/api/ingredients/own-larch-smoke"), 409, "conflict")
    client.delete(f"/api/formulas/{made['id']}")
    assert client.delete("/api/ingredients/own-larch-smoke").status_code == 204


def test_a_missing_cup_weight_is_said_and_the_rest_is_given(client: FlaskClient) -> None:
    client.post("/api/ingredients", json={"based_on": "kaolin", "name": "Loft clay", "properties": {"us_cup_g": None}})
    lines = [
        {"ingredient": "own-loft-clay", "amount": "1", "unit": "cup"},
        {"ingredient": "baking-soda", "amount": "5", "unit": "g"},
    ]
    result = client.post("/api/evaluations", json=SCOOP | {"portions": [{"name": "body", "lines": lines}]}).json
    assert result["mass_g"] == 5
    assert result["missing"][0]["property"] == "us_cup_g"


@pytest.mark.parametrize(
    "body",
    [
        {"based_on": "moonstone", "name": "x"},
        {"based_on": "kaolin", "name": ""},
        {"based_on": "kaolin", "name": "x", "properties": {"charm": 1}},
        {"based_on": "slsa-fine", "name": "x", "properties": {"active_fraction": 68}},
        {"based_on": "kaolin", "name": "x", "properties": {"us_cup_g": -4}},
    ],
)
def test_own_ingredients_that_cannot_be_are_refused(client: FlaskClient, body: dict[str, Any]) -> None:
    refusal(client.post("/api/ingredients", json=body), 422, "invalid_input")


def test_pages_carry_a_content_policy_and_unknown_pages_are_the_app(client: FlaskClient) -> None:
    answer = client.get("/formulas/1")
    assert answer.status_code in {200, 503}  # 503 says in words that the pages are not built
    assert "default-src 'self'" in answer.headers["Content-Security-Policy"]
    answer.close()


def test_the_demo_covers_all_methods_and_one_goes_wrong(demo_client: FlaskClient) -> None:
    formulas = demo_client.get("/api/formulas").json["formulas"]
    assert len({each["method"] for each in formulas}) == 8
    assert any(each["fits"] is False for each in formulas)
    assert sum(each["fits"] is True for each in formulas) >= 8


def test_a_lever_an_explanation_a_balance_and_a_swap_by_the_api(demo_client: FlaskClient) -> None:
    formula = demo_client.get("/api/formulas/1").json["formula"]
    wish = {"formula": formula, "reading": "lather.score", "low": 75, "high": 90}
    levers = demo_client.post("/api/levers", json=wish).json["levers"]
    assert levers[0]["effects"]
    explained = demo_client.post("/api/explanations", json=wish).json
    assert explained["page"] == "lather"
    assert len(explained["contributions"]) == len(formula["portions"][0]["lines"])
    assert all(each["source"] for each in explained["constants"])
    ask = {"formula": formula, "targets": [{"reading": "lather.score", "low": 70}], "objective": "least-change"}
    balanced = demo_client.post("/api/balances", json=ask).json
    assert balanced["status"] == "solved"
    assert balanced["readings_after"]["lather"]["score"] >= 70
    starch = next(i for i, line in enumerate(formula["portions"][0]["lines"]) if line["ingredient"] == "corn-starch")
    found = demo_client.post("/api/substitutes", json={"formula": formula, "position": starch}).json["substitutes"]
    swapped = demo_client.post(
        "/api/swaps", json={"formula": formula, "position": starch, "ingredient": found[0]["ingredient"]}
    ).json
    ids = [line["ingredient"] for line in swapped["formula"]["portions"][0]["lines"]]
    assert ids[starch] == found[0]["ingredient"]


@pytest.mark.parametrize(
    ("path", "body", "sentence"),
    [
        ("levers", {"reading": "lather.charm", "low": 3}, 'no reading "lather.charm"'),
        ("levers", {"reading": "lather.score", "low": 80, "high": 60}, "above the high end"),
        ("balances", {"targets": [{"reading": "lather.score"}]}, "lower or an upper end"),
        ("balances", {"targets": []}, "targets"),
        ("substitutes", {"position": 99}, "no mass"),
        ("charts", {"portion": 7}, "no portion 8"),
    ],
)
def test_what_cannot_be_asked_is_refused_in_one_sentence(
    demo_client: FlaskClient, path: str, body: dict[str, object], sentence: str
) -> None:
    formula = demo_client.get("/api/formulas/1").json["formula"]
    answer = demo_client.post(f"/api/{path}", json={"formula": formula} | body)
    assert answer.status_code == 422
    assert sentence in answer.json["message"]


def test_charts_are_figures(demo_client: FlaskClient) -> None:
    names = {each["name"]: each["id"] for each in demo_client.get("/api/formulas").json["formulas"]}
    formula = demo_client.get(f"/api/formulas/{names['Peat bricks']}").json["formula"]
    charts = demo_client.post("/api/charts", json={"formula": formula}).json
    assert len(charts["texture"]) == len(charts["texture_fresh"]) == 51
    assert charts["cooling"]["path"]
    assert [stage["stage"] for stage in charts["bath"]] == ["fresh", "step-in", "after 20 min", "aired"]
    assert {curve["name"] for curve in charts["fats"]} == {"Cocoa butter", "Shea butter"}


def test_profiles_are_offered_made_changed_and_taken_away(demo_client: FlaskClient) -> None:
    offered = {each["id"]: each for each in demo_client.get("/api/profiles").json["profiles"]}
    assert {"big-foam", "gentle-family", "rich-and-slow", "quick-fizz", "hard-and-shippable", "low-cost", "childrens"} <= set(
        offered
    )
    assert offered["low-cost"]["bands"][0]["reading"] == "cost.piece"
    band = {"reading": "lather.score", "low": 50, "high": 60}
    made = demo_client.post("/api/profiles", json={"name": "Loft evening", "bands": [band]})
    assert made.status_code == 201
    assert any(each["id"] == "own-loft-evening" for each in made.json["profiles"])
    crossed = demo_client.put("/api/profiles/own-loft-evening", json={"name": "x", "bands": [band | {"low": 90}]})
    assert crossed.status_code == 422
    demo_client.put("/api/profiles/big-foam", json={"name": "Bigger foam", "bands": [band]})
    back = demo_client.delete("/api/profiles/big-foam").json["profiles"]
    assert next(each for each in back if each["id"] == "big-foam")["name"] == "Big foam"
    demo_client.delete("/api/profiles/own-loft-evening")
    assert demo_client.delete("/api/profiles/own-loft-evening").status_code == 404


def test_a_comparison_names_the_line_that_made_drying_longer(client: FlaskClient) -> None:
    saved = client.post("/api/formulas", json=SCOOP).json
    client.post(f"/api/formulas/{saved['id']}/versions", json={"note": "as it was"})
    wetter = json.loads(json.dumps(saved["formula"]))
    for line in wetter["portions"][0]["lines"]:
        if line["ingredient"] == "glycerin":
            line["amount"] = "120"
    client.put(f"/api/formulas/{saved['id']}", json={"revision": saved["revision"], "formula": wetter})
    found = client.get(f"/api/formulas/{saved['id']}/comparison?first=1&second=2").json
    drying = next(each for each in found["readings"] if each["reading"] == "drying.hours")
    assert drying["second"] is None or drying["second"] > drying["first"]
    firm = next(each for each in found["readings"] if each["reading"] == "dough.saturation")
    assert firm["causes"][0]["ingredient"] == "glycerin"
    assert (
        client.get(f"/api/formulas/{saved['id']}/versions/1").json["portions"][0]["lines"]
        == saved["formula"]["portions"][0]["lines"]
    )
    branched = client.post(f"/api/formulas/{saved['id']}/versions/1/branch", json={"name": "Another way"})
    assert branched.status_code == 201
    assert client.get(f"/api/formulas/{saved['id']}/versions/9").status_code == 404


def test_a_list_is_judged_once_and_anew_only_when_a_price_or_a_formula_has_changed(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    formula = created(client)
    judged = list[str]()

    def counted(each: Formula, *others: Any) -> Evaluation:
        judged.append(each.name)
        return evaluate(each, *others)

    monkeypatch.setattr(list_formulas, "evaluate", counted)
    before = client.get("/api/formulas").json["formulas"]
    assert client.get("/api/formulas").json["formulas"] == before
    assert len(judged) == 1
    client.put("/api/ingredients/slsa-fine/price", json={"price_per_kg": "90.00", "breaks": []})
    dearer = client.get("/api/formulas").json["formulas"]
    assert float(dearer[0]["cost_piece"]) > float(before[0]["cost_piece"] or 0)
    heavier = {"revision": formula["revision"], "formula": formula["formula"] | {"name": "another name"}}
    assert client.put(f"/api/formulas/{formula['id']}", json=heavier).status_code == 200
    assert client.get("/api/formulas").json["formulas"][0]["name"] == "another name"
    assert len(judged) == 3
