"""A test in the tub, begun, measured with the watch and the rule, closed and set beside another."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]


def test_a_piece_is_taken_to_the_bath_and_measured(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/tub", viewport={"width": 1024, "height": 768})
    page.get_by_role("button", name="Begin a test").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Find the formula").fill("peat")
    expect(sheet.get_by_label("Formula", exact=True).get_by_role("option")).to_have_count(2)
    sheet.get_by_label("Formula", exact=True).select_option(label="Peat bricks")
    sheet.get_by_role("button", name="To the bath").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Peat bricks")
    page.get_by_role("button", name="The tap is open").click()
    expect(page.get_by_role("timer")).to_contain_text("0:0")
    page.get_by_role("button", name="Keep it").first.click()
    expect(page.get_by_role("alert")).to_contain_text("How high does it stand")
    section = page.get_by_role("img", name=re.compile("Peat bricks"))
    box = section.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] * 0.3, box["y"] + box["height"] * (196 - 3.2 * 17) / 560)
    page.mouse.down()
    page.mouse.up()
    height = page.get_by_label("Height of the foam in centimetres")
    expect(height).to_have_value(re.compile(r"^3\.[0-4]$"))
    height.fill("1,2")
    page.get_by_role("button", name="Keep it").first.click()
    expect(section).to_have_attribute("aria-label", re.compile(r"1\.2 cm at 1 min; the Desk said"))
    expect(page.get_by_text("Asked next at 5 min.")).to_be_visible()
    height.fill("2.4")
    page.keyboard.press("Enter")
    expect(section).to_have_attribute("aria-label", re.compile(r"2\.4 cm at 5 min"))
    page.get_by_role("button", name="itches").click()
    expect(page.get_by_text("ask a doctor or pharmacist")).to_be_visible()
    page.get_by_role("button", name="Close the test").click()
    expect(page.get_by_role("button", name="The tap is open")).to_have_count(0)
    page.get_by_label("Beside it").select_option(index=1)
    expect(page.get_by_text(re.compile("than (Limpet domes|Peat bricks)"))).to_be_visible()
    page.get_by_role("link", name="Tub", exact=True).click()
    expect(page.get_by_role("row").filter(has_text="2.4 cm at 5 min")).to_have_count(1)


def test_a_factor_is_used_said_in_why_and_put_back(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/tub")
    page.get_by_role("link", name="What it teaches").click()
    page.get_by_role("button", name="Use yours: foam", exact=True).focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Use the default again: foam", exact=True)).to_be_visible()
    expect(page.get_by_text("1 factor is used in every reading")).to_be_visible()
    page.goto(f"{server.address}/formulas/10")
    page.get_by_role("button", name="Foam score").click()
    expect(page.get_by_text("Yours is used: Your foam stands")).to_be_visible()
    page.goto(f"{server.address}/learning")
    page.get_by_role("button", name="Use the default again: foam", exact=True).click()
    expect(page.get_by_text("Nothing of it is used yet.")).to_be_visible()
