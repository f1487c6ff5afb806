"""What is said beside the figures, from which edge on; common practice, no published source, unless a source is named."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.readings.advice import advise
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables
from tests.conftest import make_formula
from tests.core.models.test_worked_by_hand import mix_of

KNEADED = make_formula(baking_soda=300, slsa_fine=100, corn_starch=90, capb_liquid=80, glycerin=40, citric_acid_anhydrous=60)
FILLED = make_formula("damp-press", baking_soda=600, citric_acid_anhydrous=300, corn_starch=90, distilled_water=8)


def said(formula: Formula, tables: Tables, **changes: dict[str, object]) -> dict[str, str]:
    """Codes and severities, where the readings were as given."""
    told = evaluate(formula, tables)
    assert told.dough is not None
    parts = {"fizz": told.fizz, "dough": told.dough, "lather": told.lather, "piece": told.piece}
    asked = {name: replace(part, **changes.get(name, {})) for name, part in parts.items()}  # type: ignore[type-var]
    mix = mix_of(formula, tables)
    found = advise(mix, setting_of(formula, tables, mix.total_g), **asked)  # type: ignore[arg-type]
    return {each.code: each.severity for each in found}


@pytest.mark.parametrize(("formula", "worked"), [(KNEADED, "kneaded"), (FILLED, "filled")])
def test_a_lift_shows_from_a_twentieth_and_lifts_the_lid_above_three(tables: Tables, formula: Formula, worked: str) -> None:
    codes = {f"lifts_{worked}", f"lifts_little_{worked}"}
    for puff_pct, code in (
        (4.9, ""),
        (5.0, f"lifts_little_{worked}"),
        (15.0, f"lifts_little_{worked}"),
        (15.1, f"lifts_{worked}"),
    ):
        assert codes & said(formula, tables, dough={"puff_pct": puff_pct}).keys() == ({code} if code else set())
    assert said(formula, tables, dough={"puff_pct": 15.1})[f"lifts_{worked}"] == "warn"


def test_acid_that_is_spent_while_making_is_said_above_a_tenth(tables: Tables) -> None:
    assert "acid_spent" not in said(KNEADED, tables, fizz={"prereaction_share": 0.10})
    assert said(KNEADED, tables, fizz={"prereaction_share": 0.101})["acid_spent"] == "warn"


@pytest.mark.parametrize(("water_g", "warned"), [(19.0, False), (22.0, True)])
def test_a_pressed_mix_is_warned_of_two_per_cent_of_water(tables: Tables, water_g: float, *, warned: bool) -> None:
    """Of a kilo 20 g: more sets the fizz off in the mould."""
    wet = make_formula(
        "damp-press", baking_soda=620, citric_acid_anhydrous=310, corn_starch=70 - water_g, distilled_water=water_g
    )
    assert ("acid_spent_pressed" in said(wet, tables, fizz={"prereaction_share": 0.05})) is warned


def test_foam_over_the_rim_and_a_piece_on_the_edge_of_floating_are_said(tables: Tables) -> None:
    for part, change, code in (("lather", {"over_the_rim": True}, "foam_over_rim"), ("piece", {"float": "may"}, "may_float")):
        assert code in said(KNEADED, tables, **{part: change})
    calm = said(KNEADED, tables, lather={"over_the_rim": False}, piece={"float": "sinks"})
    assert not {"foam_over_rim", "may_float"} & calm.keys()


@pytest.mark.parametrize(("wax_g", "flecks"), [(0.0, False), (40.0, True)])
def test_a_wax_that_does_not_melt_in_the_bath_leaves_flecks(tables: Tables, wax_g: float, *, flecks: bool) -> None:
    """Beeswax melts at 62 to 65 °C (pharmacopoeias), cocoa butter below 36 °C: a bath of 38 °C melts the one."""
    formula = make_formula("melt", cocoa_butter=200 - wax_g, beeswax=wax_g, baking_soda=200, citric_acid_anhydrous=100)
    assert ("fat_flecks" in said(formula, tables)) is flecks


@pytest.mark.parametrize(("coconut", "softer"), [(0.0, False), (60.0, True)])
def test_cocoa_butter_and_a_lauric_fat_soften_each_other(tables: Tables, coconut: float, *, softer: bool) -> None:
    """Eutectic of cocoa butter with lauric fats (Bailey's Industrial Oil and Fat Products, from memory)."""
    formula = make_formula("melt", cocoa_butter=160 - coconut, coconut_oil_76=coconut, baking_soda=200, citric_acid_anhydrous=100)
    assert ("fats_soften_each_other" in said(formula, tables)) is softer
