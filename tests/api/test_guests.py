"""Over the network only paired devices come in, each by its role; the codes expire and are tried a few times only."""

from __future__ import annotations

import hashlib
import time
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from rosy_kettle.api import guests, roles
from rosy_kettle.api.app import create_app
from rosy_kettle.api.rescue import make_rescue_app
from rosy_kettle.core.errors import ConflictError, InputError
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


@pytest.mark.parametrize(("address", "headers"), [("127.0.0.2", {}), ("127.0.0.1", {"X-Forwarded-For": "192.168.1.77"})])
def test_without_lan_nobody_else_is_let_in(client: FlaskClient, address: str, headers: dict[str, str]) -> None:
    answer = client.get("/api/formulas", environ_base={"REMOTE_ADDR": address}, headers=headers)
    assert (answer.status_code, answer.json["code"]) == (403, "own_machine")


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


def test_every_route_is_in_one_list_of_roles(lan: FlaskClient) -> None:
    """A new route is nobody's until somebody has decided whose it is."""
    listed = [roles.LOOKS, roles.BENCH_DOES, roles.ALL_DO, roles.OWN_MACHINE]
    there = {
        f"{method} {rule.rule}"
        for rule in lan.application.url_map.iter_rules() for method in (rule.methods or set()) - {"HEAD", "OPTIONS"}
    } - {"GET /pair", "GET /pair.js", "POST /api/pairing/claims"}  # fmt: skip
    assert set().union(*listed) == there
    assert sum(map(len, listed)) == len(there), "each stands in one"


def test_the_bench_changes_no_formula_through_a_trouble(lan: FlaskClient) -> None:
    paired(lan, "bench")
    assert far(lan, "POST", "/api/troubles/1/change", json={"cause": "too-dry"}).status_code == 403


def test_one_stranger_who_guesses_keeps_nobody_else_out(lan: FlaskClient) -> None:
    code = lan.post("/api/pairing", json={"role": "look"}).json["code"]
    wrong = {"code": "0" * 8 if code != "0" * 8 else "1" * 8, "name": "x"}
    for _ in range(guests.TRIES):
        assert far(lan, "POST", "/api/pairing/claims", json=wrong).status_code == 422
    assert far(lan, "POST", "/api/pairing/claims", json={"code": code, "name": "x"}).status_code == 409
    other = lan.post(
        "/api/pairing/claims", json={"code": code, "name": "Tablet"}, environ_base={"REMOTE_ADDR": "192.168.1.78"}, headers=HOST
    )
    assert other.status_code == 201


def test_all_together_guess_no_more_than_so_often(studio: Studio) -> None:
    pairing = guests.Guests(studio)
    pairing.new_code("look")
    for number in range(guests.TRIES_IN_ALL):
        with pytest.raises(InputError):
            pairing.claim("nothing", "x", f"192.168.1.{number}")
    with pytest.raises(ConflictError, match="Too many wrong codes"):
        pairing.claim("nothing", "x", "192.168.2.1")


def test_a_device_that_is_shut_out_hears_nothing_more(lan: FlaskClient) -> None:
    paired(lan, "bench")
    stream = far(lan, "GET", "/api/devices/stream", buffered=False)
    news = iter(stream.response)
    assert next(news).startswith(b"data: ")
    (device,) = lan.get("/api/paired-devices").json["items"]
    lan.delete(f"/api/paired-devices/{device['id']}")
    assert list(news) == []
    stream.close()


def test_bringing_a_backup_back_lets_nobody_in_who_was_shut_out(lan: FlaskClient) -> None:
    paired(lan, "look")
    backup = lan.post("/api/backups").json["name"]
    (device,) = lan.get("/api/paired-devices").json["items"]
    lan.delete(f"/api/paired-devices/{device['id']}")
    assert lan.post(f"/api/backups/{backup}/restore").status_code == 200
    assert far(lan, "GET", "/api/formulas").status_code == 401
    paired(lan, "look")
    assert lan.post(f"/api/backups/{backup}/restore").status_code == 200
    assert far(lan, "GET", "/api/formulas").status_code == 200, "and one that is in stays in"


@pytest.mark.parametrize("address", ["192.168.1.77", "127.0.0.2", "::ffff:127.0.0.1"])
def test_a_damaged_studio_is_brought_back_at_its_own_machine_alone(tmp_path: Path, address: str) -> None:
    client = make_rescue_app(tmp_path, f"{tmp_path} is damaged", {"127.0.0.1"}).test_client()
    for method, path in (("GET", "/"), ("POST", "/rescue/studio-daily-20261101T100000Z-1.sqlite3")):
        answer = client.open(path, method=method, environ_base={"REMOTE_ADDR": address}, headers={"Host": "127.0.0.1"})
        assert (answer.status_code, str(tmp_path) in answer.text) == (403, False)
    own = client.get("/", environ_base={"REMOTE_ADDR": "127.0.0.1"}, headers={"Host": "127.0.0.1"})
    assert str(tmp_path) in own.text


def test_behind_a_proxy_that_encrypts_the_cookie_stays_on_such(lan: FlaskClient) -> None:
    code = lan.post("/api/pairing", json={"role": "look"}).json["code"]
    sent = lan.post(
        "/api/pairing/claims", json={"code": code, "name": "x"}, environ_base=FAR, headers=HOST | {"X-Forwarded-Proto": "https"}
    )
    assert "Secure" in sent.headers["Set-Cookie"]
