"""The large seeded sets that are too long for every test run: make prove. `make test` runs a fixed sample of each.

Two tablets: two hundred stories of two real pages at one bowl (tests/two_tablets.py); none may lose, double or hide an event.
Odd values: twenty thousand requests to every write route with every odd value (tests/odd_walk.py); no server error, every page
reads afterwards, and the studio comes out of its zip the same.
Weigh-ins: two hundred pans of every way of drying, with and without a formula, with steady and shaking hands
(tests/core/making/pans.py); the interval of 90 % holds the truth in four fifths of each kind at the least.
"""

from __future__ import annotations

import argparse
import shutil
import sys
import tempfile
import time
from itertools import product
from pathlib import Path
from typing import get_args

from playwright.sync_api import sync_playwright
from scripts.prepare import find_chromium
from tests.core.making.pans import HOURS, Way, coverage
from tests.odd_walk import came_back, read_all, walk
from tests.serving import Nursery, Server
from tests.two_tablets import tell_story

from rosy_kettle.api.app import create_app
from rosy_kettle.store import open_studio
from rosy_kettle.store.session import FILE_NAME
from rosy_kettle.usecases.studio.seed_demo import seed_demo

LEAST_HELD = 0.8  # of the pans of one kind [-]
A_STUDIO = 25  # stories told at one studio before a fresh one is served


def two_tablets(stories: int, first: int) -> list[str]:
    """Tell the stories and return what is wrong."""
    wrong, made, held, began = [], 0, 0, time.monotonic()
    nursery = Nursery()
    with tempfile.TemporaryDirectory() as name, sync_playwright() as playwright:
        seeded = Path(name) / "seeded"
        studio = open_studio(seeded)
        seed_demo(studio)
        studio.close()
        browser = playwright.chromium.launch(executable_path=find_chromium(), chromium_sandbox=False)
        for begin in range(first, first + stories, A_STUDIO):
            folder = Path(name) / f"studio-{begin}"
            folder.mkdir()
            shutil.copy(seeded / FILE_NAME, folder)
            server = Server(folder, nursery, *nursery.serve(folder))
            for seed in range(begin, min(begin + A_STUDIO, first + stories)):
                story = tell_story(browser, server, seed)
                made += sum(len(tablet.made) for tablet in story.tablets)
                held += sum(event["kind"] == "held" for event in story.record["events"])
                if not story.whole:
                    wrong.append(f"{seed}: lost {story.lost}, doubled {story.doubled}, left {story.left}, untold {story.untold}")
            server.kill()
            done = min(begin + A_STUDIO, first + stories) - first
            print(f"{done} stories, {made} events, {held} held, {len(wrong)} wrong, {time.monotonic() - began:.0f} s", flush=True)
        browser.close()
    nursery.close()
    return wrong if made else ["nothing was made, so nothing was tried"]


def odd_values(requests: int, seed: int) -> list[str]:
    """Walk the write routes of a demo studio with odd values and return what is wrong."""
    began = time.monotonic()
    with tempfile.TemporaryDirectory() as name:
        studio = open_studio(Path(name) / "demo")
        seed_demo(studio)
        app = create_app(studio)
        app.config["PROPAGATE_EXCEPTIONS"] = False
        client = app.test_client()
        found = walk(client, requests, seed)
        wrong = found.wrong + read_all(client) + came_back(studio, Path(name))
        studio.close()
    print(
        f"{found.asked} odd requests, {found.refused} refused, {len(wrong)} wrong, {time.monotonic() - began:.0f} s", flush=True
    )
    return wrong


def weigh_ins(pans: int, seed: int) -> list[str]:
    """Weigh pans whose truth is known, print how often the interval holds it, and return the kinds where it does too seldom."""
    wrong = []
    for way, known, scatter in product(get_args(Way), (False, True), (0.45, 3.0)):
        told = coverage(way, known=known, scatter=scatter, hours=HOURS, pans=pans, seed=seed)
        held = told.held / max(1, told.pans)
        said = f"{way}, {'a' if known else 'no'} formula, {scatter:g} steps: held {held:.1%} of {told.pans}"
        print(f"{said}, dry too soon {told.dry_too_soon} of {told.called_dry}", flush=True)
        wrong += [said] if held < LEAST_HELD else []
    return wrong


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--stories", type=int, default=200)
    asked.add_argument("--requests", type=int, default=20_000)
    asked.add_argument("--pans", type=int, default=200)
    asked.add_argument("--first-seed", type=int, default=1)
    options = asked.parse_args()
    wrong = weigh_ins(options.pans, options.first_seed) if options.pans else []
    wrong += odd_values(options.requests, options.first_seed) if options.requests else []
    if options.stories:
        wrong += two_tablets(options.stories, options.first_seed)
    sys.exit("\n".join(wrong) if wrong else 0)


if __name__ == "__main__":
    main()
