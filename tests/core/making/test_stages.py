"""Working times by hand; common practice, no published source, as all minutes here."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta, timezone

import pytest

from rosy_kettle.core.making.plan import Wish, plan_order
from rosy_kettle.core.making.plan.stages import Schedule, make_schedule, span_words
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Room, Tables
from tests.conftest import make_formula
from tests.core.models.test_dough import BETAINE_SCOOP

NOW = datetime(2026, 5, 4, 8, 0, tzinfo=UTC)
DRY = Room(21.0, 45.0)
PRESSED = make_formula("damp-press", baking_soda=600, citric_acid_anhydrous=300, corn_starch=90, witch_hazel_distillate=12)
MELTED = make_formula("melt", cocoa_butter=300, shea_butter=200, baking_soda=250, citric_acid_anhydrous=120)


def schedule(formula: Formula, tables: Tables, *wishes: Wish, capacity_g: float | None = None, **when: object) -> Schedule:
    order = plan_order(formula, tables, wishes, None, capacity_g, {})
    return make_schedule(formula, tables, order, DRY, NOW, **when)  # type: ignore[arg-type]


def minutes(found: Schedule) -> dict[str, float]:
    return {stage.id: stage.minutes for stage in found.stages}


@pytest.mark.parametrize(("tool", "each"), [
    ("ball-2in", 1.2), ("press-50x25", 0.8), ("cube-40", 0.8), ("disher-24", 0.4), ("silicone-30ml", 0.25), ("pot-100ml", 0.3), ("slice-60x25", 0.4), ("round-cutter-50x25", 0.4),
    (None, 0.5),
])  # fmt: skip
def test_shaping_takes_its_minutes_a_piece(tables: Tables, tool: str | None, each: float) -> None:
    taken = minutes(schedule(PRESSED, tables, Wish(20, tool)))
    assert taken["shape"] == pytest.approx(20 * each)
    assert taken["pack"] == pytest.approx(20 * 0.75)
    moulded = tool in {"ball-2in", "cube-40", "silicone-30ml"}
    assert taken.get("unmould") == (pytest.approx(20 * 0.3) if moulded else None)


def test_weighing_mixing_and_melting_are_by_the_line_and_by_the_bowl(tables: Tables) -> None:
    one, three = (minutes(schedule(PRESSED, tables, Wish(30), capacity_g=capacity_g)) for capacity_g in (None, 1300.0))
    bowls = len(plan_order(PRESSED, tables, [Wish(30)], None, 1300.0, {}).bowls_g)
    assert bowls == 2
    words = [
        next(each for each in schedule(PRESSED, tables, Wish(30), capacity_g=capacity_g).stages if each.id == "mix")
        for capacity_g in (None, 1300.0)
    ]
    assert [each.why for each in words] == ["1 bowl", "2 bowls"]
    assert (one["prepare"], three["prepare"]) == (15.0, 15.0)
    assert (one["weigh"], three["weigh"]) == (4 * 1.5, 4 * 1.5 * bowls)
    assert (one["mix"], three["mix"]) == (10.0, 10.0 * bowls)
    assert "melt" not in one
    assert minutes(schedule(MELTED, tables, Wish(20)))["melt"] == 12.0


def test_back_from_a_day_drying_is_given_its_longest_and_onwards_its_likely_hours(tables: Tables) -> None:
    told = evaluate(PRESSED, tables).drying
    assert told.hours is not None
    onwards = schedule(PRESSED, tables, Wish(12))
    by = NOW + timedelta(days=9)
    back = schedule(PRESSED, tables, Wish(12), ready_by=by)
    assert onwards.starts_at == NOW
    assert back.ready_at == by
    assert back.latest_ready_at == by
    spare = timedelta(minutes=minutes(back)["dry"] - minutes(onwards)["dry"])
    assert spare > timedelta(0)
    assert onwards.latest_ready_at - onwards.ready_at == spare
    later = schedule(PRESSED, tables, Wish(12), start_at=NOW + timedelta(hours=3))
    assert later.starts_at - onwards.starts_at == later.ready_at - onwards.ready_at == timedelta(hours=3)


@pytest.mark.parametrize(("hour", "offset_min", "night"), [
    (8, 0, False), (22, 0, True), (21, 0, False), (5, 0, True), (6, 0, False), (8, 15 * 60, True), (20, -12 * 60, False),
])  # fmt: skip
def test_hands_between_ten_and_six_by_the_makers_clock_are_named(tables: Tables, hour: int, offset_min: int, night: bool) -> None:
    found = schedule(MELTED, tables, Wish(8), start_at=NOW.replace(hour=hour), zone=timezone(timedelta(minutes=offset_min)))
    told = [each for each in found.conflicts if each.startswith("At night")]
    first = {"prepare", "weigh", "melt", "mix", "shape"}
    named = any(stage.name.lower() in "".join(told) for stage in found.stages if stage.id in first)
    assert named is night


@pytest.mark.parametrize(("span", "words"), [
    (timedelta(seconds=10), "1 min"), (timedelta(minutes=40), "40 min"), (timedelta(minutes=89), "89 min"),
    (timedelta(minutes=90), "2 h"), (timedelta(hours=26), "26 h"),
])  # fmt: skip
def test_spans_are_told_in_minutes_up_to_an_hour_and_a_half(span: timedelta, words: str) -> None:
    assert span_words(span) == words


def test_further_fillings_wait_for_the_moulds_by_the_methods_own_share(tables: Tables) -> None:
    tool = "silicone-30ml"
    plain = plan_order(MELTED, tables, [Wish(20, tool)], None, None, {})
    few = plan_order(MELTED, tables, [Wish(20, tool)], None, None, {}, {tool: 7})
    assert (plain.fillings, few.fillings) == (1, 3)
    found = [minutes(make_schedule(MELTED, tables, order, DRY, NOW)) for order in (plain, few)]
    assert "fillings" not in found[0]
    share = next(task.share for task in tables.method_of(MELTED).rack_tasks if task.kind == "unmould")
    assert found[1]["fillings"] == pytest.approx(2 * share * found[1]["dry"])


def test_a_kneaded_dough_rests_and_dust_does_not(tables: Tables) -> None:
    assert minutes(schedule(make_formula("loose-dust", baking_soda=500, corn_starch=200), tables, Wish(4))).get("rest") is None
    kneaded = minutes(schedule(BETAINE_SCOOP, tables, Wish(6)))
    assert kneaded.get("rest", kneaded.get("cool")) is not None
