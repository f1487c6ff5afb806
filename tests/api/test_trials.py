"""Mini-batches over HTTP: designed, kept as versions, read back, amended, fitted."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient
from sqlalchemy import text
from sqlalchemy.exc import IntegrityError

from rosy_kettle.store import Studio
from tests.api.test_api import created

Answer = dict[str, Any]


def varied(client: FlaskClient, **ask: Any) -> tuple[Any, Answer]:
    formula = created(client)
    shares = client.post("/api/evaluations", json=formula["formula"]).json["lines"]
    body = {
        "formula_id": formula["id"], "reading": "lather.height_cm", "trials": 8, "batch_g": 80.0,
        "bounds": [{"ingredient": line["ingredient"], "low_pct": 0.5 * line["pct"], "high_pct": 1.5 * line["pct"]} for line in shares[:2]],
        **ask,
    }  # fmt: skip
    return client.post("/api/trial-designs", json=body), shares


def test_trials_are_versions_that_weigh_what_the_formula_weighs(client: FlaskClient) -> None:
    answer, shares = varied(client)
    assert answer.status_code == 201, answer.text
    design: Answer = answer.json
    assert len(design["trials"]) == 8
    together = 0.8 * (shares[0]["pct"] + shares[1]["pct"])
    for trial in design["trials"]:
        assert sum(trial["grams"]) == pytest.approx(together, rel=1e-4)
        version = client.get(f"/api/formulas/{design['trials_formula_id']}/versions/{trial['number']}").json
        judged = client.post("/api/evaluations", json=version).json
        assert judged["mass_g"] == pytest.approx(80.0, abs=0.1)
        assert judged["lather"]["height_cm"] == pytest.approx(trial["said"], rel=1e-6)
    for bound, line in zip(design["bounds"], shares, strict=False):
        assert bound["low_pct"] == pytest.approx(0.5 * line["pct"], rel=1e-3)


def test_results_are_read_back_amended_and_fitted(client: FlaskClient, studio: Studio) -> None:
    design = varied(client)[0].json
    at = f"/api/trial-designs/{design['id']}"
    assert design["response"]["degree"] is None
    for trial in design["trials"]:
        a, b = trial["shares"]
        value = 3.0 * a + 5.0 * b + 0.01 * (trial["number"] % 2)
        assert client.post(f"{at}/results", json={"trial": trial["number"], "value": value}).status_code == 201
    told = client.get(at).json
    assert told["response"]["n"] == 8
    assert told["response"]["flat"] is False
    best = max(trial["shares"][1] for trial in design["trials"])
    assert told["response"]["best"]["shares"][1] == pytest.approx(best, abs=1e-4)
    wrong = told["trials"][0]["results"][0]
    after = client.post(f"{at}/results/{wrong['id']}", json={"value": 9.0}).json
    assert after["trials"][0]["results"][0]["value"] == 9.0
    after = client.post(f"{at}/results/{wrong['id']}", json={"value": None}).json
    assert after["trials"][0]["results"] == []
    assert after["response"]["n"] == 7
    assert client.post(f"{at}/results/{wrong['id']}", json={"value": 1.0}).json["response"]["n"] == 8, "and back again"
    with pytest.raises(IntegrityError, match="never changed"), studio.writing() as session:
        session.execute(text("UPDATE trial_results SET value = 1"))


def test_what_cannot_hold_is_refused(client: FlaskClient) -> None:
    crossed = [{"ingredient": "a", "low_pct": 1, "high_pct": 2}, {"ingredient": "b", "low_pct": 1, "high_pct": 2}]
    assert "weighs nothing" in varied(client, bounds=crossed)[0].json["message"]
    assert "no reading" in varied(client, reading="taste")[0].json["message"]
    answer, shares = varied(client)
    first, second = shares[0]["ingredient"], shares[1]["ingredient"]
    bounds = [{"ingredient": first, "low_pct": 30, "high_pct": 10}, {"ingredient": second, "low_pct": 1, "high_pct": 90}]
    assert "cross" in varied(client, bounds=bounds)[0].json["message"]
    assert varied(client, bounds=bounds[:1])[0].status_code == 422
    id_ = answer.json["id"]
    assert client.post(f"/api/trial-designs/{id_}/results", json={"trial": 99, "value": 1.0}).status_code == 422
    assert client.post(f"/api/trial-designs/{id_}/results/99", json={"value": 1.0}).status_code == 422


def test_a_design_is_told_after_its_trials_were_put_aside(client: FlaskClient) -> None:
    design = varied(client)[0].json
    assert client.delete(f"/api/formulas/{design['trials_formula_id']}").status_code == 204
    assert [each["id"] for each in client.get("/api/trial-designs").json["items"]] == [design["id"]]


def test_lines_that_move_nothing_are_said_before_the_first_batch(client: FlaskClient) -> None:
    _design, shares = varied(client)
    narrow = [
        {"ingredient": line["ingredient"], "low_pct": 0.998 * line["pct"], "high_pct": 1.002 * line["pct"]} for line in shares[:2]
    ]
    assert "hardly move" in varied(client, bounds=narrow)[0].json["warning"]


def test_the_winner_is_poured_into_a_version_with_its_proof(client: FlaskClient) -> None:
    design = varied(client)[0].json
    at = f"/api/trial-designs/{design['id']}"
    refused = client.post(f"{at}/poured")
    assert (refused.status_code, refused.json["message"][:30]) == (409, "These trials do not show yet w")
    for trial in design["trials"]:
        value = 3.0 * trial["shares"][0] + 5.0 * trial["shares"][1] + 0.01 * (trial["number"] % 2)
        client.post(f"{at}/results", json={"trial": trial["number"], "value": value})
    before = client.get(f"/api/formulas/{design['formula_id']}").json
    poured = client.post(f"{at}/poured")
    assert poured.status_code == 201, poured.text
    told = poured.json
    assert told["note"].startswith(f"Best of trials {design['id']}: ")
    assert "fitted to 8 results" in told["note"]
    after = client.get(f"/api/formulas/{design['formula_id']}").json["formula"]
    old, new = (client.post("/api/evaluations", json=each).json for each in (before["formula"], after))
    assert new["mass_g"] == pytest.approx(old["mass_g"], abs=0.1), "what varies shares its weight anew"
    best = client.get(at).json["response"]["best"]["shares"]
    shares = {line["ingredient"]: line["pct"] for line in new["lines"]}
    varied_pct = [shares[bound["ingredient"]] for bound in design["bounds"]]
    assert varied_pct[0] / sum(varied_pct) == pytest.approx(best[0], abs=2e-3)
    kept = [line["unit"] for line in before["formula"]["portions"][0]["lines"]][2:]
    assert [line["unit"] for line in after["portions"][0]["lines"]][2:] == kept, "other lines stay as typed"
    assert client.post(f"{at}/poured").json["version"] == told["version"], "poured twice, it is the same version"
