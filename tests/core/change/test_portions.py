"""Balancing a formula of several doughs, answers inside their band, and the step that hands always have."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.change.why import levers
from rosy_kettle.core.making.bench.feel import answer_feel
from rosy_kettle.core.records import Formula, Portion, Tables
from tests.conftest import make_formula

LAVENDER = {"baking_soda": 300.0, "slsa_fine": 120.0, "corn_starch": 60.0, "capb_liquid": 40.0}
ROSE = {"baking_soda": 200.0, "slsa_fine": 80.0, "kaolin": 40.0, "glycerin": 30.0}


def of_two(**second: float) -> Formula:
    one, two = (make_formula("betaine-dough", **grams).portions[0] for grams in (LAVENDER, second))
    return Formula("Two", (replace(one, name="lavender"), replace(two, name="rose")), "betaine-dough")


def test_every_dough_of_a_formula_is_brought_into_the_band(tables: Tables) -> None:
    result = balance(BalanceProblem(of_two(**ROSE), (parse_target("dough.saturation=0.65..0.95"),)), tables)
    assert result.status == "solved"
    told = [portion.dough.saturation for portion in result.readings_after.portions if portion.dough is not None]
    assert len(told) == 2
    assert all(each is not None and 0.65 < each < 0.95 for each in told)
    assert {change.ingredient for change in result.changes} == {"capb-liquid", "glycerin"}, "each by its own binder"


def test_a_wish_of_the_whole_stands_beside_wishes_of_the_doughs(tables: Tables) -> None:
    wishes = tuple(map(parse_target, ("dough.saturation=0.65..0.95", "lather.score>=60")))
    result = balance(BalanceProblem(of_two(**ROSE), wishes), tables)
    assert result.status in {"solved", "another-formula"}
    assert result.readings_after.lather.score is not None
    assert result.readings_after.lather.score >= 60 - 1e-6


def test_an_empty_portion_is_no_trap(tables: Tables) -> None:
    formula = replace(of_two(**ROSE), portions=(*of_two(**ROSE).portions, Portion("empty", ())))
    assert balance(BalanceProblem(formula, (parse_target("dough.saturation=0.65..0.95"),)), tables).status == "solved"


def test_what_cannot_be_is_told_by_the_wish_as_it_was_asked(tables: Tables) -> None:
    result = balance(BalanceProblem(of_two(**ROSE), (parse_target("dough.saturation>=3"),)), tables)
    assert result.status == "infeasible"
    assert {conflict.target for conflict in result.conflicts} == {"dough.saturation>=3"}
    assert any("portion 2" in conflict.message for conflict in result.conflicts)


@pytest.mark.parametrize(("grams", "target", "edge"), [
    (40.0, "dough.saturation=0.65..0.95", 0.65), (250.0, "dough.saturation=0.65..0.95", 0.95),
])  # fmt: skip
def test_a_band_is_met_inside_and_not_on_its_edge(tables: Tables, grams: float, target: str, edge: float) -> None:
    formula = make_formula("betaine-dough", **{**LAVENDER, "capb_liquid": grams})
    result = balance(BalanceProblem(formula, (parse_target(target),)), tables)
    assert result.readings_after.dough is not None
    assert result.readings_after.dough.saturation is not None
    assert abs(result.readings_after.dough.saturation - edge) > 0.04


@pytest.mark.parametrize("felt", ["dust", "damp sand", "crumbly dough", "sticky", "batter"])
@pytest.mark.parametrize("liquid_g", [60.0, 150.0, 190.0, 260.0])
def test_hands_always_have_a_small_step(tables: Tables, felt: str, liquid_g: float) -> None:
    """Whatever the reckoning says of the dough, hands go before it: a little, then feel again (common practice)."""
    answer = answer_feel(make_formula("betaine-dough", **{**LAVENDER, "capb_liquid": liquid_g}), tables, felt, None, rested=True)
    if felt in answer.wanted:
        assert [mend.kind for mend in answer.mends] == ["go-on"]
        return
    steps = [mend for mend in answer.mends if mend.kind == "add"]
    assert steps
    assert all(mend.mass_g is not None and 0 < mend.mass_g < 0.02 * 800 for mend in steps)
    wet = felt in {"sticky", "batter"}
    assert all((tables.ingredients[str(mend.ingredient)].is_liquid is not wet) for mend in steps)


DOUGHS = {
    "damp-press": {"baking_soda": 300.0, "citric_acid_anhydrous": 150.0, "tapioca_starch": 40.0, "sweet_almond_oil": 10.0},
    "loose-dust": {"baking_soda": 300.0, "citric_acid_anhydrous": 150.0},
    "butter-dough": {"baking_soda": 200.0, "cocoa_butter": 80.0, "slsa_fine": 60.0},
    "moulded-truffle": {"baking_soda": 200.0, "malic_acid": 100.0, "cocoa_butter": 120.0, "slsa_fine": 60.0},
}


@pytest.mark.parametrize("method", DOUGHS)
@pytest.mark.parametrize("felt", ["dust", "crumbly dough", "sticky", "pour"])
def test_what_feels_wet_gets_powder_and_what_feels_dry_gets_liquid(tables: Tables, method: str, felt: str) -> None:
    """Hands go before the reckoning, and no water comes onto an acid in a dough that is not pressed damp (common practice)."""
    answer = answer_feel(make_formula(method, **DOUGHS[method]), tables, felt, None, rested=True)
    added = [tables.ingredients[str(mend.ingredient)] for mend in answer.mends if mend.kind == "add"]
    if felt in answer.wanted:
        return
    assert added
    assert all(item.is_powder is ("too wet" in answer.sentence) for item in added)
    if method in {"moulded-truffle", "butter-dough"}:
        assert not {item.id for item in added} & {"distilled-water", "witch-hazel-distillate"}


def test_a_ring_is_mended_by_an_emulsifier_and_not_by_a_drop_of_water(tables: Tables) -> None:
    for wax in ("candelilla_wax", "beeswax", "rice_bran_wax"):
        melt = make_formula("melt", cocoa_butter=60, mango_butter=30, **{wax: 8})
        found = levers(melt, tables, "feel.ring", None, 45)
        assert found[0].ingredient == "polysorbate-80"
        assert "distilled-water" not in {lever.ingredient for lever in found}
