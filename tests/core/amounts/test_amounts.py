"""Amounts: from what is typed to grams."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rosy_kettle.core.amounts import UNITS, grams_from_entry, parse_amount, relative_spread, weigh_formula
from rosy_kettle.core.amounts.units import drop_ml
from rosy_kettle.core.errors import InputError, MissingDataError
from rosy_kettle.core.records import Formula, Line, Portion, Tables
from tests.conftest import make_lines


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("218", 218), ("0,75", 0.75), ("2/3", 2 / 3), ("1 1/2", 1.5), ("½", 0.5), ("1½", 1.5), ("1 ½", 1.5), (".5", 0.5),
        (" 12.50 ", 12.5), ("+3", 3), ("", 0), ("1e2", 100), ("3.", 3), ("7⁄8", 0.875),
    ],
)  # fmt: skip
def test_an_amount_is_read_as_written(text: str, value: float) -> None:
    assert parse_amount(text) == pytest.approx(value, rel=1e-12)


@pytest.mark.parametrize("text", ["-1", "−2", "abc", "1/0", "1 1", "nan", "inf", "1e999", "1,2,3", "1/2/3", "0x10", "9" * 50])
def test_what_is_no_amount_is_refused(text: str) -> None:
    with pytest.raises(InputError, match="must be"):
        parse_amount(text)


# NIST Handbook 44, Appendix C: 1 lb = 453.592 37 g and 1 oz = 28.349 523 125 g exactly; US cup = 236.588 236 5 mL,
# fluid ounce = 1/8 cup, tablespoon = 1/16, teaspoon = 1/48.
@pytest.mark.parametrize(("unit", "grams"), [("g", 1), ("kg", 1000), ("mg", 0.001), ("oz", 28.349523125), ("lb", 453.59237)])
def test_weights_follow_the_nist_definitions(tables: Tables, unit: str, grams: float) -> None:
    assert grams_from_entry(1, unit, tables.ingredients["kaolin"]) == pytest.approx(grams, rel=1e-12)


@pytest.mark.parametrize(
    ("unit", "ml"),
    [("ml", 1), ("l", 1000), ("cup", 236.5882365), ("floz", 29.5735295625), ("tbsp", 14.78676478125), ("tsp", 4.92892159375)],
)
def test_volumes_follow_the_nist_definitions(tables: Tables, unit: str, ml: float) -> None:
    glycerin = tables.ingredients["glycerin"]
    assert glycerin.us_cup_g is not None
    assert grams_from_entry(1, unit, glycerin) == pytest.approx(ml * glycerin.us_cup_g / 236.5882365, rel=1e-12)


# USDA FoodData Central, SR Legacy, household measures (recalled): baking soda 1 tsp 4.6 g; corn starch 1 cup 128 g;
# cream of tartar 1 tsp 3.0 g; dry whole milk 1 cup 128 g; table sugar-free glycerin is not listed; honey 1 cup 339 g;
# olive oil 1 cup 216 g; cocoa powder 1 cup 86 g.
@pytest.mark.parametrize(
    ("ingredient", "unit", "grams"),
    [
        ("baking-soda", "tsp", 4.6), ("corn-starch", "cup", 128), ("cream-of-tartar", "tsp", 3.0), ("whole-milk-powder", "cup", 128),
        ("honey", "cup", 339), ("olive-oil", "cup", 216), ("cocoa-powder", "cup", 86),
    ],
)  # fmt: skip
def test_cups_and_spoons_weigh_what_usda_lists(tables: Tables, ingredient: str, unit: str, grams: float) -> None:
    assert grams_from_entry(1, unit, tables.ingredients[ingredient]) == pytest.approx(grams, rel=0.01)


def test_a_drop_of_water_is_a_twentieth_of_a_gram(tables: Tables) -> None:
    """European Pharmacopoeia, normal dropper: 20 drops of water weigh 1 g."""
    assert grams_from_entry(20, "drop", tables.ingredients["distilled-water"]) == pytest.approx(1.0, rel=0.01)


def test_drops_differ_by_what_drips(tables: Tables) -> None:
    water, scent, oil = (
        grams_from_entry(100, "drop", tables.ingredients[i]) for i in ("distilled-water", "fragrance-oil-generic", "olive-oil")
    )
    assert water > scent > oil


@pytest.mark.parametrize(("liquid", "mn_m"), [("polysorbate-20", 40.0), ("polysorbate-80", 42.5), ("glycerin", 63.4)])
def test_a_drop_weighs_by_its_surface_tension(tables: Tables, liquid: str, mn_m: float) -> None:
    """Tate's law: mass goes with surface tension, water 72.8 mN/m and 0.05 g. Glycerin: CRC Handbook; polysorbates from memory."""
    assert grams_from_entry(1, "drop", tables.ingredients[liquid]) == pytest.approx(0.05 * mn_m / 72.8, rel=0.12)


def test_powders_have_no_drops(tables: Tables) -> None:
    with pytest.raises(InputError, match="weigh the baking soda"):
        grams_from_entry(3, "drop", tables.ingredients["baking-soda"])


def test_unknown_unit_is_refused_with_the_list(tables: Tables) -> None:
    with pytest.raises(InputError, match="unit must be one of g, kg"):
        grams_from_entry(1, "stone", tables.ingredients["kaolin"])


def test_spread_is_widest_for_light_surfactant_powder(tables: Tables) -> None:
    spread = {i: relative_spread("cup", tables.ingredients[i]) for i in ("slsa-fine", "baking-soda", "glycerin")}
    assert spread == {"slsa-fine": 0.30, "baking-soda": 0.15, "glycerin": 0.05}
    assert relative_spread("g", tables.ingredients["slsa-fine"]) == 0


@given(amount=st.floats(0, 1e4), unit=st.sampled_from([u for u in UNITS if u not in {"part", "pct"}]))
def test_grams_grow_in_proportion(tables: Tables, amount: float, unit: str) -> None:
    glycerin = tables.ingredients["glycerin"]
    assert grams_from_entry(2 * amount, unit, glycerin) == pytest.approx(2 * grams_from_entry(amount, unit, glycerin), rel=1e-9)


@given(text=st.text(max_size=30))
def test_no_text_makes_the_parser_stumble(text: str) -> None:
    try:
        assert parse_amount(text) >= 0
    except InputError as error:
        assert error.message.startswith("must be")


def masses(formula: Formula, tables: Tables) -> list[float]:
    return [item.mass_g for item in weigh_formula(formula, tables)[0]]


def test_parts_share_the_batch(tables: Tables) -> None:
    formula = make_lines(("baking-soda", "2", "part"), ("citric-acid-anhydrous", "1", "part"), batch_g=900)
    assert masses(formula, tables) == pytest.approx([600, 300])


def test_per_cent_share_the_batch(tables: Tables) -> None:
    formula = make_lines(("baking-soda", "60", "pct"), ("corn-starch", "40", "pct"))
    assert masses(formula, tables) == pytest.approx([600, 400])


def test_weighed_lines_beside_per_cent_are_the_rest(tables: Tables) -> None:
    formula = make_lines(("baking-soda", "380", "g"), ("glycerin", "5", "pct"))
    assert masses(formula, tables) == pytest.approx([380, 20])


def test_parts_beside_weights_are_refused(tables: Tables) -> None:
    formula = make_lines(("baking-soda", "380", "g"), ("glycerin", "1", "part"))
    with pytest.raises(InputError, match=r"Line 2 \(Glycerin\): parts cannot stand beside weights"):
        weigh_formula(formula, tables)


def test_per_cent_that_leave_nothing_are_refused(tables: Tables) -> None:
    formula = make_lines(("baking-soda", "380", "g"), ("glycerin", "100", "pct"))
    with pytest.raises(InputError, match="add up to 100 %"):
        weigh_formula(formula, tables)


def test_a_portion_with_a_mass_is_scaled_to_it(tables: Tables) -> None:
    body = Portion("body", (Line("baking-soda", "500", "g"),))
    topping = Portion("topping", (Line("baking-soda", "90", "g"), Line("capb-liquid", "10", "g")), mass_g=50)
    assert masses(Formula("x", (body, topping)), tables) == pytest.approx([500, 45, 5])


def test_a_portion_with_a_share_takes_it_of_the_batch(tables: Tables) -> None:
    body = Portion("body", (Line("baking-soda", "3", "part"), Line("corn-starch", "1", "part")), share_pct=75)
    second = Portion("second colour", (Line("baking-soda", "1", "part"),), share_pct=25)
    assert masses(Formula("x", (body, second), batch_g=800), tables) == pytest.approx([450, 150, 200])


def test_more_than_a_tonne_on_a_line_is_a_slip(tables: Tables) -> None:
    with pytest.raises(InputError, match=r"Line 1 .*1 000 kg at most"):
        weigh_formula(make_lines(("baking-soda", "1001", "kg")), tables)


def test_an_unknown_line_is_left_out_not_dropped(tables: Tables) -> None:
    weighed, missing = weigh_formula(make_lines(("baking-soda", "10", "g"), (None, "5", "g")), tables)
    assert [item.position for item in weighed] == [0]
    assert missing == ()


def test_no_cup_weight_is_missing_data(tables: Tables) -> None:
    from dataclasses import replace  # local: only this test bends an ingredient

    kaolin = replace(tables.ingredients["kaolin"], us_cup_g=None)
    bent = replace(tables, ingredients=dict(tables.ingredients) | {"kaolin": kaolin})
    weighed, missing = weigh_formula(make_lines(("kaolin", "1", "cup"), ("baking-soda", "10", "g")), bent)
    assert [item.ingredient.id for item in weighed] == ["baking-soda"]
    assert isinstance(missing[0], MissingDataError)
    assert missing[0].facts == {"ingredient": "kaolin", "property": "us_cup_g"}


# Tate's law: the mass of a drop goes with the surface tension. Water 72.8 mN/m in drops of 0.05 mL (European Pharmacopoeia 2.1.1,
# normal dropper: 20 drops of water are 1 g); CRC Handbook, 20 °C (recalled): glycerin 63.4 mN/m and 1.261 g/mL, almond oil 32 and
# 0.915. Polysorbate 80: 42 mN/m and 1.07 g/mL (maker's literature, recalled).
@pytest.mark.parametrize(("ingredient", "mn_m", "g_ml"), [
    ("glycerin", 63.4, 1.261), ("sweet-almond-oil", 32.5, 0.915), ("polysorbate-80", 42.0, 1.07),
])  # fmt: skip
def test_drops_follow_the_surface_tension(tables: Tables, ingredient: str, mn_m: float, g_ml: float) -> None:
    assert drop_ml(tables.ingredients[ingredient]) == pytest.approx(0.05 * mn_m / 72.8 / g_ml, rel=0.03)


def test_thirty_drops_of_scent_are_a_millilitre_and_a_third_unsure(tables: Tables) -> None:
    """28 to 30 drops a millilitre; household droppers give 0.02 to 0.04 mL (common practice, no published source)."""
    scent = tables.ingredients["fragrance-oil-generic"]
    assert 1 / 30 <= drop_ml(scent) <= 1 / 28
    assert relative_spread("drop", scent) == pytest.approx((0.04 - 0.02) / (0.04 + 0.02), abs=0.05)
