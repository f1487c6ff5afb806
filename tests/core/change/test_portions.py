"""Balancing a formula of several doughs, answers inside their band, and the step that hands always have."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
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
