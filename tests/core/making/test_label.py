"""Labels against the published rules: which texts, how high, in which order; and the paper they are printed on."""

from __future__ import annotations

import io
import json
import re
from dataclasses import replace
from pathlib import Path
from typing import Any

import pdfplumber
import pytest
from click.testing import CliRunner

from rosy_kettle.cli import commands
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.label.letters import X_HEIGHT, heights_of
from rosy_kettle.core.making.label.texts import LabelFacts, label_texts
from rosy_kettle.core.parameters.label import LabelParameters
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.product import Certificate, Product
from rosy_kettle.core.words.label import ADULTS_ONLY, CAUTION_740_17, OWN_CAUTIONS
from rosy_kettle.core.words.label_languages import CAUTIONS, DIRECTIONS, FOODS, IDENTITIES, LANGUAGES
from rosy_kettle.papers.label import label_pdf, label_svg
from rosy_kettle.usecases.labels.make_label import make_label
from tests.conftest import make_formula

FACTS = LabelFacts(
    identity="Solid bubble bath", net_g=100.0, maker="Ferry Stair Studio", place="Łódź, Αθήνα, Київ",
    contact="ferrystair.example", batch_code="L-47", best_before="May 2027",
)  # fmt: skip
SCOOP = make_formula(baking_soda=300, slsa_fine=120, corn_starch=120, glycerin=60, lavender_oil=6, mica_pigment=4)
AREA = 70.0 * 60.0
INCH_MM = 25.4


def texts(tables: Tables, market: str, formula: Formula = SCOOP, facts: LabelFacts = FACTS) -> dict[str, Any]:
    made = label_texts(formula, tables, facts, market, AREA)
    return {"missing": {each.element: each.rule for each in made.missing}, **{each.element: each for each in made.texts}}


def test_a_us_label_carries_the_fixed_caution_word_for_word(tables: Tables) -> None:
    """21 CFR 740.17(b), from memory; a person confirms it once against the official text."""
    fixed = (
        "Caution—Use only as directed. Excessive use or prolonged exposure may cause irritation to skin and urinary tract. Discontinue "
        "use if rash, redness, or itching occurs. Consult your physician if irritation persists. Keep out of reach of children."
    )
    assert fixed == CAUTION_740_17
    us = texts(tables, "US")
    assert us["caution"].text.startswith(fixed)
    assert us["caution"].bold
    assert fixed not in texts(tables, "EU")["caution"].text
    adults = replace(SCOOP, product=Product(adult_only_label=True))
    assert texts(tables, "US", adults)["caution"].text.startswith(ADULTS_ONLY)
    assert fixed not in texts(tables, "US", adults)["caution"].text


def test_net_quantity_in_both_units_is_never_rounded_up(tables: Tables) -> None:
    """15 USC 1453(a)(2), 21 CFR 701.13(j): both units, ounces before pounds; 1 oz is 28.349523125 g (1959)."""
    assert texts(tables, "US")["net_quantity"].text == "Net Wt 3.52 oz (100 g)", "3.5274 oz"
    assert texts(tables, "EU")["net_quantity"].text == "100 g"
    pound = texts(tables, "US", facts=replace(FACTS, net_g=500.0))
    assert pound["net_quantity"].text == "Net Wt 17.6 oz (1.10 lb) (500 g)"
    assert texts(tables, "US", facts=replace(FACTS, net_g=2000.0))["net_quantity"].text == "Net Wt 4 lb 6.5 oz (2 kg)", (
        "4 lb 6.547 oz"
    )
    assert texts(tables, "US", facts=replace(FACTS, net_g=28.349523125 * 64))["net_quantity"].text == "Net Wt 4 lb (1.81 kg)"
    assert "net_quantity" in texts(tables, "US", facts=replace(FACTS, net_g=None))["missing"]


@pytest.mark.parametrize(("market", "net_g", "area_mm2", "height_mm"), [
    ("US", 100, 5 * INCH_MM**2, INCH_MM / 16), ("US", 100, 5.1 * INCH_MM**2, INCH_MM / 8), ("US", 100, 25.1 * INCH_MM**2, INCH_MM * 3 / 16),
    ("US", 100, 101 * INCH_MM**2, INCH_MM / 4), ("EU", 50, 999, 2), ("EU", 50.1, 999, 3), ("EU", 200, 999, 3), ("EU", 201, 999, 4),
    ("UK", 1000, 999, 4), ("UK", 1001, 999, 6),
])  # fmt: skip
def test_heights_of_the_net_quantity(market: str, net_g: float, area_mm2: float, height_mm: float) -> None:
    """21 CFR 701.13(i) by the area of the panel; Directive 76/211/EEC, Annex I, 3.1 by the mass."""
    found = heights_of(market, net_g, area_mm2, LabelParameters())
    assert found["net_quantity"] == pytest.approx(height_mm, abs=1e-3)


def test_heights_of_us_text() -> None:
    """21 CFR 701.3(b) and 740.2(a): 1/16 inch; 1/32 inch for the list where less than 12 square inches can be labelled."""
    large, small = (heights_of("US", 100, area * INCH_MM**2, LabelParameters()) for area in (12.0, 11.9))
    assert large["ingredients"] == pytest.approx(INCH_MM / 16, abs=1e-3)
    assert small["ingredients"] == pytest.approx(INCH_MM / 32, abs=1e-3)
    assert small["caution"] == pytest.approx(INCH_MM / 16, abs=1e-3), "a warning never shrinks"


def test_the_list_ends_with_colours_and_names_allergens_by_the_certificate(tables: Tables) -> None:
    """21 CFR 701.3(f); Reg. (EC) 1223/2009 Art. 19(1)(g): colours last. Annex III: 0.01 % rinsed off; by hand below."""
    us, eu = (texts(tables, market)["ingredients"].text for market in ("US", "EU"))
    assert "Water" not in eu
    assert eu.rstrip(".").split(", ")[-1] in {"CI 77019", "CI 77891", "CI 77491"}, (
        "mica, titanium dioxide and iron oxide by their CI numbers"
    )
    assert us.index("Sodium Bicarbonate") < us.index("Lavandula")
    paper = {"lavender-oil": Certificate(allergens={"Linalool": 40.0, "Limonene": 0.5})}
    certified = replace(SCOOP, product=Product(certificates=paper, allergen_mode="rinse_off"))
    said = texts(tables, "EU", certified)["allergens"].text
    assert "Linalool" in said, "6 g of 610 g at 40 % is 0.39 %"
    assert "Limonene" not in said, "6 g of 610 g at 0.5 % is 0.0049 %, below 0.01 %"
    generic = replace(SCOOP, portions=make_formula(baking_soda=300, slsa_fine=120, fragrance_oil_generic=6).portions)
    assert texts(tables, "EU", generic)["missing"]["allergens"] == "EU-ALL-01", "unknown is never none"


def test_what_is_missing_is_named_with_its_rule(tables: Tables) -> None:
    bare = LabelFacts()
    assert set(texts(tables, "US", facts=bare)["missing"]) == {"identity", "net_quantity", "maker", "contact"}
    assert set(texts(tables, "EU", facts=bare)["missing"]) == {"identity", "net_quantity", "maker", "batch", "durability"}
    assert texts(tables, "US", facts=replace(FACTS, identity="Lemon fudge"))["missing"] == {"identity": "NAME-01"}
    assert texts(tables, "US", facts=replace(FACTS, identity="Bath fudge"))["missing"] == {}
    assert texts(tables, "US", facts=replace(FACTS, identity="Detox bath"))["missing"] == {"identity": "ANY-CLAIM-01"}
    with pytest.raises(InputError, match="no label rules"):
        texts(tables, "MARS")


def test_letters_in_the_pdf_are_as_high_as_the_rule_wants(tables: Tables) -> None:
    made = make_label(SCOOP, tables, FACTS, "US", 140.0, 110.0)
    assert made.fits
    with pdfplumber.open(io.BytesIO(label_pdf(made.layout, "x"))) as paper:
        page = paper.pages[0]
        assert (page.width * INCH_MM / 72, page.height * INCH_MM / 72) == pytest.approx((140.0, 110.0), abs=0.01)
        text = page.extract_text().replace("\n", " ")
        assert all(name in text for name in ("Łódź", "Αθήνα", "Київ")), "letters beyond Latin-1 are there"
        assert " ".join(CAUTION_740_17.split()) in text
        sizes = {char["size"] * INCH_MM / 72 for char in page.chars}
        assert min(sizes) * X_HEIGHT >= INCH_MM / 16 - 0.01
        assert all(re.match(r"[A-Z]{6}\+", char["fontname"]) for char in page.chars), "embedded as a subset"
        svg = label_svg(made.layout, "x")
        assert [line.text for line in made.layout.lines] == re.findall(r"data-element=\"\w+\">([^<]*)</text>", svg)
        assert all(line.text in " ".join(page.extract_text().split("\n")) for line in made.layout.lines)


def test_a_label_too_small_says_which_size_would_do(tables: Tables, tmp_path: Path) -> None:
    small = make_label(SCOOP, tables, FACTS, "US", 40.0, 30.0)
    assert not small.fits
    assert small.smallest_mm is not None
    width, height = small.smallest_mm
    assert width / height == pytest.approx(40 / 30, rel=0.01)
    assert make_label(SCOOP, tables, FACTS, "US", width, height).fits
    assert not make_label(SCOOP, tables, FACTS, "US", width * 0.97, height * 0.97).fits
    assert make_label(SCOOP, tables, FACTS, "US", 10.0, 10.0).fits is False
    file = tmp_path / "x.json"
    lines = [
        {"ingredient": "baking-soda", "amount": "300", "unit": "g"},
        {"ingredient": "slsa-fine", "amount": "90", "unit": "g"},
    ]
    product = {"label_facts": {"identity": "Solid bubble bath", "net_g": 60, "maker": "M", "place": "P", "contact": "c"}}
    formula = {"format": "rosy-kettle/formula", "version": 1, "name": "x", "portions": [{"name": "b", "lines": lines}]}
    file.write_text(json.dumps(formula | {"product": product}), encoding="utf-8")
    size = ["--width-mm", "130", "--height-mm", "110"]
    asked = ["label", str(file), "--market", "US", *size, "--pdf", str(tmp_path / "x.pdf"), "--svg", str(tmp_path / "x.svg")]
    answer = CliRunner().invoke(commands, asked, catch_exceptions=False)
    told = json.loads(answer.output)
    assert {each["element"] for each in told["texts"]} >= {
        "identity",
        "net_quantity",
        "ingredients",
        "caution",
        "directions",
        "maker",
    }
    assert told["missing"] == []
    assert (tmp_path / "x.pdf").read_bytes().startswith(b"%PDF")
    file.write_text(json.dumps(formula | {"product": {"label_facts": {"net_g": -1}}}), encoding="utf-8")
    with pytest.raises(InputError, match="net_g"):
        CliRunner().invoke(commands, asked, catch_exceptions=False)


def test_the_net_quantity_stands_in_the_lowest_three_tenths_of_a_us_label(tables: Tables) -> None:
    """21 CFR 701.13(f)."""
    made = make_label(SCOOP, tables, FACTS, "US", 120.0, 140.0)
    net = next(line for line in made.layout.lines if line.element == "net_quantity")
    assert made.fits
    assert net.baseline_mm - net.size_mm > 0.7 * 140.0
    assert net.baseline_mm < 140.0


def test_other_languages_stand_on_it_and_are_drafts_until_a_reader_has_confirmed_them(tables: Tables) -> None:
    """Art 19(5) of Reg (EC) 1223/2009: in the language of the country; 21 CFR 701.2(b): none beside English unless all of it."""
    wanted = replace(FACTS, languages=("pl", "el"))
    eu = texts(tables, "EU", facts=wanted)
    assert "dziećmi" in eu["caution"].text
    assert "παιδιά" in eu["caution_el"].text
    assert {"caution_pl", "caution_el"} <= eu["missing"].keys()
    confirmed = texts(tables, "EU", facts=replace(wanted, confirmed_languages=("pl", "el")))
    assert not {"caution_pl", "caution_el"} & confirmed["missing"].keys()
    assert "caution_el" not in texts(tables, "US", facts=wanted)
    assert texts(tables, "UK", facts=wanted)["caution"].text.startswith("Keep out of eyes.")
    keys = {frozenset(words) for words in CAUTIONS.values()}
    assert keys == {frozenset(OWN_CAUTIONS)}
    assert set(CAUTIONS) == set(DIRECTIONS) == set(FOODS) - {"en"} == set(LANGUAGES) - {"en"}
    assert all(set(names) == set(LANGUAGES) for names in IDENTITIES.values())


@pytest.mark.parametrize(("typed", "printed"), [("2027-05-09", "09/05/2027"), ("2027-05", "05/2027"), ("spring", "spring")])
def test_european_days_stand_in_their_order(tables: Tables, typed: str, printed: str) -> None:
    """Art 19(1)(c): best used before the end of, then month and year or day, month and year."""
    eu = texts(tables, "EU", facts=replace(FACTS, best_before=typed))
    assert eu["durability"].text == f"Best used before the end of {printed}"


def test_who_is_responsible_and_where_it_comes_from(tables: Tables) -> None:
    """Arts 4 and 19(1)(a): someone in the territory, and the country of origin of an import."""
    one = replace(FACTS, responsible_person={"EU": "Tide BV, Delft"})
    assert texts(tables, "EU", facts=one)["responsible_person"].text == "Responsible person: Tide BV, Delft"
    assert "origin" in texts(tables, "EU", facts=one)["missing"]
    assert "responsible_person" in texts(tables, "UK", facts=one)["missing"]
    assert "responsible_person" not in texts(tables, "US", facts=one)["missing"]
    home = texts(tables, "EU", facts=replace(one, origin="Scotland"))
    assert home["origin"].text == "Made in Scotland"
    assert "origin" not in home["missing"]


def test_lines_the_ledger_asks_for_stand_among_the_cautions(tables: Tables) -> None:
    milky = make_formula(baking_soda=300, slsa_fine=60, glycerin=40, goat_milk_powder=10, tea_tree_oil=1)
    said = texts(tables, "UK", milky)["caution"].text
    assert "Contains milk." in said
    assert "Keep away from pets." in said
    assert "Contains" not in texts(tables, "UK")["caution"].text


def test_us_colours_go_by_their_label_names(tables: Tables) -> None:
    """21 CFR 74.2101 and 82: Blue 1, and Blue 1 Lake for the lake."""
    for line, name in (("dye_blue_ws", "Blue 1 (CI 42090)"), ("lake_pigment_blue", "Blue 1 Lake (CI 42090)")):
        coloured = make_formula(baking_soda=300, slsa_fine=60, glycerin=40, **{line: 1})
        assert name in texts(tables, "US", coloured)["ingredients"].text
        assert "CI 42090" in texts(tables, "EU", coloured)["ingredients"].text
        assert "Blue 1" not in texts(tables, "EU", coloured)["ingredients"].text


def test_surfactant_of_unknown_strength_still_foams(tables: Tables) -> None:
    """The caution of 21 CFR 740.17 is asked of what foams; a strength nobody knows takes none of it away."""
    item = replace(tables.ingredients["slsa-fine"], active_fraction=None)
    unknown = replace(tables, ingredients={**tables.ingredients, "slsa-fine": item})
    assert CAUTION_740_17 in texts(unknown, "US")["caution"].text
