"""Troubles over HTTP: the record is read before anything is asked, outcomes sharpen the studio's own priors."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from flask.testing import FlaskClient

from rosy_kettle.core.clinic.change import ChangedLine
from rosy_kettle.core.clinic.diagnose import Cause
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.files import FormulaFile, formula_from_file, formula_to_file
from rosy_kettle.reference import load_symptoms, load_troubles
from rosy_kettle.usecases.clinic.look_into import changed
from rosy_kettle.usecases.studio.season.truth import TRUTH
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from tests.api.test_api import created
from tests.api.test_batches import begun, happen
from tests.conftest import make_formula


def begin(client: FlaskClient, status: int = 201, **ask: Any) -> dict[str, Any]:
    answer = client.post("/api/troubles", json=ask)
    assert answer.status_code == status, answer.text
    told: dict[str, Any] = answer.json
    return told


def chances(trouble: dict[str, Any]) -> dict[str, float]:
    return {cause["id"]: cause["chance"] for cause in trouble["causes"]}


def test_every_symptom_has_words_and_a_drawing() -> None:
    assert {each.id for each in load_symptoms()} == set(load_troubles().priors)
    assert all(each.title and each.words and each.drawing for each in load_symptoms())


def test_what_the_bench_recorded_is_read_before_anything_is_asked(client: FlaskClient) -> None:
    batch = begun(client)
    happen(client, batch, kind="conditions", step="conditions", room_c=20.0, humidity_pct=78.0)
    trouble = begin(client, symptom="never-dries", batch_id=batch["id"])
    assert sum(chances(trouble).values()) == pytest.approx(1)
    damp = next(cause for cause in trouble["causes"] if cause["id"] == "damp-air")
    assert any(each["source"] == "batch" and "damp" in each["what"] for each in damp["evidence"])
    assert "room_humidity_pct" not in {question["id"] for question in trouble["questions"]}
    assert len(trouble["questions"]) <= 5


def test_answers_move_the_chances_and_can_be_taken_back(client: FlaskClient) -> None:
    trouble = begin(client, symptom="cracks", formula_id=created(client)["id"])
    before = chances(trouble)
    url = f"/api/troubles/{trouble['id']}/answers"
    told = client.put(url, json={"answers": {"room_humidity_pct": 80}}).json
    assert chances(told)["damp-air"] > before["damp-air"]
    assert chances(client.put(url, json={"answers": {"room_humidity_pct": None}}).json) == pytest.approx(before)
    assert client.put(url, json={"answers": {"packed": "purple"}}).status_code == 422


def test_that_was_it_makes_the_cause_likelier_the_next_time(client: FlaskClient) -> None:
    formula = created(client)["id"]
    first = begin(client, symptom="warts", formula_id=formula)
    cause = first["causes"][-1]["id"]
    for _ in range(3):
        trouble = begin(client, symptom="warts", formula_id=formula)
        client.put(f"/api/troubles/{trouble['id']}/outcome", json={"cause": cause, "remark": "seen in the cut"})
    assert chances(begin(client, symptom="warts", formula_id=formula))[cause] > chances(first)[cause]
    none = client.put(f"/api/troubles/{first['id']}/outcome", json={"cause": "none-of-these"}).json
    assert none["outcome"] == "none-of-these"
    assert client.put(f"/api/troubles/{first['id']}/outcome", json={"cause": "gremlins"}).status_code == 422


def test_the_change_is_taken_with_one_press_and_does_what_it_says(client: FlaskClient) -> None:
    wet = make_formula(baking_soda=300, slsa_fine=90, corn_starch=60, capb_liquid=130, glycerin=110)
    formula = client.post("/api/formulas", json=formula_to_file(wet).model_dump(mode="json")).json
    trouble = begin(client, symptom="sticky", formula_id=formula["id"])
    cause = next((each for each in trouble["causes"] if each["change"]), None)
    assert cause is not None
    effect = next(each for each in cause["effects"] if each["reading"] == "dough.saturation")
    taken = client.post(f"/api/troubles/{trouble['id']}/change", json={"cause": cause["id"]})
    assert taken.status_code == 201, taken.text
    after = client.post("/api/evaluations", json=client.get(f"/api/formulas/{formula['id']}").json["formula"]).json
    assert after["dough"]["saturation"] == pytest.approx(effect["after"], rel=1e-3)


def test_people_are_not_diagnosed(client: FlaskClient) -> None:
    trouble = begin(client, symptom="irritates")
    assert "doctor or pharmacist" in trouble["caution"]
    assert begin(client, 422, symptom="broken-heart")["message"].startswith("There is no symptom")


def test_the_list_finds_words_and_batches(client: FlaskClient) -> None:
    batch = begun(client)
    begin(client, symptom="ring", batch_id=batch["id"], key="asked-once-1")
    begin(client, symptom="ring", batch_id=batch["id"], key="asked-once-1")
    assert len(client.get(f"/api/troubles?batch_id={batch['id']}").json["items"]) == 1
    assert client.get("/api/troubles?q=slumps").json["items"] == []


def test_a_plan_forewarns_of_what_its_readings_speak_for(client: FlaskClient) -> None:
    formula = created(client)
    damp = client.post(f"/api/formulas/{formula['id']}/plans", json={"wishes": [{"pieces": 4}], "humidity_pct": 85}).json
    assert 1 <= len(damp["troubles"]) <= 3
    assert all(each["times"] > 1 and each["lower"] for each in damp["troubles"])


SEASON = {
    "four cracked on the second day": ("cracks", "too-dry", "The hands found it crumbly."),
    "never quite dried in that week's air": ("never-dries", "damp-air", "The air was damp."),
    "five puffed out of the mould overnight": ("puffs", "damp-air", "The air was damp."),
    "the scent was missed at the bath": ("no-scent", "forgotten-line", "A line was left out."),
}
"""By what was written of a batch: what is picked in the clinic, what it was, and what of the record says so."""


def test_the_seasons_failures_are_explained_from_their_own_records_and_the_change_takes_them_away(
    demo_client: FlaskClient,
) -> None:
    with demo_client.application.extensions["studio"].reading() as session:
        truth = studio_tables(session, TRUTH)
    explained = mended = 0
    for row in demo_client.get("/api/batches?limit=200").json["batches"]:
        batch = demo_client.get(f"/api/batches/{row['id']}").json
        remark = batch["state"]["outcome"].get("remarks") or ""
        trouble = next((SEASON[key] for key in SEASON if key in remark), None)
        if trouble is None:
            continue
        symptom, cause, said = trouble
        first = begin(demo_client, batch_id=row["id"], symptom=symptom)["causes"][0]
        assert first["id"] == cause, (row["id"], remark)
        assert {"supports": True, "what": said, "source": "batch"} in first["evidence"]
        explained += 1
        made = formula_from_file(FormulaFile.model_validate(batch["made"]))
        if first["change"]:
            lines = tuple(ChangedLine(**each) for each in first["change"])
            again = changed(made, Cause(cause, 1.0, (), "", "", lines), truth)
            assert (state(made, truth), state(again, truth)) == ("crumbly dough", "play dough")
            mended += 1
        elif cause == "damp-air":
            ordinary = replace(made, room=replace(made.room, humidity_pct=45.0))
            assert evaluate(ordinary, truth).drying.dries
    assert explained >= 5
    assert mended >= 2


def state(formula: Formula, tables: Tables) -> str | None:
    told = evaluate(formula, tables)
    dough = told.dough or told.portions[0].dough
    return None if dough is None else dough.state


def test_the_change_is_by_what_stands_in_the_formula_and_not_by_what_a_batch_was_tried_with(tables: Tables) -> None:
    stored = make_formula("glycerin-dough", baking_soda=600, corn_starch=120, glycerin=250)
    made = make_formula("glycerin-dough", baking_soda=300, corn_starch=60, glycerin=90)
    cause = Cause("too-dry", 1.0, (), "", "", (ChangedLine("glycerin", 90.0, 130.0),))
    after = {line.ingredient: float(line.amount) for line in changed(stored, cause, tables, made).lines}
    assert after == pytest.approx({"baking-soda": 600.0, "corn-starch": 120.0, "glycerin": 260.0})
