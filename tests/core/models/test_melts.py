"""Melts, waxes and liquids: nothing liquid is called dry, nothing waxy is called liquid."""

from __future__ import annotations

import random
from dataclasses import replace
from itertools import pairwise

import pytest

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Piece, Room, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula

FLUID = {"batter", "pour"}


def cold(result: Evaluation) -> str | None:
    assert result.dough is not None
    return result.dough.when_cold.state


def melt(tables: Tables, **grams: float) -> Evaluation:
    return evaluate(make_formula("melt", **grams), tables)


def test_of_three_thousand_random_formulas_none_dries_and_stays_fluid(tables: Tables) -> None:
    dice = random.Random(30)
    ids = [item.id.replace("-", "_") for item in tables.ingredients.values()]
    for _ in range(3000):
        method = dice.choice(list(tables.methods))
        grams = {name: 10 ** dice.uniform(0, 2.7) for name in dice.sample(ids, dice.randrange(1, 8))}
        formula = replace(make_formula(method, **grams), room=Room(dice.uniform(12, 32), dice.uniform(20, 95)))
        result = evaluate(formula, tables)
        assert not (result.drying.dries and cold(result) in FLUID), (method, grams)


@pytest.mark.parametrize(
    "grams",
    [
        {"glycerin": 90, "cocoa_butter": 10}, {"fragrance_oil_generic": 70, "cocoa_butter": 30}, {"sweet_almond_oil": 91, "cocoa_butter": 9},
        {"distilled_water": 50, "shea_butter": 50}, {"glycerin": 100}, {"honey": 60, "beeswax": 5}, {"capb_liquid": 80, "cocoa_butter": 20},
    ],
)  # fmt: skip
def test_what_is_mostly_liquid_is_neither_dry_nor_hard(tables: Tables, grams: dict[str, float]) -> None:
    result = melt(tables, **grams)
    assert result.drying.dries is False
    assert result.drying.reason
    assert (result.firmness.at_20_c or 0.0) < 30


def test_water_and_glycerin_come_apart_from_fat_and_that_is_said(tables: Tables) -> None:
    assert melt(tables, cocoa_butter=80, glycerin=20).drying.why_not == "comes_apart"
    assert melt(tables, cocoa_butter=60, shea_butter=30, emulsifying_wax=15).drying.dries


def test_a_tenth_of_beeswax_sets_and_three_tenths_make_a_firm_balm(tables: Tables) -> None:
    """Plant waxes and beeswax gel oil from 1 to 4 % (Blake, Co and Marangoni 2014, from memory)."""
    tenth, balm = melt(tables, beeswax=10, sweet_almond_oil=90), melt(tables, beeswax=30, sweet_almond_oil=70)
    assert cold(tenth) == cold(balm) == "set"
    assert balm.drying.dries
    assert 45 <= (balm.firmness.at_20_c or 0) <= 85
    firmness = [melt(tables, beeswax=share, sweet_almond_oil=100 - share).firmness.at_20_c or 0.0 for share in range(2, 100, 4)]
    assert firmness == sorted(firmness), "more wax is never softer"


@pytest.mark.parametrize("wax", ["candelilla_wax", "rice_bran_wax", "sunflower_wax", "carnauba_wax"])
def test_every_hard_wax_makes_a_gel_of_oil(tables: Tables, wax: str) -> None:
    assert cold(melt(tables, sweet_almond_oil=80, **{wax: 20})) == "set"
    assert cold(melt(tables, sweet_almond_oil=99.5, **{wax: 0.5})) in FLUID


def test_a_piece_of_another_mass_takes_another_time(tables: Tables) -> None:
    def of(mass_g: float, thickness_mm: float | None = None) -> Evaluation:
        body = make_formula(
            "damp-press", baking_soda=400, citric_acid_anhydrous=200, corn_starch=40, sweet_almond_oil=12, distilled_water=8
        )
        return evaluate(replace(body, piece=Piece(mass_g=mass_g, half_thickness_mm=thickness_mm)), tables)

    small, large = of(40), of(320)
    assert large.assumed.half_thickness_mm == pytest.approx(2 * small.assumed.half_thickness_mm)
    assert (large.release.minutes or 0) > (small.release.minutes or 0)
    assert of(320, 20.0).assumed.half_thickness_mm == 20.0
    assert of(80).assumed.half_thickness_mm == pytest.approx(25.0)


def test_with_a_tenth_of_salt_large_balls_sink_and_small_ones_float(tables: Tables) -> None:
    """Common practice, no published source: above about 140 g they sink."""
    salted = make_formula(
        "damp-press",
        baking_soda=350,
        citric_acid_anhydrous=175,
        corn_starch=60,
        sea_salt_fine=65,
        sweet_almond_oil=12,
        distilled_water=6,
    )
    floats = {mass: evaluate(replace(salted, piece=Piece(mass_g=mass)), tables).piece.float for mass in (60, 100, 140, 190, 250)}
    assert (floats[60], floats[100], floats[190], floats[250]) == ("floats", "floats", "sinks", "sinks")


def test_dust_and_balls_do_not_dry_in_wet_air_nor_in_no_time(tables: Tables) -> None:
    def dries(method: str, humidity_pct: float) -> Evaluation:
        body = make_formula(method, baking_soda=400, citric_acid_anhydrous=200, corn_starch=40, sweet_almond_oil=15)
        return evaluate(replace(body, room=Room(21, humidity_pct)), tables)

    assert dries("loose-dust", 95).drying.dries is False
    assert dries("loose-dust", 40).drying.hours == pytest.approx(12)
    assert (dries("damp-press", 40).drying.hours or 0) >= 24, "its day in air"


def test_salt_comes_in_smoothly(tables: Tables) -> None:
    """Humidity over saturated NaCl is 75 % (Greenspan 1977); a little of it does not rule the piece yet."""

    def hours(salt: float) -> float:
        body = make_formula(baking_soda=218, slsa_fine=82, corn_starch=113, capb_liquid=57, glycerin=37, sea_salt_fine=salt)
        return evaluate(body, tables).drying.hours or 0.0

    steps = [hours(share) for share in (9.0, 10.0, 10.5, 11.0, 12.0)]
    assert all(abs(after / before - 1) < 0.05 for before, after in pairwise(steps))


def test_a_dried_bottle_wets_nothing_and_sprayed_water_still_does(tables: Tables) -> None:
    lines = {"baking_soda": 500, "corn_starch": 60, "liquid_bubble_bath": 80, "citric_acid_anhydrous": 240}
    dried = evaluate(make_formula("pre-dried-surfactant", **lines), tables)
    sprayed = evaluate(make_formula("pre-dried-surfactant", **lines, distilled_water=8), tables)
    assert dried.dough is not None
    assert dried.dough.saturation == pytest.approx(0.0, abs=1e-9)
    assert dried.fizz.prereaction_share == pytest.approx(0.0)
    assert (sprayed.fizz.prereaction_share or 0) > 0.02


def test_a_crumb_that_was_never_bound_is_not_firmer_than_a_bound_bar(tables: Tables) -> None:
    def bar(betaine: float) -> float:
        return (
            evaluate(
                make_formula(baking_soda=300, slsa_fine=80, corn_starch=100, capb_liquid=betaine, glycerin=betaine / 2), tables
            ).firmness.at_20_c
            or 0.0
        )

    assert bar(20) < bar(75)


def test_hardness_is_softened_by_any_citrate_and_brought_by_magnesium(tables: Tables) -> None:
    def score(tap: str = "very-hard", **more: float) -> float:
        body: Formula = make_formula("loose-dust", baking_soda=400, scs_powder=30, sweet_almond_oil=5, **more)
        hard = replace(body, use=replace(body.use, hardness=tap, dose_g=100))
        return evaluate(hard, tables).lather.foam_l or 0.0

    plain, citrate = score(sea_salt_fine=150), score(sodium_citrate=150)
    assert citrate > plain
    assert score("soft", epsom_salt=150) < score("soft", sea_salt_fine=150)
    grades = score(citric_acid_anhydrous=192.124), score(citric_acid_monohydrate=210.138, sea_salt_fine=0)
    assert grades[0] / grades[1] == pytest.approx(1.0, abs=0.06)
