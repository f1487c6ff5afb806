"""Take one current picture of each main view from the demo data: make screenshots."""

from __future__ import annotations

import io
import os
import re
import subprocess
import sys
import tempfile
from pathlib import Path

from PIL import Image
from playwright.sync_api import Page, sync_playwright
from scripts.prepare import find_chromium

ROOT = Path(__file__).resolve().parent.parent
COLOURS = 256
TARGET = ROOT / "docs" / "screenshots"
CHROMIUM = find_chromium()
RECIPE = """Weather scoops

Dry:
2 1/2 cups bicarb
1 cup SLSA powder
3/4 cup cornflour (sifted)
1/4 cup cream of tartar

Wet phase
1/3 cup coco betaine
2 Tbsp glycerine
1 tbsp almond oil
10–20 drops lavender EO
a pinch of mica
1 tsp moon glimmer
"""


def formula(page: Page, name: str) -> None:
    page.get_by_role("link", name=name).click()
    page.get_by_label("Name of the formula").wait_for()


def take(page: Page, name: str) -> None:
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(600)  # the level eases for 240 ms, fonts settle
    picture = Image.open(io.BytesIO(page.screenshot()))
    few = picture.convert("RGB").quantize(COLOURS, dither=Image.Dither.NONE)  # drawn in few colours: a third of the bytes
    few.save(TARGET / f"{name}.png", optimize=True)
    print(f"{name}.png")


def main() -> None:
    TARGET.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder:
        command = [str(Path(sys.executable).parent / "rosy-kettle"), "serve", "--seed-demo", "--port", "0"]
        environment = os.environ | {"ROSY_KETTLE_DATA": folder}
        server = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=environment)
        assert server.stdout is not None
        found = re.search(r"http://\S+", server.stdout.readline())
        assert found, "the server did not start"
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, chromium_sandbox=False, args=["--disable-gpu"])
            views(browser.new_page(viewport={"width": 1280, "height": 800}, locale="en-GB"), found[0])
            dark = browser.new_page(viewport={"width": 1280, "height": 800}, locale="en-GB", color_scheme="dark")
            dark.goto(found[0])
            formula(dark, "Gale warning bar")
            take(dark, "desk-dark")
            browser.close()
        server.kill()


def bench(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/49")
    page.locator("[data-reading='scale']").wait_for()
    page.request.post(f"{address}/api/devices/drawer", data={"act": "pour", "value": 88.0})
    page.wait_for_timeout(2500)
    page.screenshot(path=TARGET / "bench.png")
    print("bench.png")
    page.goto(f"{address}/batches/48")
    page.get_by_role("region", name="What happened").wait_for()
    take(page, "batch")


def after_the_bench(page: Page, address: str) -> None:
    page.goto(f"{address}/rack")
    take(page, "rack")
    page.goto(f"{address}/tub/24?other=23")
    page.get_by_role("img", name=re.compile("Peat bricks")).wait_for()
    take(page, "tub")
    page.goto(f"{address}/learning")
    page.get_by_role("button", name="Use yours: foam", exact=True).wait_for()
    take(page, "learning")
    page.goto(f"{address}/journal")
    page.get_by_role("link", name="Limpet domes").first.wait_for()
    take(page, "journal")
    page.goto(f"{address}/week")
    page.get_by_role("region", name="Shopping list").wait_for()
    take(page, "week")
    page.goto(f"{address}/pantry/lots")
    page.get_by_role("img", name=re.compile("GL-31")).wait_for()
    take(page, "jars")


def after_the_rack(page: Page, address: str) -> None:
    page.goto(f"{address}/batches/47/label")
    page.get_by_label("What it is, in plain words").fill("Solid bubble bath")
    page.get_by_label("Net weight of a dried piece").fill("58")
    page.get_by_role("img", name=re.compile("Label for the EU")).wait_for()
    take(page, "label")
    asked = page.request.post(f"{address}/api/troubles", data={"symptom": "cracks", "batch_id": 12}).json()
    page.goto(f"{address}/clinic/{asked['id']}")
    page.get_by_role("region", name="What it may be").wait_for()
    take(page, "trouble")
    run = page.request.post(f"{address}/api/practice-runs", data={"scenario": "left-out"}).json()
    for act in (
        {"kind": "feel"}, {"kind": "called", "word": "sticky"}, {"kind": "add", "ingredient": "corn-starch", "value": 20},
        {"kind": "mix", "value": 3},
        {"kind": "rest", "value": 10}, {"kind": "feel"}, {"kind": "add", "ingredient": "corn-starch", "value": 15},
        {"kind": "mix", "value": 3}, {"kind": "rest", "value": 5}, {"kind": "feel"},
        {"kind": "called", "word": "play dough"}, {"kind": "shape"},
    ):  # fmt: skip
        run = page.request.post(f"{address}/api/practice-runs/{run['id']}/acts", data={"after": run["done"], **act}).json()
    page.goto(f"{address}/practice/{run['id']}")
    page.get_by_role("region", name="What was hidden").wait_for()
    take(page, "practice")


def views(page: Page, address: str) -> None:
    page.goto(address)
    page.get_by_role("link", name="Limpet domes").wait_for()
    take(page, "formulas")
    formula(page, "Peat bricks")
    take(page, "desk")
    page.get_by_role("button", name="Foam score").click()
    page.get_by_role("table").first.wait_for()
    take(page, "desk-why")
    page.get_by_label("Profile", exact=True).select_option("big-foam")
    page.get_by_label("Profile", exact=True).select_option("rich-and-slow")
    page.get_by_role("link", name="Skin ledger").click()
    page.get_by_label("Stage").select_option("sale")
    take(page, "ledger")
    page.get_by_role("link", name="Back to its Desk").click()
    page.get_by_role("link", name="Plan a batch").click()
    page.get_by_label("Shape of a piece").select_option("disher-24")
    take(page, "plan")
    bench(page, address)
    page.goto(f"{address}/recipes/new")
    page.get_by_label("Paste it as you found it").fill(RECIPE)
    page.get_by_role("button", name="Take it to the Desk").wait_for()
    take(page, "recipe")
    after_the_bench(page, address)
    after_the_rack(page, address)
    page.goto(f"{address}/pantry/slsa-fine")
    take(page, "pantry")


if __name__ == "__main__":
    main()
