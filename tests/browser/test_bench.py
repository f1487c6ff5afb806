"""Batches on the simulated devices, through the real interface, with everything that goes wrong at a bench."""

from __future__ import annotations

import random
import re
import threading
import time
from collections.abc import Callable
from itertools import count
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.browser.bench_driver import Answer, BenchDriver, next_event
from tests.browser.conftest import axe_violations
from tests.serving import Server

OpenPage = Callable[..., Page]
METHODS = (
    "glycerin-dough", "betaine-dough", "butter-dough", "moulded-truffle", "melt", "damp-press", "loose-dust",
    "pre-dried-surfactant",
)  # fmt: skip
SMALLEST_PX = 48
TARGETS = """
() => [...document.querySelectorAll("button, a, input, select")]
  .filter((e) => e.offsetParent !== null && !e.classList.contains("sr-only"))
  .map((e) => { const box = e.closest("label") && e.tagName === "INPUT" ? e.closest("label").getBoundingClientRect() : e.getBoundingClientRect();
                return [e.getAttribute("aria-label") || e.textContent.trim(), Math.round(box.width), Math.round(box.height)]; })
  .filter(([, width, height]) => width > 0 && (width < 48 || height < 48))
"""
LATENCY = """
() => new Promise((done) => {
  const found = [];
  const figure = document.querySelector("[data-reading='scale']");
  const observer = new MutationObserver(() => {
    const at = Number(figure.dataset.at);
    requestAnimationFrame(() => setTimeout(() => {
      found.push(Date.now() - at);
      if (found.length === 60) { observer.disconnect(); done(found); }
    }, 0));
  });
  observer.observe(figure, {attributes: true, attributeFilter: ["data-at"]});
})
"""


@pytest.mark.parametrize("method", METHODS)
def test_a_whole_batch_by_each_method(fast_server: Server, open_page: OpenPage, method: str) -> None:
    # By turns on a small laptop and on a tablet.
    size = ({"width": 1280, "height": 800}, {"width": 1024, "height": 768})[METHODS.index(method) % 2]
    page = open_page(fast_server.address, viewport=size)
    driver = BenchDriver(page, fast_server)
    driver.begin(method)
    small: list[Any] = []
    step = driver.step()
    while step is not None:
        driver.shown(step)
        small += page.evaluate(TARGETS)
        step = driver.do(step)
    assert small == [], f"nothing at the bench is under {SMALLEST_PX} px"
    batch = driver.batch()
    weighed = batch["state"]["weighings"]
    assert len(weighed) == sum(step["kind"] == "weigh" for step in batch["state"]["steps"])
    assert all(weighing["within"] and weighing["source"] == "stand-in" for weighing in weighed)
    expect(page.get_by_text("pieces from")).to_be_visible()
    page.get_by_role("button", name="To the record").click()
    expect(page.get_by_role("region", name="What happened")).to_contain_text("by a stand-in: nobody weighed it")


def test_a_bad_day_at_the_bench_is_told_truthfully(fast_server: Server, open_page: OpenPage) -> None:
    """Too much glycerin, a forgotten scent, a dough too dry, a power cut: the record says all of it."""
    page = open_page(fast_server.address)
    driver = BenchDriver(page, fast_server)
    driver.begin("betaine-dough")
    while (step := driver.step()) is not None and step["kind"] != "do":
        driver.shown(step)
        if step["ingredient"] == "glycerin":
            driver.drawer("pour", value=step["target_g"] + 12)
            page.get_by_role("button", name="What now?").click()
            ways = page.get_by_role("list", name="Ways out").get_by_role("listitem")
            expect(ways).to_have_count(3)  # to rebalance would gain nothing
            assert axe_violations(page) == []
            ways.filter(has_text="Weigh everything still to come").get_by_role("button").click()
            driver.moved_from(step)
        elif "oat" in step["title"] or "tea" in step["title"]:
            page.get_by_role("button", name="Leave it out…").first.click()
            assert axe_violations(page) == []
            page.get_by_role("button", name="there is none left").click()
            driver.moved_from(step)
        else:
            driver.do(step)
    expect(page.get_by_role("list", name="Left out")).to_contain_text("there is none left")
    before = driver.batch()
    fast_server.kill()
    fast_server.start_again()
    page.reload()
    expect(page.get_by_role("heading", level=1)).to_have_text(before["state"]["steps"][before["state"]["current"]]["title"])
    assert driver.batch() == before, "the power cut took nothing"
    judging = driver.hurry(lambda step: step["kind"] == "feel")
    page.get_by_role("button", name="crumbly dough").click()
    expect(page.get_by_role("status").first).to_contain_text("too dry")
    mend = page.get_by_role("list", name="What to do").get_by_role("button").first
    expect(mend).to_contain_text(re.compile(r"Foam score [\d.]+ to [\d.]+"))
    mend.click()
    page.get_by_role("button", name="play dough").click()
    page.get_by_role("button", name="As meant: go on").click()
    driver.moved_from(judging)
    driver.do_all()
    page.get_by_role("button", name="To the record").click()
    story = page.get_by_role("region", name="What happened")
    for words in ("Weigh everything still to come", "Left out", "there is none left", "It felt like crumbly dough", "Added"):
        expect(story).to_contain_text(words)
    _write_the_outcome_and_close(page)


def _write_the_outcome_and_close(page: Page) -> None:
    story = page.get_by_role("region", name="What happened")
    page.get_by_label("Pieces good").fill("5")
    page.get_by_label("Pieces spoiled").fill("one")
    page.get_by_role("button", name="Write it down").click()
    expect(page.get_by_role("alert")).to_contain_text("Pieces spoiled must be a whole number")
    page.get_by_label("Pieces spoiled").fill("1")
    page.get_by_label("Dry on").fill("2026-12-01T09:30")
    page.get_by_label("foam stood").fill("6,5")
    page.get_by_role("button", name="Write it down").click()
    expect(story).to_contain_text(re.compile(r"dry on 01 Dec 2026, \d\d:\d\d UTC; pieces: 5 good, 1 spoiled; foam stood 6.5 cm"))
    expect(page.get_by_label("Dry on")).to_have_value("2026-12-01T09:30")
    page.get_by_role("button", name="Close the record…").click()
    page.get_by_role("button", name="Close it for good").click()
    expect(page.get_by_text("it stays as it is").first).to_be_visible()
    page.get_by_label("Amend it; the record itself stays as it is").fill("one cracked on the second day")
    page.get_by_role("button", name="Amend", exact=True).click()
    expect(story).to_contain_text("one cracked on the second day")
    assert axe_violations(page) == []


def test_thirty_power_cuts_on_one_batch(fast_server: Server, open_page: OpenPage) -> None:
    """kill -9 at random moments of a whole batch: same step, same weighings, nothing lost and nothing twice."""
    chance = random.Random(24)
    page = open_page(fast_server.address)
    driver = BenchDriver(page, fast_server)
    driver.begin("glycerin-dough")
    seen = driver.batch()["state"]
    steps_cut = set()
    address = f"{fast_server.address}/api/batches/{driver.batch_id}/events"
    for cut in range(30):
        # One thing surely happens between two cuts, however slow the machine.
        first = page.request.post(address, data={"after": seen["seq"], "event": next_event(seen)})
        seen = first.json()["state"]
        stop = threading.Timer(chance.uniform(0.0, 0.05), fast_server.kill)  # an event takes some 0.03 s
        stop.start()
        asked: Answer = {}
        for more in count():
            if more and seen["current"] is not None:
                stop.join()  # two steps between cuts at most, so that the batch lasts for many on any machine
            try:
                asked = {"after": seen["seq"], "event": next_event(seen)}
                answer = page.request.post(address, data=asked)
                seen = answer.json()["state"]
            except Exception:  # noqa: BLE001 - the cut, however the connection tells of it
                break
        stop.join()
        fast_server.kill()
        fast_server.start_again()
        state = driver.batch()["state"]
        assert state["seq"] - seen["seq"] in {0, 1}, f"cut {cut}: at most the one that was on its way"
        if state["seq"] == seen["seq"]:
            assert state == seen, f"cut {cut}: what was acknowledged is there to the letter"
        else:
            assert state["history"][: len(seen["history"])] == seen["history"]
            weighed = [weighing["actual_g"] for weighing in state["history"][len(seen["history"]) :]]
            assert weighed == ([asked["event"]["actual_g"]] if asked["event"]["kind"] == "weighed" else [])
        steps_cut.add(state["current"])
        seen = state
        if cut % 10 == 0:
            page.reload()
            expect(page.get_by_role("heading", level=1)).to_have_text(driver.title())
    assert len(steps_cut) > 10, "the cuts fell on many steps"
    assert seen["seq"] >= 30, "what surely happened between two cuts is there thirty times"


def test_two_browsers_stay_in_step(fast_server: Server, open_page: OpenPage) -> None:
    page, other = open_page(fast_server.address), open_page(fast_server.address)
    driver = BenchDriver(page, fast_server)
    driver.begin("melt")
    other.goto(f"{fast_server.address}/bench/{driver.batch_id}")
    for _ in range(3):
        step = driver.step()
        assert step is not None
        after = driver.do(step)
        assert after is not None
        expect(other.get_by_role("heading", level=1)).to_have_text(after["title"])
    history = driver.batch()["state"]["history"]
    assert len(history) == len({weighing["step"] for weighing in history}), "both saw it, one kept it"


def test_an_unplugged_scale_is_no_dead_end(fast_server: Server, open_page: OpenPage) -> None:
    page = open_page(fast_server.address)
    driver = BenchDriver(page, fast_server)
    driver.begin("melt")
    driver.drawer("unplug", device="hygrometer")
    expect(page.get_by_label("Humidity in per cent")).to_be_visible()
    page.get_by_label("Humidity in per cent").fill("61")
    page.get_by_role("button", name="Take it").click()
    expect(page.get_by_text("run the dehumidifier")).to_be_visible()
    air = driver.step()
    assert air is not None
    driver.press("That is the air")
    driver.drawer("unplug", device="scale")
    step = driver.moved_from(air)
    assert step is not None
    typed = page.get_by_label("Weighed, in grams")
    typed.fill(f"{3 * step['target_g']:.1f}".replace(".", ","))
    page.get_by_role("button", name="Keep it").click()
    asked = page.get_by_role("region", name="Is that right?")
    expect(asked).to_contain_text("was meant")
    asked.get_by_role("button", name="No, again").click()
    actual_g = round(step["target_g"] * 1.2, 1)
    typed.fill(f"{actual_g}".replace(".", ","))
    page.get_by_role("button", name="Keep it").click()
    driver.moved_from(step)
    weighed = driver.batch()["state"]["weighings"][0]
    assert (weighed["actual_g"], weighed["source"]) == (actual_g, "hand")
    driver.drawer("plug", device="scale")
    expect(page.locator("[data-reading='scale']")).to_be_visible()
    assert driver.batch()["state"]["conditions"]["humidity_pct"] == 61


def test_a_weighing_under_its_tolerance_has_to_be_held(fast_server: Server, open_page: OpenPage) -> None:
    page = open_page(fast_server.address)
    driver = BenchDriver(page, fast_server)
    driver.begin("melt")
    step = driver.hurry(lambda step: step["kind"] == "weigh")
    driver.drawer("pour", value=step["target_g"] / 2)
    hold = page.get_by_role("button", name=re.compile("Hold to keep"))
    expect(page.locator("[data-reading='scale']")).to_contain_text(re.compile(rf"^{step['target_g'] / 2:.0f}"))
    hold.click()
    page.wait_for_timeout(300)
    assert driver.batch()["state"]["weighings"] == [], "a slip of the knuckle keeps nothing"
    hold.click(delay=900)
    driver.moved_from(step)
    assert driver.batch()["state"]["weighings"][0]["within"] is False


@pytest.mark.clock
def test_a_reading_is_on_the_screen_in_time(server: Server, open_page: OpenPage, capsys: pytest.CaptureFixture[str]) -> None:
    """Device reading to painted figure, p95 under 100 ms: in one of five rounds, for a machine stalls of itself."""
    page = open_page(server.address)
    driver = BenchDriver(page, server)
    driver.begin("melt")
    driver.press("That is the air")
    expect(page.locator("[data-reading='scale']")).to_be_visible()
    p95s = list[float]()
    while len(p95s) < 5 and min(p95s, default=100) >= 100:
        driver.drawer("pour", value=5.0, seconds=8.0)
        times = sorted(page.evaluate(LATENCY))
        p95s.append(times[int(len(times) * 0.95)])
        with capsys.disabled():
            print(f"\ndevice reading to painted: p50 {times[len(times) // 2]:.0f} ms, p95 {p95s[-1]:.0f} ms")
    assert min(p95s) < 100


def test_a_timer_survives_a_reload(fast_server: Server, open_page: OpenPage) -> None:
    page = open_page(fast_server.address)
    driver = BenchDriver(page, fast_server)
    driver.begin("betaine-dough")
    driver.hurry(lambda step: step["kind"] == "rest")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("timer")).to_be_visible()
    ends_at = driver.batch()["state"]["timer"]["ends_at"]
    page.reload()
    expect(page.get_by_role("timer")).to_be_visible()
    assert driver.batch()["state"]["timer"]["ends_at"] == ends_at, "it runs on, and does not begin anew"
    page.get_by_role("button", name="Go on", exact=True).click()


# A driver that asks the page anything counts as a touch; a hand only where it touches.
COUNT_TONES = """
window.tones = 0;
let touched = false;
addEventListener("pointerdown", () => { touched = true; }, { capture: true });
Object.defineProperty(navigator, "userActivation", { get: () => ({ hasBeenActive: touched }) });
window.AudioContext = class {
  constructor() { this.currentTime = 0; this.destination = {}; }
  createOscillator() { window.tones += 1; return { frequency: {}, connect: (next) => next, start() {}, stop() {} }; }
  createGain() { return { gain: { setValueAtTime() {}, exponentialRampToValueAtTime() {} }, connect: (next) => next }; }
  close() { return Promise.resolve(); }
};
"""


def wait_for_tones(page: Page) -> None:
    """Asked again and again from here: a page under our content policy does not evaluate what a driver leaves in it."""
    end = time.monotonic() + 15
    while page.evaluate("window.tones") < 2:
        assert time.monotonic() < end, "nothing was heard"
        page.wait_for_timeout(50)


def test_the_edges_of_the_window_are_heard_and_said_while_shaping(fast_server: Server, open_page: OpenPage) -> None:
    page = open_page(fast_server.address)
    page.add_init_script(COUNT_TONES)
    driver = BenchDriver(page, fast_server)
    driver.begin("butter-dough")
    step = driver.hurry(lambda step: step["key"] == "window")
    expect(page.get_by_role("button", name="Sound on, once you touch the page")).to_be_visible()
    driver.drawer("temperature", value=(step["low_c"] + step["high_c"]) / 2)
    expect(page.get_by_role("status")).to_contain_text("right")
    driver.drawer("temperature", value=step["high_c"] + 8)
    expect(page.get_by_role("status")).to_contain_text("too hot")
    assert page.evaluate("window.tones") == 0, "no page is heard before it is touched, and the browser is not asked to"
    page.get_by_role("heading", level=1).click()
    expect(page.get_by_role("button", name="Sound on", exact=True)).to_be_visible()
    driver.drawer("temperature", value=(step["low_c"] + step["high_c"]) / 2)
    expect(page.get_by_role("status")).to_contain_text("right")
    wait_for_tones(page)
    driver.do(step)
    expect(page.get_by_text(re.compile("inside its window of"))).to_be_visible()
    page.evaluate("window.tones = 0")
    driver.drawer("temperature", value=step["low_c"] - 4)
    expect(page.get_by_role("alert")).to_contain_text("under its window")
    wait_for_tones(page)
    page.get_by_role("button", name="Sound on").click()
    page.evaluate("window.tones = 0")
    driver.drawer("temperature", value=(step["low_c"] + step["high_c"]) / 2)
    expect(page.get_by_text(re.compile("inside its window of"))).to_be_visible()
    page.wait_for_timeout(300)
    assert page.evaluate("window.tones") == 0, "off is off"
    assert axe_violations(page) == []
