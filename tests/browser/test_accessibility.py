"""WCAG 2.2 AA on every view, in both lights, wide and narrow; and on paper."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import axe_violations
from tests.serving import Server

OpenPage = Callable[..., Page]
VIEWS = {
    "/": "Formulas",
    "/formulas/1": "Name of the formula",
    "/formulas/9": "Name of the formula",
    "/formulas/8/ledger": "Skin ledger of Peat bricks",
    "/formulas/8/curves": "Curves of Peat bricks",
    "/formulas/8/versions": "Versions of Peat bricks",
    "/recipes/new": "Read a recipe",
    "/bench": "Bench",
    "/bench/49": "Weigh glycerin",
    "/batches/47": "Peat bricks, batch 47",
    "/plan": "Plan",
    "/plan/1": "Run sheet",
    "/rack": "On the rack",
    "/tub": "Tub",
    "/learning": "Learning",
    "/tub/1?other=2": "Limpet domes",
    "/week": "Week",
    "/found?code=NB-102": "Recall and complaints",
    "/pantry/lots": "Jars",
    "/pantry/lots/6": "Glycerin, GL-31",
    "/settings": "Settings",
    "/settings/workshop": "Workshop",
    "/settings/files": "Files",
    "/settings/devices": "Devices",
    "/welcome": "Welcome",
    "/guide/2-a-batch": "A batch, from plan to wrapped piece",
    "/formulas/10/money": "Money of Limpet domes",
    "/formulas/10/label": "Label of Limpet domes",
    "/batches/47/label": "Label of Peat bricks, batch 47",
    "/clinic?batch=12": "What went wrong?",
    "/practice": "Practice",
    "/practice/eye": "Train the eye",
    "/tub/series": "Side by side",
    "/tub/series/1": "Starch for half the tartar",
    "/learning/trials": "Next trials",
    "/learning/trials/1": "Slipway rounds, trials",
    "/journal": "Journal",
    "/batches/2/beside": "Oar-blade slices, batch 2",
    "/batches/2/beside?other=3": "Oar-blade slices, batch 2, beside batch 3",
    "/pantry": "Pantry",
    "/pantry/own-larch": "Larch resin",
    "/look": "The look",
    "/nowhere": "There is no page here",
}


def settled(page: Page, landmark: str) -> None:
    expect(page.get_by_label(landmark).or_(page.get_by_role("heading", name=landmark)).first).to_be_visible()
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(350)  # the level eases for 240 ms; axe reads colours as they stand


@pytest.mark.parametrize("path", VIEWS)
def test_axe_finds_nothing(shared_server: Server, open_page: OpenPage, path: str) -> None:
    page = open_page(f"{shared_server.address}{path}", color_scheme="light")
    settled(page, VIEWS[path])
    assert axe_violations(page) == []
    ink = page.evaluate("getComputedStyle(document.body).color")
    page.emulate_media(color_scheme="dark")
    page.wait_for_function("ink => getComputedStyle(document.body).color !== ink", arg=ink)  # the page follows the evening
    page.wait_for_timeout(350)  # colours ease too
    assert axe_violations(page, ["color-contrast"]) == [], "between the lights only colours differ"


@pytest.mark.parametrize("size", [(1024, 768), (800, 1280)])
def test_axe_finds_nothing_on_a_tablet(shared_server: Server, open_page: OpenPage, size: tuple[int, int]) -> None:
    page = open_page(f"{shared_server.address}/formulas/1", viewport={"width": size[0], "height": size[1]})
    settled(page, "Name of the formula")
    assert axe_violations(page) == []
    overflow = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
    assert overflow <= 0, "nothing hangs out sideways"


def test_axe_would_find_planted_faults(shared_server: Server, open_page: OpenPage) -> None:
    page = open_page(shared_server.address)
    settled(page, "Formulas")
    page.evaluate("document.querySelector('h1').style.color = '#d0caca'")
    page.evaluate("document.querySelector('main').insertAdjacentHTML('beforeend', '<img src=\"/assets/kettle.svg\"><input>')")
    found = {violation.split(":")[0] for violation in axe_violations(page)}
    assert {"image-alt", "label", "color-contrast"} <= found


def test_open_dialogs_and_pickers_pass_too(shared_server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{shared_server.address}/formulas/1")
    settled(page, "Name of the formula")
    page.get_by_role("button", name="As a table").click()
    expect(page.get_by_role("dialog")).to_be_visible()
    assert axe_violations(page) == []
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="As a table")).to_be_focused()
    page.get_by_role("button", name="Ingredient: Glycerin").click()
    expect(page.get_by_role("listbox", name="Ingredients").last).to_be_visible()
    assert axe_violations(page) == []


def test_every_reading_explains_itself(shared_server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{shared_server.address}/formulas/1")
    settled(page, "Name of the formula")
    buttons = page.get_by_role("button", expanded=False).filter(has=page.get_by_role("img"))
    names = [name.strip() for name in buttons.all_inner_texts()]
    assert len(names) >= 6
    for name in names:
        button = page.get_by_role("button", name=name)
        button.click()
        expect(page.get_by_text("Kind: ")).to_have_count(1)
        button.click()


def test_drawings_can_be_saved_as_csv_and_svg(shared_server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{shared_server.address}/formulas/1")
    settled(page, "Name of the formula")
    page.get_by_role("button", name="As a table").click()
    with page.expect_download() as csv:
        page.get_by_role("button", name="Save as CSV").click()
    assert "Baking soda" in csv.value.path().read_text(encoding="utf-8")
    with page.expect_download() as svg:
        page.get_by_role("button", name="Save the drawing as SVG").click()
    drawing = svg.value.path().read_text(encoding="utf-8")
    assert drawing.startswith("<svg")
    assert "var(--" not in drawing
