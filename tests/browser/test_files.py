"""Backups and the studio as a zip from the page; the five questions of the beginning."""

from __future__ import annotations

import re
import zipfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.serving import Server

OpenPage = Callable[..., Page]


def test_backed_up_brought_back_taken_out_and_in(server: Server, open_page: OpenPage, tmp_path: Path) -> None:
    page = open_page(f"{server.address}/settings/files")
    page.get_by_role("button", name="Make a backup now").click()
    expect(page.get_by_text("Backed up and looked over.").first).to_be_visible()
    page.request.delete(f"{server.address}/api/formulas/10")
    page.get_by_role("button", name="Bring it back").first.click()
    expect(page.get_by_text("The studio is as it was then.").first).to_be_visible()
    assert page.request.get(f"{server.address}/api/formulas/10").ok
    with page.expect_download() as download:
        page.get_by_role("button", name="Take the studio out").click()
    target = tmp_path / "studio.zip"
    download.value.save_as(target)
    with zipfile.ZipFile(target) as archive:
        assert "manifest.json" in archive.namelist()
    answer = page.request.get(f"{server.address}/api/formulas/10").json()
    answer["formula"]["portions"][0]["lines"][0]["amount"] = "303"
    page.request.put(f"{server.address}/api/formulas/10", data={"formula": answer["formula"], "revision": answer["revision"]})
    page.get_by_label("Take a zip in").set_input_files(target)
    differed = page.get_by_role("region", name="What differed")
    expect(differed).to_contain_text("baking-soda 303 g")
    expect(differed).to_contain_text("baking-soda 296 g")


def test_five_questions_and_an_empty_studio(server: Server, open_page: OpenPage) -> None:
    page = open_page(server.address)
    page.get_by_role("link", name="New here?").click()
    page.get_by_label("in ounces").check()
    page.get_by_label(re.compile("with an empty one")).check()
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_text("An empty studio.").first).to_be_visible()
    assert page.request.get(f"{server.address}/api/formulas").json()["formulas"] == []
    assert page.request.get(f"{server.address}/api/settings").json()["settings"]["mass_unit"] == "oz"
    page.goto(f"{server.address}/settings/files")
    expect(page.get_by_role("button", name="Bring it back")).to_have_count(1)


def test_money_is_typed_and_kept(server: Server, open_page: OpenPage) -> None:
    page = open_page(f"{server.address}/formulas/10/money")
    price = page.get_by_label("Price of a piece")
    expect(price).to_have_value("5.50")
    price.fill("2")
    price.blur()
    expect(page.get_by_text("are missing at that price")).to_be_visible()
    page.get_by_role("button", name="Keep it with the formula").click()
    expect(page.get_by_text("Kept with the formula.").first).to_be_visible()
    kept = page.request.get(f"{server.address}/api/formulas/10").json()["formula"]["making"]["price_per_piece"]
    assert kept == "2"
