"""Twenty ordinary formulas in three markets: no false alarm. Recipes of the usual kinds, common practice, no published source."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Certificate, ColourFile, Product, Tables
from tests.conftest import make_formula

PAPER = Certificate(limit_pct=20.0, category="9", allergens={"Linalool": 5.0})
SCENTS = ("fragrance-oil-generic", "lavender-oil", "sweet-orange-oil", "peppermint-oil", "rose-geranium-oil", "cedarwood-oil")
PRODUCT = Product(
    markets=("US", "EU", "UK"), certificates=dict.fromkeys(SCENTS, PAPER), colours={"lake-pigment-blue": ColourFile(us_lot="A1")}
)  # fmt: skip
TRUE_ALARMS = {"FEEL.SLIP_LOAD_G", "MICRO-03"}
"""Much fat in a tub is slippery, and raw honey brings microbes: those are meant."""


@pytest.mark.parametrize(("method", "grams"), [
    ("betaine-dough", {"baking_soda": 400, "cream_of_tartar": 60, "slsa_fine": 120, "corn_starch": 80, "capb_liquid": 60, "fragrance_oil_generic": 8, "mica_pigment": 2}),
    ("glycerin-dough", {"baking_soda": 400, "slsa_fine": 120, "glycerin": 120, "corn_starch": 80, "lavender_oil": 6}),
    ("butter-dough", {"baking_soda": 300, "citric_acid_anhydrous": 100, "slsa_fine": 60, "cocoa_butter": 120, "shea_butter": 60, "polysorbate_80": 15, "fragrance_oil_generic": 6}),
    ("melt", {"cocoa_butter": 100, "shea_butter": 60, "coconut_oil_76": 40, "emulsifying_wax": 20, "fragrance_oil_generic": 3}),
    ("damp-press", {"baking_soda": 500, "citric_acid_anhydrous": 250, "corn_starch": 80, "epsom_salt": 60, "sunflower_oil_ho": 20, "vitamin_e": 1, "lavender_oil": 5}),
    ("loose-dust", {"baking_soda": 300, "citric_acid_anhydrous": 150, "corn_starch": 100, "nonfat_milk_powder": 30, "rose_geranium_oil": 3}),
    ("damp-press", {"baking_soda": 300, "citric_acid_anhydrous": 150, "sea_salt_fine": 100, "jojoba_oil": 10, "sweet_orange_oil": 4}),
    ("glycerin-dough", {"baking_soda": 400, "sci_powder": 120, "glycerin": 110, "colloidal_oat": 40}),
    ("glycerin-dough", {"baking_soda": 400, "slsa_fine": 120, "glycerin": 110, "kaolin": 60, "rose_clay": 10}),
    ("damp-press", {"baking_soda": 500, "citric_acid_anhydrous": 250}),
    ("glycerin-dough", {"baking_soda": 400, "slsa_fine": 120, "glycerin": 100, "honey": 10}),
    ("damp-press", {"baking_soda": 500, "citric_acid_anhydrous": 250, "peppermint_oil": 4}),
    ("betaine-dough", {"baking_soda": 400, "slsa_fine": 120, "capb_liquid": 50, "cedarwood_oil": 4, "iron_oxide_red": 2}),
    ("betaine-dough", {"baking_soda": 400, "scs_powder": 100, "capb_liquid": 50, "corn_starch": 60}),
    ("butter-dough", {"baking_soda": 300, "citric_acid_anhydrous": 120, "sweet_almond_oil": 20, "cocoa_butter": 80, "vitamin_e": 1}),
    ("damp-press", {"baking_soda": 500, "citric_acid_anhydrous": 250, "lake_pigment_blue": 2, "corn_starch": 40}),
    ("loose-dust", {"baking_soda": 300, "whole_milk_powder": 60, "corn_starch": 60}),
    ("damp-press", {"baking_soda": 400, "cream_of_tartar": 200, "glycerin": 10}),
    ("moulded-truffle", {"mango_butter": 80, "cocoa_butter": 60, "baking_soda": 100, "citric_acid_anhydrous": 40}),
    ("glycerin-dough", {"baking_soda": 400, "sodium_lauroyl_sarcosinate": 100, "glycerin": 100}),
])  # fmt: skip
def test_an_ordinary_formula_raises_no_false_alarm(tables: Tables, method: str, grams: dict[str, float]) -> None:
    formula = replace(make_formula(method, **grams), product=PRODUCT)
    alarms = {entry.rule for entry in evaluate(formula, tables).skin.ledger if entry.severity != "note"}
    assert alarms <= TRUE_ALARMS
