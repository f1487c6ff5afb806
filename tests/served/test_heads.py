"""Heads that cannot be read are answered in words of HTTP and break nothing (RFC 9112, 2.2 and 3; OWASP ASVS 4.0.3: 13.1.1)."""

from __future__ import annotations

import json
import socket
import urllib.request

import pytest

from tests.serving import Server

HEADS = {
    "no request at all": b"\x16\x03\x01\x02\x00\x01\x00\x01\xfc\x03\x03\r\n\r\n",
    "a head without a path": b"GET\r\n\r\n",
    "a header without a colon": b"GET /api/health HTTP/1.1\r\nHost 127.0.0.1\r\n\r\n",
    "a space before the colon": b"GET /api/health HTTP/1.1\r\nHost : 127.0.0.1\r\n\r\n",
    "a length that is no number": b"POST /api/formulas HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: many\r\n\r\n",
    "two lengths": b"POST /api/formulas HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 3\r\nContent-Length: 5\r\n\r\nabc",
    "a coding nobody knows": b"POST /api/formulas HTTP/1.1\r\nHost: 127.0.0.1\r\nTransfer-Encoding: moon\r\n\r\n",
    "a bare line feed in a header": b"GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Odd: a\x00b\nc\r\n\r\n",
}


def answered(server: Server, head: bytes) -> bytes:
    """What comes back until the server has nothing more to say."""
    with socket.create_connection(("127.0.0.1", server.port), timeout=20) as asker:
        asker.sendall(head)
        found = b""
        while part := asker.recv(65_536):
            found += part
        return found


@pytest.mark.parametrize("head", HEADS.values(), ids=HEADS.keys())
def test_a_head_that_cannot_be_read_is_answered(shared_server: Server, head: bytes) -> None:
    found = answered(shared_server, head)
    assert found.startswith(b"HTTP/1."), found[:80]
    status = int(found.split(b" ", 2)[1])
    assert status in {400, 404, 405, 421, 501}, status
    assert b"Traceback" not in found


def test_other_requests_are_answered_meanwhile(shared_server: Server) -> None:
    for head in HEADS.values():
        answered(shared_server, head)
        with urllib.request.urlopen(f"{shared_server.address}/api/health", timeout=20) as health:
            assert json.load(health)["status"] == "ok"
