"""Tests side by side over HTTP: shuffled baths, codes that stay closed, and the answer when they are opened."""

from __future__ import annotations

import random
from collections import Counter
from typing import Any

import pytest
from flask.testing import FlaskClient

from rosy_kettle.core.learning.blind_series import next_block
from tests.api.test_api import created
from tests.api.test_tub import happen

Answer = dict[str, Any]
CLAIM = {"reading": "foam_height_cm", "better": "B", "than": "A", "worth": 0.5}


def post(client: FlaskClient, path: str, body: Answer | None = None, status: int = 200) -> Answer:
    answer = client.post(f"/api/test-series{path}", json=body)
    assert answer.status_code == status, answer.text
    made: Answer = answer.json
    return made


def begun(client: FlaskClient, each: int = 3, **ask: Any) -> Answer:
    ids = [created(client)["id"], created(client)["id"]]
    body = {"name": "Half the tartar", "formula_ids": ids, "claim": CLAIM, "each": each, "dose_g": 25.0, **ask}
    return post(client, "", body, 201)


def bathe(client: FlaskClient, series: Answer, height_cm: float) -> Answer:
    test = post(client, f"/{series['id']}/tests", status=201)
    test = happen(client, test, kind="foam", minutes=5, height_cm=height_cm)
    return happen(client, test, kind="closed")


def slip(client: FlaskClient, series: Answer) -> list[str]:
    return [place["variant"] for place in post(client, f"/{series['id']}/slip")["places"]]


def made(client: FlaskClient, heights: dict[str, list[float]]) -> Answer:
    """A whole series with given heights, its codes opened."""
    series = begun(client, each=len(heights["A"]))
    left = {letter: list(values) for letter, values in heights.items()}
    for letter in slip(client, series):
        bathe(client, series, left[letter].pop(0))
    return post(client, f"/{series['id']}/open")


def test_every_round_holds_each_variant_once_and_no_code_comes_twice() -> None:
    first = next_block("ABC", 4, (), random.Random(1))
    more = next_block("ABC", 4, first, random.Random(1))
    assert all({place.variant for place in first[at : at + 3]} == set("ABC") for at in range(0, 12, 3))
    assert max(Counter(place.code for place in (*first, *more)).values()) == 1


def test_codes_stay_closed_until_the_answer_is_read(client: FlaskClient) -> None:
    series = begun(client, each=2)
    test = bathe(client, series, 4.4)
    told = client.get(f"/api/tub-tests/{test['id']}").json
    assert told["blind"] is True
    assert (told["formula_id"], told["version"], told["foretold"]["heights"]) == (None, None, [])
    assert str(series["tests"][0]["code"]) in told["name"]
    for formula in series["variants"]:
        asked = {"formula_id": formula["formula_id"]}
        assert client.get("/api/tub-tests", query_string=asked).json["items"] == []
        entries = client.get("/api/journal", query_string={**asked, "kind": "tub"}).json["items"]
        assert entries == []
    now = client.get(f"/api/test-series/{series['id']}").json
    assert {each["variant"] for each in now["tests"]} == {None}
    assert now["judgement"] is None
    assert all(each["figures"] == {} for each in now["variants"])
    opened = post(client, f"/{series['id']}/open")
    assert [each["variant"] is None for each in opened["tests"]] == [False, True, True, True]
    told = client.get(f"/api/tub-tests/{test['id']}").json
    assert told["formula_id"] in {each["formula_id"] for each in opened["variants"]}
    assert all(each["blind"] for each in opened["tests"])


def test_the_slip_read_while_baths_run_makes_the_rest_no_longer_blind(client: FlaskClient) -> None:
    series = begun(client, each=2)
    slip(client, series)
    assert all(each["blind"] for each in client.get(f"/api/test-series/{series['id']}").json["tests"])
    bathe(client, series, 4.4)
    slip(client, series)
    assert not any(each["blind"] for each in client.get(f"/api/test-series/{series['id']}").json["tests"])


def test_a_series_answers_a_true_effect_none_and_too_few(client: FlaskClient) -> None:
    yes = made(client, {"A": [4.0, 4.2, 4.1], "B": [5.4, 5.6, 5.5]})
    assert yes["judgement"]["answer"] == "yes"
    assert yes["judgement"]["difference"] == pytest.approx(1.4)
    assert yes["variants"][1]["figures"]["foam_height_cm"]["n"] == 3
    assert yes["variants"][0]["heights"] == [{"minutes": 5.0, "height_cm": pytest.approx(4.1), "n": 3}]
    no = made(client, {"A": [4.0, 4.2, 4.1], "B": [4.1, 4.1, 4.2]})
    assert no["judgement"]["answer"] == "no"
    few = made(client, {"A": [4.0], "B": [5.0]})
    assert few["judgement"]["answer"] == "cannot tell yet"
    assert few["judgement"]["more_tests"] == 1
    longer = post(client, f"/{few['id']}/places", {"each": 2})
    assert [each["variant"] is None for each in longer["tests"]] == [False] * 2 + [True] * 4


def test_what_no_series_can_answer_is_refused(client: FlaskClient) -> None:
    one = created(client)["id"]
    asks: list[tuple[Answer, str]] = [
        ({"formula_ids": [one]}, "2 to 6"), ({"formula_ids": [one, one]}, "twice"), ({"name": " "}, "name"),
        ({"claim": {**CLAIM, "better": "C"}}, "no variant"), ({"claim": {**CLAIM, "than": "B"}}, "itself"),
        ({"claim": {**CLAIM, "reading": "colour"}}, "no reading"),
    ]  # fmt: skip
    body = {"name": "x", "formula_ids": [one, created(client)["id"]], "claim": CLAIM, "each": 1, "dose_g": 25.0}
    for ask, said in asks:
        answer = client.post("/api/test-series", json={**body, **ask})
        assert answer.status_code == 422, ask
        assert said in answer.json["message"]
    series = post(client, "", {**body, "key": "the-same-key"}, 201)
    assert post(client, "", {**body, "key": "the-same-key"}, 201)["id"] == series["id"]
    assert client.post(f"/api/test-series/{series['id']}/open").status_code == 409
    post(client, f"/{series['id']}/tests", status=201)
    assert client.post(f"/api/test-series/{series['id']}/tests").status_code == 409, "one bath at a time"
    assert client.post(f"/api/test-series/{series['id']}/open").status_code == 409, "not while one is open"


def test_a_series_whose_codes_run_out_is_refused_and_stays(client: FlaskClient) -> None:
    series = begun(client, each=30)
    for _ in range(14):
        post(client, f"/{series['id']}/places", {"each": 30})
    assert "begin a new one" in post(client, f"/{series['id']}/places", {"each": 30}, 422)["message"]
    assert len(client.get(f"/api/test-series/{series['id']}").json["tests"]) == 900
