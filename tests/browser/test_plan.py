"""Planning through the real interface: tools, masses, the market day, the Pantry, the way to the bench."""

from __future__ import annotations

import re
from collections.abc import Callable
from datetime import datetime, timedelta

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import axe_violations
from tests.serving import Server

OpenPage = Callable[..., Page]


def open_plan(page: Page, name: str) -> None:
    page.get_by_role("navigation").get_by_role("link", name="Plan").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Plan")  # the page before has links of the same names
    page.get_by_role("link", name=name).click()
    expect(page.get_by_role("heading", level=1)).to_have_text(name)
    expect(page.get_by_role("article", name="Run sheet")).to_be_visible()


def weighed_g(page: Page) -> float:
    found = re.search(r"weigh ([\d\u202f]+) g", page.get_by_text(re.compile(r"; weigh")).inner_text())
    assert found
    return float(found[1].replace("\u202f", ""))


def test_two_tools_a_small_bowl_and_a_mass(server: Server, open_page: OpenPage) -> None:
    page = open_page(server.address)
    open_plan(page, "Limpet domes")
    page.get_by_label("Number of pieces", exact=True).fill("20")
    one = weighed_g(page)
    page.get_by_role("button", name="And another tool").click()
    page.get_by_label("Number of pieces, kind 2").fill("12")
    page.get_by_label("Shape of a piece, kind 2").select_option("slice-60x25")
    expect(page.get_by_role("img", name=re.compile("rolls?: sheets of"))).to_be_visible()
    assert weighed_g(page) > one
    page.get_by_label("What one bowl holds in grams").fill("900")
    expect(page.get_by_text(re.compile(r"in [34] bowls, one after the other"))).to_be_visible()
    assert axe_violations(page) == []
    page.get_by_label("Shape of a piece, kind 2").select_option("silicone-60ml")
    page.get_by_label("How many there are of Silicone cavity 60 mL, kind 2").fill("8")
    page.keyboard.press("Tab")
    expect(page.get_by_text("12 pieces, 8 of Silicone cavity 60 mL: they are filled 2 times")).to_be_visible()
    page.get_by_role("button", name="Fill them all").click()
    expect(page.get_by_label("Number of pieces, kind 2")).to_have_value("8")
    expect(page.get_by_text("they are filled 2 times")).to_have_count(0)
    page.get_by_role("button", name="Take out").last.click()
    page.get_by_label("What one bowl holds in grams").fill("")
    page.get_by_role("button", name="Give the mass instead").click()
    page.get_by_label("Batch in grams").fill("2500")
    expect(page.get_by_text(re.compile(r"; weigh 2\u202f500 g"))).to_be_visible()
    page.get_by_label("Batch in grams").fill("nothing")
    expect(page.get_by_role("alert")).to_contain_text("The batch must be a number above 0 g.")
    expect(page.get_by_role("button", name="Take it to the bench")).to_be_disabled()


@pytest.mark.parametrize(("days", "late"), [(0, True), (12, False)])
def test_back_from_the_market(server: Server, open_page: OpenPage, days: int, late: bool) -> None:
    page = open_page(server.address)
    open_plan(page, "Limpet domes")
    page.get_by_label("Humidity of the drying room in per cent").fill("65")
    page.get_by_label("Reckon from").select_option("ready")
    expect(page.get_by_role("alert")).to_contain_text("Say the day and the hour")
    market = (datetime.now() + timedelta(days=days)).replace(hour=23 if days == 0 else 9, minute=30)  # noqa: DTZ005 - the maker's wall clock
    page.get_by_label("Day and hour").fill(market.strftime("%Y-%m-%dT%H:%M"))
    expect(page.get_by_role("img", name=re.compile(rf"ready \w+ {market.day} "))).to_be_visible()
    expect(page.get_by_text("Too late")).to_have_count(1 if late else 0)


def test_what_is_short_is_said_and_counted_at_the_plan(server: Server, open_page: OpenPage) -> None:
    page = open_page(server.address)
    open_plan(page, "Limpet domes")
    page.get_by_label("Number of pieces", exact=True).fill("200")
    needs = page.get_by_role("region", name="What it takes")
    expect(needs).to_contain_text(re.compile("Short of .*cream of tartar"))
    page.get_by_label("On hand of Cream of tartar in grams").fill("90000")
    page.keyboard.press("Tab")
    expect(needs).not_to_contain_text("cream of tartar (")
    page.goto(f"{server.address}/pantry/cream-of-tartar")
    expect(page.get_by_label("There is")).to_have_value("90000")


def test_from_plan_to_bench_and_found_again_in_the_list(server: Server, open_page: OpenPage) -> None:
    page = open_page(server.address)
    open_plan(page, "Limpet domes")
    page.get_by_label("Number of pieces", exact=True).fill("20")
    page.get_by_label("What one bowl holds in grams").fill("700")
    expect(page.get_by_text("in 2 bowls of")).to_be_visible()
    sheet = page.get_by_role("article", name="Run sheet")
    expect(sheet).not_to_contain_text("Fold the surfactant powder into the wet dough")
    page.get_by_label("the surfactant powder goes in").select_option("after the wet mix, for less dust")
    expect(sheet).to_contain_text("Fold the surfactant powder into the wet dough")
    page.get_by_role("button", name="Take it to the bench").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Read the air")
    expect(page.get_by_text("bowl 1 of 2")).to_be_visible()
    page.get_by_role("link", name="All batches").click()
    page.get_by_label("Search batches").fill("limpet")
    rows = page.get_by_role("row").filter(has_text="Limpet domes").filter(has_text="not begun")
    expect(rows).to_have_count(1)
    page.get_by_label("Search batches").fill("heather honey")
    expect(page.get_by_text('No batch speaks of "heather honey".')).to_be_visible()
    page.get_by_label("Search batches").fill("")
    rows.get_by_role("link", name="Limpet domes").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Read the air")
