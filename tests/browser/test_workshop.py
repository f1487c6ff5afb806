"""The workshop's page: its own tool shapes pieces at the Plan, its tub is offered at the tub, its air is a new formula's."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import datetime
from typing import Any

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]


def said(page: Page, server: Server) -> dict[str, Any]:
    found: dict[str, Any] = page.request.get(f"{server.address}/api/settings").json()["settings"]
    return found


@contextmanager
def keeping(page: Page) -> Iterator[None]:
    """What is done within is on disk when this ends."""
    with page.expect_response(lambda answer: answer.url.endswith("/api/settings") and answer.request.method == "PUT") as told:
        yield
    assert told.value.ok


def kept(page: Page) -> None:
    expect(page.get_by_text("Kept.", exact=True).first).to_be_visible()


def test_what_stands_in_the_workshop_reaches_the_pages(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/settings")
    page.get_by_role("link", name=re.compile("The workshop")).click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Workshop")

    tools = page.get_by_role("region", name="Tools")
    tools.get_by_label("Kind of tool").select_option("press")
    tools.get_by_label("Name of a tool of your own").fill("Old tea tin")
    tools.get_by_label("Its volume", exact=True).fill("61,5")
    tools.get_by_role("button", name="Add the tool").click()
    kept(page)
    volume = tools.get_by_label("Volume of Old tea tin")
    expect(volume).to_have_value("61.5")
    volume.fill("60")
    with keeping(page):
        volume.press("Tab")
    expect(tools.get_by_label("Volume of Old tea tin")).to_have_value("60")
    assert {each["name"]: each["volume_ml"] for each in said(page, server)["tools"]}["Old tea tin"] == 60.0

    tubs = page.get_by_role("region", name="Tubs")
    tubs.get_by_label("Name of another tub").fill("the zinc tub")
    tubs.get_by_label("Its water in litres").fill("70")
    tubs.get_by_label("Its surface in square metres").fill("0,45")
    with keeping(page):
        tubs.get_by_role("button", name="Add the tub").click()
    expect(tubs.get_by_text("the zinc tub")).to_be_visible()

    scale = page.get_by_role("region", name="Scale and sprayer")
    scale.get_by_label("Tolerance that is always allowed").fill("0.2")
    with keeping(page):
        scale.get_by_label("Tolerance that is always allowed").press("Tab")
    scale.get_by_label("One stroke of the sprayer").fill("0.2")
    with keeping(page):
        scale.get_by_label("One stroke of the sprayer").press("Tab")
    assert (said(page, server)["tolerance"]["least_g"], said(page, server)["spray_ml"]) == (0.2, 0.2)

    page.goto(f"{server.address}/tub")
    page.get_by_role("button", name="Begin a test").click()
    tub = page.get_by_role("dialog").get_by_label("into")
    tub.select_option(label="the zinc tub, 70 L")
    page.keyboard.press("Escape")

    page.goto(server.address)
    page.get_by_role("button", name="Empty formula").click()
    page.wait_for_url(re.compile(r"/formulas/\d+$"))
    formula = page.url.rsplit("/", 1)[-1]
    page.goto(f"{server.address}/plan/{formula}")
    expect(page.get_by_label("Shape of a piece").locator("option", has_text="Old tea tin")).to_have_count(1)


def test_a_new_formula_begins_in_the_air_of_the_month(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/settings/workshop")
    page.get_by_role("button", name="Say it by month").click()
    kept(page)
    month = datetime.now().astimezone().strftime("%B")
    for what, value in (("Temperature", "17"), ("Humidity", "58")):
        line = page.get_by_label(re.compile(f"{what} in {month},"))
        line.fill(value)
        with keeping(page):
            line.press("Tab")
        expect(page.get_by_label(re.compile(f"{what} in {month},"))).to_have_value(value)
    drawing = page.get_by_role("img", name=re.compile("Air by month"))
    expect(drawing).to_have_attribute("aria-label", re.compile(f"{month} 17 °C, 58 %"))
    page.goto(server.address)
    page.wait_for_load_state("networkidle")
    page.get_by_role("button", name="Empty formula").click()
    page.wait_for_url(re.compile(r"/formulas/\d+$"))
    made = page.request.get(f"{server.address}/api/formulas/{page.url.rsplit('/', 1)[-1]}").json()["formula"]
    assert made["room"] == {"temperature_c": 17.0, "humidity_pct": 58.0}
    page.goto(f"{server.address}/settings/workshop")
    page.get_by_role("button", name="Forget the months").click()
    expect(page.get_by_role("button", name="Say it by month")).to_be_visible()
    page.get_by_role("button", name="Take it back").click()
    expect(page.get_by_label(re.compile(f"Humidity in {month},"))).to_have_value("58")
