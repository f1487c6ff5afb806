"""Nothing final under a block: the ledger's blocks on the label as drawn, over the core and the command line; and bold is bold."""

from __future__ import annotations

import io
import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import pdfplumber
import pypdfium2
import pytest
from click.testing import CliRunner

from rosy_kettle.cli import commands
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.words.claims import claims_in
from rosy_kettle.papers.label import label_pdf, label_svg
from rosy_kettle.usecases.labels.make_label import MadeLabel, make_label
from tests.conftest import make_formula
from tests.core.making.test_label import FACTS, SCOOP

BAD = make_formula(baking_soda=300, slsa_fine=120, corn_starch=120, glycerin=60, borax=20, glitter_plastic=3, charcoal_powder=4)
"""Borax, plastic glitter and a colour without a US listing."""
MARKETS = ("US", "EU", "UK")


def label_of(tables: Tables, formula: Formula, market: str) -> MadeLabel:
    return make_label(formula, tables, FACTS, market, 150.0, 120.0)


@pytest.mark.parametrize(
    ("market", "rules"), [("US", {"US-COL-01"}), ("EU", {"EU-PLASTIC-02", "EU-BAN-01"}), ("UK", {"EU-BAN-01"})]
)
def test_a_label_is_a_draft_while_the_ledger_blocks(tables: Tables, market: str, rules: set[str]) -> None:
    """21 CFR 73 and 74 list no charcoal for cosmetics; Reg. (EU) 2023/2055: plastic glitter; Reg. (EU) 2019/831: borates."""
    made = label_of(tables, BAD, market)
    assert {each.rule for each in made.blocks} >= rules
    assert made.draft
    assert made.texts_told()[-1].text == "Draft, not for sale"
    clean = label_of(tables, replace(SCOOP, portions=(replace(SCOOP.portions[0], lines=SCOOP.portions[0].lines[:4]),)), market)
    assert clean.blocks == ()
    assert not clean.draft
    assert "draft" not in {each.element for each in clean.texts_told()}


def test_what_was_said_of_a_label_does_not_open_it(tables: Tables) -> None:
    """Flags that say a label is whole are not asked: the label as drawn is."""
    said = replace(SCOOP.product, label=("identity", "net_inch_pound", "net_metric", "ingredients", "name_place", "ae_contact"))
    lacking = make_label(replace(SCOOP, product=said), tables, replace(FACTS, maker="", contact=""), "US", 150.0, 120.0)
    assert lacking.draft
    assert {each.element for each in lacking.texts.missing} == {"maker", "contact"}


def test_a_draft_says_so_in_pdf_and_svg_and_a_final_one_does_not(tables: Tables) -> None:
    made = label_of(tables, BAD, "EU")
    for draft in (True, False):
        with pdfplumber.open(io.BytesIO(label_pdf(made.layout, "x", draft=draft))) as pages:
            assert ("Draft, not for sale" in pages.pages[0].extract_text()) is draft
        assert ("Draft, not for sale" in label_svg(made.layout, "x", draft=draft)) is draft


def test_bold_is_bold_in_the_pdf(tables: Tables) -> None:
    """21 CFR 740.2(a): a warning in bold. Two fonts of two names, and more ink for the same letters."""
    layout = label_of(tables, SCOOP, "US").layout
    with pdfplumber.open(io.BytesIO(label_pdf(layout, "x"))) as pages:
        fonts = {char["fontname"].partition("+")[2] for char in pages.pages[0].chars}
    assert fonts == {"YsabeauOffice", "YsabeauOffice-Bold"}

    def ink(*, bold: bool) -> float:
        lines = tuple(replace(line, bold=bold) for line in layout.lines)
        drawn = pypdfium2.PdfDocument(label_pdf(replace(layout, lines=lines), "x"))[0].render(scale=4).to_numpy()
        return float((255.0 - drawn).sum())

    assert ink(bold=True) > 1.15 * ink(bold=False)


def test_the_command_line_writes_no_cut_off_label_and_marks_a_draft(tmp_path: Path) -> None:
    lines = [
        {"ingredient": name, "amount": mass_g, "unit": "g"}
        for name, mass_g in (("baking-soda", "300"), ("slsa-fine", "90"), ("borax", "10"), ("glitter-plastic", "3"))
    ]
    facts = {"identity": "Solid bubble bath", "net_g": 60, "maker": "M", "place": "P", "contact": "c", "name": "Low water"}
    file, pdf, svg = tmp_path / "x.json", tmp_path / "x.pdf", tmp_path / "x.svg"
    file.write_text(json.dumps({
        "format": "rosy-kettle/formula", "version": 1, "name": "x", "portions": [{"name": "b", "lines": lines}],
        "product": {"label_facts": facts | {"batch_code": "7", "best_before": "05/2027"}},
    }), encoding="utf-8")  # fmt: skip

    def asked(*options: str) -> Any:
        return CliRunner().invoke(commands, ["label", str(file), "--market", "EU", *options])

    small = json.loads(asked("--width-mm", "40", "--height-mm", "30").output)
    assert (small["fits"], small["draft"]) == (False, True)
    refused = asked("--width-mm", "40", "--height-mm", "30", "--pdf", str(pdf), "--svg", str(svg))
    assert refused.exit_code != 0
    assert not pdf.exists()
    assert not svg.exists()
    told = json.loads(asked("--width-mm", "130", "--height-mm", "110", "--pdf", str(pdf), "--svg", str(svg)).output)
    assert {each["rule"] for each in told["blocks"]} >= {"EU-PLASTIC-02"}
    assert [each["text"] for each in told["texts"] if each["element"] in {"name", "draft"}] == [
        "Low water",
        "Draft, not for sale",
    ]
    with pdfplumber.open(pdf) as pages:
        assert "Draft, not for sale" in pages.pages[0].extract_text()
    assert "Draft, not for sale" in svg.read_text(encoding="utf-8")


@pytest.mark.parametrize(
    ("words", "kinds"),
    [
        ("Heals dry skin", {"medical"}), ("Bei Neurodermitis", {"condition"}), ("ANTIBACTERIAL bath salt", {"antibacterial"}),
        ("hypoallergenic", {"safety"}), ("kills bacteria", {"antibacterial"}), ("a cure-all for aching legs", {"medical"}), ("désinfectant", {"antibacterial"}), ("A healthy glow, hand-painted", set()),
        ("Solid bubble bath with lavender", set()), ("Treat for the feet", set()),
    ],
)  # fmt: skip
def test_claims_are_found_by_their_stems(tables: Tables, words: str, kinds: set[str]) -> None:
    """21 USC 321(g)(1); Reg. (EC) 1223/2009 Art. 20 and (EU) 655/2013; nearest misses beside the hits."""
    assert set(claims_in(words)) == kinds
    made = make_label(SCOOP, tables, replace(FACTS, name=words), "US", 150.0, 120.0)
    assert ("ANY-CLAIM-01" in {each.rule for each in made.texts.missing}) is bool(kinds)


def test_a_food_word_beside_bath_is_a_food_word_still(tables: Tables) -> None:
    """It may be named so, and then says that it is none; 21 USC 361, Directive 87/357/EEC."""
    made = make_label(SCOOP, tables, replace(FACTS, identity="Cupcake bath bar"), "EU", 150.0, 120.0)
    assert "Not food" in next(each.text for each in made.texts.texts if each.element == "caution")
    plain = make_label(SCOOP, tables, FACTS, "EU", 150.0, 120.0)
    assert "Not food" not in next(each.text for each in plain.texts.texts if each.element == "caution")
