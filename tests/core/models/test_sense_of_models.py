"""What a maker would not believe of the models: jumps, alcohol that hardens fat, flakes of a salt that dry."""

from __future__ import annotations

import itertools
from dataclasses import replace

import pytest

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Room, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula


def told(tables: Tables, method: str, humidity_pct: float = 40.0, **grams: float) -> Evaluation:
    return evaluate(replace(make_formula(method, **grams), room=Room(21.0, humidity_pct)), tables)


@pytest.mark.parametrize(("kind", "grams", "most"), [("emulsifying_wax", range(20, 61, 2), 1.35), ("beeswax", range(2, 13), 1.6)])
def test_a_little_more_wax_makes_a_melt_a_little_slower(tables: Tables, kind: str, grams: range, most: float) -> None:
    """No wall: two grams of an emulsifying wax, or one of beeswax, in a hundred of fat (common practice, no published source)."""
    minutes = [
        told(tables, "melt", shea_butter=70, sweet_almond_oil=30, **{kind: float(each)}).release.minutes or 0.0 for each in grams
    ]
    assert all(1.0 < after / before < most for before, after in itertools.pairwise(minutes))


def test_an_emulsifying_wax_lets_a_melt_go_where_beeswax_holds_it(tables: Tables) -> None:
    """Common practice, no published source: cetearyl alcohol with polysorbate turns into a cream in the bath."""
    waxed, held = (
        told(tables, "melt", shea_butter=70, sweet_almond_oil=30, **{kind: 20.0}) for kind in ("emulsifying_wax", "beeswax")
    )
    assert waxed.release.minutes is not None
    assert waxed.release.minutes < 15
    assert held.release.minutes is None


def test_kokum_with_babassu_has_no_edge(tables: Tables) -> None:
    minutes = [
        told(tables, "melt", kokum_butter=float(kokum), babassu_oil=100.0 - kokum).release.minutes or 0.0
        for kokum in range(40, 81, 2)
    ]
    assert all(1.0 < after / before < 1.15 for before, after in itertools.pairwise(minutes))


def test_alcohol_hardens_no_fat_and_shortens_no_setting(tables: Tables) -> None:
    """A truffle with alcohol is as soft, and sets as late, as the same without (common practice, no published source)."""
    truffle = {
        "baking_soda": 250.0,
        "citric_acid_anhydrous": 120.0,
        "cocoa_butter": 120.0,
        "shea_butter": 60.0,
        "slsa_fine": 60.0,
    }
    told_by = [told(tables, "moulded-truffle", **truffle, isopropyl_alcohol_91=grams) for grams in (0.0, 10.0, 37.0)]
    firm = [each.firmness.at_20_c for each in told_by]
    hours = [each.drying.hours for each in told_by]
    assert firm[0] is not None
    assert hours[0] is not None
    assert all(each is not None and each <= firm[0] + 0.5 for each in firm)
    assert all(each is not None and each >= 0.99 * hours[0] for each in hours)


BALL = {
    "baking_soda": 300.0,
    "citric_acid_anhydrous": 150.0,
    "corn_starch": 20.0,
    "sweet_almond_oil": 12.0,
    "distilled_water": 3.0,
}


@pytest.mark.parametrize("salt", ["magnesium_chloride_flakes", "dead_sea_salt"])
@pytest.mark.parametrize("grams", [10.0, 40.0, 100.0])
def test_a_salt_that_melts_in_this_air_never_dries_and_spends_acid(tables: Tables, salt: str, grams: float) -> None:
    """Magnesium chloride deliquesces at 33 % (Greenspan, J. Res. Natl. Bur. Stand. 81A (1977) 89)."""
    plain, salted = told(tables, "damp-press", 45.0, **BALL), told(tables, "damp-press", 45.0, **BALL, **{salt: grams})
    assert (salted.drying.dries, salted.drying.why_not) == (False, "weeps")
    assert plain.fizz.prereaction_share is not None
    assert salted.fizz.prereaction_share is not None
    assert salted.fizz.prereaction_share > plain.fizz.prereaction_share
    assert told(tables, "damp-press", 25.0, **BALL, **{salt: 10.0}).drying.dries is True


@pytest.mark.parametrize(("tool", "ounces"), [("disher-8", 4), ("disher-10", 3.2), ("disher-12", 32 / 12)])
def test_large_dishers_hold_what_their_number_says(tables: Tables, tool: str, ounces: float) -> None:
    """US convention: a quart over the number; 29.5735 mL a fluid ounce (NIST Handbook 44, appendix C)."""
    assert tables.tools[tool].volume_ml == pytest.approx(29.5735 * ounces, abs=0.01)
