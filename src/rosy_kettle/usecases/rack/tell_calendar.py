"""The rack's tasks, the days of orders and the week's hours at the bench, for a calendar."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta, tzinfo

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.core.making.rack.calendar_task import CalendarTask
from rosy_kettle.core.making.rack.judge_tray import WEIGH_AGAIN
from rosy_kettle.store.formulas import find_formula_ever
from rosy_kettle.store.orders import list_orders
from rosy_kettle.usecases.rack.run_rack import Tray, look_at_trays
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.week.plan_week import WeekAsk, plan_week

__all__ = ["tell_calendar"]

MOST_TRAYS = 200
MOST_ORDERS = 200
DAYS_PLANNED = 14
COUNTED_FROM = datetime(2026, 1, 1, tzinfo=UTC)
TOLD_FOR = timedelta(days=14)
"""How long a wrapped tray is still told, so that calendars hear that its tasks are done."""
YEARS_TOLD = 2200
"""What is due later, in a row of another hand, is no date to work by; a calendar ends before the year 10000."""


def tell_calendar(session: Session, now: datetime, zone: tzinfo) -> list[CalendarTask]:
    """Return every task of the rack, those of trays wrapped of late among them, the orders' days, and the week as it is planned.

    Parameters
    ----------
    session : Session
        The studio
    now : datetime
        This moment [UTC]
    zone : tzinfo
        The maker's, for the hours of the workshop
    """
    trays = look_at_trays(session, wrapped=False, query="", before=None, limit=MOST_TRAYS)
    trays += look_at_trays(session, wrapped=True, query="", before=None, limit=MOST_TRAYS, wrapped_after=now - TOLD_FOR)
    return [task for tray in trays for task in _tasks(tray)] + _orders(session) + _at_the_bench(session, now, zone)


def _orders(session: Session) -> list[CalendarTask]:
    """Orders with a day: what is still open, and of late what was made or cancelled."""
    rows = list_orders(session, query="", state=None, before=None, limit=MOST_ORDERS)
    return [
        CalendarTask(
            uid=f"order-{row.id}-{row.created_at:%Y%m%dT%H%M%S}@rosy-kettle.invalid",
            title=f"{row.pieces} {_name_of(session, row.formula_id)} for {row.who}", due_at=_second(row.due_at),
            changed_at=_second(row.created_at), sequence=0 if row.state == "open" else 1, place="", cancelled=row.state != "open",
        )
        for row in rows if row.due_at is not None and row.due_at.year < YEARS_TOLD
    ]  # fmt: skip


def _at_the_bench(session: Session, now: datetime, zone: tzinfo) -> list[CalendarTask]:
    """Hours of hands of the open orders, as the week has them at once; of orders that have none any more, that they have none.

    The week is planned anew whenever it is asked for, so a later telling goes before an earlier one: the sequence counts hours.
    """
    told_at = now.replace(minute=0, second=0, microsecond=0)
    sequence = int((told_at - COUNTED_FROM).total_seconds() // 3600)
    week = plan_week(session, WeekAsk(now, days=DAYS_PLANNED, zone=zone)) if _may_work(session) else None
    planned = {} if week is None else {each.row.id: each for each in week.orders}
    tasks = []
    for row in list_orders(session, query="", state=None, before=None, limit=MOST_ORDERS):
        place = planned.get(row.id)
        start = None if place is None else place.starts_at
        if (start or row.due_at or row.created_at).year >= YEARS_TOLD:
            continue
        name = _name_of(session, row.formula_id)
        tasks.append(CalendarTask(
            uid=f"bench-{row.id}-{row.created_at:%Y%m%dT%H%M%S}@rosy-kettle.invalid",
            title=f"At the bench: {row.pieces} {name} for {row.who}", due_at=_second(start or row.due_at or row.created_at),
            changed_at=_second(told_at), sequence=sequence, place="", cancelled=start is None,
            lasts_min=60.0 * (place.hands_h if place is not None and start is not None else 1),
        ))  # fmt: skip
    return tasks


def _name_of(session: Session, formula_id: int) -> str:
    try:
        return find_formula_ever(session, formula_id).name
    except NotFoundError:  # a row of another hand: the order is told all the same
        return f"pieces of formula {formula_id}, which is gone,"


def _may_work(session: Session) -> bool:
    return any(day.to_h > day.from_h for day in studio_settings(session).week)


def _tasks(tray: Tray) -> list[CalendarTask]:
    changed = datetime.fromisoformat(tray.events[-1].at) if tray.events else tray.row.set_out_at
    asked = any(task.kind == WEIGH_AGAIN for task in tray.reading.tasks)
    answered = () if asked or not tray.state.weighings else (_weighed_again(tray, changed),)
    return [
        CalendarTask(
            uid=_uid(tray, task.kind),
            title=f"{task.title}: {tray.row.name}", due_at=_second(datetime.fromisoformat(task.due_at)),
            changed_at=_second(changed), sequence=tray.state.seq, place=tray.row.place,
            cancelled=task.done_at is not None or tray.row.wrapped_at is not None,
        )
        for task in tray.reading.tasks
    ] + [*answered]  # fmt: skip


def _weighed_again(tray: Tray, changed: datetime) -> CalendarTask:
    """Tell the asked weighing as no longer asked for, so that it leaves the calendars that have it."""
    return CalendarTask(
        uid=_uid(tray, WEIGH_AGAIN), title=f"Weigh again: {tray.row.name}", due_at=_second(changed), changed_at=_second(changed),
        sequence=tray.state.seq, place=tray.row.place, cancelled=True,
    )  # fmt: skip


def _uid(tray: Tray, kind: str) -> str:
    return f"tray-{tray.row.id}-{tray.row.set_out_at:%Y%m%dT%H%M%S}-{kind}@rosy-kettle.invalid"


def _second(moment: datetime) -> datetime:
    return moment.astimezone(UTC).replace(microsecond=0)
