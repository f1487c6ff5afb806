"""Tests in the tub over HTTP: events, what was foretold, amendments, and their place in the journal."""

from __future__ import annotations

import io
from typing import Any
from uuid import uuid4

import pytest
from flask.testing import FlaskClient
from PIL import Image
from sqlalchemy import text
from sqlalchemy.exc import IntegrityError

from rosy_kettle.store import Studio
from tests.api.test_api import created

Answer = dict[str, Any]


def begun(client: FlaskClient, **ask: Any) -> Answer:
    answer = client.post("/api/tub-tests", json={"dose_g": 24.5, **ask})
    assert answer.status_code == 201, answer.text
    test: Answer = answer.json
    return test


def happen(client: FlaskClient, test: Answer, status: int = 201, **event: Any) -> Answer:
    answer = client.post(f"/api/tub-tests/{test['id']}/events", json={"after": test["state"]["seq"], "event": event})
    assert answer.status_code == status, answer.text
    after: Answer = answer.json
    return after


def test_a_test_holds_what_was_foretold_beside_what_was_seen(client: FlaskClient) -> None:
    formula = created(client)
    test = begun(client, formula_id=formula["id"])
    said = {point["minutes"]: point["height_cm"] for point in test["foretold"]["heights"]}
    assert said[8.0] == max(said.values())
    assert said[1.0] == pytest.approx(said[8.0] / 8)
    test = happen(client, test, kind="opened")
    for minutes, height_cm in ((5, 4.4), (1, 1.2), (20, 2.1)):
        test = happen(client, test, kind="foam", minutes=minutes, height_cm=height_cm)
    assert [each["minutes"] for each in test["state"]["heights"]] == [1.0, 5.0, 20.0]
    test = happen(client, test, kind="amended", of=test["state"]["heights"][0]["seq"], height_cm=1.4)
    test = happen(client, test, kind="seen", floats="sinks, then rises", ring="thin, wiped off")
    test = happen(client, test, kind="left", mass_g=49.0)
    test = happen(client, test, kind="closed")
    assert test["state"]["heights"][0]["height_cm"] == 1.4
    assert test["state"]["left_g"] == 49.0
    assert test["baths"] == pytest.approx(3.0), "24.5 g of 73.5 g: two more baths of the same dose are left"
    changed = client.get(f"/api/formulas/{formula['id']}").json
    changed["formula"]["portions"][0]["lines"][0]["amount"] = "500"
    client.put(f"/api/formulas/{formula['id']}", json={"revision": changed["revision"], "formula": changed["formula"]})
    after = client.get(f"/api/tub-tests/{test['id']}").json
    assert after["foretold"] == test["foretold"], "what was said then stays as it was said"
    told = client.get("/api/journal", query_string={"kind": "tub", "limit": 200}).json["items"]
    assert len(told) == 9
    assert {entry["test_id"] for entry in told} == {test["id"]}
    assert any("4.4 cm after 5 min" in entry["text"] for entry in told)


def test_what_cannot_be_meant_is_refused_and_nothing_is_lost(client: FlaskClient, studio: Studio) -> None:
    test = begun(client, name="A piece from the fair")
    assert test["foretold"]["heights"] == []
    happen(client, test, 422, kind="closed")
    happen(client, test, 422, kind="seen")
    happen(client, test, 422, kind="amended", of=7, height_cm=2)
    happen(client, test, 422, kind="left", mass_g=2000)
    happen(client, test, 422, kind="foam", minutes=5, height_cm=-1)
    test = happen(client, test, kind="opened")
    happen(client, test, 422, kind="opened")
    stale = {"after": 0, "event": {"kind": "note", "text": "late"}}
    assert client.post(f"/api/tub-tests/{test['id']}/events", json=stale).status_code == 409
    test = happen(client, test, kind="seen", scent="gone at once")
    test = happen(client, test, kind="closed")
    happen(client, test, 409, kind="foam", minutes=5, height_cm=1)
    assert happen(client, test, kind="note", text="as good as new")["state"]["notes"] == ["as good as new"]
    for body in ({"dose_g": 0}, {"dose_g": 5}, {"dose_g": 5, "name": "x", "hardness": "sea"}, {"dose_g": 5, "formula_id": 99}):
        assert client.post("/api/tub-tests", json=body).status_code in {404, 422}, body
    with pytest.raises(IntegrityError, match="never changed"), studio.writing() as session:
        session.execute(text("UPDATE tub_test_events SET kind = 'note'"))


def test_asked_twice_it_is_begun_once_and_lists_come_in_pages(client: FlaskClient) -> None:
    formula = created(client)
    first, again = (begun(client, formula_id=formula["id"], key="same-key-1")["id"] for _ in range(2))
    assert first == again
    for number in range(4):
        begun(client, name=f"stranger {number}")
    page = client.get("/api/tub-tests?limit=3").json
    assert [each["name"] for each in page["items"]] == ["stranger 3", "stranger 2", "stranger 1"]
    rest = client.get(f"/api/tub-tests?limit=3&cursor={page['next']}").json
    assert (len(rest["items"]), rest["next"]) == (2, None)
    assert [each["id"] for each in client.get(f"/api/tub-tests?formula_id={formula['id']}").json["items"]] == [first]
    batch = client.post("/api/batches", json={"formula_id": formula["id"], "wishes": [{"pieces": 4}]}).json
    assert begun(client, batch_id=batch["id"])["version"] == batch["version"]


def test_a_photo_stays_with_its_test_alone(client: FlaskClient) -> None:
    test, other = (begun(client, name=name) for name in ("melt", "bar"))
    picture = io.BytesIO()
    Image.new("RGB", (60, 40), "teal").save(picture, "PNG")

    def send(after: int | str, data: bytes = picture.getvalue()) -> Any:
        address = f"/api/tub-tests/{test['id']}/photos?after={after}"
        return client.post(address, data={"photo": (io.BytesIO(data), "ring.png")})

    kept = send(test["state"]["seq"])
    assert kept.status_code == 201
    (name,) = kept.json["state"]["photos"]
    with client.get(f"/api/tub-tests/{test['id']}/photos/{name}") as shown:
        assert Image.open(io.BytesIO(shown.data)).size == (60, 40)
    assert client.get(f"/api/tub-tests/{other['id']}/photos/{name}").status_code == 404
    assert send(kept.json["state"]["seq"], b"soda, acid").status_code == 422
    folder = client.application.extensions["studio"].path.parent / "photos"
    assert [each.name for each in folder.iterdir()] == [name]
    assert send(test["state"]["seq"]).status_code == 409, "without a name of its own it could be a repeat"
    named = f"{test['state']['seq']}&id={uuid4()}"
    assert [send(named).status_code for _ in range(2)] == [201, 200], "it stands by itself, and a repeat is known by its name"
    assert "photo" in {each["kind"] for each in client.get("/api/journal?kind=photo").json["items"]}
