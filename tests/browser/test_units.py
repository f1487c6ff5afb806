"""Ounces, degrees Fahrenheit, euros and decimal commas on every page at once, and back, nothing rounded on the way."""

from __future__ import annotations

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]
METRIC = re.compile(r"\d ?(?:g|°C)(?![\w/])")
POINTED = re.compile(r"(?<![\w.,-])\d+\.\d+(?![\w.-])")
WITHOUT_CHOICES = """main => {
  main.querySelectorAll("option, svg").forEach((each) => each.remove());
  return main.innerText;
}"""
PAGES = (
    "/formulas/10",
    "/plan/10",
    "/rack",
    "/batches/47",
    "/formulas/10/money",
    "/pantry/lots",
    "/tub",
    "/week",
    "/formulas/10/curves",
)


def choose(page: Page, server: Server, mass: str, warmth: str, sign: str) -> None:
    page.goto(f"{server.address}/settings")
    page.get_by_label("Mass").select_option(mass)
    page.get_by_label("Temperature").select_option(warmth)
    page.get_by_label("Decimal sign").select_option(sign)
    page.get_by_role("button", name="Keep the settings").click()
    expect(page.get_by_text("Kept.", exact=True)).to_be_visible()


def test_everything_follows_and_comes_back(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/formulas/10")
    mass = page.locator("[data-reading='mass_g']")
    expect(mass).not_to_have_text("–")
    before = page.request.get(f"{server.address}/api/formulas/10").json()["formula"]
    shown = mass.inner_text()
    page.goto(f"{server.address}/settings")
    page.get_by_label("Currency").fill("EUR")
    page.get_by_role("button", name="Another rate").click()
    page.get_by_label("Rate 1", exact=True).fill("0,92")
    choose_here(page, "oz", "°F", ",")
    for path in PAGES:
        page.goto(f"{server.address}{path}")
        page.wait_for_load_state("networkidle")
        text = str(page.locator("main").evaluate(WITHOUT_CHOICES))  # tools are called by their own sizes
        assert not METRIC.search(text.replace("Firmness at 20 °C", "")), (path, METRIC.findall(text), text[:300])
        assert not [each for each in POINTED.findall(text) if not each.startswith("20")], (path, POINTED.findall(text))
    page.goto(f"{server.address}/formulas/10")
    expect(page.get_by_text("EUR a batch")).to_be_visible()
    room = page.get_by_label("Room temperature in degrees Celsius")
    expect(room).to_have_value("64,4")
    room.fill("68")
    expect(page.get_by_text("Saved.")).to_be_visible()
    assert page.request.get(f"{server.address}/api/formulas/10").json()["formula"]["room"]["temperature_c"] == 20.0
    room.fill("64,4")
    expect(page.get_by_text("Saved.")).to_be_visible()
    choose(page, server, "g", "°C", ".")
    page.goto(f"{server.address}/formulas/10")
    expect(mass).to_have_text(shown)
    after = page.request.get(f"{server.address}/api/formulas/10").json()["formula"]
    assert after["room"]["temperature_c"] == pytest.approx(before["room"]["temperature_c"], abs=1e-12)
    assert after["portions"] == before["portions"]


def choose_here(page: Page, mass: str, warmth: str, sign: str) -> None:
    page.get_by_label("Mass").select_option(mass)
    page.get_by_label("Temperature").select_option(warmth)
    page.get_by_label("Decimal sign").select_option(sign)
    page.get_by_role("button", name="Keep the settings").click()
    expect(page.get_by_text("Kept.", exact=True)).to_be_visible()
