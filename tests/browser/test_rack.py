"""From the bench's last step to wrapped, by touch alone, on a tablet."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.browser.bench_driver import BenchDriver
from tests.serving import Server

OpenPage = Callable[..., Page]


def test_from_the_bench_to_wrapped_by_touch_alone(fast_server: Server, open_page: OpenPage) -> None:
    page = open_page(fast_server.address, viewport={"width": 1024, "height": 768})
    driver = BenchDriver(page, fast_server)
    driver.begin("melt")
    driver.do_all()
    driver.press("Set out on the rack")
    tray = page.get_by_role("region").filter(has=page.get_by_role("heading", name=re.compile("melts")))
    expect(tray.get_by_role("img")).to_be_visible()
    driver.drawer("clear")
    for mass_g in (360.0, 359.0):
        tray.get_by_role("button", name="Weigh", exact=True).click()
        driver.drawer("pour", value=mass_g)
        sheet = page.get_by_role("dialog")
        expect(sheet.locator("[data-reading='pan']")).to_contain_text(f"{mass_g:.1f}")
        sheet.get_by_role("button", name="Keep it").click()
        expect(sheet).to_have_count(0)
        driver.drawer("clear")
    expect(tray.get_by_text("2 weigh-ins")).to_be_visible()
    tray.get_by_role("button", name="Unmould").click()
    expect(tray.get_by_role("button", name="Unmould")).to_have_count(0)
    page.get_by_role("button", name="Take it back").click()
    expect(tray.get_by_role("button", name="Unmould")).to_be_visible()
    tray.get_by_role("button", name="Wrapped").click()
    expect(tray).to_have_count(0)
    page.get_by_role("button", name="What is wrapped").click()
    expect(tray.get_by_role("button", name="Open them again").first).to_be_visible()
    for button in tray.get_by_role("button").all():
        box = button.bounding_box()
        assert box is not None
        if "table" not in (button.text_content() or ""):
            assert box["height"] >= 32


def test_the_rack_is_walked_by_keys_and_a_scale_that_is_too_coarse_says_so(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/rack")
    first = page.get_by_role("region", name="Limpet domes")
    first.focus()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("region", name="Peat bricks")).to_be_focused()
    page.keyboard.press("Enter")
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Or type it").fill("20")
    expect(sheet.get_by_text("too coarse")).to_be_visible()
    sheet.get_by_label("Or type it").fill("2x")
    page.keyboard.press("Enter")
    expect(sheet.get_by_role("alert")).to_contain_text("type what it shows")
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    page.get_by_role("button", name="Set pieces out").click()
    sheet.get_by_label("Name").fill("from a friend")
    page.keyboard.press("Enter")
    expect(sheet.get_by_role("alert")).to_contain_text("How many pieces?")
    sheet.get_by_label("Pieces").fill("6")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="from a friend")).to_be_visible()


def test_a_task_is_pulled_to_another_hour_and_back(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/rack")
    expect(page.get_by_role("img", name=re.compile("Humidity in rack over a week"))).to_be_visible()
    tray = next(each for each in server.ask("GET", "/api/rack")[1]["items"] if each["name"] == "Limpet domes")
    task = next(each for each in tray["reading"]["tasks"] if not each["done_at"] and each["due_h"] > 1)
    plumb = page.get_by_role("region", name="Limpet domes").locator(f"[data-task='{task['kind']}']")
    box = plumb.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 10, box["y"] + 20)
    page.mouse.down()
    page.mouse.move(box["x"] + 130, box["y"] + 20, steps=4)
    page.mouse.up()
    expect(page.get_by_role("button", name="Take it back")).to_be_visible()

    def due_h() -> float:
        trays = server.ask("GET", "/api/rack")[1]["items"]
        own = next(each for each in trays if each["id"] == tray["id"])
        return float(next(each["due_h"] for each in own["reading"]["tasks"] if each["kind"] == task["kind"]))

    assert due_h() > task["due_h"] + 1
    page.get_by_role("button", name="Take it back").click()
    expect(page.get_by_text("Done.")).to_have_count(0)
    page.wait_for_timeout(500)
    assert abs(due_h() - task["due_h"]) < 0.5


def test_two_taps_before_the_first_is_answered_are_both_kept(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/rack", has_touch=True, viewport={"width": 1024, "height": 768})
    trays = server.ask("GET", "/api/rack?limit=50")[1]["items"]
    tray, first, second = next(
        (tray, *open_[:2]) for tray in trays if len(open_ := [each for each in tray["reading"]["tasks"] if not each["done_at"] and each["kind"] != "wrap"]) > 1
    )  # fmt: skip
    shelf = page.get_by_role("region", name=tray["name"])
    buttons = [shelf.get_by_role("button", name=task["title"], exact=True).first for task in (first, second)]
    expect(buttons[0]).to_be_enabled()
    buttons[0].evaluate("(one, other) => { one.click(); other.click(); }", buttons[1].element_handle())  # no answer fits between
    for task in (first, second):
        expect(shelf.get_by_text(task["title"], exact=True).first).to_have_css("text-decoration-line", "line-through")
    done = {each["kind"]: each["done_at"] for each in server.ask("GET", f"/api/rack/{tray['id']}")[1]["reading"]["tasks"]}
    assert done[first["kind"]]
    assert done[second["kind"]]
