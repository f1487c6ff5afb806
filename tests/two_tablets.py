"""Stories of two tablets at one bowl: each offline and online as it comes, with refusals, lost answers and reloads in between.

A story is drawn from a seed. The tablets are real pages of the product in Chromium; the network between them and the studio
answers, stays silent, is busy, or loses an answer on the way. At the end both are online, and everything either of them made has
to stand in the record once: as an event, as what is held, or as what was said again; nothing may be left in a queue.
"""

from __future__ import annotations

import json
import random
import re
from collections import Counter
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Any

from playwright.sync_api import Browser, Page, Route, expect
from playwright.sync_api import TimeoutError as Unpressed

from tests.serving import Server

Answer = dict[str, Any]
MOODS = ("well", "silent", "busy", "losing")
DEEDS = 14
PREFIX = "rosy-kettle-bench-"
WATCH = f"""
const put = Storage.prototype.setItem;
Storage.prototype.setItem = function (key, value) {{
  if (key.startsWith("{PREFIX}")) window.made(value);
  return put.call(this, key, value);
}};
"""
WAITING = f"Object.keys(localStorage).filter((key) => key.startsWith('{PREFIX}')).length"
AIR = re.compile("That is the air|Go on without")
FOLLOWING = re.compile("^(Done|All shaped|That is all there is|Go on|Start)")


@dataclass
class Tablet:
    """One page at the bench, with its own memory and its own network."""

    page: Page
    name: str
    mood: str = "well"
    made: dict[str, Answer] = field(default_factory=dict)
    """Every event that was made here, by its name."""
    codes: list[int] = field(default_factory=list)
    """What it was answered with, 0 where nothing came back."""

    def pass_on(self, route: Route) -> None:
        """Stand for the network between this tablet and the studio."""
        if self.mood == "silent":
            self.codes.append(0)
            route.abort()
        elif self.mood == "busy":
            self.codes.append(503)
            route.fulfill(status=503, content_type="application/json", body='{"code":"busy","message":"Busy.","details":{}}')
        else:
            answer = route.fetch()
            lost = self.mood == "losing"
            self.codes.append(0 if lost else answer.status)
            if lost:
                route.abort()
            else:
                route.fulfill(response=answer)

    def note(self, value: str) -> None:
        """Remember an event by its name as it was kept first."""
        told = json.loads(value)
        self.made.setdefault(told["id"], told["event"])


@dataclass
class Story:
    """What came of one story."""

    seed: int
    tablets: tuple[Tablet, Tablet]
    record: Answer
    lost: list[str]
    """Names of events that were made and stand nowhere."""
    doubled: list[str]
    left: int
    """Events still in a queue, or refused and not read."""
    untold: list[str]
    """What is held and not shown at a bench."""

    @property
    def whole(self) -> bool:
        return not (self.lost or self.doubled or self.left or self.untold)


def tell_story(browser: Browser, server: Server, seed: int) -> Story:
    """Play a story to its end and look at the record."""
    chance = random.Random(seed)
    formulas = server.ask("GET", "/api/formulas")[1]["formulas"]
    formula = chance.choice(sorted(formulas, key=lambda each: int(each["id"])))
    batch = server.ask("POST", "/api/batches", {"formula_id": formula["id"], "wishes": [{"pieces": 6}]})[1]
    if chance.random() < 0.4:
        hurry(server, batch["id"], "shape")
    tablets = (sit_down(browser, server, batch["id"], "A"), sit_down(browser, server, batch["id"], "B"))
    for _ in range(DEEDS):
        tablet = chance.choice(tablets)
        do_something(tablet, chance)
    for tablet in tablets if chance.random() < 0.5 else reversed(tablets):
        tablet.mood = "well"
        come_back(tablet)
    for tablet in tablets:
        expect(tablet.page.get_by_role("region", name="Refused")).to_have_count(0)
    story = look(server, batch["id"], seed, tablets)
    for tablet in tablets:
        tablet.page.context.close()
    return story


def sit_down(browser: Browser, server: Server, batch: int, name: str) -> Tablet:
    """Open the bench on a tablet that hears no devices and no news."""
    context = browser.new_context(viewport={"width": 1024, "height": 768}, locale="en-GB")
    context.set_default_timeout(10_000)
    page = context.new_page()
    tablet = Tablet(page, name)
    page.expose_function("made", tablet.note)
    page.add_init_script(WATCH)
    page.route("**/api/devices/stream**", lambda route: route.abort())
    page.goto(f"{server.address}/bench/{batch}")
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.route(f"**/api/batches/{batch}/events", tablet.pass_on)
    return tablet


def do_something(tablet: Tablet, chance: random.Random) -> None:
    """Let the network turn, reload the page, or do what the step in hand asks."""
    page, lot = tablet.page, chance.random()
    if lot < 0.25:
        tablet.mood = chance.choice(MOODS)
        return
    if lot < 0.32:
        page.reload()
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        return
    typed = page.get_by_label("Weighed, in grams")
    if typed.count():
        target = re.search(r"(\d+(?:\.\d+)?)", page.locator("p.text-bench-target").inner_text())
        assert target is not None
        with suppress(Unpressed):
            typed.fill(f"{float(target[1]) + chance.choice((0.0, 0.1, 0.2, 0.3)):.1f}", timeout=1_500)
        press(page, re.compile("^Keep it$"))
    elif page.get_by_role("button", name="+ 1 piece").count():
        press(page, re.compile(chance.choice((r"^\+ 1 piece$", r"^\+ 6$"))))
    elif page.get_by_role("button", name=AIR).count():
        press(page, AIR)
    elif page.get_by_role("button", name=FOLLOWING).count():
        press(page, FOLLOWING)
    page.wait_for_timeout(chance.choice((0, 40, 150)))


def press(page: Page, name: re.Pattern[str]) -> None:
    """Press a button, where it is there and can be pressed: the step may have gone on by itself meanwhile."""
    button = page.get_by_role("button", name=name).first
    if button.count() and button.is_enabled():
        with suppress(Unpressed):
            button.click(timeout=1_500)


def come_back(tablet: Tablet) -> None:
    """Hear the studio again; what waits is told, however slow the next try would have been."""
    tablet.page.wait_for_timeout(50)
    for _ in range(100):
        if tablet.page.evaluate(WAITING) == 0:
            return
        tablet.page.evaluate("window.dispatchEvent(new Event('online'))")
        tablet.page.wait_for_timeout(100)


def look(server: Server, batch: int, seed: int, tablets: tuple[Tablet, Tablet]) -> Story:
    """Hold the record against what was made."""
    record = server.ask("GET", f"/api/batches/{batch}")[1]
    names = Counter(event["id"] for event in record["events"])
    made = {name for tablet in tablets for name in tablet.made}
    untold = []
    if record["held"]:
        for tablet in tablets:
            tablet.page.reload()
            shown = tablet.page.get_by_role("region", name="Does not follow").get_by_role("listitem")
            try:
                expect(shown).to_have_count(len(record["held"]))
            except AssertionError:
                untold.append(tablet.name)
    left = sum(int(tablet.page.evaluate(WAITING)) for tablet in tablets)
    doubled = [name for name, count in names.items() if count > 1]
    return Story(seed, tablets, record, sorted(made - names.keys()), doubled, left, untold)


def hurry(server: Server, batch: int, kind: str) -> None:
    """Let everything before a step happen at the studio."""
    state = server.ask("GET", f"/api/batches/{batch}")[1]["state"]
    while (step := state["steps"][state["current"]])["kind"] != kind:
        what = {"weigh": "weighed", "conditions": "conditions"}.get(step["kind"], "done")
        event = {"kind": what, "step": step["key"]} | ({"actual_g": step["target_g"]} if what == "weighed" else {})
        status, answer = server.ask("POST", f"/api/batches/{batch}/events", {"after": state["seq"], "event": event})
        assert status == 201, answer
        state = answer["state"]
