"""A tray's events: late ones stand where they belong, what was amended stays in the record, a wrapped tray rests."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

import pytest

from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.rack.air import Air, air_advice
from rosy_kettle.core.making.rack.drying_curve import prior_of
from rosy_kettle.core.making.rack.judge_tray import judge_tray, know_tray
from rosy_kettle.core.making.rack.tray import check_tray_event, hours_between, tray_state_of
from rosy_kettle.core.making.rack.weigh_ins import WeighIn, fit_drying
from rosy_kettle.core.records import Tables
from tests.conftest import make_formula

OUT = "2026-03-28T20:00:00+00:00"


def happened(*told: tuple[str, dict[str, Any]]) -> list[Event]:
    return [Event(seq, f"2026-03-28T{20 + seq}:00:00+00:00", kind, data) for seq, (kind, data) in enumerate(told, start=1)]


def weighing(mass_g: float, **facts: Any) -> tuple[str, dict[str, Any]]:
    return "weighed", {"mass_g": mass_g, "pieces": 6, "step_g": 0.1, "source": "scale", **facts}


@pytest.mark.parametrize(("begin", "end", "hours"), [
    (OUT, "2026-03-29T02:00:00+00:00", 6.0), ("2026-03-29T00:30:00+01:00", "2026-03-29T03:30:00+02:00", 2.0),
    ("2026-10-25T02:30:00+02:00", "2026-10-25T02:30:00+01:00", 1.0), (OUT, OUT, 0.0),
])  # fmt: skip
def test_hours_pass_at_the_same_pace_when_clocks_change(begin: str, end: str, hours: float) -> None:
    """Central European clocks went forward on 29 March and go back on 25 October 2026 (Directive 2000/84/EC)."""
    assert hours_between(begin, end) == hours


def test_a_weighing_written_down_late_stands_where_it_belongs() -> None:
    events = happened(weighing(352.0), weighing(360.0, at="2026-03-28T20:30:00+00:00"), ("amended", {"of": 1, "mass_g": 351.5}))
    state = tray_state_of(OUT, "rack", events)
    assert [(each.hours, each.mass_g) for each in state.weighings] == [(0.5, 360.0), (1.0, 351.5)]
    left_out = tray_state_of(OUT, "rack", [*events, Event(4, OUT, "amended", {"of": 2, "left_out": True})])
    assert [each.left_out for each in left_out.weighings] == [True, False]


def test_tasks_are_done_taken_back_and_moved_and_every_time_is_counted() -> None:
    state = tray_state_of(OUT, "rack", happened(
        ("done", {"task": "turn"}), ("undone", {"task": "turn"}), ("moved", {"task": "turn", "to": "2026-03-30T09:00:00+00:00"}),
    ))  # fmt: skip
    assert (state.done, state.due, state.moves) == ({}, {"turn": "2026-03-30T09:00:00+00:00"}, {"turn": 3})
    with pytest.raises(InputError, match="not done"):
        check_tray_event(state, "undone", {"task": "turn"})
    with pytest.raises(InputError, match="no weigh-in 7"):
        check_tray_event(state, "amended", {"of": 7})
    with pytest.raises(InputError, match="not wrapped"):
        check_tray_event(state, "opened", {})


def test_what_is_wrapped_rests_and_may_be_opened_again() -> None:
    wrapped = tray_state_of(OUT, "rack", happened(weighing(360.0), ("wrapped", {}), ("note", {"text": "tied with twine"})))
    assert (wrapped.wrapped_at, wrapped.done, wrapped.notes) == (
        "2026-03-28T22:00:00+00:00", {"wrap": "2026-03-28T22:00:00+00:00"}, ("tied with twine",),
    )  # fmt: skip
    for kind in ("weighed", "checked", "done", "moved", "put", "wrapped"):
        with pytest.raises(ConflictError, match="wrapped"):
            check_tray_event(wrapped, kind, {})
    for kind, data in (("note", {}), ("amended", {"of": 1}), ("opened", {})):
        check_tray_event(wrapped, kind, data)
    opened = tray_state_of(OUT, "rack", happened(("wrapped", {}), ("opened", {}), ("put", {"place": "loft"}), ("checked", {"check": "edges", "passed": False})))  # fmt: skip
    assert (opened.wrapped_at, opened.done, opened.place, opened.checks) == (None, {}, "loft", {"edges": False})
    assert opened.moves == {"wrap": 2}


@pytest.mark.parametrize(("humidity_pct", "codes"), [
    (49.9, []), (50.0, ["dehumidifier", "oven_off"]), (64.9, ["dehumidifier", "oven_off"]),
    (65.0, ["dehumidifier", "closed_box", "oven_off"]), (90.0, ["dehumidifier", "closed_box", "oven_off"]),
])  # fmt: skip
def test_damp_air_is_answered_from_half_on_and_by_a_closed_box_from_two_thirds(
    tables: Tables, humidity_pct: float, codes: list[str]
) -> None:
    """Common practice, no published source."""
    butter = make_formula("butter-dough", baking_soda=300, cocoa_butter=100)
    assert [each.code for each in air_advice(Air(OUT, 20.0, humidity_pct), butter, None, tables)] == codes


@pytest.mark.parametrize(("lines", "oven"), [
    ({"isopropyl_alcohol_91": 10.0}, "no_oven"), ({"witch_hazel_distillate": 10.0}, "no_oven"), ({"distilled_water": 10.0}, "oven_off"),
    ({"glycerin": 10.0}, "oven_off"),
])  # fmt: skip
def test_an_oven_never_comes_near_alcohol(tables: Tables, lines: dict[str, float], oven: str) -> None:
    """Vapour of isopropyl alcohol burns from 2 % in air and from 12 °C on: NFPA 325, from memory."""
    formula = make_formula("damp-press", baking_soda=300, citric_acid_anhydrous=150, **lines)
    assert air_advice(Air(OUT, 20.0, 70.0), formula, None, tables)[-1].code == oven
    assert air_advice(Air(OUT, 20.0, 70.0), None, None, tables)[-1].code == "no_oven", "unknown is never safe"
    assert [each.code for each in air_advice(None, formula, None, tables)] == ["log_air"]


def test_a_clock_that_went_back_is_said_and_is_no_damp() -> None:
    """Weighings stay in their own order: lighter ones that are dated earlier must not look like the start of a gain."""
    masses = [
        (1, 360.0),
        (7, 352.0),
        (13, 349.0),
        (8, 347.5),
        (10, 347.2),
    ]  # the clock is set back by eight hours before the fourth
    events = [
        Event(seq, (datetime.fromisoformat(OUT) + timedelta(hours=hours)).isoformat(), "weighed", weighing(mass)[1])
        for seq, (hours, mass) in enumerate(masses, 1)
    ]
    state = tray_state_of(OUT, "rack", events)
    assert [each.seq for each in state.weighings] == [1, 2, 3, 4, 5]
    told = fit_drying(
        [WeighIn(each.hours, each.mass_g, each.pieces) for each in state.weighings], 0.1, prior_of(24.0, 0.04, 0.003)
    )
    assert not told.gaining
    assert [(each.index, each.code) for each in told.excluded] == [(3, "time_back"), (4, "time_back")]
    assert "clock went back" in told.message


@pytest.mark.parametrize("now_pct", [60.0, 70.0, 78.0, 85.0])
def test_air_that_hardly_dries_lengthens_the_hours_and_never_shortens_them(tables: Tables, now_pct: float) -> None:
    """Whatever was weighed in drier air; from 78 % citric acid draws damp itself, and nothing dries (common practice)."""
    formula = make_formula(
        "damp-press", baking_soda=300, citric_acid_anhydrous=150, corn_starch=60, sweet_almond_oil=12, distilled_water=6
    )
    state = tray_state_of(OUT, "rack", happened(weighing(480.0), weighing(478.6), weighing(477.4)))
    dry = [Air(f"2026-03-28T{20 + hour}:00:00+00:00", 20.0, 48.0) for hour in range(3)]
    now = "2026-03-28T23:30:00+00:00"
    before, after = (
        judge_tray(state, OUT, now, know_tray(state, formula, tables, airs), tables)
        for airs in (dry, [*dry, Air("2026-03-28T23:00:00+00:00", 20.0, now_pct)])
    )
    assert before.likely_h is not None
    assert after.likely_h is not None
    assert after.likely_h > 1.1 * before.likely_h
    assert after.high_h is not None
    assert before.high_h is not None
    assert after.high_h > before.high_h
