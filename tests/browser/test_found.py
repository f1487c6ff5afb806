"""Found again: from a code to people, a complaint from Ctrl K, a lot held back, an order that nothing uncleared is made for."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]


def test_a_recall_goes_from_a_jar_to_people(server: Server, open_page: OpenPage) -> None:
    page = open_page(server.address)
    expect(page.get_by_role("link", name="Limpet domes")).to_be_visible()
    page.keyboard.press("Control+k")
    page.get_by_role("combobox", name="Go to, or do").fill("NB-102")
    page.get_by_text("NB-102: find it again").click()
    found = page.get_by_role("region", name="Hangs together with NB-102")
    expect(found).to_contain_text(re.compile(r"\d+ batches, \d+ pieces, \d+ people"))
    expect(found.get_by_role("table", name="People")).to_be_visible()
    expect(found.get_by_role("table", name="Only assumed")).to_contain_text("no jar was named")
    printed = re.search(r"\d{6}-\d+", found.get_by_role("table", name="Batches").inner_text())
    assert printed is not None
    code = printed.group()
    with page.expect_download() as download:
        found.get_by_role("link", name="List as CSV").click()
    assert "NB-102" in download.value.path().read_text(encoding="utf-8-sig")
    page.get_by_label("Code of a lot, a batch or a label").fill(code)
    page.get_by_role("button", name="Find it").click()
    expect(page.get_by_role("region", name=f"Hangs together with {code}")).to_contain_text("NB-102")
    page.get_by_label("Code of a lot, a batch or a label").fill("nothing of the kind")
    page.get_by_role("button", name="Find it").click()
    expect(page.get_by_text("Nothing hangs together with")).to_be_visible()


def test_a_serious_complaint_is_taken_and_answered(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/found?complain=yes")
    sheet = page.get_by_role("dialog")
    expect(sheet).to_contain_text("local poison centre")
    sheet.get_by_label("What was said").fill("burning eyes after the bath")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet.get_by_role("alert")).to_contain_text("Choose one")
    sheet.get_by_label("eyes").check()
    sheet.get_by_label("Serious").check()
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet).to_have_count(0)
    complaints = page.get_by_role("region", name="Complaints")
    expect(complaints).to_contain_text("15 business days")
    complaints.get_by_role("button", name="What was done").first.click()
    page.get_by_role("textbox", name="Done").fill("called back, reported")
    page.get_by_role("button", name="Keep it").click()
    expect(complaints).to_contain_text("Done: called back, reported")


def test_a_held_lot_and_an_order_that_is_not_cleared(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/pantry/lots/6")
    held = page.get_by_role("region", name="Held or released")
    held.get_by_label("Why it may not be used").fill("smells sharp")
    held.get_by_role("button", name="Hold it back").click()
    expect(page.get_by_text("is held (smells sharp)")).to_be_visible()
    held.get_by_label("Why it may be used").fill("tested, fine")
    held.get_by_role("button", name="Release it").click()
    expect(page.get_by_text("is held (smells sharp)")).to_have_count(0)
    page.goto(f"{server.address}/week")
    page.get_by_role("button", name=re.compile("^Made: Limpet domes")).click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("checkbox").first.check()
    sheet.get_by_role("button", name="Made").click()
    expect(sheet.get_by_role("alert")).to_contain_text("The order cannot be made")
    expect(sheet).to_contain_text("NOT-SIGNED")
    sheet.get_by_label("own use, never held back").check()
    sheet.get_by_role("button", name="Made").click()
    expect(sheet).to_have_count(0)
