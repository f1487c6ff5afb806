"""Two tablets at one bowl, offline and online in either order: nothing lost, nothing doubled, everything told."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Browser, expect

from tests.serving import Server
from tests.two_tablets import AIR, come_back, hurry, sit_down, tell_story

SAMPLE = (14, 27)
"""Seeds of a fixed sample; `make prove` tells two hundred."""


@pytest.mark.parametrize("seed", SAMPLE)
def test_whatever_the_network_does_the_record_holds_it_once(chromium: Browser, server: Server, seed: int) -> None:
    story = tell_story(chromium, server, seed)
    assert sum(len(tablet.made) for tablet in story.tablets) >= 3, "something was done"
    assert story.whole, (story.lost, story.doubled, story.left, story.untold)


def test_twelve_pieces_of_one_and_one_of_the_other_are_thirteen(chromium: Browser, server: Server) -> None:
    batch = server.ask("POST", "/api/batches", {"formula_id": 10, "wishes": [{"pieces": 20}]})[1]["id"]
    hurry(server, batch, "shape")
    away, there = sit_down(chromium, server, batch, "A"), sit_down(chromium, server, batch, "B")
    away.mood = "silent"
    for count in range(1, 3):
        away.page.get_by_role("button", name="+ 6").click()
        expect(away.page.get_by_text(f"{6 * count} of 20")).to_be_visible()
    expect(away.page.get_by_text("2 things are kept on this tablet")).to_be_visible()
    there.page.get_by_role("button", name="+ 1 piece").click()
    expect(there.page.get_by_text("1 of 20")).to_be_visible()
    away.mood = "well"
    come_back(away)
    assert server.ask("GET", f"/api/batches/{batch}")[1]["state"]["pieces_done"] == 13
    expect(away.page.get_by_text("13 of 20")).to_be_visible()
    for tablet in (away, there):
        tablet.page.context.close()


def test_two_weighings_of_one_step_are_shown_to_both_and_one_is_put_in(chromium: Browser, server: Server) -> None:
    batch = server.ask("POST", "/api/batches", {"formula_id": 10, "wishes": [{"pieces": 6}]})[1]["id"]
    hurry(server, batch, "weigh")
    away, there = sit_down(chromium, server, batch, "A"), sit_down(chromium, server, batch, "B")
    away.mood = "silent"
    title = there.page.get_by_role("heading", level=1).inner_text()
    for tablet, off in ((away, 0.3), (there, 0.1)):
        target = re.search(r"(\d+(?:\.\d+)?)", tablet.page.locator("p.text-bench-target").inner_text())
        assert target is not None
        tablet.page.get_by_label("Weighed, in grams").fill(f"{float(target[1]) + off:.1f}")
        tablet.page.get_by_role("button", name="Keep it").click()
        expect(tablet.page.get_by_role("heading", level=1)).not_to_have_text(title)
    away.mood = "well"
    come_back(away)
    there.page.reload()
    for tablet in (away, there):
        shown = tablet.page.get_by_role("region", name="Does not follow")
        expect(shown.get_by_role("listitem")).to_have_count(1)
        expect(shown).to_contain_text("In the record meanwhile")
    away.page.get_by_role("button", name="Put it in").click()
    expect(away.page.get_by_role("region", name="Does not follow")).to_have_count(0)
    state = server.ask("GET", f"/api/batches/{batch}")[1]["state"]
    assert (len(state["weighings"]), len(state["history"]), state["held"]) == (1, 2, [])
    for tablet in (away, there):
        tablet.page.context.close()


def test_a_busy_studio_empties_no_queue(chromium: Browser, server: Server) -> None:
    """A 503 while the queue is told keeps all of it: only a 409 means that the batch was moved on elsewhere."""
    batch = server.ask("POST", "/api/batches", {"formula_id": 10, "wishes": [{"pieces": 6}]})[1]["id"]
    tablet = sit_down(chromium, server, batch, "A")
    tablet.mood = "busy"
    tablet.page.get_by_role("button", name=AIR).click()
    expect(tablet.page.get_by_text("1 thing is kept on this tablet")).to_be_visible()
    tablet.page.evaluate("window.dispatchEvent(new Event('online'))")
    tablet.page.wait_for_timeout(300)
    assert set(tablet.codes) == {503}
    tablet.mood = "well"
    come_back(tablet)
    expect(tablet.page.get_by_text(re.compile("kept on this"))).to_have_count(0)
    told = server.ask("GET", f"/api/batches/{batch}")[1]
    assert [event["kind"] for event in told["events"]] == ["conditions"], tablet.codes
    tablet.page.context.close()
