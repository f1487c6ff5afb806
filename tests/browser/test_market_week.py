"""A week towards market day: jars from a list, an order, the week, the bench, money, and one jar called back."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.browser.bench_driver import BenchDriver
from tests.serving import Server

OpenPage = Callable[..., Page]
Answer = dict[str, Any]
FORMULA = "Oar-blade slices"
LOTS = 12


def list_of(page: Page, server: Server) -> tuple[str, dict[str, float]]:
    """Twelve jars with odd headings, decimal commas and kilograms: what the formula takes, and some more."""
    formulas = page.request.get(f"{server.address}/api/formulas?limit=200").json()["formulas"]
    made = next(each for each in formulas if each["name"] == FORMULA)
    names = {each["id"]: each["name"] for each in page.request.get(f"{server.address}/api/ingredients").json()["ingredients"]}
    whole = page.request.get(f"{server.address}/api/formulas/{made['id']}").json()["formula"]
    lines = [line["ingredient"] for portion in whole["portions"] for line in portion["lines"]]
    wanted = list(dict.fromkeys([*lines, *names]))[:LOTS]
    rows = [f"{names[name]};{1 + number / 8:.3f}".replace(".", ",") + f";{3 + number},50 €;ZZ-{number}"
            for number, name in enumerate(wanted)]  # fmt: skip
    return "Was es ist;Gebinde (kg);Preis;LOT\n" + "\n".join(rows), {name: 1000 + 125 * n for n, name in enumerate(wanted)}


def used_g(batch: Answer) -> dict[str, float]:
    """What was really weighed and added, by ingredient."""
    found: dict[str, float] = {}
    for each in batch["state"]["weighings"]:
        found[each["ingredient"]] = found.get(each["ingredient"], 0.0) + each["actual_g"]
    for each in batch["state"]["corrections"]:
        found[each["ingredient"]] = found.get(each["ingredient"], 0.0) + each["mass_g"]
    return found


def test_a_week_towards_market_day(fast_server: Server, open_page: OpenPage, tmp_path: Path) -> None:
    page = open_page(f"{fast_server.address}/pantry/lots")
    text, bought = list_of(page, fast_server)
    file = tmp_path / "lots.csv"
    file.write_text(text, encoding="utf-8")
    page.get_by_role("button", name="Take over a list").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("The file").set_input_files(file)
    sheet.get_by_role("button", name=f"Take over {LOTS} rows").click()
    expect(page.get_by_text(f"{LOTS} rows taken over.", exact=True)).to_be_visible()

    page.goto(f"{fast_server.address}/week")
    page.get_by_role("button", name="Take an order").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("For whom").fill("Saturday at the quay")
    sheet.get_by_label("Find the formula").fill("oar-blade")
    sheet.get_by_label("Formula", exact=True).select_option(label=FORMULA)
    sheet.get_by_role("button", name="Take it").click()
    row = page.get_by_role("row").filter(has_text="Saturday at the quay")
    before = row.get_by_role("cell").nth(2).inner_text()
    drag(page, "Saturday at the quay", hours=3)
    expect(row.get_by_role("button", name=re.compile("the week places"))).to_be_visible()
    assert row.get_by_role("cell").nth(2).inner_text() != before
    expect(page.get_by_role("region", name="Shopping list")).to_contain_text("To be bought for these orders")

    driver = BenchDriver(page, fast_server)
    formulas = page.request.get(f"{fast_server.address}/api/formulas?limit=200").json()["formulas"]
    mine = next(each["id"] for each in formulas if each["name"] == FORMULA)
    driver.begin("glycerin-dough", formula_id=mine)
    driver.do_all()
    page.get_by_role("button", name="To the record").click()
    close(page)
    batch = driver.batch()
    drawn = {each["code"]: each["mass_g"] for each in lots(page, fast_server, batch)["drawn"]}
    used = used_g(batch)
    assert sum(drawn.values()) == pytest.approx(sum(used.values()), abs=0.1)
    left = {each["code"]: each for each in page.request.get(f"{fast_server.address}/api/lots?limit=200").json()["items"]}
    ours = [each for each in left.values() if each["code"].startswith("ZZ-") and each["code"] in drawn]
    assert ours, "the jars of the list were drawn from"
    for each in ours:
        assert each["left_g"] == pytest.approx(bought[each["ingredient"]] - drawn[each["code"]], abs=0.1)
    expect(page.get_by_role("region", name="Jars")).to_contain_text("ZZ-")

    page.goto(f"{fast_server.address}/formulas/{mine}/money")
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    expect(page.get_by_text("By the jars it would be made from now")).to_be_visible()

    page.goto(f"{fast_server.address}/pantry/lots")
    code = ours[0]["code"]
    page.get_by_label("Search lots").fill(code)
    page.get_by_role("link", name=re.compile(rf"{code}\b")).click()  # one
    expect(page.get_by_role("region", name="Where it went")).to_contain_text(f"batch {driver.batch_id}")
    page.get_by_role("link", name=re.compile(f"batch {driver.batch_id}$")).click()  # two
    expect(page).to_have_url(re.compile(f"/batches/{driver.batch_id}$"))
    expect(page.get_by_role("region", name="Jars")).to_contain_text(code)


def close(page: Page) -> None:
    """Close the record: from now on the stock is counted down."""
    page.get_by_role("button", name="Close the record").click()
    page.get_by_role("button", name="Close it for good").click()
    expect(page.get_by_role("region", name="Jars")).to_be_visible()


def drag(page: Page, who: str, hours: float) -> None:
    """Pull a batch along the hours of the week's drawing."""
    drawing = page.locator("svg.touch-pan-y")
    grip = drawing.locator("g").filter(has_text=who).locator(".cursor-ew-resize rect").first
    box = grip.bounding_box()
    assert box is not None
    width = (drawing.bounding_box() or {"width": 1180})["width"]
    per_hour = width / 1180 * (1180 - 206) / (24 * 7)
    at_x, at_y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(at_x, at_y)
    page.mouse.down()
    page.mouse.move(at_x + per_hour * hours / 2, at_y)
    page.mouse.move(at_x + per_hour * hours, at_y)
    page.mouse.up()


def lots(page: Page, server: Server, batch: Answer) -> Answer:
    found: Answer = page.request.get(f"{server.address}/api/batches/{batch['id']}/lots").json()
    return found
