"""An empty studio, no scale, no thermometer, nothing but a keypad: from the first page to a closed batch, and every figure typed."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.pages import DeskPage, RecipePage
from tests.serving import Server

RECIPE = "Harbour bars\n\n300 g baking soda\n100 g SLSA powder\n60 g corn starch\n90 g betaine\n20 g glycerin\n"
SAID_BY_NOBODY = {"predicted", "ends_at", "at", "minutes"}
"""What the studio adds by itself: the Desk's word, a clock's end."""


def figures_of(data: Any) -> set[float]:
    """Every number in what an event tells."""
    if isinstance(data, dict):
        return {each for name, value in data.items() if name not in SAID_BY_NOBODY for each in figures_of(value)}
    return {float(data)} if isinstance(data, int | float) and not isinstance(data, bool) else set()


def test_no_figure_stands_in_the_record_that_was_not_typed(empty_server: Server, open_page: Callable[..., Page]) -> None:
    page, typed = open_page(empty_server.address), set[float]()
    page.goto(f"{empty_server.address}/recipes/new")
    recipe = RecipePage(page)
    recipe.paste(RECIPE)
    recipe.take.click()
    expect(DeskPage(page).saved).to_be_visible()
    page.get_by_role("link", name="Plan a batch").click()
    page.get_by_label("Number of pieces", exact=True).fill("6")
    page.get_by_role("button", name="Take it to the bench").click()
    title = page.get_by_role("heading", level=1)
    expect(title).to_have_text("Read the air")
    expect(page.get_by_role("region", name="Stand-in devices")).to_have_count(0)
    expect(page.get_by_text("–", exact=True).or_(page.get_by_text(re.compile("^– % RH")))).to_be_visible()
    page.get_by_label("Humidity in per cent").fill("61")
    page.get_by_role("button", name="Take it").click()
    page.get_by_label("Room in degrees Celsius").fill("18")
    typed |= {61.0, 18.0}
    page.get_by_role("button", name="That is the air").click()
    batch = int(page.url.rsplit("/", 1)[1])
    step = next_in_hand(page, empty_server, batch, "conditions")
    while step is not None:
        expect(title).to_have_text(step["title"])
        typed |= do(page, step, empty_server, batch)
        expect(page.locator("main")).not_to_have_attribute("data-step", step["key"])
        step = next_in_hand(page, empty_server, batch, step["key"])
    page.get_by_role("button", name="To the record").click()
    page.get_by_role("button", name="Close the record…").click()
    page.get_by_role("button", name="Close it for good").click()
    expect(page.get_by_text("it stays as it is")).to_be_visible()
    told = empty_server.ask("GET", f"/api/batches/{batch}")[1]
    written = {figure for event in told["events"] for figure in figures_of(event["data"])}
    assert written <= typed, written - typed
    assert {event["data"].get("source", "hand") for event in told["events"]} == {"hand"}
    assert empty_server.ask("GET", "/api/air")[1]["items"] == []
    assert told["state"]["conditions"] == {
        "step": "conditions",
        "room_c": 18.0,
        "humidity_pct": 61.0,
        "tap": "",
        "source": "hand",
    }


def next_in_hand(page: Page, server: Server, batch: int, done: str) -> dict[str, Any] | None:
    """Return the step after one that was done; the page is ahead of the studio by an answer."""
    for _ in range(200):
        if (step := in_hand(server, batch)) is None or step["key"] != done:
            return step
        page.wait_for_timeout(50)
    raise AssertionError(f"the studio never heard that {done} was done")


def in_hand(server: Server, batch: int) -> dict[str, Any] | None:
    state = server.ask("GET", f"/api/batches/{batch}")[1]["state"]
    return None if state["current"] is None else state["steps"][state["current"]]


def do(page: Page, step: dict[str, Any], server: Server, batch: int) -> set[float]:
    """Do a step by typing; return the figures that were typed or counted."""
    if step["kind"] == "weigh":
        grams = round(step["target_g"] * 1.01, 1)
        page.get_by_label("Weighed, in grams").fill(f"{grams}")
        page.get_by_role("button", name="Keep it").click()
        return {grams}
    if step["kind"] == "temperature":
        page.get_by_label("Temperature in degrees Celsius").fill("31")
        page.get_by_role("button", name="Take it").click()
        page.get_by_role("button", name=re.compile("^Go on")).click()
        return {31.0}
    if step["kind"] == "rest":
        page.get_by_role("button", name="Start").click()
        page.get_by_role("button", name="Go on", exact=True).click()
        return set()
    if step["kind"] == "feel":
        now = server.ask("GET", f"/api/batches/{batch}")[1]["now"]["dough"]["wanted"]["states"][0]
        page.get_by_role("button", name=now).click()
        page.get_by_role("button", name="As meant: go on").click()
        return set()
    if step["kind"] == "shape":
        page.get_by_role("button", name="+ 6").click()
        expect(page.get_by_text(re.compile("^6 of"))).to_be_visible()
        page.get_by_label("Weight of a piece in grams").fill(f"{step['piece_mass_g']:.1f}")
        page.get_by_role("button", name="A piece", exact=True).click()
        expect(page.get_by_text("1 weighed")).to_be_visible()
        page.get_by_role("button", name=re.compile("All shaped|That is all there is")).click()
        return {6.0, round(step["piece_mass_g"], 1)}
    page.get_by_role("button", name="Done").click()
    return set()
