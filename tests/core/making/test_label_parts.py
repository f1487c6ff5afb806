"""Which parts stand on labels, in the words of the rules."""

from __future__ import annotations

import struct
from dataclasses import replace
from importlib.resources import files

import pytest

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.label.layout import lay_out
from rosy_kettle.core.making.label.letters import CAP_HEIGHT, X_HEIGHT, LetterWidths, size_of
from rosy_kettle.core.making.label.parts import FIXED_CAUTION, parts_on
from rosy_kettle.core.making.label.sheet import LabelSheet, places_on
from rosy_kettle.core.making.label.texts import MARKETS, LabelFacts, LabelText, label_texts
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.product import Product
from tests.conftest import make_formula
from tests.core.making.test_label import AREA, FACTS, SCOOP

EMPTY = LabelFacts()


def on(tables: Tables, *markets: str, facts: LabelFacts = FACTS, formula: Formula = SCOOP) -> frozenset[str]:
    return parts_on([label_texts(formula, tables, facts, market, AREA) for market in markets])


def test_a_full_us_label_has_all_that_the_rules_ask_for(tables: Tables) -> None:
    """21 CFR 701.3, 701.11 to 701.13, 740.17; FD&C Act s. 609(a)."""
    asked = {"identity", "net_inch_pound", "net_metric", "ingredients", "name_place", "ae_contact", "directions", FIXED_CAUTION}
    assert on(tables, "US") >= asked


@pytest.mark.parametrize("market", ["EU", "UK"])
def test_a_european_label_has_its_own_parts_and_never_the_us_caution(tables: Tables, market: str) -> None:
    """Reg. (EC) 1223/2009, Art. 19(1)."""
    assert on(tables, market) >= {"rp", "ingredients", "batch", "precautions", "function", "net_metric", "best_before"}
    assert FIXED_CAUTION not in on(tables, market)


def test_a_part_missing_from_one_label_is_not_there(tables: Tables) -> None:
    assert on(tables) == frozenset()
    bare = on(tables, *MARKETS, facts=EMPTY)
    assert not bare & {"identity", "net_metric", "name_place", "ae_contact", "best_before"}
    assert "ingredients" in bare
    assert FIXED_CAUTION in on(tables, *MARKETS), "it is looked for on the US label alone"
    assert on(tables, "EU", "UK") >= on(tables, *MARKETS) - {FIXED_CAUTION}


def test_what_does_not_foam_needs_no_fixed_caution(tables: Tables) -> None:
    fizz = make_formula("damp-press", baking_soda=300, citric_acid_anhydrous=150, corn_starch=60)
    assert FIXED_CAUTION not in on(tables, "US", formula=fizz)


@pytest.mark.parametrize(("oil_g", "said"), [(4.9, False), (5.0, True), (9.0, True)])
def test_from_a_twentieth_of_fat_the_tub_may_be_slippery(tables: Tables, oil_g: float, *, said: bool) -> None:
    formula = make_formula(baking_soda=60, corn_starch=40 - oil_g, sweet_almond_oil=oil_g / 2, cocoa_butter=oil_g / 2)
    cautions = " ".join(text.text for text in label_texts(formula, tables, FACTS, "EU", AREA).texts)
    assert ("Tub may get slippery." in cautions) is said


@pytest.mark.parametrize(("months", "shown"), [(24, None), (30, None), (31, "12M after opening"), (36, "12M after opening")])
def test_the_period_after_opening_stands_where_it_keeps_beyond_thirty_months(
    tables: Tables, months: float, shown: str | None
) -> None:
    """Regulation (EC) 1223/2009, Art. 19(1)(c): a day up to 30 months, above them the period after opening."""
    made = label_texts(
        replace(SCOOP, product=Product(shelf_life_months=months)),
        tables,
        replace(FACTS, best_before=None, pao_months=12.0),
        "EU",
        AREA,
    )
    told = {each.element: each.text for each in made.texts}
    assert told.get("durability") == shown
    assert ("durability" in {each.element for each in made.missing}) is (shown is None)


def test_letters_are_as_high_as_their_font_file_says() -> None:
    """OpenType specification, OS/2 table: sxHeight and sCapHeight stand at bytes 86 and 88, in units of the em of head."""
    font = (files("rosy_kettle.papers") / "fonts/ysabeau-office-regular.ttf").read_bytes()
    rows = (font[12 + 16 * row : 28 + 16 * row] for row in range(struct.unpack(">H", font[4:6])[0]))
    at = {row[:4]: struct.unpack(">I", row[8:12])[0] for row in rows}
    (em,) = struct.unpack_from(">H", font, at[b"head"] + 18)
    lower, capital = struct.unpack_from(">hh", font, at[b"OS/2"] + 86)
    assert (pytest.approx(lower / em), pytest.approx(capital / em)) == (X_HEIGHT, CAP_HEIGHT)
    assert size_of("mild", 1.6) == pytest.approx(1.6 * em / lower)
    assert size_of("NET WT", 1.6) == pytest.approx(1.6 * em / capital)


@pytest.mark.parametrize(("spare_mm", "lines"), [(0.01, 1), (-0.01, 2)])
def test_a_short_text_runs_on_where_it_just_fits(spare_mm: float, lines: int) -> None:
    """Ten letters of half their size, four fifths of it between, five letters more: 8.3 sizes between the margins."""
    widths = LetterWidths(dict.fromkeys("abcdefghij", 500.0), {})
    size = size_of("a", 1.2)
    texts = [
        LabelText(part, text, 1.2, "information", bold=False, rule="")
        for part, text in (("maker", "abcdefghij"), ("contact", "abcde"))
    ]
    made = lay_out(texts, 4.0 + 8.3 * size + spare_mm, 40.0, widths)
    assert len({line.baseline_mm for line in made.lines}) == lines


def test_a_letter_the_font_has_not_takes_six_tenths_of_the_size() -> None:
    widths = LetterWidths({"a": 500.0}, {"a": 550.0})
    assert widths.of("a☃", 10.0, bold=False) == pytest.approx(5.0 + 6.0)
    assert widths.of("a☃", 10.0, bold=True) == pytest.approx(5.5 + 6.0)


def test_labels_lie_where_the_sheet_is_cut() -> None:
    """Edges by hand; A4 is 210 by 297 mm (ISO 216)."""
    sheet = LabelSheet(rows=2, columns=3, left_mm=5.0, top_mm=10.0, gap_x_mm=2.0, gap_y_mm=7.0)
    (first, second) = places_on(sheet, 60.0, 40.0, 8)
    assert first == [(5.0, 10.0), (67.0, 10.0), (129.0, 10.0), (5.0, 57.0), (67.0, 57.0), (129.0, 57.0)]
    assert second == first[:2]
    with pytest.raises(InputError, match=r"need 189\.0 by 351\.0 mm; A4 has 210 by 297"):
        places_on(replace(sheet, rows=8, gap_y_mm=3.0), 60.0, 40.0, 1)
    assert len(places_on(replace(sheet, rows=7, left_mm=26.0, top_mm=12.0, gap_y_mm=5.0 / 6), 60.0, 40.0, 1)[0]) == 1, (
        "to the edge"
    )
    with pytest.raises(InputError, match=r"need 210\.1 by"):
        places_on(replace(sheet, left_mm=26.1), 60.0, 40.0, 1)
