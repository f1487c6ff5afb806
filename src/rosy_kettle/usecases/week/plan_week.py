"""The week of the open orders: each becomes a batch with its hours, and the batches find their places."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta, tzinfo

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.making.plan import Wish
from rosy_kettle.core.making.week.clock_hours import ClockHour, clock_hours, midnight
from rosy_kettle.core.making.week.jobs import Job, Workshop
from rosy_kettle.core.making.week.solve import WeekPlan, better_week, first_week
from rosy_kettle.core.records import Tables
from rosy_kettle.store.moulds import list_moulds
from rosy_kettle.store.orders import OrderRow, list_orders
from rosy_kettle.store.rack import list_places, trays_taken
from rosy_kettle.usecases.batches.plan_batch import Outline, PlanAsk, outline_batch
from rosy_kettle.usecases.studio.studio_settings import OpenHours, StudioSettings, studio_settings
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["PlannedOrder", "Week", "WeekAsk", "plan_week"]

PIECES_A_TRAY = 24  # common practice with pieces of 60 g on a half sheet, no published source
TRAYS_UNKNOWN = 1_000
MOST_ORDERS = 60
FREED_AFTER_H = 48  # when trays that are taken today are free again, if nobody says otherwise [h]; project default


@dataclass(frozen=True, slots=True)
class WeekAsk:
    """From which moment, how many days, and how long a better plan may be searched for."""

    now: datetime
    days: int = 7
    zone: tzinfo = UTC
    """Whose clock the workshop keeps, with its rules."""
    seconds: float = 0.0


@dataclass(frozen=True, slots=True)
class PlannedOrder:
    """An order with its place in the week."""

    row: OrderRow
    name: str
    batch_g: float
    bowls: int
    fillings: int
    """How often its moulds are filled."""
    hands_h: int
    dry_h: int
    trays: int
    starts_at: datetime | None
    hands_end_at: datetime | None
    dry_at: datetime | None
    fixed: bool
    why_not: str
    """Why it finds no place, and what would give it one; empty where it has one."""


@dataclass(frozen=True, slots=True)
class Week:
    """The orders with their places."""

    days_begin_at: tuple[datetime, ...]
    """Midnight of each day, and of the day after the last; where clocks change they are 23 or 25 hours apart."""
    orders: tuple[PlannedOrder, ...]
    open_hours: tuple[tuple[datetime, datetime], ...]
    hands: int
    trays: int | None
    """There are, on the whole rack; None where nobody has counted them."""
    trays_taken: int
    cost: float
    gap: float | None
    searched: bool
    """Whether a better plan was searched for."""

    @property
    def begins_at(self) -> datetime:
        """Return the midnight the week begins with."""
        return self.days_begin_at[0]

    @property
    def days(self) -> int:
        """Return how many days are planned."""
        return len(self.days_begin_at) - 1


def plan_week(session: Session, ask: WeekAsk) -> Week:
    """Return the week of the open orders.

    Raises
    ------
    InputError
        If the workshop has no hours.
    """
    settings = studio_settings(session)
    today = ask.now.astimezone(ask.zone).date()
    days_begin = tuple(midnight(today + timedelta(days=day), ask.zone) for day in range(ask.days + 1))
    begin = days_begin[0]
    places, taken = list_places(session), trays_taken(session)
    trays = sum(place.trays for place in places) if places else None
    shop = _workshop(session, ask, settings, begin, trays, sum(taken.values()))
    rows = list(reversed(list_orders(session, query="", state="open", before=None, limit=MOST_ORDERS)))
    tables = studio_tables(session)
    plans = [_planned(session, row, tables) for row in rows]
    jobs = [_job(row, plan, begin, shop.moulds) for row, plan in zip(rows, plans, strict=True)]
    makeable = [job for job, plan in zip(jobs, plans, strict=True) if isinstance(plan, Outline) and plan.schedule.promised]
    week = first_week(makeable, shop)
    if ask.seconds > 0:
        week = better_week(makeable, shop, ask.seconds, week)
    return Week(
        days_begin, tuple(_told(row, plan, job, week, begin) for row, plan, job in zip(rows, plans, jobs, strict=True)),
        _opens(shop, begin), settings.hands, trays, sum(taken.values()), week.cost, week.gap, searched=ask.seconds > 0,
    )  # fmt: skip


def _workshop(
    session: Session, ask: WeekAsk, settings: StudioSettings, begin: datetime, trays: int | None, taken: int
) -> Workshop:
    today = ask.now.astimezone(ask.zone).date()
    clock = clock_hours(today, ask.days, ask.zone)
    past_h = (ask.now - begin).total_seconds() / 3600
    week = [settings.week[(today.weekday() + day) % 7] for day in range(ask.days)]
    open_h = {hour for hour, shown in enumerate(clock) if hour >= past_h and _is_open(week, shown)}
    there = TRAYS_UNKNOWN if trays is None else trays
    free = [max(0, there - (taken if hour < past_h + FREED_AFTER_H else 0)) for hour in range(len(clock))]
    return Workshop(open_h, settings.hands, settings.bowls, free, dict(list_moulds(session)), clock)


def _is_open(week: Sequence[OpenHours], shown: ClockHour) -> bool:
    """Whether a whole hour from what the clock shows lies within the workshop's hours of that day."""
    day = week[shown.day]
    return 60 * day.from_h <= shown.minute and shown.minute + 60 <= 60 * day.to_h


def _planned(session: Session, row: OrderRow, tables: Tables) -> Outline | str:
    try:
        return outline_batch(session, row.formula_id, PlanAsk([Wish(row.pieces, row.tool)]), tables)
    except WorkbenchError as error:  # a formula that has changed since, or is gone: said with the order, the week goes on
        return error.message


def _job(row: OrderRow, plan: Outline | str, begin: datetime, there: Mapping[str, int]) -> Job:
    due_h = None if row.due_at is None else math.floor((row.due_at - begin).total_seconds() / 3600)
    fixed_h = None if row.starts_at is None else max(0, round((row.starts_at - begin).total_seconds() / 3600))
    if isinstance(plan, str):
        return Job(str(row.id), row.who, 1, 1, 1, due_h=due_h, fixed_h=fixed_h)
    stages = {stage.id: stage for stage in plan.schedule.stages}
    drying = stages["dry"]
    before = sum(stage.minutes for stage in plan.schedule.stages if stage.ends_at <= drying.starts_at)
    after = sum(stage.minutes for stage in plan.schedule.stages if stage.starts_at >= drying.ends_at)
    moulds = {
        item.tool: min(item.pieces, there.get(item.tool, item.pieces)) for item in plan.order.pieces if item.tool is not None
    }  # more pieces than moulds are made in rounds, which hold all of them
    return Job(
        str(row.id), plan.formula.name, max(1, math.ceil(before / 60)), max(1, math.ceil((drying.minutes + after) / 60)),
        max(1, math.ceil(row.pieces / PIECES_A_TRAY)), moulds=moulds, due_h=due_h, fixed_h=fixed_h,
    )  # fmt: skip


def _told(row: OrderRow, plan: Outline | str, job: Job, week: WeekPlan, begin: datetime) -> PlannedOrder:
    start = week.starts.get(job.id)
    why = next((each.why for each in week.unmade if each.job == job.id), "")
    if isinstance(plan, str):
        why = plan
    elif not plan.schedule.promised:
        why = "it does not dry in that air, so no day can be promised"
    at = None if start is None else begin + timedelta(hours=start)
    end = None if at is None else at + timedelta(hours=job.hands_h)
    order = None if isinstance(plan, str) else plan.order
    return PlannedOrder(
        row, row.who if order is None else job.name, 0.0 if order is None else order.batch_g,
        0 if order is None else len(order.bowls_g), 1 if order is None else order.fillings,
        job.hands_h, job.dry_h, job.trays, at, end,
        None if end is None else end + timedelta(hours=job.dry_h), row.starts_at is not None, why,
    )  # fmt: skip


def _opens(shop: Workshop, begin: datetime) -> tuple[tuple[datetime, datetime], ...]:
    """Return the spans of open hours, each day's in one."""
    spans: list[tuple[int, int]] = []
    for hour in sorted(shop.open_h):
        if spans and spans[-1][1] == hour and shop.shown_at(hour).day == shop.shown_at(hour - 1).day:
            spans[-1] = (spans[-1][0], hour + 1)
        else:
            spans.append((hour, hour + 1))
    return tuple((begin + timedelta(hours=a), begin + timedelta(hours=b)) for a, b in spans)
