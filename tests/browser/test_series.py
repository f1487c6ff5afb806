"""A claim put to the test in the real interface, and trials designed and read back."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]


def choose(sheet: object, group: str, words: str, name: str) -> None:
    part = sheet.get_by_role("group", name=group, exact=True) if group else sheet  # type: ignore[attr-defined]
    part.get_by_label("Find the formula").fill(words)
    choice = part.get_by_label("Formula", exact=True)
    expect(choice.get_by_role("option", name=name, exact=True)).to_have_count(1)
    choice.select_option(label=name)


def test_a_claim_is_put_to_the_test_and_read_when_it_is_opened(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/tub/series")
    page.get_by_role("button", name="Put a claim to the test").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Name of the series").fill("Peat or scoop")
    sheet.get_by_role("button", name="Shuffle and begin").click()
    expect(sheet.get_by_role("alert")).to_contain_text("Choose a formula for every letter")
    choose(sheet, "A", "peat", "Peat bricks")
    choose(sheet, "B", "ferry", "Ferry-tin scoop, in cups")
    sheet.get_by_label(re.compile("baths of each")).fill("1")
    sheet.get_by_role("button", name="Shuffle and begin").click()
    expect(sheet.get_by_role("alert")).to_contain_text("Choose the reading")
    sheet.get_by_label("Reading").select_option("foam_height_cm")
    sheet.get_by_role("button", name="Shuffle and begin").click()
    expect(sheet.get_by_role("alert")).to_contain_text("more or less")
    sheet.get_by_label("Which way").select_option("more")
    sheet.get_by_label(re.compile("worth")).fill("0.5")
    sheet.get_by_role("button", name="Shuffle and begin").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Peat or scoop")
    for height in ("2.0", "7.5"):
        page.get_by_role("button", name="Run the next bath").click()
        expect(page.get_by_text("which variant this is stays closed")).to_be_visible()
        expect(page.get_by_role("heading", level=1)).to_have_text(re.compile(r"Peat or scoop, code \d+"))
        expect(page.get_by_role("link", name="Its Desk")).to_have_count(0)
        for kept, asked in (("0.9", 5), (height, 10)):
            page.get_by_label("Height of the foam in centimetres").fill(kept)
            page.get_by_role("button", name="Keep it").first.click()
            expect(page.get_by_text(f"Asked next at {asked} min")).to_be_visible()
        page.get_by_role("button", name="Close the test").click()
        expect(page.get_by_role("button", name="Close the test")).to_have_count(0)
        page.get_by_role("link", name=re.compile("Its series")).click()
    page.get_by_role("button", name="Read the answer").click()
    expect(page.get_by_role("region", name="Answer")).to_contain_text("cannot tell yet")
    expect(page.get_by_role("region", name="Answer")).to_contain_text("repeat each at least once")
    page.get_by_role("button", name="Two more of each").click()
    expect(page.get_by_text("2 of 6 baths made")).to_be_visible()
    page.get_by_role("button", name="Slip for the hands that wrap").click()
    expect(page.get_by_role("dialog").get_by_role("row")).to_have_count(6)


def test_trials_are_designed_and_read_back_by_keyboard(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/learning/trials")
    page.get_by_role("button", name="Design trials").focus()
    page.keyboard.press("Enter")
    sheet = page.get_by_role("dialog")
    choose(sheet, "", "peat", "Peat bricks")
    for name in ("Cocoa butter", "Shea butter"):
        sheet.get_by_role("checkbox", name=re.compile(name)).focus()
        page.keyboard.press("Space")
    sheet.get_by_role("button", name="Design them").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_have_text("Peat bricks, trials")
    rows = page.get_by_role("table").get_by_role("row")
    expect(rows).to_have_count(9)
    for trial in range(1, 4):
        page.get_by_label(re.compile(rf"Result of trial {trial} in")).fill(f"{2 + trial / 10:.1f}")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name=re.compile(f"of trial {trial}$"))).to_be_visible()
    expect(page.get_by_text(re.compile(r"3 results"))).to_be_visible()
    page.get_by_role("button", name=re.compile("of trial 2$")).click()
    expect(page.get_by_text(re.compile(r"2 results"))).to_be_visible()
    page.get_by_role("button", name="Take it back").click()
    expect(page.get_by_text(re.compile(r"3 results"))).to_be_visible()
