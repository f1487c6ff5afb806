"""What must hold for any formula whatever: conservation, scale, order, splitting. No value of ours is repeated here."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.amounts.units import VOLUME_ML, WEIGHT_G
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Line, Portion, Product, Tables, Use
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.reference import load_tables

TABLES = load_tables()
METHODS = tuple(TABLES.methods)
IDS = tuple(TABLES.ingredients)
GRAMS = st.floats(0.5, 800).map(lambda grams: round(grams, 2))
LINES = st.lists(st.tuples(st.sampled_from(IDS), GRAMS), min_size=1, max_size=12)
INTENSIVE = (
    "dough.saturation", "dough.stickiness", "dough.puff_pct", "fizz.base_to_acid", "fizz.prereaction_share", "bath.ph_fresh",
    "bath.ph_stepin", "bath.ph_soak", "bath.ph_aired", "lather.score", "lather.active_g", "lather.foam_l", "lather.character",
    "firmness.at_20_c", "firmness.at_30_c", "release.minutes", "drying.hours", "feel.oil_g", "feel.free_oil_g", "feel.ring",
    "skin.harshness_mg_l", "piece.density_g_ml", "shelf.acid_loss_pct_day",
)  # fmt: skip
"""Readings of a dose, a piece or a share: the size of the batch is nothing to them."""
FEW = settings(max_examples=60, deadline=None)


def formula_of(lines: list[tuple[str, float]], method: str, **setting: Any) -> Formula:
    return Formula(
        "any", (Portion("body", tuple(Line(name, repr(grams), "g") for name, grams in lines)),), method=method, **setting
    )


def reading(result: Evaluation, path: str) -> Any:
    found: Any = result
    for name in path.split("."):
        found = None if found is None else getattr(found, name)
    return found


def same(one: Any, other: Any) -> bool:
    if one is None or other is None:
        return one is other
    return math.isclose(one, other, rel_tol=1e-6, abs_tol=1e-7)


def moved(one: Evaluation, other: Evaluation) -> list[str]:
    return [path for path in INTENSIVE if not same(reading(one, path), reading(other, path))]


@FEW
@given(lines=LINES, method=st.sampled_from(METHODS), factor=st.floats(0.2, 8))
def test_the_size_of_the_batch_is_nothing_to_a_piece(lines: list[tuple[str, float]], method: str, factor: float) -> None:
    one = evaluate(formula_of(lines, method), TABLES)
    other = evaluate(formula_of([(name, grams * factor) for name, grams in lines], method), TABLES)
    assert moved(one, other) == []
    assert other.mass_g == pytest.approx(factor * one.mass_g)
    assert (one.dough and one.dough.state) == (other.dough and other.dough.state)


@FEW
@given(lines=LINES, method=st.sampled_from(METHODS), chance=st.randoms(use_true_random=False))
def test_the_order_of_the_lines_is_nothing_to_the_dough(lines: list[tuple[str, float]], method: str, chance: Any) -> None:
    shuffled = list(lines)
    chance.shuffle(shuffled)
    assert moved(evaluate(formula_of(lines, method), TABLES), evaluate(formula_of(shuffled, method), TABLES)) == []


@FEW
@given(lines=LINES, method=st.sampled_from(METHODS), share=st.floats(0.1, 0.9))
def test_a_line_written_in_two_is_the_same_line(lines: list[tuple[str, float]], method: str, share: float) -> None:
    twice = [(name, grams * part) for part in (share, 1 - share) for name, grams in lines]
    assert moved(evaluate(formula_of(lines, method), TABLES), evaluate(formula_of(twice, method), TABLES)) == []


def test_a_wax_written_in_two_lines_dissolves_once(tables: Tables) -> None:
    """The case that chance found: each line used to dissolve as much as the whole wax."""
    one = [("emulsifying-wax", 20.0), ("cocoa-butter", 60.0), ("sweet-almond-oil", 20.0)]
    two = [("emulsifying-wax", 8.0), ("emulsifying-wax", 12.0), *one[1:]]
    assert moved(evaluate(formula_of(one, "melt"), tables), evaluate(formula_of(two, "melt"), tables)) == []


def test_a_salt_written_in_two_lines_rules_the_air_all_the_same(tables: Tables) -> None:
    """3 % of magnesium chloride takes up water from 33 % humidity on (Greenspan 1977), on one line or on two."""
    one = [("baking-soda", 97.0), ("magnesium-chloride-flakes", 3.0), ("distilled-water", 1.0)]
    two = [("magnesium-chloride-flakes", 1.5), *one[:1], ("magnesium-chloride-flakes", 1.5), one[2]]
    assert [evaluate(formula_of(lines, "damp-press"), tables).drying.dries for lines in (one, two)] == [False, False]


def test_a_preservative_in_two_portions_counts_once_against_its_limit(tables: Tables) -> None:
    """Benzoate passes 2.5 % as acid in rinse-off products (Regulation (EC) 1223/2009, Annex V, from memory) with both halves only."""

    def share_pct(*halves: list[tuple[str, float]]) -> float | None:
        portions = tuple(formula_of(lines, "loose-dust").portions[0] for lines in halves)
        product = Product(markets=("EU",))
        result = evaluate(Formula("any", portions, method="loose-dust", product=product), tables)
        return next((entry.value for entry in result.skin.ledger if entry.rule == "EU-LIM-01"), None)

    whole = [("baking-soda", 192.0), ("sodium-benzoate", 8.0)]
    half = [(name, grams / 2) for name, grams in whole]
    assert share_pct(whole) == pytest.approx(4.0 * 122.12 / 144.11, rel=0.01)  # benzoic acid over its sodium salt, IUPAC masses
    assert share_pct(half, half) == pytest.approx(share_pct(whole))


@FEW
@given(lines=LINES, method=st.sampled_from(METHODS))
def test_nothing_added_changes_nothing(lines: list[tuple[str, float]], method: str) -> None:
    padded = [*lines, ("kaolin", 0.0), ("glycerin", 0.0)]
    assert moved(evaluate(formula_of(lines, method), TABLES), evaluate(formula_of(padded, method), TABLES)) == []


@FEW
@given(lines=LINES, method=st.sampled_from(METHODS))
def test_grams_gas_and_money_are_the_sum_of_the_portions(lines: list[tuple[str, float]], method: str) -> None:
    """Two portions of the same lines: the whole is twice one of them, and what one dose does stays as it was."""
    one = evaluate(formula_of(lines, method), TABLES)
    body = formula_of(lines, method).portions[0]
    two = evaluate(Formula("any", (body, replace(body, name="second colour")), method=method), TABLES)
    assert two.mass_g == pytest.approx(2 * one.mass_g)
    assert sum(part.mass_g for part in two.portions) == pytest.approx(two.mass_g)
    assert sum(part.fizz.co2_mol or 0 for part in two.portions) == pytest.approx(two.fizz.co2_mol or 0, abs=1e-9)
    assert sum(line.mass_g for line in two.lines) == pytest.approx(two.mass_g)
    assert sum(line.pct for line in two.lines) == pytest.approx(100)
    for path in ("bath.ph_fresh", "lather.score", "feel.oil_g", "skin.harshness_mg_l"):
        assert same(reading(one, path), reading(two, path)), path


@FEW
@given(lines=LINES, method=st.sampled_from(METHODS))
def test_every_index_stays_within_its_scale(lines: list[tuple[str, float]], method: str) -> None:
    result = evaluate(formula_of(lines, method), TABLES)
    for path, high in (
        ("dough.stickiness", 100), ("lather.score", 100), ("lather.character", 100), ("firmness.at_20_c", 98),
        ("firmness.at_30_c", 98), ("feel.ring", 100), ("feel.tint", 100), ("feel.cloud", 100), ("piece.spin", 100),
        ("fizz.prereaction_share", 1), ("shelf.acid_loss_pct_day", 100),
    ):  # fmt: skip
        value = reading(result, path)
        assert value is None or 0 <= value <= high, path
    for low, value, high in [(result.drying.low_hours, result.drying.hours, result.drying.high_hours)]:
        assert (low is None) == (value is None) == (high is None)
        assert low is None or low <= value <= high  # type: ignore[operator]


@FEW
@given(lines=LINES, method=st.sampled_from(METHODS), litres=st.floats(90, 300))
def test_more_water_thins_the_bath_out(lines: list[tuple[str, float]], method: str, litres: float) -> None:
    small = evaluate(formula_of(lines, method, use=Use(tub_l=litres)), TABLES)
    large = evaluate(formula_of(lines, method, use=Use(tub_l=2 * litres)), TABLES)
    if small.lather.concentration_mg_l is not None:
        assert large.lather.concentration_mg_l == pytest.approx(small.lather.concentration_mg_l / 2)
    if small.skin.harshness_mg_l is not None:
        assert large.skin.harshness_mg_l == pytest.approx(small.skin.harshness_mg_l / 2)


@FEW
@given(lines=LINES, method=st.sampled_from(METHODS), more=st.floats(1, 300))
def test_more_glycerin_never_makes_a_dough_drier(lines: list[tuple[str, float]], method: str, more: float) -> None:
    one = evaluate(formula_of(lines, method), TABLES).dough
    other = evaluate(formula_of([*lines, ("glycerin", more)], method), TABLES).dough
    assume(one is not None and one.saturation is not None)
    assert one is not None
    assert other is not None
    assert one.saturation is not None
    assert other.saturation is not None
    assert other.saturation > one.saturation


@FEW
@given(lines=LINES, more=st.floats(1, 200))
def test_more_acid_never_makes_the_bath_less_sour(lines: list[tuple[str, float]], more: float) -> None:
    """The same dose of lines in the tub, and some citric acid beside it."""
    dose_g = sum(grams for _, grams in lines)
    one = evaluate(formula_of(lines, "damp-press", use=Use(dose_g=dose_g, tub_l=2000.0)), TABLES).bath
    with_acid = [*lines, ("citric-acid-anhydrous", more)]
    other = evaluate(formula_of(with_acid, "damp-press", use=Use(dose_g=dose_g + more, tub_l=2000.0)), TABLES).bath
    assert one.ph_fresh is not None
    assert other.ph_fresh is not None
    assert other.ph_fresh < one.ph_fresh + 1e-6


@FEW
@given(lines=LINES)
def test_states_never_go_backwards_on_warming(lines: list[tuple[str, float]]) -> None:
    order = ("set", "dust", "damp sand", "crumbly dough", "play dough", "sticky", "batter", "pour")
    dough = evaluate(formula_of(lines, "butter-dough"), TABLES).dough
    assert dough is not None
    at = [order.index(point.state) for point in dough.by_temperature if point.state is not None]
    assert at == sorted(at)
    assert len(dough.by_temperature) in {0, 51}


@FEW
@given(
    grams=st.floats(0.1, 5000), id_=st.sampled_from(IDS), unit=st.sampled_from(["kg", "mg", "oz", "lb", "ml", "l", "floz", "cup", "tbsp", "tsp"])
)  # fmt: skip
def test_grams_go_to_any_unit_and_back(tables: Tables, grams: float, id_: str, unit: str) -> None:
    """Weights by their definition; volumes by the cup of the ingredient (US cup 236.5882365 mL, NIST Handbook 44)."""
    cup_g = tables.ingredients[id_].us_cup_g
    assert cup_g is not None
    per = WEIGHT_G[unit] if unit in WEIGHT_G else VOLUME_ML[unit] * cup_g / 236.5882365
    line = Line(id_, repr(grams / per), unit)
    weighed, _ = weigh_formula(Formula("any", (Portion("body", (line,)),)), tables)
    assert weighed[0].mass_g == pytest.approx(grams, rel=1e-9)


@FEW
@given(shares=st.lists(st.floats(1, 60), min_size=2, max_size=6), batch=st.floats(50, 20_000))
def test_parts_and_per_cent_share_out_the_batch(tables: Tables, shares: list[float], batch: float) -> None:
    parts = tuple(Line("kaolin", repr(share), "part") for share in shares)
    weighed, _ = weigh_formula(Formula("any", (Portion("body", parts),), batch_g=batch), tables)
    assert sum(item.mass_g for item in weighed) == pytest.approx(batch)
    assert [item.mass_g / weighed[0].mass_g for item in weighed] == pytest.approx([share / shares[0] for share in shares])
    whole = sum(shares)
    assume(whole <= 100)
    cents = tuple(Line("kaolin", repr(share), "pct") for share in shares)
    weighed, _ = weigh_formula(Formula("any", (Portion("body", cents),), batch_g=batch), tables)
    assert [item.mass_g for item in weighed] == pytest.approx([batch * share / 100 for share in shares])
