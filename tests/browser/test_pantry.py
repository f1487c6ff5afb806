"""The Pantry: search, prices, names, own ingredients."""

from __future__ import annotations

from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]


def test_an_ingredient_is_found_priced_and_taught_a_name(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/pantry")
    page.get_by_label("Search ingredients").fill("bicarb")
    page.keyboard.press("Enter")
    sheet = page.get_by_role("article", name="Baking soda")
    expect(sheet).to_contain_text("USDA FoodData Central")
    sheet.get_by_label("What you pay").fill("abc")
    page.keyboard.press("Enter")
    expect(sheet).to_contain_text("Price per kg must be a number")
    sheet.get_by_label("What you pay").fill("3,10")
    page.keyboard.press("Enter")
    expect(sheet.get_by_label("What you pay")).to_have_value("3.10")
    sheet.get_by_role("button", name="Another price for a larger amount").click()
    sheet.get_by_label("Larger amount 1 in kg").fill("25")
    sheet.get_by_label("Price from larger amount 1").fill("1,90")
    page.keyboard.press("Tab")
    expect(sheet.get_by_label("Price from larger amount 1")).to_have_value("1.90")
    sheet.get_by_label("Another name for it").fill("Sea foam dust")
    sheet.get_by_role("button", name="Learn it").click()
    expect(sheet).to_contain_text("sea foam dust")
    sheet.get_by_role("button", name="forget sea foam dust").click()
    expect(sheet).not_to_contain_text("sea foam dust")


def test_an_own_ingredient_is_made_from_the_nearest_one(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/pantry/kaolin")
    page.get_by_role("button", name="Make my own from it").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name", exact=True).fill("Loft clay")
    dialog.get_by_label("A US cup of it weighs").fill("140")
    dialog.get_by_role("button", name="Put it on the shelf").click()
    sheet = page.get_by_role("article", name="Loft clay")
    expect(sheet).to_contain_text("based on kaolin")
    expect(page.get_by_role("region", name="Own")).to_contain_text("Loft clay")
    sheet.get_by_role("button", name="Take it off the shelf").click()
    expect(page.get_by_role("region", name="Own")).not_to_contain_text("Loft clay")
