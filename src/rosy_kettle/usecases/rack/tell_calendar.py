"""The rack's tasks for a calendar."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from sqlalchemy.orm import Session

from rosy_kettle.core.making.rack.calendar_task import CalendarTask
from rosy_kettle.store.formulas import find_formula_ever
from rosy_kettle.store.orders import list_orders
from rosy_kettle.usecases.rack.run_rack import Tray, look_at_trays

__all__ = ["tell_calendar"]

MOST_TRAYS = 200
MOST_ORDERS = 200
TOLD_FOR = timedelta(days=14)
"""How long a wrapped tray is still told, so that calendars hear that its tasks are done."""


def tell_calendar(session: Session) -> list[CalendarTask]:
    """Return every task of the rack, those of trays wrapped of late among them."""
    trays = look_at_trays(session, wrapped=False, query="", before=None, limit=MOST_TRAYS)
    since = datetime.now(UTC) - TOLD_FOR
    wrapped = look_at_trays(session, wrapped=True, query="", before=None, limit=MOST_TRAYS)
    trays += [each for each in wrapped if each.row.wrapped_at is not None and each.row.wrapped_at > since]
    return [task for tray in trays for task in _tasks(tray)] + _orders(session)


def _orders(session: Session) -> list[CalendarTask]:
    """Orders with a day: what is still open, and of late what was made or cancelled."""
    rows = list_orders(session, query="", state=None, before=None, limit=MOST_ORDERS)
    names = {row.formula_id: find_formula_ever(session, row.formula_id).name for row in rows}
    return [
        CalendarTask(
            uid=f"order-{row.id}-{row.created_at:%Y%m%dT%H%M%S}@rosy-kettle.invalid",
            title=f"{row.pieces} {names[row.formula_id]} for {row.who}", due_at=_second(row.due_at),
            changed_at=_second(row.created_at), sequence=0 if row.state == "open" else 1, place="", cancelled=row.state != "open",
        )
        for row in rows if row.due_at is not None
    ]  # fmt: skip


def _tasks(tray: Tray) -> list[CalendarTask]:
    changed = datetime.fromisoformat(tray.events[-1].at) if tray.events else tray.row.set_out_at
    return [
        CalendarTask(
            uid=f"tray-{tray.row.id}-{tray.row.set_out_at:%Y%m%dT%H%M%S}-{task.kind}@rosy-kettle.invalid",
            title=f"{task.title}: {tray.row.name}", due_at=_second(datetime.fromisoformat(task.due_at)),
            changed_at=_second(changed), sequence=tray.state.seq, place=tray.row.place,
            cancelled=task.done_at is not None or tray.row.wrapped_at is not None,
        )
        for task in tray.reading.tasks
    ]  # fmt: skip


def _second(moment: datetime) -> datetime:
    return moment.astimezone(UTC).replace(microsecond=0)
