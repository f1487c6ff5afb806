"""A tablet that loses its network in the middle of a batch: it goes on, and the record is whole afterwards, nothing twice."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]


def begin(page: Page, server: Server) -> int:
    made = page.request.post(f"{server.address}/api/batches", data={"formula_id": 10, "wishes": [{"pieces": 6}]}).json()
    page.route("**/api/devices/stream**", lambda route: route.abort())  # the scale is not heard from the beginning
    page.goto(f"{server.address}/bench/{made['id']}")
    expect(page.get_by_role("button", name=re.compile("That is the air|Go on without"))).to_be_visible()
    return int(made["id"])


def weigh(page: Page) -> None:
    title = page.get_by_role("heading", level=1)
    before = title.inner_text()
    target = re.search(r"(\d+(?:\.\d+)?)", page.locator("p.text-bench-target").inner_text())
    assert target is not None
    page.get_by_label("Weighed, in grams").fill(target[1])
    page.get_by_role("button", name="Keep it").click()
    expect(title).not_to_have_text(before)


def test_the_record_is_whole_after_an_outage(server: Server, open_page: OpenPage) -> None:
    page = open_page(server.address)
    batch = begin(page, server)
    page.get_by_role("button", name=re.compile("That is the air|Go on without")).click()
    expect(page.get_by_role("heading", level=1)).to_have_text(re.compile("Weigh"))
    page.context.set_offline(offline=True)
    # Asked again while nobody answers, as when the tablet wakes: what is known stays on the screen.
    with page.expect_event("requestfailed", lambda request: f"/api/batches/{batch}" in request.url):
        page.evaluate("() => document.dispatchEvent(new Event('visibilitychange', {bubbles: true}))")
    page.wait_for_timeout(2_500)
    expect(page.get_by_role("heading", level=1)).to_have_text(re.compile("Weigh"))
    for done in range(1, 4):
        weigh(page)
        expect(page.get_by_text(f"{done} thing{' is' if done == 1 else 's are'} kept on this tablet")).to_be_visible()
    page.context.set_offline(offline=False)
    page.wait_for_function("() => !Object.keys(localStorage).some(key => key.startsWith('rosy-kettle-bench-'))")
    expect(page.get_by_text(re.compile("kept on this"))).to_have_count(0)
    told = page.request.get(f"{server.address}/api/batches/{batch}").json()
    weighed = [event for event in told["events"] if event["kind"] == "weighed"]
    assert len(weighed) == 3
    assert len({event["data"]["step"] for event in weighed}) == 3
    assert [event["seq"] for event in told["events"]] == list(range(1, len(told["events"]) + 1))
    weigh_here = page.get_by_role("heading", level=1).inner_text()
    assert told["state"]["steps"][told["state"]["current"]]["title"] == weigh_here


def test_what_waited_outlives_the_page(server: Server, open_page: OpenPage) -> None:
    page = open_page(server.address)
    answers: list[str] = []
    page.on("response", lambda each: answers.append(f"{each.status} {each.url}") if each.url.endswith("/events") else None)
    page.on("requestfailed", lambda each: answers.append(f"no answer {each.url}") if each.url.endswith("/events") else None)
    batch = begin(page, server)
    page.get_by_role("button", name=re.compile("That is the air|Go on without")).click()
    expect(page.get_by_role("heading", level=1)).to_have_text(re.compile("Weigh"))
    page.context.set_offline(offline=True)
    weigh(page)
    expect(page.get_by_text("1 thing is kept on this tablet")).to_be_visible()
    page.context.set_offline(offline=False)
    page.goto(f"{server.address}/bench/{batch}")
    expect(page.get_by_role("heading", level=1)).to_have_text(re.compile("Weigh"))  # until then nothing is said of what waits
    page.wait_for_function("() => !Object.keys(localStorage).some(key => key.startsWith('rosy-kettle-bench-'))")
    expect(page.get_by_text(re.compile("kept on this"))).to_have_count(0)
    told = page.request.get(f"{server.address}/api/batches/{batch}").json()
    weighed = [event for event in told["events"] if event["kind"] == "weighed"]
    assert (len(weighed), told["held"]) == (1, []), answers
    assert answers[-1].startswith(("200 ", "201 ")), answers  # 200: it had come through before the page was left, and is known
