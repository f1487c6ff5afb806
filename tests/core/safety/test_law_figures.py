"""Figures that law and cautions hang on, worked by hand from the formula to the rule."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Product, Tables, Use
from rosy_kettle.core.safety.label.composition import composition
from tests.conftest import make_formula
from tests.core.safety.test_declaration import label_of


def test_a_colour_goes_by_its_common_name_in_the_us_and_by_its_number_elsewhere() -> None:
    """21 CFR 73.2250 and 701.3 (iron oxides); Regulation (EC) No 1223/2009, Article 19(1)(g), colour index numbers; from memory."""
    lines = [("baking-soda", 300.0), ("iron-oxide-red", 5.0)]
    assert label_of(lines, "US").declaration == ("Sodium Bicarbonate", "Iron Oxides (CI 77491)")
    assert label_of(lines, "EU").declaration == ("Sodium Bicarbonate", "CI 77491")


def test_alcohol_leaves_wholly_and_water_by_nine_tenths(tables: Tables) -> None:
    """91 % isopropyl alcohol by volume is 87.4 % by mass (density tables); that a tenth of the water stays is common practice."""
    parts = {each.name: each for each in composition([(tables.ingredients["isopropyl-alcohol-91"], 100.0)], {})}
    assert parts["Isopropyl Alcohol"].leaves_g == pytest.approx(parts["Isopropyl Alcohol"].mass_g)
    assert parts["Aqua"].leaves_g == pytest.approx(0.9 * 12.6)
    betaine = {each.name: each for each in composition([(tables.ingredients["capb-liquid"], 100.0)], {})}
    assert betaine["Cocamidopropyl Betaine"].leaves_g == 0


@pytest.mark.parametrize(("batch_g", "water_g", "named"), [(1000.0, 0.005, False), (1000.0, 0.02, True), (10.0, 0.0002, True)])
def test_water_is_no_ingredient_where_less_than_a_millionth_is_left(batch_g: float, water_g: float, *, named: bool) -> None:
    """21 CFR 701.3(l): what is there in no more than a trace is incidental. A tenth of the water stays, whatever the batch weighs."""
    label = label_of([("baking-soda", batch_g), ("distilled-water", water_g)], "US")
    assert ("Water" in label.declaration) is named


@pytest.mark.parametrize(("dose_g", "fires"), [(99.0, False), (101.0, True)])
def test_essential_oil_in_one_bath_is_the_doses_share_of_the_batch(tables: Tables, dose_g: float, *, fires: bool) -> None:
    """10 g of oil in a kilo: a dose of 100 g brings 1 g, the line of the caution."""
    formula = make_formula("damp-press", baking_soda=900, corn_starch=90, lavender_oil=10)
    found = evaluate(replace(formula, use=Use(dose_g=dose_g)), tables).skin
    assert ("SKIN-EO-03" in {each.rule for each in found.ledger}) is fires


@pytest.mark.parametrize("ingredient", ["slsa-fine", "kaolin"])
def test_a_surfactant_of_unknown_strength_still_asks_for_the_fixed_caution(tables: Tables, ingredient: str) -> None:
    """21 CFR 740.17 asks for it of every foaming bath product; unknown is not none. Clay is no surfactant, whatever is unknown of it."""
    unknown = replace(tables.ingredients[ingredient], active_fraction=None)
    own = replace(tables, ingredients={**tables.ingredients, ingredient: unknown})
    formula = make_formula("damp-press", baking_soda=500, **{ingredient.replace("-", "_"): 50.0})
    american = replace(formula, product=Product(markets=("US",)))
    rules = {each.rule for each in evaluate(american, own, "label").skin.ledger}
    assert ("US-FOAM-01" in rules) is (ingredient == "slsa-fine")
