"""What went wrong, talked through from a batch; a practice bowl to its end by touch and by keys."""

from __future__ import annotations

import re
import time
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.browser.conftest import axe_violations
from tests.serving import Server

OpenPage = Callable[..., Page]

ANSWER_S = 0.3
"""How long the studio takes to answer where that is what is tried."""


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
    """At the Bench's own screens, on a tablet: squeezed, taken for something, mended, mixed, judged again, shaped, opened."""
    page = open_page(f"{server.address}/practice", has_touch=True, viewport={"width": 1024, "height": 768})
    page.get_by_role("listitem").filter(has_text="A new sack of starch").get_by_role("button", name="Take this bowl").tap()
    expect(page.get_by_role("heading", level=1)).to_have_text("Judge")
    expect(page.get_by_text("Practice: nothing here is weighed")).to_be_visible()
    crumbly = page.get_by_role("button", name=re.compile("^crumbly dough"))
    expect(crumbly).to_be_disabled()
    page.get_by_role("button", name="Squeeze a handful").tap()
    expect(page.get_by_text("What is it?")).to_be_visible()
    assert axe_violations(page) == []
    crumbly.tap()
    expect(page.get_by_role("status")).to_contain_text('your hands say "crumbly dough"')
    assert axe_violations(page) == []
    page.get_by_role("button", name="Another amount").tap()
    page.get_by_label("Jar").select_option(label="Glycerin")
    page.get_by_label("Grams that went in").fill("25")
    page.get_by_role("button", name="It went in").tap()
    page.get_by_role("button", name="Yes, 25 g").tap()  # three times what was offered is asked about once
    expect(page.get_by_text("squeeze another")).to_be_visible()
    for name in ("Mix 3 min", "Rest 10 min", "Squeeze a handful"):
        page.get_by_role("button", name=name).tap()
        expect(page.get_by_role("button", name=name)).to_be_enabled()
    page.get_by_role("button", name=re.compile("^play dough")).tap()
    page.get_by_role("button", name="As meant: go on").tap()
    expect(page.get_by_role("heading", level=1)).to_have_text("Shape, 1 of 2")
    page.get_by_role("button", name="Done", exact=True).tap()
    page.get_by_role("button", name="+ 6").tap()
    expect(page.get_by_text("6 of 12 pieces")).to_be_visible()
    page.get_by_role("button", name="That is all there is").tap()
    expect(page.get_by_role("region", name="What was hidden")).to_contain_text("drinks")
    expect(page.get_by_role("img", name=re.compile("The dough over"))).to_be_visible()
    expect(page.get_by_role("region", name="Points")).to_contain_text("At 0.5 min crumbly dough")
    assert axe_violations(page) == []


def test_a_practice_bowl_by_keys(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/practice")

    def press(name: str | re.Pattern[str]) -> None:
        button = page.get_by_role("button", name=name)
        expect(button).to_be_enabled()
        button.focus()
        page.keyboard.press("Enter")

    page.get_by_role("listitem").filter(has_text="The first scoop").get_by_role("button", name="Take this bowl").press("Enter")
    for name in ("Rest 10 min", "Squeeze a handful", re.compile("^play dough"), "As meant: go on"):
        press(name)
    press("Done")
    expect(page.get_by_role("heading", level=1)).to_have_text("Shape, 2 of 2")
    page.route("**/events", lambda route: (time.sleep(ANSWER_S), route.continue_()))
    for name in ("+ 1 piece", "+ 1 piece", "+ 1 piece", "That is all there is", "That is all there is"):
        press(name)  # quicker than the studio answers: each piece counts, the bowl ends once
    expect(page.get_by_role("region", name="What was hidden")).to_contain_text("Nothing was hidden")
    run = page.request.get(page.url.replace("/practice/", "/api/practice-runs/")).json()
    assert run["bench"]["state"]["pieces_done"] == 3


def test_the_eye_is_trained(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/practice/eye")
    for _ in range(12):
        page.get_by_role("button", name="play dough", exact=True).click()
    expect(page.get_by_text(re.compile(r"\d+ of 12 right"))).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("12 cards seen"))).to_be_visible()
