"""A real server and a real Chromium for the journeys of a maker."""

from __future__ import annotations

import os
import re
import shutil
import signal
import subprocess
import sys
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, Playwright, sync_playwright

from rosy_kettle.store import open_studio
from rosy_kettle.store.session import FILE_NAME
from rosy_kettle.usecases.seed_demo import seed_demo

ROOT = Path(__file__).parents[2]
CHROMIUM = os.environ.get("ROSY_KETTLE_CHROMIUM") or shutil.which("chromium") or "/usr/bin/chromium"
QUIET = [
    "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update",
    "--disable-sync", "--font-render-hinting=none",
]  # fmt: skip
AXE = (ROOT / "web/node_modules/axe-core/axe.min.js").read_text(encoding="utf-8")


@dataclass
class Server:
    """A served studio that can be killed and started again on the same data."""

    folder: Path
    process: subprocess.Popen[str]
    address: str
    port: int
    options: tuple[str, ...] = ()

    def kill(self) -> None:
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()
        assert self.process.stdout is not None
        self.process.stdout.close()

    def start_again(self) -> None:
        self.process, self.address, self.port = start(self.folder, self.port, *self.options)


def start(folder: Path, port: int = 0, *options: str) -> tuple[subprocess.Popen[str], str, int]:
    command = [str(Path(sys.executable).parent / "rosy-kettle"), "serve", "--seed-demo", "--port", str(port), *options]
    environment = os.environ | {"ROSY_KETTLE_DATA": str(folder)}
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=environment)
    assert process.stdout is not None
    line = process.stdout.readline()
    match = re.search(r"http://127\.0\.0\.1:(\d+)", line)
    assert match, line
    return process, match[0], int(match[1])


@pytest.fixture(scope="session")
def seeded(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo studio, put in once; every server starts on a copy of its own."""
    folder = tmp_path_factory.mktemp("seeded")
    studio = open_studio(folder)
    seed_demo(studio)
    studio.close()
    return folder / FILE_NAME


@pytest.fixture
def server(tmp_path: Path, seeded: Path) -> Iterator[Server]:
    shutil.copy(seeded, tmp_path)
    served = Server(tmp_path, *start(tmp_path))
    yield served
    served.kill()


FAST = ("--clock-rate", "120")


@pytest.fixture
def fast_server(tmp_path: Path, seeded: Path) -> Iterator[Server]:
    """A studio whose bench clock runs two hours a minute."""
    shutil.copy(seeded, tmp_path)
    served = Server(tmp_path, *start(tmp_path, 0, *FAST), FAST)
    yield served
    served.kill()


@pytest.fixture(scope="session")
def shared_server(tmp_path_factory: pytest.TempPathFactory, seeded: Path) -> Iterator[Server]:
    """One studio for tests that only look."""
    folder = tmp_path_factory.mktemp("studio")
    shutil.copy(seeded, folder)
    served = Server(folder, *start(folder))
    yield served
    served.kill()


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    playwright: Playwright
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, chromium_sandbox=False, args=QUIET)
        yield browser
        browser.close()


@pytest.fixture
def open_page(chromium: Browser) -> Iterator[Callable[..., Page]]:
    """Open pages that fail the test on console errors and on any request that leaves this machine."""
    contexts: list[BrowserContext] = []
    faults: list[str] = []

    def open_(address: str, **options: Any) -> Page:
        context = chromium.new_context(**({"viewport": {"width": 1280, "height": 800}, "locale": "en-GB"} | options))
        contexts.append(context)
        page = context.new_page()
        page.on("pageerror", lambda error: faults.append(f"page error: {error}"))
        page.on("console", lambda message: note_console(message.type, message.text))
        page.on("request", lambda request: note_request(request.url))
        page.goto(address)
        return page

    def note_console(kind: str, text: str) -> None:
        # A killed server is part of the journeys; the browser logs the refused connection itself.
        if kind in {"error", "warning"} and "net::ERR_" not in text and "status of 4" not in text:
            faults.append(f"console {kind}: {text}")

    def note_request(url: str) -> None:
        if not url.startswith(("http://127.0.0.1:", "data:", "blob:")):
            faults.append(f"request left the machine: {url}")

    yield open_
    for context in contexts:
        context.close()
    assert faults == []


def axe_violations(page: Page) -> list[str]:
    """What axe finds wrong with the page, one sentence each."""
    page.evaluate(AXE)
    result = page.evaluate("axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']})")
    return [
        f"{v['id']}: {node['html'][:160]} {node['failureSummary'][:200]}" for v in result["violations"] for node in v["nodes"]
    ]
