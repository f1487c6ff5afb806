"""The change offered for a dough: it brings S to where it is wanted, by the reading or by what hands found."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from rosy_kettle.core.change.balance.task import with_masses_at
from rosy_kettle.core.clinic.change import ChangedLine, change_for
from rosy_kettle.core.clinic.change import _where as where
from rosy_kettle.core.making.bench.by_hand import middle_saturation
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Portion, Tables
from rosy_kettle.core.records.evaluation import Dough
from tests.conftest import make_formula, make_lines

ROLL = make_formula("glycerin-dough", baking_soda=300, corn_starch=90, slsa_fine=60, glycerin=95)
TWO = replace(ROLL, portions=(ROLL.portions[0], replace(ROLL.portions[0], name="second")))


def felt(state: str) -> dict[str, Any]:
    return {"state": {"felt": [{"state": "play dough"}, {"state": state}]}}


def dough(formula: Formula, tables: Tables) -> Dough:
    told = evaluate(formula, tables)
    found = told.dough or told.portions[0].dough
    assert found is not None
    return found


def after(formula: Formula, change: tuple[ChangedLine, ...] | None) -> Formula:
    """The formula with the change, every line of an ingredient in the same proportion."""
    assert change is not None
    times = {each.ingredient: each.after_g / each.before_g for each in change}
    masses = {
        at: float(line.amount) * times[line.ingredient or ""] for at, line in enumerate(formula.lines) if line.ingredient in times
    }  # fmt: skip
    return with_masses_at(formula, masses)


@pytest.mark.parametrize(("cause", "state", "grows"), [
    ("too-dry", "crumbly dough", True), ("too-wet", "sticky", False),
])  # fmt: skip
@pytest.mark.parametrize("formula", [ROLL, TWO], ids=["one dough", "two doughs"])
def test_hands_go_before_the_reading(tables: Tables, formula: Formula, cause: str, state: str, *, grows: bool) -> None:
    """S by the reading moves by as much as the felt state lies from what is wanted: the factor between them is the reading's own."""
    change = change_for(cause, formula, tables, felt(state))
    (line,) = change or ()
    assert line.ingredient == "glycerin"
    assert (line.after_g > line.before_g) is grows
    before, moved = dough(formula, tables), dough(after(formula, change), tables)
    edge = before.wanted.saturation_low if grows else before.wanted.saturation_high
    assert edge is not None
    assert before.saturation is not None
    assert moved.saturation is not None
    meant = edge / middle_saturation(state, tables.parameters.dough)
    assert moved.saturation / before.saturation == pytest.approx(meant, rel=2e-3)


def test_where_hands_found_what_is_wanted_the_reading_alone_counts(tables: Tables) -> None:
    wanted = dough(ROLL, tables).wanted
    assert change_for("too-dry", ROLL, tables, felt(wanted.states[0])) == change_for("too-dry", ROLL, tables, None)
    thirsty = make_formula("glycerin-dough", baking_soda=300, corn_starch=90, slsa_fine=60, glycerin=40)
    moved = dough(after(thirsty, change_for("too-dry", thirsty, tables, None)), tables)
    assert moved.saturation is not None
    assert wanted.saturation_low is not None
    assert moved.saturation >= wanted.saturation_low - 1e-3


def test_nothing_is_offered_where_nothing_would_help(tables: Tables) -> None:
    dry = make_formula("glycerin-dough", baking_soda=300, corn_starch=90)
    assert change_for("too-dry", dry, tables, felt("damp sand")) is None, "there is no wetter in it"
    assert change_for("too-dry", None, tables, felt("damp sand")) is None
    assert change_for("damp-air", ROLL, tables, None) is None, "air is no line of a formula"
    empty = replace(ROLL, portions=(Portion("body", ()),))
    assert change_for("too-dry", empty, tables, felt("damp sand")) is None
    assert change_for("too-dry", ROLL, tables, felt("damp sand")) is None, "it would take more than three times the wetter"
    far = make_formula("glycerin-dough", baking_soda=300, corn_starch=300, slsa_fine=200, glycerin=4)
    assert change_for("too-dry", far, tables, felt("damp sand")) is None, "more than three times the wetter is another formula"


@pytest.mark.parametrize("state", ["dust", "pour", "gossip"])
def test_states_that_say_only_at_least_do_not_break_it(tables: Tables, state: str) -> None:
    change = change_for("too-dry" if state == "dust" else "too-wet", ROLL, tables, felt(state))
    assert change is None or all(line.after_g > 0 for line in change)


@pytest.mark.parametrize(("wanted", "found"), [(1.0, 1.0), (2.99, 2.99), (3.01, None), (0.31, 0.31), (0.29, None)])
def test_between_a_third_and_three_times_the_wetter_a_change_is_looked_for(wanted: float, found: float | None) -> None:
    """Beyond it would be another formula: project default."""
    assert where(lambda times: times, wanted) == (None if found is None else pytest.approx(found, rel=1e-4))


def test_the_wetter_is_what_there_is_most_of_over_all_its_lines(tables: Tables) -> None:
    twice = make_lines(
        ("baking-soda", "300", "g"), ("corn-starch", "90", "g"), ("glycerin", "40", "g"), ("capb-liquid", "50", "g"), ("glycerin", "40", "g"),
        method="glycerin-dough",
    )  # fmt: skip
    (line,) = change_for("too-dry", twice, tables, felt("crumbly dough")) or ()
    assert (line.ingredient, line.before_g) == ("glycerin", pytest.approx(80.0))
