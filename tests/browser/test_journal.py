"""The journal and what it leads to: found by three letters, opened, compared, and long lists scrolled to their end."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]


def test_an_entry_is_found_by_three_letters_and_opened(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/journal")
    page.get_by_label("Search the journal").fill("cra")
    entries = page.get_by_role("listitem").filter(has_text="two pieces cracked")
    expect(page.get_by_role("listitem").filter(has_text=re.compile("weigh-in"))).to_have_count(0)
    entries.get_by_role("link", name="Oar-blade slices").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Oar-blade slices, batch 48")
    page.go_back()
    page.get_by_label("what went wrong").check()
    expect(page.get_by_role("listitem").filter(has_text="Left out")).to_have_count(2)
    page.get_by_label("Kind").select_option("result")
    went_wrong = page.get_by_role("listitem").filter(has_text="What became of it")
    expect(went_wrong.first).to_be_visible()
    expect(page.get_by_role("listitem").filter(has_text="Left out")).to_have_count(0)
    page.reload()
    expect(went_wrong.first).to_be_visible()
    page.get_by_label("Search the journal").fill("nobody wrote this")
    expect(page.get_by_text("Nothing in the journal speaks of that")).to_be_visible()


def test_a_weigh_in_leads_to_its_tray(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/journal?kind=weigh-in")
    page.get_by_role("link", name="Limpet domes").first.click()
    expect(page.get_by_role("region", name="Limpet domes")).to_be_visible()


def test_two_batches_are_set_side_by_side_by_keys(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/batches/48")
    page.get_by_role("link", name="Beside another").focus()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Oar-blade slices, batch 49").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("What differs most is Glycerin")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("5 lines differ"))).to_be_visible()
    expect(page.get_by_role("row").filter(has_text="Left out")).to_contain_text("dulse & salt")


def test_a_list_of_a_hundred_is_drawn_as_it_is_scrolled_and_searched_at_the_server(server: Server, open_page: OpenPage) -> None:
    line = {"ingredient": "baking-soda", "amount": "100", "unit": "g"}
    for number in range(110):
        formula = {"format": "rosy-kettle/formula", "version": 1, "name": f"Pebble {number:03d}", "portions": [
            {"name": "body", "lines": [line]}]}  # fmt: skip
        assert server.ask("POST", "/api/formulas", formula)[0] == 201
    page = open_page(server.address)
    expect(page.get_by_text("122 formulas")).to_be_visible()
    drawn = page.get_by_role("link", name=re.compile("Pebble"))
    expect(drawn.first).to_have_text("Pebble 109")
    assert drawn.count() < 50, "only what is in sight is drawn"
    for _ in range(60):
        if page.get_by_role("link", name="Gale warning bar").count():
            break
        page.mouse.wheel(0, 2000)
        page.wait_for_timeout(100)
    expect(page.get_by_role("link", name="Gale warning bar")).to_be_visible()
    page.get_by_label("Search formulas").fill("pebble 055")
    expect(drawn).to_have_count(1)
