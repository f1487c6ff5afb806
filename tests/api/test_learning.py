"""Learning in the studio: found from its own tests and trays, accepted and put back, and a batch keeps what it was planned with."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

from rosy_kettle.usecases.studio.season.truth import TRUTH
from tests.api.test_api import created
from tests.api.test_batches import begun as bowl
from tests.api.test_batches import conditions, in_hand
from tests.api.test_batches import happen as note
from tests.api.test_bench_story import go_to, weigh_all
from tests.api.test_rack import dried, set_out
from tests.api.test_tub import begun, happen

Answer = dict[str, Any]


def foamed(client: FlaskClient, formula_id: int, tall: float, tests: int = 4) -> None:
    for _ in range(tests):
        test = begun(client, formula_id=formula_id)
        said = {point["minutes"]: point["height_cm"] for point in test["foretold"]["heights"]}
        test = happen(client, test, kind="opened")
        for minutes in (5, 10, 20):
            test = happen(client, test, kind="foam", minutes=minutes, height_cm=round(tall * said[float(minutes)], 2))


def factors(client: FlaskClient) -> dict[str, Answer]:
    return {each["id"]: each for each in client.get("/api/learning").json["factors"]}


def use(client: FlaskClient, factor: str, *, accepted: bool, status: int = 200) -> Answer:
    answer = client.put(f"/api/learning/{factor}", json={"accepted": accepted})
    assert answer.status_code == status, answer.text
    told: Answer = answer.json
    return told


def score(client: FlaskClient, formula: Answer) -> float:
    return float(client.post("/api/evaluations", json=formula["formula"]).json["lather"]["foam_l"])


def test_a_factor_found_in_the_tub_is_used_and_put_back_exactly(client: FlaskClient) -> None:
    formula = created(client)
    before = score(client, formula)
    foamed(client, formula["id"], 1.4)
    found = factors(client)["foam"]
    assert found["low"] <= 1.4 <= found["high"]
    assert found["used"] is None
    assert score(client, formula) == before, "nothing is used before it is accepted"
    told = use(client, "foam", accepted=True)
    assert next(each for each in told["factors"] if each["id"] == "foam")["used"] == pytest.approx(found["yours"])
    assert score(client, formula) == pytest.approx(before * found["yours"], rel=1e-6)
    why = client.post("/api/explanations", json={"formula": formula["formula"], "reading": "lather.score"}).json
    assert why["learnt"] == [found["message"]]
    assert factors(client)["foam"]["yours"] == pytest.approx(found["yours"]), "learning holds itself against the defaults"
    listed = client.get("/api/formulas").json["formulas"][0]
    assert listed["judged"]
    use(client, "foam", accepted=False)
    assert score(client, formula) == before
    why = client.post("/api/explanations", json={"formula": formula["formula"], "reading": "lather.score"}).json
    assert why["learnt"] == []


def test_a_batch_keeps_the_factors_it_was_planned_with(client: FlaskClient) -> None:
    formula = created(client)
    foamed(client, formula["id"], 1.5)
    ask = {"formula_id": formula["id"], "wishes": [{"pieces": 5}]}
    early = client.post("/api/batches", json=ask).json
    use(client, "foam", accepted=True)
    late = client.post("/api/batches", json=ask).json
    assert late["before"]["lather"]["foam_l"] > 1.2 * early["before"]["lather"]["foam_l"]
    assert client.get(f"/api/batches/{early['id']}").json["before"]["lather"] == early["before"]["lather"]
    use(client, "foam", accepted=False)
    assert client.get(f"/api/batches/{late['id']}").json["before"]["lather"] == late["before"]["lather"]


def test_trays_are_heard(client: FlaskClient) -> None:
    formula = created(client)
    for _ in range(3):
        dried(client, set_out(client, formula_id=formula["id"]))
    told = client.get("/api/learning").json
    assert (told["trays"], factors(client)["drying"]["n"]) == (3, 3)
    assert factors(client)["drying"]["yours"] != pytest.approx(1.0, abs=0.02)


def test_the_season_hides_a_bias_that_learning_finds(demo_client: FlaskClient) -> None:
    demo = demo_client.get("/api/learning").json
    found = factors(demo_client)
    for factor, true in TRUTH.items():
        assert found[factor]["low"] <= true <= found[factor]["high"], factor
        assert not found[factor]["low"] <= 1.0 <= found[factor]["high"], factor
    errors = {each["reading"]: each["after"] / each["before"] for each in demo["errors"]}
    assert errors["dough.saturation"] < 0.5
    assert errors["drying.hours"] < 0.5
    assert (demo["ropes"], demo["set_aside"]) == (4, [])


def test_the_season_is_a_year_of_every_method_with_its_failures(demo_client: FlaskClient) -> None:
    batches = demo_client.get("/api/batches?limit=200").json["batches"]
    assert len(batches) >= 40
    assert {row["method"] for row in batches} == {row["id"] for row in demo_client.get("/api/reference").json["methods"]}
    days = {row["created_at"][:10] for row in batches}
    assert len(days) >= 40
    assert {row["answer"] for row in answers(demo_client)} == {"yes", "cannot tell yet"}, "four baths of each deny nothing yet"
    (design,) = demo_client.get("/api/trial-designs").json["items"]
    assert design["response"]["n"] == 7
    assert len(demo_client.get("/api/journal?kind=result&gone_wrong=true&limit=200").json["items"]) >= 6


def answers(client: FlaskClient) -> list[Answer]:
    return [series["judgement"] for series in client.get("/api/test-series").json["items"]]


def test_what_nothing_speaks_of_is_refused(client: FlaskClient) -> None:
    assert client.get("/api/learning").json["factors"] == []
    use(client, "drying", accepted=True, status=404)
    assert client.put("/api/learning/Bad Name", json={"accepted": True}).status_code == 422
    assert use(client, "drying", accepted=False)["factors"] == []


def test_the_rope_tells_what_the_powders_drink_and_can_be_left_out(client: FlaskClient) -> None:
    formula = created(client)
    body = {"formula_id": formula["id"], "wetter": "glycerin", "rolls_at_g": 30.0, "smears_at_g": 50.0}
    kept = client.post("/api/measurements", json={**body, "key": "rope-number-1"})
    assert kept.status_code == 201, kept.text
    assert client.post("/api/measurements", json={**body, "key": "rope-number-1"}).json["id"] == kept.json["id"]
    told = client.get("/api/learning").json
    assert told["ropes"] == 1
    assert [each["n"] for each in told["factors"] if each["id"].startswith("demand.")]
    for wrong, said in (({"smears_at_g": 20.0}, "larger"), ({"rolls_at_g": None, "smears_at_g": None}, "at least one")):
        answer = client.post("/api/measurements", json={**body, **wrong})
        assert answer.status_code == 422
        assert said in answer.json["message"]
    assert client.post("/api/measurements", json={**body, "wetter": "nothing-known"}).status_code == 422
    assert client.delete(f"/api/measurements/{kept.json['id']}").json["items"] == []
    assert client.delete(f"/api/measurements/{kept.json['id']}").status_code == 404
    assert client.get("/api/learning").json["ropes"] == 0


def shaped(client: FlaskClient, tool: str | None, masses_g: list[float]) -> Answer:
    """A bowl made to the end, its pieces counted and some of them weighed."""
    batch = bowl(client, wishes=[{"pieces": 5} if tool is None else {"pieces": 5, "tool": tool}])
    batch = go_to(client, weigh_all(client, conditions(client, batch)), "shape")
    batch = note(client, batch, kind="pieces", count=5)
    for mass_g in masses_g:
        batch = note(client, batch, kind="sampled", mass_g=mass_g)
    while batch["state"]["current"] is not None:
        batch = note(client, batch, kind="done", step=in_hand(batch)["key"])
    return note(client, batch, kind="closed")


def meant_g(batch: Answer) -> float:
    """What a piece is meant to weigh."""
    return float(next(step["piece_mass_g"] for step in batch["state"]["steps"] if step["piece_mass_g"]))


def test_pieces_weighed_at_the_bench_say_what_a_tool_takes_and_what_a_bowl_loses(client: FlaskClient) -> None:
    batch = shaped(client, None, [])
    assert client.get("/api/learning").json["shaped"] == 0
    bowl_g = sum(each["actual_g"] for each in batch["state"]["weighings"])
    for _ in range(4):
        shaped(client, None, [bowl_g * 0.90 / 5] * 3)
    (lost,) = [each for id_, each in factors(client).items() if id_.startswith("loss.")]
    assert (lost["n"], lost["default"] < lost["yours"] < 10.0) == (4, True)
    planned_g = meant_g(shaped(client, "disher-24", []))
    for _ in range(4):
        shaped(client, "disher-24", [planned_g * 1.08] * 3)
    tool = factors(client)["packing.disher-24"]
    assert (tool["n"], tool["default"] < tool["yours"] < 1.08) == (4, True)
    use(client, "packing.disher-24", accepted=True)
    fuller_g = meant_g(shaped(client, "disher-24", []))
    assert fuller_g == pytest.approx(planned_g * tool["yours"])


def test_drops_are_kept_and_move_the_firmness_once_they_are_used(client: FlaskClient) -> None:
    formula = created(client)
    before = client.post("/api/evaluations", json=formula["formula"]).json["firmness"]["at_20_c"]
    for _ in range(4):
        assert client.post("/api/measurements/drops", json={"formula_id": formula["id"], "drops": 40}).status_code == 201
    assert client.get("/api/learning").json["drops"] == 4
    told = factors(client)["firmness"]
    use(client, "firmness", accepted=True)
    after = client.post("/api/evaluations", json=formula["formula"]).json["firmness"]["at_20_c"]
    assert after == pytest.approx(min(98.0, before + told["yours"]))
    for drops in (0, -3, 1e9, "many"):
        answer = client.post("/api/measurements/drops", json={"formula_id": formula["id"], "drops": drops})
        assert (answer.status_code, "drops" in answer.json["message"].lower()) == (422, True)
