"""From a list of jars to Saturday's order: entered, imported, ordered, moved, bought for, traced."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]
LIST = "Zutat;Menge (kg);Preis;Charge\n" + "\n".join(
    f"{name};{mass};{price} €;X-{number}" for number, (name, mass, price) in enumerate((
        ("Bicarbonate of soda", "5", "12,40"), ("Glycerin", "1,25", "8,90"), ("Citric acid", "2", "11"), ("Corn starch", "1", "2,10"),
        ("SLSA powder", "0,5", "10,21"), ("Cream of tartar", "0,25", "5"), ("Moon glimmer", "0,1", "3"),
    ))
)  # fmt: skip


def test_a_list_is_taken_over_and_a_jar_is_found_again(server: Server, open_page: OpenPage, tmp_path: Path) -> None:
    file = tmp_path / "list.csv"
    file.write_text(LIST, encoding="utf-8")
    page = open_page(f"{server.address}/pantry/lots")
    expect(page.get_by_text("9 jars")).to_be_visible()
    page.get_by_role("button", name="Take over a list").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("The file").set_input_files(file)
    expect(sheet.get_by_text("7 rows, 1 to be asked about.")).to_be_visible()
    expect(sheet.get_by_text('What is "Moon glimmer"?')).to_be_visible()
    sheet.get_by_role("button", name="Take over 6 rows").click()
    expect(page.get_by_text("15 jars")).to_be_visible()
    page.get_by_role("button", name="Take it back").click()
    expect(page.get_by_text("9 jars")).to_be_visible()
    page.get_by_label("Search lots").fill("GL-31")
    page.get_by_role("link", name=re.compile("GL-31")).click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Glycerin, GL-31")
    page.get_by_label(re.compile("By the scale")).fill("120,5")
    page.get_by_role("button", name="Count it").click()
    expect(page.get_by_text("Why is it otherwise").first).to_be_visible()
    page.get_by_label("Why otherwise").fill("spilt")
    page.get_by_role("button", name="Count it").click()
    expect(page.get_by_role("row").filter(has_text="spilt")).to_contain_text("-29.5 g")


def test_an_order_finds_its_place_and_is_moved_by_keys(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/settings")
    for day in ("Saturday", "Sunday"):
        page.get_by_label(f"{day} from").select_option("9")
        page.get_by_label(f"{day} to").select_option("20")
    page.get_by_label("Pairs of hands").select_option("2")
    page.get_by_role("button", name="Keep the settings").click()
    expect(page.get_by_text("Kept.", exact=True)).to_be_visible()
    page.goto(f"{server.address}/week")
    expect(page.get_by_text("3 of 3 orders have their place. 2 pairs of hands")).to_be_visible()
    page.get_by_role("button", name="Take an order").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("For whom").fill("The ferry shop")
    sheet.get_by_label("Find the formula").fill("peat")
    choice = sheet.get_by_label("Formula", exact=True)
    expect(choice.get_by_role("option", name="Peat bricks", exact=True)).to_have_count(1)
    choice.select_option(label="Peat bricks")
    sheet.get_by_role("button", name="Take it").click()
    row = page.get_by_role("row").filter(has_text="The ferry shop")
    expect(row).to_contain_text("Peat bricks")
    row.get_by_role("button", name=re.compile("Peat bricks an hour later")).focus()
    page.keyboard.press("Enter")
    expect(row.get_by_role("button", name=re.compile("the week places Peat bricks"))).to_be_visible()
    expect(page.get_by_role("region", name="Shopping list")).to_contain_text("To be bought for these orders")
    page.get_by_role("button", name="Look for a better week").click()
    expect(page.get_by_text(re.compile("Proven: no week is better|from the best there is"))).to_be_visible()
    row.get_by_role("button", name=re.compile("^Cancel")).click()
    expect(row).to_have_count(0)
