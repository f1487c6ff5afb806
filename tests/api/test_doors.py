"""Doors, limits and odd input, by a plain client: OWASP ASVS 4.0.3 items 5.1.4, 12.1.1, 13.2.3, 14.4.3, 14.5.3."""

from __future__ import annotations

import io
import json
import random
import struct
import zlib

import pytest
from flask.testing import FlaskClient
from PIL import Image

from rosy_kettle.api.doors import host_of
from tests.api.test_batches import begun

FORMULA = {"format": "rosy-kettle/formula", "version": 1, "name": "door", "portions": []}


@pytest.mark.parametrize("host", ["evil.example", "evil.example:8421", "localhost.evil.example", "", "[::2]:80", "192.168.1.9"])
def test_a_foreign_name_reads_nothing(client: FlaskClient, host: str) -> None:
    for path in ("/", "/api/formulas", "/api/health", "//evil.example/x"):
        answer = client.get(path, headers={"Host": host})
        assert answer.status_code == 421, path
        assert len(answer.data) < 300
        assert "Location" not in answer.headers


@pytest.mark.parametrize("host", ["localhost", "127.0.0.1:8421", "LOCALHOST:1", "[::1]:8421"])
def test_our_own_names_are_answered(client: FlaskClient, host: str) -> None:
    assert client.get("/api/health", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "http://evil.example"}, {"Origin": "null"}, {"Sec-Fetch-Site": "cross-site"}, {"Sec-Fetch-Site": "same-site"},
        {"Origin": "http://localhost:9999"}, {"Origin": "file://"}, {"Origin": "http://[bad"},
    ],
)  # fmt: skip
def test_a_foreign_page_changes_nothing(client: FlaskClient, headers: dict[str, str]) -> None:
    before = len(client.get("/api/formulas").json["formulas"])
    for method, path in (
        ("POST", "/api/formulas"),
        ("POST", "/api/devices/scale/zero"),
        ("PUT", "/api/formulas/1"),
        ("DELETE", "/api/formulas/1"),
    ):
        assert client.open(path, method=method, json=FORMULA, headers=headers).status_code == 403, path
    assert len(client.get("/api/formulas").json["formulas"]) == before


def test_our_own_page_may(client: FlaskClient) -> None:
    for headers in ({}, {"Origin": "http://localhost", "Sec-Fetch-Site": "same-origin"}, {"Sec-Fetch-Site": "none"}):
        assert client.post("/api/evaluations", json=FORMULA, headers=headers).status_code == 200


def test_every_page_has_a_nonce_of_its_own_and_no_inline_style(client: FlaskClient) -> None:
    policies = [client.get("/").headers["Content-Security-Policy"] for _ in range(2)]
    assert policies[0] != policies[1]
    assert all("unsafe-inline" not in policy and "'nonce-" in policy for policy in policies)


def test_many_digits_far_dates_and_large_numbers_are_refused_in_words(client: FlaskClient) -> None:
    cases = [
        client.post(
            "/api/evaluations", data=json.dumps(FORMULA).replace("1,", "9" * 5000 + ",", 1), content_type="application/json"
        ),
        client.get(f"/api/batches/{2**63}"),
        client.get(f"/api/batches/{10**30}/record.json"),
        client.post("/api/evaluations", json={"name": "no format"}),
        client.post(
            "/api/evaluations", json={**FORMULA, "portions": [{"name": "b", "lines": [{"ingredient": "kaolin"}] * 2001}]}
        ),
        client.post("/api/formulas", json={**FORMULA, "portions": [{"name": "b"}] * 101}),
        client.post("/api/formulas", json={**FORMULA, "name": "a\u0000b"}),
        client.post("/api/formulas", json={**FORMULA, "name": "  "}),
    ]
    for at, answer in enumerate(cases):
        assert answer.status_code == 422, (at, answer.data[:200])
        assert answer.json["message"].endswith((".", "…"))


def test_a_batch_asked_for_twice_with_one_key_is_begun_once(client: FlaskClient) -> None:
    batch = begun(client)
    ask = {"formula_id": batch["formula_id"], "wishes": [{"pieces": 5}], "key": "asked-once-1234"}
    first, second = client.post("/api/batches", json=ask), client.post("/api/batches", json=ask)
    assert first.status_code == second.status_code == 201, first.data
    assert first.json["id"] == second.json["id"] != batch["id"]


def bomb(width: int, height: int) -> bytes:
    """A PNG that claims many pixels in few bytes (PNG specification, RFC 2083: IHDR and an empty IDAT)."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0" * 1000)) + chunk(b"IEND", b"")


def send(client: FlaskClient, batch: dict[str, object], data: bytes, after: int) -> int:
    return client.post(
        f"/api/batches/{batch['id']}/photos?after={after}", data={"photo": (io.BytesIO(data), "x.png")}
    ).status_code


def test_bombs_and_strangers_are_no_photos_and_leave_nothing_behind(client: FlaskClient) -> None:
    batch = begun(client)
    buffer = io.BytesIO()
    Image.new("RGB", (40, 30), "red").save(buffer, "GIF")
    noise = random.Random(1).randbytes(5000)
    for data in (bomb(15000, 10000), bomb(2**31 - 1, 2), buffer.getvalue(), noise, b""):
        assert send(client, batch, data, 0) == 422
    buffer = io.BytesIO()
    Image.new("RGB", (40, 30), "red").save(buffer, "JPEG", comment=b"a secret")
    assert send(client, batch, buffer.getvalue(), 7) == 409, "the batch has moved on"
    assert (
        client.post("/api/batches/99999/photos?after=0", data={"photo": (io.BytesIO(buffer.getvalue()), "x.jpg")}).status_code
        == 404
    )
    folder = client.application.extensions["studio"].path.parent / "photos"
    assert not folder.exists() or not list(folder.iterdir())
    assert send(client, batch, buffer.getvalue(), 0) == 201
    kept = list(folder.iterdir())
    assert len(kept) == 1
    assert b"a secret" not in kept[0].read_bytes()
    other = begun(client)
    with client.get(f"/api/batches/{batch['id']}/photos/{kept[0].name}") as mine:
        assert mine.status_code == 200
    assert client.get(f"/api/batches/{other['id']}/photos/{kept[0].name}").status_code == 404


@pytest.mark.parametrize("host", [
    "[::1].evil", "evil@127.0.0.1", "127.0.0.1/evil", "127.0.0.1:99999", "127.0.0.1:0", "127.0.0.1:", "127.0.0.1?x", "127.0.0.1#x",
    "127.0.0.1 evil", "[::1", "::1", "[::1]evil", "127.0.0.1\\evil", "", "127.0.0.1:8421:1", "[127.0.0.1]", "[::1%lo]", ".127.0.0.1",
])  # fmt: skip
def test_a_host_is_read_by_its_grammar(client: FlaskClient, host: str) -> None:
    """RFC 3986, 3.2.2: a name, an address, or an IPv6 address in brackets, and a port that there is."""
    assert host_of(host) not in {"127.0.0.1", "localhost", "::1"}
    assert client.get("/api/health", headers={"Host": host}).status_code == 421


@pytest.mark.parametrize(("header", "host"), [
    ("127.0.0.1:8421", "127.0.0.1"), ("LocalHost", "localhost"), ("[::1]:65535", "::1"), ("studio.lan", "studio.lan"),
])  # fmt: skip
def test_names_are_taken_as_they_are_written(header: str, host: str) -> None:
    assert host_of(header) == host


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
def test_a_foreign_page_embeds_and_fetches_nothing(client: FlaskClient, site: str) -> None:
    for path in ("/api/stock.csv", "/api/calendar.ics", "/api/studio.zip", "/api/formulas"):
        answer = client.get(path, headers={"Sec-Fetch-Site": site})
        assert (answer.status_code, answer.json["code"]) == (403, "foreign_page")
    assert client.get("/", headers={"Sec-Fetch-Site": site}).status_code in {200, 503}, "a link from elsewhere opens the page"
