"""What went wrong, talked through from a batch; a practice bowl to its end by touch and by keys."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]


def test_a_trouble_from_a_batch_to_what_it_was(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/batches/12")
    page.get_by_role("link", name="What went wrong?").click()
    page.get_by_label("What you see, in your words").fill("cracked")
    page.get_by_role("button", name="It cracks").click()
    expect(page.get_by_role("heading", name="It cracks")).to_be_visible()
    expect(page.get_by_role("link", name="Its record")).to_be_visible()
    expect(page.get_by_text("from the batch's record").or_(page.get_by_text("by the readings")).first).to_be_visible()
    asked = page.get_by_role("region", name="Questions")
    first = asked.locator("p").first.inner_text()
    asked.get_by_role("button", name="I do not know").click()
    expect(asked.locator("p").first).not_to_have_text(first)
    page.get_by_role("button", name="That was it").first.click()
    expect(page.get_by_text("that was it", exact=True)).to_be_visible()
    page.get_by_role("link", name="Another trouble").click()
    expect(page.get_by_role("region", name="Earlier troubles")).to_contain_text("It was:")


def test_a_practice_bowl_by_touch(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/practice", has_touch=True, viewport={"width": 1024, "height": 768})
    page.get_by_role("listitem").filter(has_text="A new sack of starch").get_by_role("button", name="Take this bowl").tap()
    expect(page.get_by_text("Practice: nothing here is weighed")).to_be_visible()
    page.get_by_role("button", name="Judge it with the hands").tap()
    expect(page.get_by_role("status").first).to_have_text(re.compile("dough|sand|sticky"))
    page.get_by_role("button", name="20 g").first.tap()
    page.get_by_role("button", name="Mix 3 minutes").tap()
    page.get_by_role("button", name="Rest 10 minutes").tap()
    page.get_by_role("button", name="It holds: shape it").tap()
    expect(page.get_by_role("region", name="What was hidden")).to_contain_text("drinks")
    expect(page.get_by_role("img", name=re.compile("The dough over"))).to_be_visible()


def test_a_practice_bowl_by_keys(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/practice")
    begin = page.get_by_role("listitem").filter(has_text="The first scoop").get_by_role("button", name="Take this bowl")
    begin.focus()
    page.keyboard.press("Enter")
    for name in ("Rest 10 minutes", "Judge it with the hands", "It holds: shape it"):
        button = page.get_by_role("button", name=name)
        expect(button).to_be_enabled()
        button.focus()
        page.keyboard.press("Enter")
        if name != "It holds: shape it":
            expect(page.get_by_role("button", name="Mix 1 minute")).to_be_enabled()
    expect(page.get_by_role("region", name="What was hidden")).to_contain_text("Nothing was hidden")


def test_the_eye_is_trained(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/practice/eye")
    for _ in range(12):
        page.get_by_role("button", name="play dough", exact=True).click()
    expect(page.get_by_text(re.compile(r"\d+ of 12 right"))).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("12 cards seen"))).to_be_visible()
