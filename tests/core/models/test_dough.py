"""Dough: saturation, states, window."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.mixing.fill import dough_fill
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.models.dough import STATES, texture_curve
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Room, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula, make_lines

Judge = Callable[[Formula], Evaluation]

# Four compositions of common practice, no published source: what makers call their dough.
GLYCERIN_ROLL = make_formula(
    "glycerin-dough", baking_soda=442, corn_starch=85, cream_of_tartar=96, slsa_fine=150, glycerin=298, sweet_almond_oil=27
)
BETAINE_SCOOP = make_formula(
    "betaine-dough", baking_soda=218, slsa_fine=82, corn_starch=113, cream_of_tartar=28, kaolin=11, fragrance_oil_generic=10,
    capb_liquid=57, avocado_oil=28, glycerin=37, mica_pigment=3,
)  # fmt: skip
BATH_DUST = make_formula(
    "loose-dust", baking_soda=360, citric_acid_anhydrous=183, slsa_fine=12, kaolin=15, sweet_almond_oil=15,
    fragrance_oil_generic=9, polysorbate_80=6,
)  # fmt: skip
TRUFFLE = make_formula(
    "moulded-truffle", baking_soda=200, citric_acid_anhydrous=100, cocoa_butter=135, fragrance_oil_generic=3, polysorbate_80=6
)
SCOOPED_TRUFFLE = make_formula(
    "butter-dough", baking_soda=400, citric_acid_anhydrous=200, cream_of_tartar=60, slsa_fine=120, cocoa_butter=90,
    shea_butter=90, glycerin=30, polysorbate_80=20, fragrance_oil_generic=15,
)  # fmt: skip


@pytest.mark.parametrize(
    ("formula", "saturation", "state"),
    [
        (GLYCERIN_ROLL, 0.92, "play dough"),
        (BETAINE_SCOOP, 0.68, "play dough"),
        (BATH_DUST, 0.19, "damp sand"),
    ],
)
def test_doughs_of_common_practice_fall_where_makers_put_them(
    judge: Judge, formula: Formula, saturation: float, state: str
) -> None:
    dough = judge(formula).dough
    assert dough is not None
    assert dough.saturation == pytest.approx(saturation, abs=0.05)
    assert dough.state == state


def test_a_moulded_truffle_is_batter_when_hot_and_set_when_cold(judge: Judge) -> None:
    dough = judge(TRUFFLE).dough
    assert dough is not None
    at = {point.temperature_c: point.state for point in dough.by_temperature}
    assert (at[40], at[20]) == ("batter", "set")


@pytest.mark.parametrize(("temperature_c", "saturation"), [(20, 0.55), (30, 0.75), (35, 0.97), (40, 1.00)])
def test_a_scooped_truffle_softens_as_stated(judge: Judge, temperature_c: float, saturation: float) -> None:
    dough = judge(SCOOPED_TRUFFLE).dough
    assert dough is not None
    at = {point.temperature_c: point.saturation for point in dough.by_temperature}
    assert at[temperature_c] == pytest.approx(saturation, abs=0.05)


def test_its_window_is_what_makers_name(judge: Judge) -> None:
    """Makers name 29 to 38 °C (common practice, no published source); the model gives about 25 to 37.5."""
    dough = judge(SCOOPED_TRUFFLE).dough
    assert dough is not None
    assert dough.working_window_c is not None
    low, high = dough.working_window_c
    assert low == pytest.approx(25, abs=3)
    assert high == pytest.approx(37.5, abs=3)


def test_a_dough_without_fat_has_no_window(judge: Judge) -> None:
    dough = judge(BETAINE_SCOOP).dough
    assert dough is not None
    assert (dough.working_window_c, dough.window_reason) == (None, "no fat")


def test_a_window_that_never_opens_says_so(judge: Judge) -> None:
    dough = judge(make_formula("butter-dough", baking_soda=900, cocoa_butter=60)).dough
    assert dough is not None
    assert (dough.working_window_c, dough.window_reason) == (None, "never")


def test_saturation_by_hand(judge: Judge) -> None:
    """100 g soda drink 30 mL; 12.61 g glycerin of 1.261 g/mL are 10 mL: a third."""
    dough = judge(make_formula(baking_soda=100, glycerin=12.61)).dough
    assert dough is not None
    assert dough.saturation == pytest.approx(10 / 30, rel=1e-9)


@pytest.mark.parametrize(
    ("glycerin_g", "state"),
    [
        (0, "dust"), (1.89, "dust"), (1.9, "damp sand"), (11.3, "damp sand"), (11.4, "crumbly dough"), (23.4, "crumbly dough"),
        (23.5, "play dough"), (38.5, "play dough"), (38.6, "sticky"), (49.1, "sticky"), (49.2, "batter"), (83.2, "batter"), (83.3, "pour"),
    ],
)  # fmt: skip
def test_states_begin_at_their_lower_edge(judge: Judge, glycerin_g: float, state: str) -> None:
    dough = judge(make_formula(baking_soda=100, glycerin=glycerin_g)).dough
    assert dough is not None
    assert dough.state == state


def test_no_powder_pours_and_has_no_saturation(judge: Judge) -> None:
    result = judge(make_formula("melt", olive_oil=100))
    assert result.dough is not None
    assert (result.dough.saturation, result.dough.state) == (None, "pour")
    assert result.missing[0].reading == "dough.saturation"
    assert result.missing[0].reason == "no powder that drinks"


def test_a_kilo_of_wax_is_set_at_room_and_pours_when_molten(judge: Judge) -> None:
    dough = judge(make_formula("melt", beeswax=1000)).dough
    assert dough is not None
    assert dough.when_cold.state == "set"
    hot = judge(make_formula("melt", cocoa_butter=1000)).dough
    assert hot is not None
    assert hot.state == "pour"


def test_a_dissolved_wax_is_no_longer_solid(tables: Tables) -> None:
    """A melt with 15 % emulsifying wax at 38 °C: about 13 % solid by the table, hardly any once the oil has dissolved it."""
    from rosy_kettle.core.mixing.solid_fat import solid_fractions  # local: one test looks this deep

    palette = make_palette([tables.ingredients[i] for i in ("cocoa-butter", "emulsifying-wax")])
    mass_g = np.array([85.0, 15.0])
    solid_g = (solid_fractions(palette, mass_g, np.array([38.0]))[0] * mass_g[palette.fat_columns]).sum()
    assert solid_g < 1.0


def test_fresh_cocoa_butter_is_softer_than_tempered(tables: Tables) -> None:
    palette = make_palette([tables.ingredients["baking-soda"], tables.ingredients["cocoa-butter"]])
    mass_g = np.array([300.0, 60.0])
    grid = np.array([20.0, 25.0, 30.0])
    tempered = dough_fill(palette, mass_g, grid).saturation
    fresh = dough_fill(palette, mass_g, grid, fresh=True).saturation
    assert (fresh > tempered).all()


def test_many_variants_in_one_call_agree_with_one_by_one(tables: Tables) -> None:
    palette = make_palette([tables.ingredients[i] for i in ("baking-soda", "glycerin", "shea-butter", "beeswax")])
    grid = np.array([15.0, 30.0, 45.0])
    variants = np.array([[100.0, 10, 5, 2], [80.0, 20, 0, 4], [10.0, 0, 50, 30]])
    together = dough_fill(palette, variants, grid).saturation
    for row, expected in zip(variants, together, strict=True):
        assert dough_fill(palette, row, grid).saturation == pytest.approx(expected, rel=1e-12)


def test_a_little_acid_makes_crumbly_right_too(judge: Judge) -> None:
    without = judge(make_formula(baking_soda=200, corn_starch=50, capb_liquid=40)).dough
    with_acid = judge(make_formula(baking_soda=200, corn_starch=50, capb_liquid=40, citric_acid_anhydrous=12)).dough
    tartar = judge(make_formula(baking_soda=200, corn_starch=50, capb_liquid=40, cream_of_tartar=12)).dough
    assert without is not None
    assert with_acid is not None
    assert tartar is not None
    assert without.wanted.states == tartar.wanted.states == ("play dough",)
    assert with_acid.wanted.states == ("play dough", "crumbly dough")


def test_volumes_widen_the_band(judge: Judge) -> None:
    weighed = judge(make_lines(("baking-soda", "220.8", "g"), ("slsa-fine", "95", "g"), ("glycerin", "60", "g"))).dough
    scooped = judge(make_lines(("baking-soda", "1", "cup"), ("slsa-fine", "1", "cup"), ("glycerin", "60", "g"))).dough
    assert weighed is not None
    assert scooped is not None
    assert weighed.saturation == pytest.approx(scooped.saturation)
    assert weighed.saturation_band is not None
    assert scooped.saturation_band is not None
    assert scooped.saturation_band[0] < weighed.saturation_band[0]
    assert scooped.saturation_band[1] > weighed.saturation_band[1]


def test_a_cold_room_is_judged_and_said_to_be_out_of_range(judge: Judge) -> None:
    from dataclasses import replace  # local: only this test changes the room

    cold = replace(SCOOPED_TRUFFLE, method="betaine-dough", room=Room(5, 60))
    result = judge(cold)
    assert result.dough is not None
    assert result.dough.temperature_c == 5
    assert "outside 10 to 60 °C" in result.out_of_range[0].limit


AMOUNT = st.floats(0.5, 300)


@settings(max_examples=60, deadline=None)
@given(soda=AMOUNT, starch=AMOUNT, glycerin=AMOUNT, cocoa=st.floats(0, 300), wax=st.floats(0, 60), scale=st.floats(0.1, 20))
def test_texture_obeys_its_directions(
    tables: Tables, soda: float, starch: float, glycerin: float, cocoa: float, wax: float, scale: float
) -> None:
    palette = make_palette([tables.ingredients[i] for i in ("baking-soda", "corn-starch", "glycerin", "cocoa-butter", "beeswax")])
    grid = np.arange(10.0, 61.0)
    mass_g = np.array([soda, starch, glycerin, cocoa, wax])
    fill = dough_fill(palette, mass_g, grid)
    assert (np.diff(fill.saturation) >= -1e-12).all(), "warmer is never drier"
    assert (np.diff(texture_curve(fill).state_index) >= 0).all(), "states never go backwards on warming"
    wetter = dough_fill(palette, mass_g + np.array([0, 0, 5, 0, 0]), grid)
    assert (wetter.saturation > fill.saturation).all(), "more liquid, higher saturation"
    drier = dough_fill(palette, mass_g + np.array([5, 0, 0, 0, 0]), grid)
    assert (drier.saturation < fill.saturation).all(), "more powder, lower saturation"
    assert dough_fill(palette, mass_g * scale, grid).saturation == pytest.approx(fill.saturation, rel=1e-9), (
        "size does not matter"
    )


@settings(max_examples=40, deadline=None)
@given(amounts=st.lists(st.floats(0, 500), min_size=6, max_size=6))
def test_any_mixture_has_a_state(tables: Tables, amounts: list[float]) -> None:
    names = ("baking_soda", "slsa_fine", "capb_liquid", "shea_butter", "olive_oil", "sugar_sprinkles")
    result = evaluate(make_formula(**dict(zip(names, amounts, strict=True))), tables)
    assert result.dough is not None
    if result.mass_g > 0:
        assert result.dough.state in STATES
        assert all(point.state in STATES for point in result.dough.by_temperature)


def test_crumbs_are_right_too_once_there_is_acid_to_fizz(judge: Judge, tables: Tables) -> None:
    """A fizzing scoop is pressed, and packs as crumbs (common practice, no published source): more than 2 % of fast acid."""
    p = tables.parameters.dough
    for citric_g, right_too in ((2.0, False), (2.1, True)):
        dough = judge(make_formula(baking_soda=68 - citric_g, corn_starch=20, citric_acid_anhydrous=citric_g, glycerin=12)).dough
        assert dough is not None
        assert ("crumbly dough" in dough.wanted.states) is right_too
        assert dough.wanted.saturation_low is not None
        assert dough.wanted.saturation_from == (p.crumbly_from if right_too else dough.wanted.saturation_low)
    assert p.crumbly_from < dough.wanted.saturation_low


@pytest.mark.parametrize(("water", "role", "mixes"), [
    (0.04, "oil", False), (0.06, "oil", True), (0.65, "surfactant", True), (0.0, "humectant", True), (None, "oil", False),
])  # fmt: skip
def test_what_holds_water_stays_apart_from_fat(tables: Tables, water: float | None, role: str, *, mixes: bool) -> None:
    """A twentieth of water and more mixes with water, and glycerin does without any (common practice, no published source)."""
    liquid = replace(tables.ingredients["sunflower-oil-ho"], water_fraction=water, role=role)
    assert make_palette([liquid]).mixes_with_water.tolist() == [mixes]


def test_the_band_is_the_root_of_squared_errors(tables: Tables) -> None:
    """A powder's error counts by its share of what is drunk, a liquid's by its share of the liquid, the model's 17 % beside them."""
    formula = make_lines(
        ("baking-soda", "1", "cup"), ("slsa-fine", "1", "cup"), ("glycerin", "60", "g"), ("capb-liquid", "2", "tbsp")
    )
    weighed, _ = weigh_formula(formula, tables)
    drunk = [(each.ingredient.liquid_demand_ml_100g or 0.0) * each.mass_g for each in weighed]
    poured = [each.mass_g / each.ingredient.true_density_g_ml if each.ingredient.is_liquid else 0.0 for each in weighed]
    shares = [one / sum(drunk) + other / sum(poured) for one, other in zip(drunk, poured, strict=True)]
    errors = sum((share * each.spread) ** 2 for share, each in zip(shares, weighed, strict=True))
    dough = evaluate(formula, tables).dough
    assert dough is not None
    assert dough.saturation is not None
    assert dough.saturation_band is not None
    low, high = dough.saturation_band
    assert (high - low) / 2 / dough.saturation == pytest.approx((errors + 0.17**2) ** 0.5, rel=1e-3)


def test_the_liquid_of_a_dough_by_hand(tables: Tables) -> None:
    """45 g of butter at 0.90 g/mL are 50 mL, 25.2 g of glycerin at 1.26 and 9.2 g of oil at 0.92 are 20 and 10 (handbook densities)."""
    named = {"baking-soda": 100.0, "shea-butter": 45.0, "glycerin": 25.2, "sunflower-oil-ho": 9.2}
    density = {"glycerin": 1.26, "sunflower-oil-ho": 0.92}
    items = [
        replace(tables.ingredients[name], **({"true_density_g_ml": density[name]} if name in density else {})) for name in named
    ]
    fill = dough_fill(make_palette(items), np.array(list(named.values())), np.array([20.0, 60.0]))
    drinks = (items[0].liquid_demand_ml_100g or 0.0) * 1.0
    assert float(fill.demand_ml) == pytest.approx(drinks)
    assert float(fill.saturation_molten) == pytest.approx(80.0 / drinks)
    assert float(fill.saturation_lean) == pytest.approx(30.0 / drinks)
    assert float(fill.fat_volume_share) == pytest.approx(50.0 / 80.0)
    assert float(fill.fat_share) == pytest.approx(45.0 / 179.4)
    assert fill.saturation[1] == pytest.approx(80.0 / drinks), "at 60 °C all of it is molten"
    left_g = max(0.0, 25.2 * (1 - drinks / 20.0))
    assert float(fill.undrunk_g) == pytest.approx(left_g), "powders drink what is no fat first"
    assert fill.solid_share[1] == 0
    curve = items[1].tempered_fat
    assert curve is not None
    solid = float(np.interp(20.0, curve.temperatures_c, curve.solid_fractions))
    assert fill.solid_share[0] == pytest.approx(solid * 45.0 / (45.0 + 9.2 + left_g), rel=0.02)


def test_what_free_water_dissolves_makes_the_wet_end_wetter(tables: Tables) -> None:
    """Six tenths of a mL for each mL of water, from 3 % of what dissolves on (citric acid is 59 % of its solution, CRC, from memory)."""
    dry, wet = (
        make_formula("damp-press", baking_soda=1000 - acid_g, citric_acid_anhydrous=acid_g, distilled_water=20.0)
        for acid_g in (30.0, 31.0)
    )
    for formula, dissolves in ((dry, False), (wet, True)):
        dough = evaluate(formula, tables).dough
        assert dough is not None
        assert dough.saturation is not None
        assert dough.saturation_band is not None
        low, high = dough.saturation_band
        drunk_ml = 20.0 / tables.ingredients["distilled-water"].true_density_g_ml / dough.saturation
        more = 0.6 * 20.0 / drunk_ml if dissolves else 0.0
        assert high - dough.saturation == pytest.approx(dough.saturation - low + more, rel=5e-3)
