"""Two batches side by side: which difference moves most is named, and a larger bowl is none."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

import pytest

from rosy_kettle.core.change.why.compare import compare
from rosy_kettle.core.making.bench import BenchStep, bench_steps, in_grams, state_of
from rosy_kettle.core.making.bench.compare_batches import BatchComparison, MadeBatch, compare_batches
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.plan import sheet_of
from rosy_kettle.core.readings.registry import notable
from rosy_kettle.core.records import Formula, Room, Tables
from tests.conftest import make_formula

LINES: Mapping[str, float] = {
    "baking_soda": 300.0, "slsa_fine": 90.0, "corn_starch": 90.0, "capb_liquid": 85.0, "glycerin": 45.0,
}  # fmt: skip


def made(tables: Tables, *happened: tuple[str, dict[str, Any]], times: float = 1.0, **changes: float) -> MadeBatch:
    formula = in_grams(make_formula(**{**LINES, **changes}), tables, 1000.0 * times)
    return of(formula, tables, happened)


def of(formula: Formula, tables: Tables, happened: tuple[tuple[str, dict[str, Any]], ...]) -> MadeBatch:
    batch_g = sum(float(line.amount) for line in formula.lines)
    steps: tuple[BenchStep, ...] = bench_steps(formula, tables, sheet_of(formula, tables, batch_g, 16, 57.0, "as entered"))
    events = [Event(seq, f"2026-04-02T10:{seq:02d}:00+00:00", kind, data) for seq, (kind, data) in enumerate(happened, start=1)]
    return MadeBatch("Scoop", formula, state_of(steps, events), batch_g, 1, None)


def facts(found: BatchComparison) -> dict[str, tuple[Any, Any]]:
    return {each.id: (each.first, each.second) for each in found.facts if each.differs}


def test_a_larger_bowl_of_the_same_is_no_difference(tables: Tables) -> None:
    found = compare_batches(made(tables), made(tables, times=2.5), tables)
    assert found.differences == ()
    assert facts(found) == {"batch_g": (1000.0, 2500.0)}
    assert found.sentence == "Nothing in bowl or room differs by as much as a maker would notice."


@pytest.mark.parametrize(("changes", "ingredient"), [
    ({"glycerin": 80.0}, "glycerin"), ({"slsa_fine": 30.0}, "slsa-fine"), ({"capb_liquid": 140.0}, "capb-liquid"),
])  # fmt: skip
def test_the_line_that_moves_most_is_named_with_its_shares(tables: Tables, changes: dict[str, float], ingredient: str) -> None:
    first, second = made(tables), made(tables, **changes)
    found = compare_batches(first, second, tables)
    top = found.differences[0]
    assert top.ingredient == ingredient
    name = ingredient.replace("-", "_")
    whole = sum(LINES.values())
    assert top.first_pct == pytest.approx(100 * LINES[name] / whole)
    assert top.second_pct == pytest.approx(100 * changes[name] / (whole + changes[name] - LINES[name]))
    assert found.sentence.startswith(f"What differs most is {tables.ingredients[ingredient].short_name}")
    assert [each.weight for each in found.differences] == sorted((each.weight for each in found.differences), reverse=True)
    assert all(each.weight >= 0.5 for each in found.differences)
    move = top.moves[0]
    assert top.weight == pytest.approx(abs(move.by) / notable(move.reading, 1.0)), "in changes a maker would notice"
    back = compare_batches(second, first, tables)
    assert back.differences[0].ingredient == ingredient
    assert (back.differences[0].first_pct, back.differences[0].second_pct) == (top.second_pct, top.first_pct)


@pytest.mark.parametrize(("weight", "told"), [(0.45, False), (0.55, True)])
def test_what_moves_less_than_half_of_what_is_noticed_decides_nothing(tables: Tables, weight: float, *, told: bool) -> None:
    more = compare_batches(made(tables), made(tables, sweet_almond_oil=20.0), tables)
    heaviest = next(each.weight for each in more.differences if each.ingredient == "sweet-almond-oil")
    low_g, high_g = 0.0, 20.0
    for _ in range(40):  # so much oil as moves just that
        grams = (low_g + high_g) / 2
        found = compare(
            *(in_grams(each.made, tables, 1000.0) for each in (made(tables), made(tables, sweet_almond_oil=grams))), tables
        )
        moved = max(
            abs(cause.moves) / notable(reading.reading, 1.0)
            for reading in found.readings if not reading.reading.startswith("cost.")
            for cause in reading.causes if cause.ingredient == "sweet-almond-oil"
        )  # fmt: skip
        low_g, high_g = (grams, high_g) if moved < weight else (low_g, grams)
    assert heaviest > 0.55
    told_of = [
        each.ingredient for each in compare_batches(made(tables), made(tables, sweet_almond_oil=grams), tables).differences
    ]
    assert ("sweet-almond-oil" in told_of) is told


def test_the_air_is_named_where_only_it_was_otherwise(tables: Tables) -> None:
    plain = in_grams(make_formula(**LINES), tables, 1000.0)
    dry, damp = (
        of(replace(plain, room=Room(20.0, humidity)), tables, (("conditions", {"step": "conditions", "room_c": 20.0, "humidity_pct": humidity}),))
        for humidity in (40.0, 66.0)
    )  # fmt: skip
    found = compare_batches(dry, damp, tables)
    assert found.differences[0].ingredient is None
    assert "the air, humidity (40 → 66 %)" in found.sentence
    assert facts(found) == {"humidity_pct": (40.0, 66.0)}


def test_what_hands_found_and_did_stands_beside_each_other(tables: Tables) -> None:
    one = made(
        tables, ("felt", {"state": "crumbly dough"}), ("corrected", {"ingredient": "glycerin", "mass_g": 4.0}),
        ("corrected", {"ingredient": "glycerin", "mass_g": 2.5}), ("felt", {"state": "play dough"}), ("felt", {"state": "play dough"}),
    )  # fmt: skip
    other = made(tables, ("felt", {"state": "play dough"}))
    told = facts(compare_batches(one, other, tables))
    assert told["felt"] == ("crumbly dough, then play dough", "play dough")
    assert told["corrected"] == ("6.5 g glycerin", None)
    assert "felt, added to mend it" in compare_batches(one, other, tables).sentence.replace("the dough felt", "felt")
