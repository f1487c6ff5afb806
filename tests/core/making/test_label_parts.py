"""Which parts stand on labels, in the words of the rules."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rosy_kettle.core.making.label.parts import FIXED_CAUTION, parts_on
from rosy_kettle.core.making.label.texts import MARKETS, LabelFacts, label_texts
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
