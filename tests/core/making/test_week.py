"""Weeks against brute force, an independent look at every hour, and what is said of a batch that finds no place."""

from __future__ import annotations

from dataclasses import replace
from itertools import product
from time import process_time

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.week.jobs import Job, Workshop, feasible_starts, kept_rules
from rosy_kettle.core.making.week.solve import better_week, cost_of_week, first_week

DAYS = 7


def workshop(hands: int = 1, bowls: int = 1, trays: int = 9, opens: tuple[int, int] = (9, 17), **more: object) -> Workshop:
    open_h = {24 * day + hour for day in range(DAYS) for hour in range(*opens)}
    return Workshop(open_h, hands, bowls, [trays] * (24 * DAYS), **more)  # type: ignore[arg-type]


JOBS = st.lists(
    st.builds(
        Job, id=st.uuids().map(str), name=st.just("x"), hands_h=st.integers(1, 4), dry_h=st.integers(4, 60), trays=st.integers(1, 4),
        moulds=st.sampled_from([{}, {"ball": 6}, {"ball": 12}]), due_h=st.one_of(st.none(), st.integers(24, 24 * DAYS)),
    ), min_size=1, max_size=6,
)  # fmt: skip


@settings(max_examples=60, deadline=None)
@given(JOBS, st.integers(1, 3), st.integers(2, 8))
def test_no_plan_breaks_a_rule_and_the_better_one_is_no_worse(jobs: list[Job], hands: int, trays: int) -> None:
    shop = workshop(hands, hands, trays, moulds={"ball": 12})
    first = first_week(jobs, shop)
    better = better_week(jobs, shop, 5.0, first)
    for plan in (first, better):
        assert kept_rules(jobs, plan.starts, shop) == []
        assert {each.job for each in plan.unmade} == {job.id for job in jobs} - set(plan.starts)
        assert plan.cost == pytest.approx(cost_of_week(jobs, plan.starts, shop))
    assert better.cost <= first.cost + 1e-9


@settings(max_examples=25, deadline=None)
@given(
    st.lists(st.tuples(st.integers(1, 3), st.integers(5, 30), st.integers(1, 3), st.integers(20, 70)), min_size=2, max_size=3),
    st.integers(2, 4),
)  # fmt: skip
def test_small_weeks_are_as_good_as_brute_force(rows: list[tuple[int, int, int, int]], trays: int) -> None:
    jobs = [Job(str(n), "x", hands, dry, need, due_h=due) for n, (hands, dry, need, due) in enumerate(rows)]
    open_h = {24 * day + hour for day in range(2) for hour in (9, 10, 11, 18)}
    shop = Workshop(open_h, 1, 1, [trays] * 72)
    options = [[None, *feasible_starts(job, shop)] for job in jobs]
    costs = []
    for chosen in product(*options):
        starts = {job.id: start for job, start in zip(jobs, chosen, strict=True) if start is not None}
        if not kept_rules(jobs, starts, shop):
            costs.append(cost_of_week(jobs, starts, shop))
    plan = better_week(jobs, shop, 10.0)
    assert plan.cost == pytest.approx(min(costs))
    assert plan.gap == pytest.approx(0.0, abs=1e-5)


@pytest.mark.clock
def test_a_week_of_twelve_batches_is_planned_in_ten_seconds() -> None:
    """Of processor time, which other work on the machine does not lengthen."""
    jobs = [Job(str(n), f"batch {n}", 2 + n % 3, 20 + 7 * (n % 5), 1 + n % 3, due_h=24 * (4 + n % 4)) for n in range(12)]
    shop = workshop(hands=1, trays=9, opens=(9, 21))
    begun = process_time()
    first = first_week(jobs, shop)
    assert process_time() - begun < 1.0
    plan = better_week(jobs, shop, 9.0, first)
    assert process_time() - begun < 11.0
    assert plan.gap is not None
    print(f"\ntwelve batches: first {first.cost:.2f}, better {plan.cost:.2f}, gap {plan.gap:.4f}, {process_time() - begun:.1f} s")
    assert plan.unmade == ()


def test_what_finds_no_place_is_explained() -> None:
    full = [Job(str(n), "x", 1, 150, 3, fixed_h=9) for n in range(3)]
    late = Job("late", "Saturday order", 1, 40, 2, due_h=120)
    plan = first_week([*full, late], workshop(trays=9, hands=3, bowls=3))
    assert [(each.job, "2 trays more would do" in each.why) for each in plan.unmade] == [("late", True)]
    alone = first_week([Job("dry", "x", 2, 60, 1, due_h=50)], workshop())
    assert "1 day later would do" in alone.unmade[0].why, "9 and 2 and 60 are 71: more than 50, less than 74"
    long = first_week([Job("long", "x", 9, 10, 1)], workshop())
    assert "no day of the workshop is so long" in long.unmade[0].why
    two = first_week([Job("a", "x", 8, 5, 1, due_h=30), Job("b", "x", 8, 5, 1, due_h=30)], workshop())
    assert "one more pair would do" in two.unmade[0].why
    moulds = first_week(
        [Job("a", "x", 1, 100, 1, moulds={"ball": 12}, due_h=150), Job("b", "x", 1, 100, 1, moulds={"ball": 12}, due_h=150)],
        workshop(moulds={"ball": 12}),
    )
    assert "12 more of ball would do" in moulds.unmade[0].why
    with pytest.raises(InputError, match="no hours"):
        first_week([late], workshop(opens=(9, 9)))


def test_a_batch_is_late_when_hands_and_drying_end_after_its_hour() -> None:
    job = Job("a", "scoops", 3, 20, 1, due_h=33)
    assert kept_rules([job], {"a": 10}, workshop()) == [], "10 + 3 + 20 is its hour"
    assert kept_rules([replace(job, due_h=32)], {"a": 10}, workshop()) == ["scoops is not dry by its day."]


def test_a_full_rack_is_full_until_the_last_hour_it_is_taken() -> None:
    """Shaped from nine to one, drying ten hours: the one tray is taken until 23."""
    jobs = [Job("a", "x", 4, 10, 1, fixed_h=9), Job("b", "x", 2, 10, 1, due_h=23)]
    plan = first_week(jobs, workshop(hands=2, bowls=2, trays=1))
    assert [each.why for each in plan.unmade] == ["the rack is full until hour 23; 1 tray more would do"]


@pytest.mark.parametrize(("hands_h", "too_long"), [(8, False), (9, True)])
def test_a_day_from_nine_to_five_has_eight_hours(hands_h: int, *, too_long: bool) -> None:
    plan = first_week([Job("a", "x", hands_h, 5, 1, due_h=12)], workshop())
    assert ("no day of the workshop is so long" in plan.unmade[0].why) is too_long
    broken = replace(workshop(), open_h=[*range(9, 13), *range(14, 19), *range(33, 37)])
    lunch = first_week([Job("a", "x", hands_h - 3, 5, 1)], broken)
    assert bool(lunch.unmade) is too_long, "five hours after lunch are the longest stretch"


def test_a_dragged_batch_stays_and_the_others_move() -> None:
    jobs = [Job("a", "x", 4, 10, 1), Job("b", "x", 4, 10, 1)]
    shop = workshop()
    free = better_week(jobs, shop, 2.0)
    assert sorted(free.starts.values()) == [9, 13]
    dragged = better_week([Job("a", "x", 4, 10, 1, fixed_h=11), jobs[1]], shop, 2.0)
    assert dragged.starts["a"] == 11
    assert dragged.starts["b"] == 33, "nine to eleven is too short before it, fifteen to seventeen after it"


def test_hands_end_with_the_day_they_began() -> None:
    """A workshop that never closes: two hours may begin at 22, not at 23, and again at midnight."""
    shop = replace(workshop(), open_h=tuple(range(48)))
    starts = feasible_starts(Job("night", "x", 2, 5, 1), shop)
    assert {21, 22, 24} <= set(starts)
    assert 23 not in starts
