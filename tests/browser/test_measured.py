"""What a maker measures and takes along: drops of dried pieces, a photo of a bath, what stands in for what is short."""

from __future__ import annotations

import io
import re
from collections.abc import Callable

from PIL import Image
from playwright.sync_api import FilePayload, Page, expect

from tests.browser.conftest import ROOT
from tests.serving import Server

OpenPage = Callable[..., Page]


def test_drops_are_kept_by_their_guide_and_left_out_again(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/learning")
    page.get_by_role("button", name="The drop", exact=True).click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet.get_by_text("Which formula's pieces?")).to_be_visible()
    sheet.get_by_label("Formula", exact=True).select_option(label="Limpet domes")
    sheet.get_by_label(re.compile("A corner broke after")).fill("14,5")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet).to_have_count(0)
    expect(page.get_by_text("1 drop test")).to_be_visible()
    kept = page.get_by_role("region", name="Measurements")
    kept.get_by_text("5 kept").click()
    line = kept.get_by_role("listitem").filter(has_text="a corner broke after 14.5 drops")
    expect(line).to_contain_text("Limpet domes")
    line.get_by_role("button", name="Leave it out").click()
    expect(kept.get_by_text("4 kept")).to_be_visible()


def test_a_photo_of_a_bath_stands_with_its_test(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/tub")
    page.get_by_role("button", name="Begin a test").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Formula", exact=True).select_option(label="Peat bricks")
    sheet.get_by_role("button", name="To the bath").click()
    page.wait_for_url(re.compile(r"/tub/\d+$"))
    picture = io.BytesIO()
    Image.new("RGB", (320, 200), "slategray").save(picture, "PNG")
    photos = page.get_by_role("region", name="Photos")
    photos.get_by_label("Add a photo").set_input_files(
        files=FilePayload(name="ring.png", mimeType="image/png", buffer=picture.getvalue())
    )
    expect(photos.get_by_role("img")).to_have_count(1)
    width = photos.get_by_role("img").evaluate("(each) => each.decode().then(() => each.naturalWidth)")
    assert width == 320
    photos.get_by_label("Add a photo").set_input_files(
        files=FilePayload(name="list.png", mimeType="image/png", buffer=b"soda, acid")
    )
    expect(photos.get_by_role("alert")).to_contain_text("A photo was not taken over")
    photos.get_by_role("button", name="Set it aside").click()
    expect(photos.get_by_role("alert")).to_have_count(0)
    expect(photos.get_by_role("img")).to_have_count(1)


def test_what_is_short_has_something_in_its_place(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/week")
    shopping = page.get_by_role("region", name="Shopping list")
    line = shopping.get_by_role("listitem").filter(has_text="Cream of tartar")
    line.get_by_role("button", name="instead of it?").click()
    sheet = page.get_by_role("dialog")
    expect(sheet.get_by_role("heading", level=2)).to_have_text("In place of Cream of tartar")
    order = sheet.get_by_role("region", name="Birthday of a friend")
    expect(order).to_contain_text("Corn starch")
    expect(order.get_by_role("link")).to_have_attribute("href", re.compile(r"/formulas/\d+$"))
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)


def test_reading_the_studio_stops_and_goes_on(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/tub")
    page.request.delete(f"{server.address}/api/learning/progress")
    page.request.post(f"{server.address}/api/measurements/drops", data={"formula_id": 10, "drops": 12, "key": "drops-to-be-read"})
    page.goto(f"{server.address}/learning")
    expect(page.get_by_text("1 batch, tray or bath has still to be read")).to_be_visible()
    expect(page.get_by_text("Your bases drink")).to_be_visible()
    expect(page.get_by_text("1 drop test")).to_have_count(0)
    page.get_by_role("button", name="Go on reading").click()
    expect(page.get_by_text("1 drop test")).to_be_visible()
    expect(page.get_by_text("still to be read")).to_have_count(0)


def test_the_guide_has_its_pictures_with_it(shared_server: Server, open_page: OpenPage) -> None:
    """Shipped with the studio: every picture of every page is there and has a text."""
    shown = 0
    for source in sorted((ROOT / "docs/guide").glob("*.md")):
        page = open_page(f"{shared_server.address}/guide/{source.stem}")
        title = source.read_text(encoding="utf-8").splitlines()[0].removeprefix("# ")
        expect(page.get_by_role("article").get_by_role("heading", level=1)).to_have_text(title)
        for picture in page.get_by_role("article").get_by_role("img").all():
            picture.scroll_into_view_if_needed()
            assert picture.evaluate("(each) => each.decode().then(() => each.naturalWidth)") >= 1024
            assert len(picture.get_attribute("alt") or "") > 20
            shown += 1
    assert shown >= 10
