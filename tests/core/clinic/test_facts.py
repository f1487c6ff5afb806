"""From where on a figure speaks for a fact: each edge from both sides. Edges are common practice, no published source."""

from __future__ import annotations

from contextlib import nullcontext
from dataclasses import replace
from typing import Any

import pytest

from rosy_kettle.core.clinic import facts
from rosy_kettle.core.clinic.facts import facts_of
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import Formula, Room, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula

PLAIN: dict[str, float] = {"baking_soda": 55, "cream_of_tartar": 20, "corn_starch": 25}


def known(tables: Tables, formula: Formula | None = None, batch: dict[str, Any] | None = None, **answers: Any) -> dict[str, bool]:
    return {fact.id: fact.holds for fact in facts_of(formula, tables, batch, answers)}


@pytest.mark.parametrize(
    ("asked", "no", "yes", "fact"),
    [
        ("dough_c", 35, 35.5, "dough-warm"), ("dough_c", 17, 16.5, "dough-cold"), ("room_c", 25, 25.5, "room-warm"),
        ("room_c", 16, 15.5, "room-cold"), ("room_humidity_pct", 57.5, 58, "humid"), ("hours_in_mould", 12, 11.9, "mould-short"),
        ("weeks_open", 2.9, 3, "long-open"), ("re_worked", 0, 1, "re-worked"), ("re_worked", 0.9, 1, "re-worked"),
        ("liquid_added_after_acid_g", 0, 0.1, "liquid-after-acid"), ("bath_c", 35, 34.5, "bath-cool"),
    ],
)  # fmt: skip
def test_an_answer_speaks_from_its_edge_on(tables: Tables, asked: str, no: float, yes: float, fact: str) -> None:
    assert known(tables, **{asked: no})[fact] is False
    assert known(tables, **{asked: yes})[fact] is True


def test_a_recorded_room_speaks_from_the_same_edges_as_an_answer(tables: Tables) -> None:
    for room, said in (
        ((25, 57.5), (False, False, False)),
        ((25.5, 58), (True, False, True)),
        ((15.5, 40), (False, True, False)),
    ):
        batch = {"state": {"conditions": {"room_c": room[0], "humidity_pct": room[1]}}}
        found = known(tables, batch=batch)
        assert (found["room-warm"], found["room-cold"], found["humid"]) == said
    assert known(tables, batch={"state": {"conditions": {"room_c": 16, "humidity_pct": 40}}})["room-cold"] is False


@pytest.mark.parametrize(
    ("share", "rest", "edge_pct", "fact", "above"),
    [
        ("glycerin", {}, 12.0, "humectant-high", True), ("slsa_fine", {}, 18.0, "surfactant-powder-high", True),
        ("beeswax", {}, 3.0, "wax-high", True), ("mica_pigment", {}, 1.5, "colour-high", True),
        ("fragrance_oil_generic", {}, 0.6, "scent-low", False), ("sunflower_oil_ho", {}, 6.0, "liquid-oil-high", True),
        ("cocoa_butter", {}, 5.0, "solid-fat-low", False), ("sunflower_oil_ho", {}, 1.0, "emulsifier-missing", True),
    ],
)  # fmt: skip
def test_a_share_of_the_formula_speaks_from_its_edge_on(
    tables: Tables, share: str, rest: dict[str, float], edge_pct: float, fact: str, *, above: bool
) -> None:
    for pct, over in ((0.97 * edge_pct, False), (1.03 * edge_pct, True)):
        others = {name: grams * (100 - pct) / 100 for name, grams in PLAIN.items()}
        assert known(tables, make_formula(**others, **rest, **{share: pct}))[fact] is (over is above), pct


def test_acid_is_low_under_three_tenths_of_the_soda(tables: Tables) -> None:
    for acid_g, low in ((29, True), (31, False)):
        formula = make_formula(baking_soda=100, citric_acid_anhydrous=acid_g, corn_starch=40)
        assert known(tables, formula)["acid-low"] is low


@pytest.mark.parametrize(
    ("acid", "other", "meet"),
    [
        ("citric_acid_anhydrous", "distilled_water", True), ("citric_acid_anhydrous", "capb_liquid", True),
        ("corn_starch", "distilled_water", False), ("citric_acid_anhydrous", "glycerin", False),
        ("citric_acid_anhydrous", "epsom_salt", False),  # half of it is water, and stays in the crystal
    ],
)  # fmt: skip
def test_acid_meets_water_only_where_it_can_run(tables: Tables, acid: str, other: str, *, meet: bool) -> None:
    assert known(tables, make_formula(**{"baking_soda": 100, acid: 40, other: 5}))["acid-and-water"] is meet


def test_sugar_is_sugar_under_whatever_name(tables: Tables) -> None:
    for name, sweet in (("sugar_sprinkles", True), ("sugar_white", True), ("epsom_salt", False)):
        assert known(tables, make_formula(**PLAIN, **{name: 3}))["sugar-on-it"] is sweet


def told_as(monkeypatch: pytest.MonkeyPatch, tables: Tables, formula: Formula, **changed: dict[str, Any]) -> dict[str, bool]:
    """What is known where some readings are other than the formula's own."""
    own: Evaluation = facts.evaluate(formula, tables)
    parts = {part: replace(getattr(own, part), **figures) for part, figures in changed.items()}
    with monkeypatch.context() as patch:
        patch.setattr(facts, "evaluate", lambda _formula, _tables: replace(own, **parts))
        return known(tables, formula)


@pytest.mark.parametrize(
    ("part", "figure", "no", "yes", "fact"),
    [
        ("lather", "score", 40.0, 39.0, "foam-low"), ("feel", "oil_g", 3.9, 4.0, "oil-high"), ("feel", "ring", 40.0, 41.0, "ring-high"),
        ("bath", "ph_soak", 9.0, 9.1, "bath-ph-high"), ("skin", "harshness_mg_l", 60.0, 61.0, "harsh"),
        ("piece", "density_g_ml", 1.0, 1.02, "density-high"), ("assumed", "half_thickness_mm", 12.0, 11.8, "piece-thin"),
        ("drying", "hours", 72.0, 73.0, "drying-long"),
    ],
)  # fmt: skip
def test_a_reading_speaks_from_its_edge_on(
    monkeypatch: pytest.MonkeyPatch, tables: Tables, part: str, figure: str, no: float, yes: float, fact: str
) -> None:
    formula = make_formula(**PLAIN, glycerin=10, slsa_fine=10)
    dries = {"dries": True} if part == "drying" else {}
    assert told_as(monkeypatch, tables, formula, **{part: {figure: no} | dries})[fact] is False
    assert told_as(monkeypatch, tables, formula, **{part: {figure: yes} | dries})[fact] is True


@pytest.mark.parametrize(("value", "taken"), [(1000, True), (1001, False), (-4, False), (True, False), ("12", False)])
def test_an_answer_is_a_number_of_ordinary_size(tables: Tables, value: object, *, taken: bool) -> None:
    with nullcontext() if taken else pytest.raises(InputError, match='"weeks_open" is a number'):
        known(tables, weeks_open=value)


def test_a_bath_is_harsh_by_the_line_of_its_bather(monkeypatch: pytest.MonkeyPatch, tables: Tables) -> None:
    adults = make_formula(**PLAIN, slsa_fine=10)
    children = replace(adults, product=replace(adults.product, profile="children"))
    assert told_as(monkeypatch, tables, adults, skin={"harshness_mg_l": 13.0})["harsh"] is False
    assert told_as(monkeypatch, tables, children, skin={"harshness_mg_l": 13.0})["harsh"] is True


@pytest.mark.parametrize(("humidity_pct", "slow_from", "long", "damp"), [
    (60.0, 55.0, False, True), (60.0, 45.0, True, None), (60.0, 70.0, False, None), (50.0, 45.0, True, None),
])  # fmt: skip
def test_the_air_is_to_blame_where_it_would_dry_at_half(
    monkeypatch: pytest.MonkeyPatch, tables: Tables, humidity_pct: float, slow_from: float, *, long: bool, damp: bool | None
) -> None:
    """Half of what air can hold is ordinary (common practice)."""
    formula = replace(make_formula(**PLAIN, glycerin=10), room=Room(21.0, humidity_pct))
    own = facts.evaluate(formula, tables)

    def in_air(asked: Formula, _tables: Tables) -> Evaluation:
        hours = 100.0 if asked.room.humidity_pct > slow_from else 24.0
        return replace(own, drying=replace(own.drying, dries=True, hours=hours))

    monkeypatch.setattr(facts, "evaluate", in_air)
    found = known(tables, formula)
    assert (found["drying-long"], found.get("air-too-damp")) == (long, damp)


def test_what_was_dried_for_less_than_the_desk_says_is_short(monkeypatch: pytest.MonkeyPatch, tables: Tables) -> None:
    formula = make_formula(**PLAIN, glycerin=10)
    own = facts.evaluate(formula, tables)
    monkeypatch.setattr(facts, "evaluate", lambda _formula, _tables: replace(own, drying=replace(own.drying, hours=24.0)))
    assert known(tables, formula, hours_dried=23)["dried-short"] is True
    assert known(tables, formula, hours_dried=24)["dried-short"] is False


def test_a_dose_is_low_under_a_tenth_of_a_gram_and_a_bit_a_litre(tables: Tables) -> None:
    formula = make_formula(**PLAIN)
    dose_g = facts.evaluate(formula, tables).assumed.dose_g
    assert dose_g is not None
    assert known(tables, formula, tub_l=dose_g / 0.118)["dose-low"] is True
    assert known(tables, formula, tub_l=dose_g / 0.122)["dose-low"] is False


@pytest.mark.parametrize(
    ("asked", "no", "yes", "fact"),
    [
        ("packed", "light", "hard", "packed-hard"), ("packed", "hard", "light", "packed-light"), ("sifted", "yes", "no", "not-sifted"),
        ("wrapped", "yes", "no", "not-wrapped"), ("scent_browns", "no", "yes", "scent-browns"), ("weighed", "scale", "cups", "weighed-cups"),
        ("stirred_while_pouring", "yes", "no", "not-stirred"), ("way", "crumbled", "whole", "way-still"), ("tap", "soft", "hard", "tap-hard"),
        ("tap", "moderate", "very-hard", "tap-hard"),
    ],
)  # fmt: skip
def test_a_word_speaks_for_what_it_says(tables: Tables, asked: str, no: str, yes: str, fact: str) -> None:
    assert known(tables, **{asked: no})[fact] is False
    assert known(tables, **{asked: yes})[fact] is True


def test_a_weighing_that_is_off_speaks_and_two_on_both_sides_speak_of_a_mix_up(tables: Tables) -> None:
    def of(*grams: tuple[float, float]) -> dict[str, bool]:
        weighings = [{"actual_g": actual, "target_g": target, "within": actual == target} for actual, target in grams]
        return known(tables, batch={"state": {"weighings": weighings}})

    assert (of((50, 50))["weighing-off"], of((60, 50))["weighing-off"]) == (False, True)
    assert of((60, 50), (70, 50))["two-weighings-off"] is False
    assert of((40, 50), (30, 50))["two-weighings-off"] is False
    assert of((60, 50), (40, 50))["two-weighings-off"] is True


@pytest.mark.parametrize(("lines", "missing"), [
    ({"cream_of_tartar": 45.0, "corn_starch": 20.0}, False), ({"cream_of_tartar": 45.0}, False), ({"corn_starch": 2.0}, False),
    ({"sunflower_oil_ho": 20.0}, True),
])  # fmt: skip
def test_starch_clay_butter_and_tartar_harden(tables: Tables, lines: dict[str, float], *, missing: bool) -> None:
    """Any of them will do (common practice, no published source)."""
    assert known(tables, make_formula(baking_soda=200, glycerin=30, **lines))["hardener-missing"] is missing


@pytest.mark.parametrize(("lines", "fact"), [
    ({"dye_blue_ws": 0.5}, "dye-dry"), ({"mica_pigment": 0.5}, "mica-bare"), ({"sugar_white": 5.0}, "sugar-on-it"),
])  # fmt: skip
def test_what_is_in_it_speaks_and_what_is_not_is_silent(tables: Tables, lines: dict[str, float], fact: str) -> None:
    assert known(tables, make_formula(**PLAIN, **lines))[fact] is True
    assert known(tables, make_formula(**PLAIN))[fact] is False
    held = known(tables, make_formula(**PLAIN, **lines, polysorbate_80=2))
    assert held[fact] is (fact != "mica-bare"), "an emulsifier carries mica, and neither dye nor sugar"
