"""A hostile page in the maker's own browser, and a foreign name bound to this machine.

OWASP ASVS 4.0.3: 13.2.3 (cross-site requests that change state) and 14.5.3 (Origin); DNS rebinding as in the OWASP testing
guide. The browser is told to find the foreign name here, as a hostile name server would.
"""

from __future__ import annotations

import http.server
import json
import threading
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Browser

from tests.serving import Server

EVIL = "evil.example"
ATTACK = """
async (target) => {
  const formula = JSON.stringify({format: 'rosy-kettle/formula', version: 1, name: 'planted', portions: []});
  const tries = [];
  for (const [method, path, kind] of [
    ['POST', '/api/formulas', 'text/plain'], ['POST', '/api/formulas', 'application/json'], ['PUT', '/api/formulas/1', 'text/plain'],
    ['DELETE', '/api/formulas/1', 'text/plain'], ['POST', '/api/devices/scale/zero', 'text/plain'],
    ['POST', '/api/formulas/1/restore', 'application/x-www-form-urlencoded'], ['GET', '/api/formulas', 'text/plain'],
  ]) for (const mode of ['no-cors', 'cors']) {
    try {
      const answer = await fetch(target + path, {method, mode, headers: {'Content-Type': kind}, body: method === 'GET' ? undefined : formula});
      tries.push([method, path, answer.type, (await answer.text()).length]);
    } catch (error) { tries.push([method, path, 'failed', 0]); }
  }
  const frame = document.createElement('iframe');
  frame.name = 'hole'; document.body.append(frame);
  const form = document.createElement('form');
  form.method = 'post'; form.enctype = 'text/plain'; form.target = 'hole'; form.action = target + '/api/formulas';
  const field = document.createElement('input');
  field.name = formula.slice(0, -1) + ',"x":"'; field.value = '"}'; form.append(field);
  document.body.append(form); form.submit();
  await new Promise((done) => setTimeout(done, 800));
  return tries;
}
"""


class _Page(http.server.BaseHTTPRequestHandler):
    def do_GET(self) -> None:
        self.send_response(200)
        self.send_header("Content-Type", "text/html")
        self.end_headers()
        self.wfile.write(b"<!doctype html><title>bait</title><body>")

    def log_message(self, *_args: object) -> None:
        pass


@pytest.fixture
def bait() -> Iterator[int]:
    site = http.server.ThreadingHTTPServer(("127.0.0.1", 0), _Page)
    thread = threading.Thread(target=site.serve_forever)
    thread.start()
    yield site.server_address[1]
    site.shutdown()
    site.server_close()
    thread.join()


@pytest.fixture(scope="module")
def misled(launch: Callable[..., Browser]) -> Browser:
    return launch(f"--host-resolver-rules=MAP {EVIL} 127.0.0.1")


def state_of(server: Server) -> str:
    for _ in range(100):  # figures that are still worked out would differ by themselves
        if server.ask("GET", "/api/formulas")[1]["waiting"] == 0:
            break
    return json.dumps([server.ask("GET", path)[1] for path in ("/api/formulas", "/api/batches", "/api/profiles")])


def test_a_hostile_page_reads_nothing_and_changes_nothing(server: Server, misled: Browser, bait: int) -> None:
    before = state_of(server)
    for host in (EVIL, "localhost", "127.0.0.1"):  # another site, and another port of this one
        page = misled.new_page()
        page.goto(f"http://{host}:{bait}/")
        tries = page.evaluate(ATTACK, server.address)
        assert len(tries) == 14
        assert all(length == 0 for _method, _path, _kind, length in tries), tries
        page.close()
    assert state_of(server) == before


def test_a_foreign_name_bound_to_this_machine_gets_nothing(server: Server, misled: Browser) -> None:
    before = state_of(server)
    page = misled.new_page()
    answer = page.goto(f"http://{EVIL}:{server.port}/")
    assert answer is not None
    assert answer.status == 421
    assert "address it printed" in page.content()
    tries = page.evaluate(ATTACK, f"http://{EVIL}:{server.port}")
    assert all(length < 300 for _method, _path, _kind, length in tries), tries
    assert state_of(server) == before
    page.close()
