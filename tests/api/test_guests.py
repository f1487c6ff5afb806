"""Over the network only paired devices come in, each by its role; the codes expire and are tried a few times only."""

from __future__ import annotations

import hashlib
import time
from typing import Any

import pytest
from flask.testing import FlaskClient

from rosy_kettle.api import guests
from rosy_kettle.api.app import create_app
from rosy_kettle.store import Studio
from rosy_kettle.store.paired_devices import list_paired_devices
from tests.api.test_api import created

FAR = {"REMOTE_ADDR": "192.168.1.77"}
HOST = {"Host": "192.168.1.5:8421"}


@pytest.fixture
def lan(studio: Studio) -> FlaskClient:
    return create_app(studio, any_address=True, lan=True).test_client()


def far(client: FlaskClient, method: str, path: str, **more: Any) -> Any:
    return client.open(path, method=method, environ_base=FAR, headers=HOST, **more)


def paired(client: FlaskClient, role: str) -> None:
    code = client.post("/api/pairing", json={"role": role}).json["code"]
    assert far(client, "POST", "/api/pairing/claims", json={"code": code, "name": "Tablet"}).status_code == 201


def test_a_stranger_gets_nothing_but_the_pairing_page(lan: FlaskClient) -> None:
    created(lan)
    for path in ("/api/formulas", "/api/health", "/api/openapi.json", "/api/studio.zip", "/api/paired-devices"):
        answer = far(lan, "GET", path)
        assert (answer.status_code, answer.json["code"]) == (401, "not_paired"), path
    for path in ("/", "/formulas/1", "/assets/x.js", "/pantry"):
        answer = far(lan, "GET", path)
        assert (answer.status_code, answer.headers["Location"]) == (302, "/pair"), path
        assert b"Limpet" not in answer.data
    assert far(lan, "POST", "/api/formulas", json={}).status_code == 401
    assert b"Pair this device" in far(lan, "GET", "/pair").data


def test_what_each_role_may(lan: FlaskClient) -> None:
    formula = created(lan)
    expected = {"look": (200, 403, 403), "bench": (200, 201, 403), "all": (200, 201, 204)}
    for role, (reads, begins, deletes) in expected.items():
        paired(lan, role)
        assert far(lan, "GET", "/api/formulas").status_code == reads
        begun = far(lan, "POST", "/api/batches", json={"formula_id": formula["id"], "wishes": [{"pieces": 2}]})
        assert begun.status_code == begins, (role, begun.text)
        assert far(lan, "DELETE", f"/api/formulas/{formula['id']}").status_code == deletes, role
        assert far(lan, "POST", "/api/pairing", json={"role": "all"}).status_code == 403
        assert far(lan, "GET", "/api/studio.zip").status_code == 403


def test_the_cookie_cannot_be_read_or_sent_from_elsewhere_and_only_its_hash_is_kept(lan: FlaskClient, studio: Studio) -> None:
    code = lan.post("/api/pairing", json={"role": "bench"}).json["code"]
    answer = far(lan, "POST", "/api/pairing/claims", json={"code": code, "name": "Tablet"})
    cookie = answer.headers["Set-Cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=Strict" in cookie
    token = cookie.split("=", 1)[1].split(";", 1)[0]
    with studio.reading() as session:
        (row,) = list_paired_devices(session)
    assert row.token_hash == hashlib.sha256(token.encode()).hexdigest()
    assert token.encode() not in studio.path.read_bytes()


def test_a_code_lets_one_device_in_and_not_for_ever(lan: FlaskClient, monkeypatch: pytest.MonkeyPatch) -> None:
    code = lan.post("/api/pairing", json={}).json["code"]
    ask = {"code": code, "name": "Tablet"}
    assert far(lan, "POST", "/api/pairing/claims", json=ask).status_code == 201
    assert far(lan, "POST", "/api/pairing/claims", json=ask).status_code == 422
    late = lan.post("/api/pairing", json={}).json["code"]
    now = time.monotonic()
    monkeypatch.setattr(guests.time, "monotonic", lambda: now + 601)
    assert far(lan, "POST", "/api/pairing/claims", json={"code": late, "name": "Tablet"}).status_code == 422


def test_codes_cannot_be_tried_out(lan: FlaskClient) -> None:
    code = lan.post("/api/pairing", json={}).json["code"]
    wrong = f"{(int(code) + 1) % 10**8:08d}"
    for _ in range(5):
        assert far(lan, "POST", "/api/pairing/claims", json={"code": wrong, "name": "X"}).status_code == 422
    for each in (wrong, code):
        assert far(lan, "POST", "/api/pairing/claims", json={"code": each, "name": "X"}).status_code == 409


def test_a_revoked_device_is_out_at_its_next_request(lan: FlaskClient) -> None:
    paired(lan, "all")
    assert far(lan, "GET", "/api/formulas").status_code == 200
    (device,) = lan.get("/api/paired-devices").json["items"]
    assert lan.delete(f"/api/paired-devices/{device['id']}").json["items"] == []
    assert far(lan, "GET", "/api/formulas").status_code == 401
    assert lan.delete("/api/paired-devices/99").status_code == 404


def test_a_proxy_on_this_machine_does_not_make_a_guest_the_host(lan: FlaskClient) -> None:
    answer = lan.get("/api/formulas", headers={"X-Forwarded-For": "192.168.1.77"})
    assert answer.status_code == 401


def test_without_lan_there_is_no_pairing(client: FlaskClient) -> None:
    assert client.post("/api/pairing", json={}).status_code == 409
    assert client.get("/api/paired-devices").json["lan"] is False


def test_asking_who_it_is_costs_less_than_a_millisecond(lan: FlaskClient, studio: Studio) -> None:
    paired(lan, "look")
    gate = guests.Guests(studio)
    gate.role_of("nobody")
    begun = time.process_time()
    for _ in range(200):
        gate.role_of("nobody")
    assert (time.process_time() - begun) / 200 < 0.001
