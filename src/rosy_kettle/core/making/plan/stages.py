"""When each stage happens: onwards from a start, or back from when it must be ready."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta, tzinfo

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.making.plan.air import MELTED
from rosy_kettle.core.making.plan.drying_span import drying_hours, least_hours
from rosy_kettle.core.making.plan.order import Order
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.models.fats.cooling import minutes_to
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Room, Tables

__all__ = ["PRE_DRY_H", "Schedule", "Stage", "make_schedule", "span_words"]

PREPARE_MIN = 15.0  # clear, wipe, paper, moulds, humidity [min]
WEIGH_MIN = 1.5  # a line [min]
MELT_MIN = 12.0  # butters in a water bath, a kilo [min]
MIX_MIN = 10.0  # a bowl [min]
REST_MIN = 10.0  # a kneaded dough drinks [min]
SHAPE_MIN = {
    "ball-mould": 1.2,
    "press": 0.8,
    "mould": 0.8,
    "scoop": 0.4,
    "cavity": 0.25,
    "cutter": 0.4,
    "roll-and-slice": 0.4,
    "pot": 0.3,
}
"""Minutes a piece, by tool; common practice, no published source, as all working times here."""
USUAL_SHAPE_MIN = 0.5
DECORATE_MIN, UNMOULD_MIN, PACK_MIN = 0.3, 0.3, 0.75  # a piece [min]
MOULDED = frozenset({"ball-mould", "mould", "cavity"})
DECORATED = frozenset({"decoration"})
NIGHT_FROM, NIGHT_TO = 22, 6  # hands are not at the bench [h, local]
PRE_DRY_H = 8.0  # a liquid surfactant dried into soda becomes powder again [h]; common practice


@dataclass(frozen=True, slots=True)
class Stage:
    """One stage on the line."""

    id: str
    name: str
    starts_at: datetime
    ends_at: datetime
    minutes: float
    hands: bool
    """Whether somebody has to be there."""
    why: str


@dataclass(frozen=True, slots=True)
class Schedule:
    """All stages with their times [UTC], and what stands against them."""

    stages: tuple[Stage, ...]
    starts_at: datetime
    ready_at: datetime
    latest_ready_at: datetime
    """Ready even if drying takes as long as it may."""
    promised: bool
    """False where it does not dry: then no time it is ready at can be said."""
    conflicts: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Span:
    id: str
    name: str
    minutes: float
    hands: bool
    why: str
    spare: float = 0.0
    """Minutes it may take longer."""
    known: bool = True
    """Whether it can be said how long it takes."""


def _work(id_: str, name: str, minutes: float, why: str) -> _Span:
    return _Span(id_, name, minutes, hands=True, why=why)


def _wait(id_: str, name: str, minutes: float, why: str, spare: float = 0.0) -> _Span:
    return _Span(id_, name, minutes, hands=False, why=why, spare=spare)


def make_schedule(
    formula: Formula, tables: Tables, order: Order, room: Room, now: datetime, *,
    start_at: datetime | None = None, ready_by: datetime | None = None, zone: tzinfo = UTC,
) -> Schedule:  # fmt: skip
    """Return the stages of a batch with their times.

    Parameters
    ----------
    formula : Formula
        The formula
    tables : Tables
        Reference tables
    order : Order
        How much is made, with which tools
    room : Room
        Air of the drying place; goes before the formula's own
    now : datetime
        This moment, with its offset
    start_at : datetime or None
        Begin then; None begins now, unless ``ready_by`` is given
    ready_by : datetime or None
        Packed by then, even if drying takes its longest
    zone : tzinfo
        The maker's, to know night from day

    Returns
    -------
    Schedule
        Times; conflicts are sentences: too late, does not dry, too stiff before all is shaped, hands at night
    """
    spans, conflicts = _spans(formula, tables, order, room)
    longest = timedelta(minutes=sum(span.minutes + span.spare for span in spans))
    if ready_by is not None:
        begin = ready_by - longest
        if begin < now:
            conflicts.append(
                f"Too late: it would have to have begun {span_words(now - begin)} ago. Beginning now, it is surely ready "
                f"{span_words(now + longest - ready_by)} after that."
            )
    else:
        begin = start_at or now
    at, stages = begin, []
    for span in spans:
        # Planned backwards, drying is given its longest: what comes after must not be early.
        minutes = span.minutes + (span.spare if ready_by is not None else 0.0)
        end = at + timedelta(minutes=minutes)
        stages.append(Stage(span.id, span.name, at, end, minutes, span.hands, span.why))
        at = end
    night = [s.name.lower() for s in stages if s.hands and _at_night(s, zone)]
    if night:
        conflicts.append(f"At night: {', '.join(night)}.")
    promised = all(span.known for span in spans)
    return Schedule(tuple(stages), begin, at, begin + longest, promised, tuple(conflicts))


def _spans(formula: Formula, tables: Tables, order: Order, room: Room) -> tuple[list[_Span], list[str]]:
    method = tables.method_of(formula)
    weighed, _ = weigh_formula(formula, tables)
    roles = {item.ingredient.role for item in weighed}
    pieces = sum(item.pieces for item in order.pieces)
    bowls = len(order.bowls_g)
    types = {tables.tools[item.tool].type for item in order.pieces if item.tool is not None}
    shape_min = sum(item.pieces * _shape_min(item.tool, tables) for item in order.pieces)
    spans = [
        _work("prepare", "Prepare", PREPARE_MIN, "bench, paper, moulds, humidity"),
        _work("weigh", "Weigh", WEIGH_MIN * len(weighed) * bowls, f"{len(weighed)} lines"),
    ]
    if method.dried_first:
        spans.append(_wait("pre-dry", "Dry the surfactant in", 60 * PRE_DRY_H, "until it is powder again"))
    if roles & MELTED:
        spans.append(_work("melt", "Melt", MELT_MIN * bowls, "butters and waxes, gently"))
    spans.append(_work("mix", "Mix", MIX_MIN * bowls, f"{bowls} bowl" + ("s" if bowls > 1 else "")))
    conflicts: list[str] = []
    cool = _cooling(formula, tables, order, room, shape_min / bowls)
    if cool is not None:
        wait, conflict = cool
        if wait > 0:
            spans.append(_wait("cool", "Cool", wait, "from the mixing temperature to the working window"))
        conflicts += [conflict] if conflict else []
    elif method.kneaded:
        spans.append(_wait("rest", "Rest", REST_MIN, "the powders drink"))
    spans.append(_work("shape", "Shape", shape_min, f"{pieces} pieces"))
    if roles & DECORATED:
        spans.append(_work("decorate", "Decorate", DECORATE_MIN * pieces, "while damp"))
    drying, conflict = _drying(formula, tables, room)
    spans.append(drying)
    if order.fillings > 1 and drying.known:
        held_min = drying.minutes * next((task.share for task in method.rack_tasks if task.kind == "unmould"), 1.0)
        often = f"{order.fillings} fillings of the same moulds, each out before the next"
        spans.append(_wait("fillings", "Fillings after the first", (order.fillings - 1) * held_min, often))
    conflicts += [conflict] if conflict else []
    if types & MOULDED:
        spans.append(_work("unmould", "Unmould", UNMOULD_MIN * pieces, f"{pieces} pieces"))
    spans.append(_work("pack", "Pack", PACK_MIN * pieces, "airtight, dry and weighed"))
    return spans, conflicts


def _shape_min(tool: str | None, tables: Tables) -> float:
    return USUAL_SHAPE_MIN if tool is None else SHAPE_MIN.get(tables.tools[tool].type, USUAL_SHAPE_MIN)


def _drying(formula: Formula, tables: Tables, room: Room) -> tuple[_Span, str]:
    found = drying_hours(evaluate(replace(formula, room=room), tables))
    air = f"{room.temperature_c:g} °C, {room.humidity_pct:g} % humidity"
    if isinstance(found, str):
        least_min = 60 * least_hours(formula, tables, room)
        unknown = replace(_wait("dry", "Dry or set", least_min, found), known=False)
        return unknown, f"It does not dry in {air}: {found}. No time can be promised."
    hours, most = found
    why = f"likely {hours:.0f} h, at most {most:.0f} h in {air}"
    return _wait("dry", "Dry or set", 60 * hours, why, 60 * (most - hours)), ""


def _cooling(formula: Formula, tables: Tables, order: Order, room: Room, shape_min: float) -> tuple[float, str] | None:
    """Minutes until the dough may be shaped, and whether it stays soft long enough; None where heat does not matter."""
    method = tables.method_of(formula)
    whole = evaluate(replace(formula, room=room), tables)
    found = whole.dough or whole.portions[0].dough
    if found is None or not (method.wet_c and method.kneaded):
        return None
    window, warm_c = found.working_window_c, found.mix_temperature_c
    if window is None or warm_c is None:
        return None
    weighed, _ = weigh_formula(formula, tables)
    mass_g = np.array([item.mass_g for item in weighed])
    mass_g *= order.bowls_g[0] / mass_g.sum()
    setting = setting_of(replace(formula, room=room), tables, float(mass_g.sum()))
    mix = setting.mix(make_palette([item.ingredient for item in weighed], tables.parameters), mass_g)
    ready = minutes_to(mix, warm_c, window[1], room.temperature_c, setting.bowl_j_k)
    stiff = minutes_to(mix, warm_c, window[0], room.temperature_c, setting.bowl_j_k)
    if ready is None:
        return 0.0, f"In this room the dough never cools to {window[1]:.0f} °C: shape it in a cooler place or chill it."
    wait = max(ready)
    if stiff is not None and min(stiff) < wait + shape_min:
        return wait, (
            f"Shaping takes about {shape_min:.0f} min, but the dough is too stiff {max(0.0, min(stiff) - wait):.0f} min after "
            "it is ready: make smaller bowls, or keep it warm."
        )
    return wait, ""


def _at_night(stage: Stage, zone: tzinfo) -> bool:
    for moment in (stage.starts_at, stage.ends_at):
        hour = moment.astimezone(zone).hour
        if hour >= NIGHT_FROM or hour < NIGHT_TO:
            return True
    return False


def span_words(span: timedelta) -> str:
    """Return a length of time in words: minutes up to an hour and a half, hours from there on.

    Parameters
    ----------
    span : timedelta
        Length of time

    Returns
    -------
    str
        Such as "40 min" or "26 h"
    """
    hours = span.total_seconds() / 3600
    return f"{hours:.0f} h" if hours >= 1.5 else f"{max(1, round(hours * 60))} min"  # noqa: PLR2004 - below that minutes read better
