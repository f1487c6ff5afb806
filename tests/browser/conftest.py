"""A real Chromium for the journeys of a maker."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright
from scripts.prepare import find_chromium

ROOT = Path(__file__).parents[2]
expect.set_options(timeout=30_000)  # a slow machine is no fault; what is wrong stays wrong
CHROMIUM = find_chromium()
QUIET = [
    "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update",
    "--disable-sync", "--font-render-hinting=none",
]  # fmt: skip
AXE = (ROOT / "web/node_modules/axe-core/axe.min.js").read_text(encoding="utf-8")


@pytest.fixture(scope="session")
def launch() -> Iterator[Callable[..., Browser]]:
    """Start headless Chromiums, each with further command-line arguments."""
    with sync_playwright() as playwright:
        browsers: list[Browser] = []

        def launch_(*arguments: str) -> Browser:
            options = [*QUIET, *arguments]
            browsers.append(playwright.chromium.launch(executable_path=CHROMIUM, chromium_sandbox=False, args=options))
            return browsers[-1]

        yield launch_
        for browser in browsers:
            browser.close()


@pytest.fixture(scope="session")
def chromium(launch: Callable[..., Browser]) -> Browser:
    return launch()


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


def axe_violations(page: Page, only: Sequence[str] = ("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa")) -> list[str]:
    """What axe finds wrong with the page, one sentence each; by these tags or rules."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    result = page.evaluate("(only) => axe.run(document, {runOnly: only, resultTypes: ['violations']})", list(only))
    return [
        f"{v['id']}: {node['html'][:160]} {node['failureSummary'][:200]}" for v in result["violations"] for node in v["nodes"]
    ]
