"""Where a tray stands: by what was weighed, in the air that was logged, and never by the clock alone."""

from __future__ import annotations

import math
from datetime import datetime, timedelta

import pytest

from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.rack.air import Air
from rosy_kettle.core.making.rack.judge_tray import TrayReading, judge_tray, know_tray
from rosy_kettle.core.making.rack.tray import tray_state_of
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Room, Tables
from tests.conftest import make_formula, make_lines

OUT = "2026-03-02T06:00:00+00:00"
SCOOP = make_formula(baking_soda=300, slsa_fine=90, corn_starch=90, capb_liquid=60, glycerin=30, sweet_almond_oil=20)
MELT = make_formula("melt", cocoa_butter=200, shea_butter=50)
FRESH_G, SHARE, TAU_H, PIECES = 68.7, 0.05, 9.0, 6


def clock(hours: float) -> str:
    return (datetime.fromisoformat(OUT) + timedelta(hours=hours)).isoformat()


def pan_g(hours: float) -> float:
    """A pan that loses a twentieth along the exponential, to a tenth of a gram."""
    return round(FRESH_G * (1 - SHARE + SHARE * math.exp(-hours / TAU_H)) * PIECES, 1)


def stands(
    tables: Tables,
    at_h: float,
    weighed_at: tuple[float, ...],
    formula: Formula | None = None,
    airs: tuple[Air, ...] = (),
    **said: str,
) -> TrayReading:
    events = [
        Event(seq, clock(hours), "weighed", {"mass_g": pan_g(hours), "pieces": PIECES, "step_g": 0.1, "source": "scale"})
        for seq, hours in enumerate(weighed_at, start=1)
    ]
    events += [Event(len(events) + 1, clock(hours), kind, {}) for kind, hours in ((k, float(v)) for k, v in said.items())]
    state = tray_state_of(OUT, "rack", events)
    return judge_tray(state, OUT, clock(at_h), know_tray(state, formula, tables, airs), tables)


def test_after_one_time_constant_it_is_two_thirds_dry(tables: Tables) -> None:
    """1 - 1/e of what leaves has left, and 1 - 1/e^2 after two: what a time constant is."""
    weighed = (0.0, 2.0, 5.0, 9.0)
    assert stands(tables, 9, weighed).dry_pct == pytest.approx(100 * (1 - math.exp(-1)), abs=6)
    assert stands(tables, 18, (*weighed, 14.0, 18.0)).dry_pct == pytest.approx(100 * (1 - math.exp(-2)), abs=3)


def test_of_pieces_from_elsewhere_only_the_scale_tells(tables: Tables) -> None:
    nothing = stands(tables, 5, ())
    assert (nothing.dry_pct, nothing.likely_h, nothing.ready, nothing.from_model_h) == (None, None, False, None)
    assert "Nothing is known" in nothing.message
    assert stands(tables, 900, (0.0,)).ready is False, "one weighing and a month on the rack say nothing"
    dry = stands(tables, 80, (0.0, 4.0, 8.0, 20.0, 28.0, 44.0, 60.0, 80.0))
    assert dry.ready
    assert dry.dry_pct is not None
    assert dry.dry_pct > 98


def test_until_two_weigh_ins_the_hours_are_the_formulas(tables: Tables) -> None:
    told = evaluate(SCOOP, tables).drying
    for weighed in ((), (0.0,)):
        found = stands(tables, 3, weighed, SCOOP)
        assert (found.likely_h, found.low_h, found.high_h) == (told.hours, told.low_hours, told.high_hours)
        assert found.ready is False
    seen = stands(tables, 20, (0.0, 4.0, 9.0, 20.0), SCOOP)
    assert seen.likely_h != told.hours
    assert seen.from_model_h == told.hours
    assert told.hours is not None
    assert "Not weighed yet" in stands(tables, math.floor(told.hours), (), SCOOP).message
    assert "dry by now" in stands(tables, math.ceil(told.hours), (), SCOOP).message


def test_it_is_judged_in_the_mean_of_the_air_it_stood_in(tables: Tables) -> None:
    airs = (Air(clock(0), 18.0, 40.0), Air(clock(4), 22.0, 52.0))
    found = stands(tables, 5, (), SCOOP, airs)
    assert found.air is not None
    assert (found.air.temperature_c, found.air.humidity_pct) == (20.0, 46.0)
    mean = make_lines(*[(line.ingredient, line.amount, line.unit) for line in SCOOP.lines], room=Room(20.0, 46.0))
    assert found.from_model_h == pytest.approx(evaluate(mean, tables).drying.hours)
    assert found.from_model_h != pytest.approx(evaluate(SCOOP, tables).drying.hours)


def test_a_melt_sets_and_is_never_told_by_weight_or_clock(tables: Tables) -> None:
    told = evaluate(MELT, tables).drying
    assert told.hours is not None
    late = stands(tables, math.ceil(told.hours) + 40, (), MELT)
    assert late.ready is False
    assert "ask the hands" in late.message
    assert late.questions, "what the hands are asked"


def test_tasks_and_questions_come_at_their_share_of_its_hours(tables: Tables) -> None:
    method = tables.method_of(SCOOP)
    hours = evaluate(SCOOP, tables).drying.hours
    assert hours is not None
    found = stands(tables, 0, (), SCOOP)
    due = {each.kind: each.share for each in method.rack_tasks}
    assert found.tasks
    assert {each.kind: each.due_h for each in found.tasks} == pytest.approx(
        {each.kind: due[each.kind] * hours for each in found.tasks}, abs=0.01
    )
    assert {each.id: each.from_h for each in found.questions} == pytest.approx(
        {e.id: e.share * hours for e in method.rack_checks}
    )
    assert not any(each.late for each in found.tasks)
    assert not any(each.asked for each in found.questions if each.from_h > 0)
    last = max(each.due_h for each in found.tasks)
    assert all(each.late for each in stands(tables, math.floor(last) + 2, (), SCOOP).tasks)
    half = stands(tables, round(hours / 2), (), SCOOP)
    assert {each.id: each.asked for each in half.questions} == {each.id: each.from_h <= half.age_h for each in half.questions}
    assert {each.asked for each in half.questions} == {True, False}


def test_open_it_may_lose_a_twentieth_of_its_fizz(tables: Tables) -> None:
    """Days until 5 % of the acid is lost, after it is dry: project default."""
    fizzy = make_formula("damp-press", baking_soda=400, citric_acid_anhydrous=200, corn_starch=60, sweet_almond_oil=15)
    told = evaluate(fizzy, tables)
    assert told.drying.hours is not None
    found = stands(tables, 1, (), fizzy)
    loss = told.shelf.acid_loss_pct_day
    assert loss is not None
    assert found.open_loss_pct_day == loss
    assert found.wrap_by_h == pytest.approx(told.drying.hours + 24 * 5 / loss)
    assert stands(tables, 1, (), SCOOP).wrap_by_h is None, "without acid there is nothing to lose"


def test_a_melt_that_loses_water_after_all_dries_by_the_scale(tables: Tables) -> None:
    """Under six thousandths weighing tells nothing; a twentieth, as of the pan here, is seen."""
    assert "ask the hands" not in stands(tables, 20, (0.0, 4.0, 9.0, 20.0), MELT).message
    assert stands(tables, 20, (0.0, 4.0, 9.0, 20.0), MELT).dry_pct == pytest.approx(100 * (1 - math.exp(-20 / TAU_H)), abs=6)


def test_a_melt_that_weighs_the_same_says_nothing_by_it(tables: Tables) -> None:
    weighed = {"mass_g": 400.0, "pieces": PIECES, "step_g": 0.1, "source": "scale"}
    alike = [Event(seq, clock(4 * seq), "weighed", weighed) for seq in (1, 2, 3)]
    known = know_tray(tray_state_of(OUT, "rack", alike), MELT, tables, ())
    assert known.sets_rather_than_dries
    assert not know_tray(tray_state_of(OUT, "rack", alike), None, tables, ()).sets_rather_than_dries, "nothing is known of it"


def test_what_is_wrapped_ages_no_more(tables: Tables) -> None:
    assert stands(tables, 30, (0.0, 4.0), SCOOP, wrapped="8").age_h == 8.0
    assert stands(tables, 30, (0.0, 4.0), SCOOP).age_h == 30.0
