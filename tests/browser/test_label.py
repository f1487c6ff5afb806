"""A batch's label: two markets side by side at true size, the smallest that fits, printed and kept."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]
PX_PER_MM = 96 / 25.4


def test_a_batch_is_labelled_for_two_markets_and_printed(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/batches/47")
    page.get_by_role("link", name="Its label").click()
    us = page.get_by_role("img", name=re.compile("Label for the US"))
    expect(us).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("Label for the EU"))).to_be_visible()
    paper = us.locator("rect").first.bounding_box()
    assert paper is not None
    assert abs(paper["width"] - 90 * PX_PER_MM) < 1
    page.get_by_label("What it is, in plain words").fill("Solid bubble bath")
    expect(us.get_by_text("Solid bubble bath")).to_be_visible()
    page.get_by_label("Net weight of a dried piece").fill("58")
    page.get_by_label("Width of the label in millimetres").fill("70")
    page.get_by_label("Height of the label in millimetres").fill("60")
    expect(page.get_by_role("button", name="Take")).to_have_count(1)  # only the US texts have outgrown their label
    page.get_by_role("button", name="Take").click()
    held = page.get_by_role("list", name="What holds the US label back")
    expect(held).to_contain_text("Nothing says that its pieces are dry")
    expect(held).to_contain_text("US-COL-01")
    expect(page.get_by_role("button", name="Keep and print the US label")).to_have_count(0)
    page.get_by_label("on sheets").uncheck()
    page.get_by_role("button", name="Print the US draft, crossed").click()
    expect(page.get_by_text(re.compile(r"Label \d+ is kept and printed, crossed as a draft\.")).first).to_be_visible()
    kept = page.get_by_role("region", name="Printed labels")
    expect(kept.get_by_role("link", name="PDF")).to_be_visible()
    with page.expect_download() as download:
        kept.get_by_role("link", name="SVG").click()
    assert download.value.suggested_filename.endswith(".svg")
    expect(page.get_by_role("region", name="What differs")).to_contain_text("1223/2009")


def test_what_is_missing_is_named_and_only_a_draft_is_printed(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/formulas/10/label")
    expect(page.get_by_text("The net weight of a dried piece is not given").first).to_be_visible()
    page.get_by_label("Width of the label in millimetres").fill("120")
    page.get_by_label("Height of the label in millimetres").fill("100")
    page.get_by_label("on sheets").uncheck()
    page.get_by_role("button", name="Print the US draft, crossed").click()
    expect(page.get_by_text("crossed as a draft").first).to_be_visible()
    page.get_by_label("What it is, in plain words").fill("Solid bubble bath")
    page.get_by_label("Name of the product").fill("Low water")
    page.get_by_label("Net weight of a dried piece").fill("58")
    page.get_by_role("button", name="Keep and print the US label").click()
    expect(page.get_by_text(re.compile(r"Label \d+ is kept and printed\.")).first).to_be_visible()
