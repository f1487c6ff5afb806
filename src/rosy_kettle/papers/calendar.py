"""Tasks of the rack, days of orders and hours at the bench as an iCalendar file (RFC 5545)."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import timedelta

from icalendar import Alarm, Calendar, Event

from rosy_kettle.core.making.rack.calendar_task import CalendarTask

__all__ = ["calendar_of"]

ALARM_BEFORE = timedelta(minutes=-5)


def calendar_of(tasks: Sequence[CalendarTask]) -> bytes:
    """Return the tasks as one calendar; what is done is told as cancelled, so that it leaves the calendars that have it.

    Parameters
    ----------
    tasks : sequence of CalendarTask
        In any order

    Returns
    -------
    bytes
        UTF-8, lines ended and folded as RFC 5545, 3.1 asks

    References
    ----------
    .. [1] RFC 5545, Internet Calendaring and Scheduling Core Object Specification: 3.6.1, 3.6.6, 3.8.1.11, 3.8.4.7, 3.8.7.4.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Rosy Kettle//Rack//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", "Rosy Kettle, rack")
    for task in tasks:
        calendar.add_component(_event(task))
    return bytes(calendar.to_ical())


def _event(task: CalendarTask) -> Event:
    event = Event()
    event.add("uid", task.uid)
    event.add("summary", task.title)
    event.add("dtstamp", task.changed_at)
    event.add("last-modified", task.changed_at)
    event.add("dtstart", task.due_at)
    event.add("dtend", task.due_at + timedelta(minutes=task.lasts_min))
    event.add("sequence", task.sequence)
    event.add("status", "CANCELLED" if task.cancelled else "CONFIRMED")
    event.add("location", task.place)
    if not task.cancelled:
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", task.title)
        alarm.add("trigger", ALARM_BEFORE)
        event.add_component(alarm)
    return event
