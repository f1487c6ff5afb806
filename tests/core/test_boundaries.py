"""Both sides of lines that law, common practice or plain arithmetic draw: a figure or a sign turned here is seen."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta

import pytest

from rosy_kettle.core.making.bench.feel import answer_feel
from rosy_kettle.core.making.plan.stages import span_words
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.models.dough.texture import texture_curve
from rosy_kettle.core.models.dough.working_window import working_window
from rosy_kettle.core.models.pieces.rolls import roll_geometry
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Certificate, Product, Room, Tables
from tests.conftest import make_formula

# Regulation (EC) No 1223/2009, Annex III, entries 67 to 92: an allergen is named above 0.01 % in what is rinsed off and above
# 0.001 % in what stays on the skin.
RINSE_OFF_PCT, LEAVE_ON_PCT = 0.01, 0.001


@pytest.mark.parametrize(("mode", "threshold"), [("rinse_off", RINSE_OFF_PCT), ("leave_on", LEAVE_ON_PCT)])
@pytest.mark.parametrize("side", [0.97, 1.03])
def test_an_allergen_is_named_from_the_legal_share_on(tables: Tables, mode: str, threshold: float, side: float) -> None:
    """A dry mix loses nothing, so the share of linalool in the scent alone decides."""
    scent_g, rest_g = 10.0, 990.0
    of_scent_pct = side * threshold * (scent_g + rest_g) / scent_g
    certificate = Certificate(limit_pct=20.0, allergens={"linalool": of_scent_pct})
    product = Product(markets=("EU",), allergen_mode=mode, certificates={"fragrance-oil-generic": certificate})
    formula = replace(make_formula("damp-press", baking_soda=rest_g, fragrance_oil_generic=scent_g), product=product)
    named = [name.lower() for name in evaluate(formula, tables).label.allergens]
    assert ("linalool" in named) == (side > 1)


def test_a_kneaded_body_needs_the_last_crystals_of_its_fat(tables: Tables) -> None:
    """Two per cent of fat and oil still solid hold a kneaded body; a poured one needs none (common practice, no published source)."""
    formula = make_formula("butter-dough", baking_soda=300, corn_starch=60, slsa_fine=150, shea_butter=90, sweet_almond_oil=20)
    setting = setting_of(formula, tables, 620.0)
    lines = [(line.ingredient, float(line.amount)) for line in formula.lines]
    mix = setting.mix(make_palette([tables.ingredients[str(name)] for name, _grams in lines]), _masses(lines))
    curve = texture_curve(mix.fill)
    anything = tuple(dict.fromkeys(curve.state(at) for at in range(curve.temperature_c.size)))
    kneaded = working_window(curve, mix.fill, anything, kneaded=True)[0]
    poured = working_window(curve, mix.fill, anything, kneaded=False)[0]
    assert kneaded is not None
    assert poured is not None
    assert poured[1] > kneaded[1]
    assert mix.solid_share(kneaded[1]) >= 0.02 > mix.solid_share(kneaded[1] + 1)


def _masses(lines: list[tuple[str | None, float]]):  # type: ignore[no-untyped-def]
    import numpy as np  # here: one helper needs it

    return np.array([grams for _name, grams in lines])


@pytest.mark.parametrize(("turns", "words"), [
    (1.9, "fewer than two turns"), (2.1, "a good swirl"), (3.9, "a good swirl"), (4.1, "more than four turns"),
])  # fmt: skip
def test_a_swirl_has_two_to_four_turns(turns: float, words: str) -> None:
    """Two to four turns make a good swirl (common practice, no published source); an ideal roll of n turns is 2 n t thick."""
    thickness_mm, width_mm = 12.0, 200.0
    diameter_mm = 2 * turns * thickness_mm
    volume_ml = 3.141592653589793 * diameter_mm**2 / 4 * width_mm / 1000
    roll = roll_geometry(volume_ml, width_mm, 2, thickness_mm / 2, 25.0)
    assert roll.turns == pytest.approx(turns)
    assert roll.verdict.startswith(words)


def test_damp_air_stops_only_what_draws_water(tables: Tables) -> None:
    """Above the piece's own air nothing dries; a mix without water, glycerin and acid has nothing to dry."""
    damp = Room(21.0, 84.0)
    dry_mix = replace(make_formula("damp-press", baking_soda=600, corn_starch=100, sweet_almond_oil=30), room=damp)
    wet_mix = replace(
        make_formula("damp-press", baking_soda=600, corn_starch=100, sweet_almond_oil=30, distilled_water=15), room=damp
    )
    glycerin = replace(make_formula("damp-press", baking_soda=600, corn_starch=100, glycerin=60), room=damp)
    assert evaluate(dry_mix, tables).drying.dries is True
    for formula in (wet_mix, glycerin):
        drying = evaluate(formula, tables).drying
        assert drying.dries is False
        assert drying.why_not == "air_too_damp"


@pytest.mark.parametrize(("felt", "way"), [
    ("damp sand", "too dry"), ("crumbly dough", "too dry"), ("sticky", "too wet"), ("batter", "too wet"),
])  # fmt: skip
@pytest.mark.parametrize("capb_liquid", [60, 100, 140])
def test_the_bench_goes_by_the_hands(tables: Tables, felt: str, way: str, capb_liquid: float) -> None:
    """Play dough lies between crumbs and stickiness, whatever the sheet had said; powder mends wet, liquid mends dry."""
    formula = make_formula("betaine-dough", baking_soda=300, slsa_fine=150, corn_starch=100, capb_liquid=capb_liquid, glycerin=30)
    answer = answer_feel(formula, tables, felt, None, rested=True)
    assert f"It is {way}" in answer.sentence
    added = [tables.ingredients[mend.ingredient] for mend in answer.mends if mend.ingredient]
    assert all(item.is_powder == (way == "too wet") for item in added)


@pytest.mark.parametrize(("span", "words"), [
    (timedelta(seconds=20), "1 min"), (timedelta(minutes=89), "89 min"), (timedelta(minutes=90), "2 h"),
    (timedelta(hours=26, minutes=29), "26 h"), (timedelta(hours=26, minutes=31), "27 h"),
])  # fmt: skip
def test_hours_are_said_from_an_hour_and_a_half_on(span: timedelta, words: str) -> None:
    assert span_words(span) == words
