"""Practice over HTTP: nothing of the truth before the end, nothing of the studio touched."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

from rosy_kettle.reference import load_practice
from tests.api.test_api import created

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
    bench = run.pop("bench")
    assert "drinks" not in str(run).replace("drink.", "")
    believed = client.post("/api/evaluations", json=bench["planned"]).json
    assert bench["now"]["dough"] == believed["dough"], "the bench knows no more than the recipe"
    run = act(client, run, kind="feel")
    run.pop("bench")
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


def happen(client: FlaskClient, run: dict[str, Any], status: int = 201, **event: Any) -> dict[str, Any]:
    answer = client.post(f"{URL}/{run['id']}/events", json={"after": run["done"], "event": event})
    assert answer.status_code == status, answer.text
    told: dict[str, Any] = answer.json
    return told


def in_hand(run: dict[str, Any]) -> dict[str, Any]:
    state = run["bench"]["state"]
    step: dict[str, Any] = state["steps"][state["current"]]
    return step


@pytest.mark.parametrize("bowl", list(load_practice()))
def test_every_bowl_is_worked_at_the_bench(client: FlaskClient, bowl: str) -> None:
    """From the feel to the last piece by the bench's own events; what the learner thought stands beside what it was."""
    run = client.post(URL, json={"scenario": bowl}).json
    feel = in_hand(run)
    assert (feel["kind"], run["bench"]["state"]["status"][0]) == ("feel", "done")
    assert happen(client, run, 422, kind="felt", state="damp sand")["message"].startswith("Squeeze a handful first")
    run = act(client, run, kind="feel")
    assert "no feel of a dough" in act(client, run, 422, kind="called", word="moon cheese")["message"]
    assert "no feel of a dough" in happen(client, run, 422, kind="felt", state="moon cheese")["message"]
    run = happen(client, run, kind="felt", state="damp sand")
    assert run["bench"]["feel"]["felt"] == "damp sand"
    mend = next(each for each in run["bench"]["feel"]["mends"] if each["kind"] == "add")
    run = happen(client, run, kind="corrected", ingredient=mend["ingredient"], mass_g=mend["mass_g"], why="felt damp sand")
    assert run["added"][0]["mass_g"] == pytest.approx(mend["mass_g"])
    assert happen(client, run, 422, kind="felt", state="play dough")["message"].startswith("Squeeze a handful first")
    before = run["minutes"]
    run = happen(client, act(client, run, kind="mix", value=1), kind="timer", step=feel["key"], minutes=5)
    assert run["minutes"] == pytest.approx(before + 6)
    first = run["bench"]["state"]["steps"][0]["key"]
    assert happen(client, run, 422, kind="back", step=first)["message"].endswith("no way back before that.")
    assert happen(client, run, 409, kind="done", step=first)["code"] == "conflict"
    while in_hand(run)["kind"] != "shape":
        run = happen(client, run, kind="done", step=in_hand(run)["key"])
    run = happen(client, run, kind="pieces", count=3)
    run = happen(client, happen(client, run, kind="pieces", count=-1), kind="sampled", mass_g=80.5)
    assert (run["bench"]["state"]["pieces_done"], run["bench"]["state"]["samples_g"]) == (2, [80.5])
    run = happen(client, run, kind="done", step=in_hand(run)["key"])
    assert run["ended"]
    (called,) = run["debrief"]["called"]
    assert (called["called"], called["minutes"]) == ("damp sand", run["felt"][0]["minutes"])
    assert happen(client, run, 409, kind="pieces", count=1)["code"] == "conflict"


def test_a_batch_too_is_not_felt_as_what_no_page_could_show(client: FlaskClient) -> None:
    formula = created(client)
    batch = client.post("/api/batches", json={"formula_id": formula["id"], "wishes": [{"pieces": 5}]}).json
    event = {"kind": "felt", "state": "moon cheese"}
    answer = client.post(f"/api/batches/{batch['id']}/events", json={"after": 0, "event": event})
    assert (answer.status_code, "no feel of a dough" in answer.json["message"]) == (422, True)
    assert client.get(f"/api/batches/{batch['id']}").json["state"]["felt"] == []


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
