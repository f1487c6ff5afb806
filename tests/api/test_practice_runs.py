"""Practice over HTTP: nothing of the truth before the end, nothing of the studio touched."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

URL = "/api/practice-runs"
STUDIO = (("/api/batches", "batches"), ("/api/lots", "items"), ("/api/learning", "factors"), ("/api/rack", "items"))


def act(client: FlaskClient, run: dict[str, Any], status: int = 201, **what: Any) -> dict[str, Any]:
    answer = client.post(f"{URL}/{run['id']}/acts", json={"after": run["done"], **what})
    assert answer.status_code == status, answer.text
    told: dict[str, Any] = answer.json
    return told


def test_a_beginners_bowl_to_its_end(client: FlaskClient) -> None:
    run = client.post(URL, json={"scenario": "thirsty-starch", "key": "one-begin-1"}).json
    assert client.post(URL, json={"scenario": "thirsty-starch", "key": "one-begin-1"}).json["id"] == run["id"]
    assert run["practice"] is True
    assert run["debrief"] is None
    assert "drinks" not in str(run).replace("drink.", "")
    run = act(client, run, kind="feel")
    assert run["felt"][0]["state"] in {"crumbly dough", "play dough", "damp sand"}
    assert "saturation" not in str(run)
    run = act(client, run, kind="add", ingredient="glycerin", value=25)
    run = act(client, run, kind="mix", value=3)
    run = act(client, run, kind="rest", value=8)
    assert act(client, {**run, "done": 0}, 409, kind="feel")["code"] == "conflict"
    run = act(client, run, kind="shape")
    assert run["ended"]
    assert any("drinks" in sentence for sentence in run["debrief"]["truth"])
    assert 0 < run["debrief"]["score"]["whole"] <= 100
    assert act(client, run, 422, kind="feel")["message"].startswith("This bowl is shaped")
    (glance,) = client.get(URL).json["items"]
    assert glance["score"] == run["debrief"]["score"]["whole"] or abs(glance["score"] - run["debrief"]["score"]["whole"]) < 0.06


def test_practice_touches_nothing_of_the_studio(client: FlaskClient) -> None:
    def studio() -> list[Any]:
        return [client.get(path).json[key] for path, key in STUDIO]

    before = studio()
    run = client.post(URL, json={"scenario": "left-out", "seed": 5}).json
    act(client, act(client, run, kind="add", ingredient="corn-starch", value=20), kind="shape")
    assert studio() == before
    assert client.get("/api/journal").json["items"] == []


def test_what_is_no_bowl_is_refused(client: FlaskClient) -> None:
    assert client.post(URL, json={"scenario": "moon"}).status_code == 422
    assert client.get(f"{URL}/99").status_code == 404
    assert client.get(f"{URL}/bowls").json["items"][0]["title"]
    cards = client.get(f"{URL}/cards?seed=3").json
    assert {card["state"] for card in cards["items"]} == set(cards["states"])


def test_a_hint_is_told_when_it_is_asked_for_and_costs_points_once(client: FlaskClient) -> None:
    def shaped(hints: int) -> dict[str, Any]:
        run = client.post(URL, json={"scenario": "thirsty-starch", "key": f"hinted-{hints}-times"}).json
        assert run["hint"] is None
        for _ in range(hints):
            before = run["minutes"]
            run = act(client, run, kind="hint")
            assert run["hint"]
            assert run["minutes"] == before, "being told takes no time"
        run = act(client, run, kind="shape")
        assert run["hint"], "at the end it is told anyway"
        return run

    plain, once, twice = (shaped(hints) for hints in (0, 1, 2))
    whole = [run["debrief"]["score"]["whole"] for run in (plain, once, twice)]
    assert whole[0] - whole[1] == pytest.approx(plain["hint_costs"], abs=0.11)
    assert whole[1] == whole[2]
    assert all(run["debrief"]["score"]["hint"] == -plain["hint_costs"] for run in (once, twice))
    assert plain["debrief"]["best"] == once["debrief"]["best"]
