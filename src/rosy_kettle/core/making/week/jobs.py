"""Batches of a week as spans of whole hours, and whether a start keeps every rule."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.week.clock_hours import ClockHour

__all__ = ["Job", "Workshop", "feasible_starts", "kept_rules", "uses_of"]

DAY_H = 24
EVENING_FROM_MIN = 18 * 60
LONGEST_WEEK_H = 24 * 42


@dataclass(frozen=True, slots=True)
class Job:
    """One batch: hours of hands in one piece, then hours on the rack."""

    id: str
    name: str
    hands_h: int
    """Hours from clearing the bench to the last piece shaped [h]."""
    dry_h: int
    """Hours until it may be packed [h]."""
    trays: int
    bowl: bool = True
    moulds: Mapping[str, int] = field(default_factory=dict)
    """By tool, held until it is dry [-]."""
    due_h: int | None = None
    """Packed by then, hours from the beginning of the week; None whenever it fits [h]."""
    fixed_h: int | None = None
    """Begins then: dragged there, or begun already [h]."""


@dataclass(frozen=True, slots=True)
class Workshop:
    """What the batches share, on a line of hours that begins at midnight of the first day."""

    open_h: Collection[int]
    """Hours in which hands may work, from the beginning of the week [h]."""
    hands: int
    bowls: int
    trays_free: Sequence[int]
    """Trays that are not taken, for every hour of the week [-]."""
    moulds: Mapping[str, int] = field(default_factory=dict)
    """By tool; one that is not in it has not been counted, and does not hold anything up [-]."""
    clock: Sequence[ClockHour] = ()
    """What the clock shows as each hour begins; empty where every day has 24."""

    @property
    def hours(self) -> int:
        """Length of the week [h]."""
        return len(self.trays_free)

    def shown_at(self, hour: int) -> ClockHour:
        """Return what the clock shows as an hour of the week begins."""
        return self.clock[hour] if hour < len(self.clock) else ClockHour(hour // DAY_H, 60 * (hour % DAY_H))


def feasible_starts(job: Job, shop: Workshop, *, due: bool = True) -> list[int]:
    """Return the hours a batch could begin in if it were alone.

    Parameters
    ----------
    job : Job
        The batch
    shop : Workshop
        Hours, hands, bowls, trays and moulds there are
    due : bool
        Whether it has to be dry by its day

    Returns
    -------
    list of int
        Hours from the beginning of the week [h]

    Raises
    ------
    InputError
        If the week is too long, or the workshop is never open.
    """
    if shop.hours > LONGEST_WEEK_H:
        raise InputError("Six weeks are planned at most.", quantity="days")
    if not shop.open_h:
        raise InputError("The workshop has no hours: say when hands may work.", quantity="open_hours")
    last = shop.hours - job.hands_h - job.dry_h
    by = last if job.due_h is None or not due else min(last, job.due_h - job.hands_h - job.dry_h)
    if job.fixed_h is not None:
        return [job.fixed_h] if 0 <= job.fixed_h <= last else []
    opened = set(shop.open_h)
    return [
        start for start in sorted(opened)
        if start <= by and all(start + hour in opened for hour in range(job.hands_h))
        and shop.shown_at(start).day == shop.shown_at(start + job.hands_h - 1).day
        and all(job.trays <= shop.trays_free[hour] for hour in range(start + job.hands_h, start + job.hands_h + job.dry_h))
        and all(count <= shop.moulds.get(tool, count) for tool, count in job.moulds.items())
    ]  # fmt: skip


def uses_of(job: Job, start: int) -> dict[tuple[str, int], int]:
    """Return what a batch takes in which hour, if it begins at one.

    Parameters
    ----------
    job : Job
        The batch
    start : int
        Hour from the beginning of the week [h]

    Returns
    -------
    dict
        Hands, bowls, trays and moulds by the hour
    """
    found: dict[tuple[str, int], int] = {}
    end = start + job.hands_h
    for hour in range(start, end):
        found["hands", hour] = 1
        if job.bowl:
            found["bowls", hour] = 1
    for hour in range(end, end + job.dry_h):
        found["trays", hour] = job.trays
    for tool, count in job.moulds.items():
        for hour in range(start, end + job.dry_h):
            found[f"mould {tool}", hour] = count
    return found


def limit_of(shop: Workshop, what: str, hour: int) -> int | None:
    """Return how much of something there is in an hour; None where nobody has counted it.

    Parameters
    ----------
    shop : Workshop
        What there is
    what : str
        hands, bowls, trays or a mould
    hour : int
        Hour from the beginning of the week [h]
    """
    if what == "trays":
        return shop.trays_free[hour] if hour < shop.hours else None
    if what in {"hands", "bowls"}:
        return shop.hands if what == "hands" else shop.bowls
    return shop.moulds.get(what.removeprefix("mould "))


def kept_rules(jobs: Sequence[Job], starts: Mapping[str, int], shop: Workshop) -> list[str]:
    """Return what a plan of a week breaks, by looking at every hour of it; nothing where it keeps all rules.

    Parameters
    ----------
    jobs : Sequence
        The batches
    starts : Mapping
        Hour each of them begins in, by its id; one that is left out is not made [h]
    shop : Workshop
        What there is

    Returns
    -------
    list of str
        One sentence for each rule that is broken
    """
    broken: list[str] = []
    taken: dict[tuple[str, int], int] = {}
    for job in jobs:
        if job.id not in starts:
            continue
        start = starts[job.id]
        if job.fixed_h is None:
            if any(start + hour not in shop.open_h for hour in range(job.hands_h)):
                broken.append(f"{job.name} needs hands when the workshop is closed.")
            if job.due_h is not None and start + job.hands_h + job.dry_h > job.due_h:
                broken.append(f"{job.name} is not dry by its day.")
        for key, count in uses_of(job, start).items():
            taken[key] = taken.get(key, 0) + count
    for (what, hour), count in sorted(taken.items(), key=lambda each: (each[0][0], each[0][1])):
        limit = limit_of(shop, what, hour)
        if limit is not None and count > limit:
            broken.append(f"Hour {hour}: {count} {what} are taken, there are {limit}.")
    return broken
