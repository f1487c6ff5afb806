"""Hands at the bench: pour into the simulated scale, heat, press what is to be pressed."""

from __future__ import annotations

import re
import time
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, expect

from tests.serving import Server

Answer = dict[str, Any]
CONFLICT = 409
PATIENCE_S = 15.0


def next_event(state: Answer) -> Answer:
    """The usual thing to happen at the step in hand; after the last step the first weighing comes again."""
    if state["current"] is None:
        return {"kind": "back", "step": next(step["key"] for step in state["steps"] if step["kind"] == "weigh")}
    step = state["steps"][state["current"]]
    if step["kind"] == "weigh":
        return {"kind": "weighed", "step": step["key"], "actual_g": step["target_g"] + 0.01 * state["seq"], "source": "scale"}
    if step["kind"] == "conditions":
        return {"kind": "conditions", "step": step["key"], "room_c": 19.0, "humidity_pct": 51.0, "tap": "soft"}
    return {"kind": "done", "step": step["key"]}


class BenchDriver:
    """Drives one batch through the interface; the devices are moved as a user of the drawer would."""

    def __init__(self, page: Page, server: Server) -> None:
        self.page, self.server = page, server
        self.batch_id = 0

    def begin(self, method: str, **ask: Any) -> Answer:
        formulas = self.page.request.get(f"{self.server.address}/api/formulas").json()["formulas"]
        formula = next(each for each in formulas if each["method"] == method)
        wish = {"formula_id": formula["id"], "wishes": [{"pieces": 6}], "capacity_g": 4000.0} | ask
        answer = self.page.request.post(f"{self.server.address}/api/batches", data=wish)
        assert answer.ok, answer.text()
        batch: Answer = answer.json()
        self.batch_id = batch["id"]
        self.page.goto(f"{self.server.address}/bench/{self.batch_id}")
        return batch

    def batch(self) -> Answer:
        found: Answer = self.page.request.get(f"{self.server.address}/api/batches/{self.batch_id}").json()
        return found

    def step(self) -> Answer | None:
        state = self.batch()["state"]
        found: Answer | None = None if state["current"] is None else state["steps"][state["current"]]
        return found

    def title(self) -> str:
        step = self.step()
        return "On the paper" if step is None else str(step["title"])

    def drawer(self, act: str, **how: Any) -> None:
        assert self.page.request.post(f"{self.server.address}/api/devices/drawer", data={"act": act, **how}).ok

    def press(self, name: str) -> None:
        self.page.get_by_role("button", name=name, exact=True).click()

    def shown(self, step: Answer) -> None:
        expect(self.page.get_by_role("heading", level=1)).to_have_text(step["title"])

    def hurry(self, until: Callable[[Answer], bool]) -> Answer:
        """Let everything before a step happen at the studio, and show that step."""
        state = self.batch()["state"]
        while not until(step := state["steps"][state["current"]]):
            event = {"after": state["seq"], "event": next_event(state)}
            answer = self.page.request.post(f"{self.server.address}/api/batches/{self.batch_id}/events", data=event)
            if answer.status == CONFLICT:  # the page itself has told something meanwhile: from where it stands now
                state = self.batch()["state"]
                continue
            assert answer.ok, answer.text()
            state = answer.json()["state"]
        self.page.reload()
        self.shown(step)
        return dict(step)

    def moved_from(self, step: Answer) -> Answer | None:
        """Wait until what is shown, and what the studio knows, is the step after; return that."""
        expect(self.page.locator("main")).not_to_have_attribute("data-step", step["key"])
        end = time.monotonic() + PATIENCE_S
        while (after := self.step()) is not None and after["key"] == step["key"]:
            assert time.monotonic() < end, f"still at {step['title']}"
            self.page.wait_for_timeout(60)
        expect(self.page.get_by_role("heading", level=1)).to_have_text("On the paper" if after is None else str(after["title"]))
        return after

    def weigh(self, step: Answer, off_g: float = 0.0) -> Answer | None:
        """Pour what is asked; the bench takes it by itself. Return the step after."""
        self.drawer("pour", value=step["target_g"] + off_g)
        return self.moved_from(step)

    def do_all(self) -> None:
        """Do every step that is left, the usual way."""
        step = self.step()
        while step is not None:
            step = self.do(step)

    def do(self, step: Answer) -> Answer | None:
        """Do whatever the step in hand asks, the usual way; return the step after."""
        self.shown(step)
        kind = step["kind"]
        if kind == "weigh":
            return self.weigh(step)
        if kind == "conditions":
            self.press("That is the air")
        elif kind == "temperature":
            low, high = step["low_c"] or 25.0, step["high_c"]
            self.drawer("temperature", value=(low + min(high, low + 8)) / 2)
            self.page.get_by_role("button", name=re.compile("^Go on")).click()  # "all the same", where it is seen too late
        elif kind == "rest":
            self.page.get_by_role("button", name="Start").click()
            expect(self.page.get_by_role("timer")).to_be_visible()
            self.page.get_by_role("button", name="Go on", exact=True).click()
        elif kind == "feel":
            now = self.batch()["now"]
            wanted = now["dough"] or now["portions"][0]["dough"]
            self.page.get_by_role("button", name=wanted["wanted"]["states"][0]).click()
            self.press("As meant: go on")
        elif kind == "shape":
            while self.batch()["state"]["pieces_done"] < (step["pieces"] or 0):
                before = self.batch()["state"]["pieces_done"]
                self.press("+ 6")
                expect(self.page.get_by_text(f"{before + 6} of")).to_be_visible()
            self.press("All shaped")
        else:
            self.press("Done")
        return self.moved_from(step)
