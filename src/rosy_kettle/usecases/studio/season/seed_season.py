"""The season's batches: planned, made in the weather of their day, dried, and some of them gone wrong."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import func, insert, select
from sqlalchemy.orm import Session

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.making.bench import BenchStep, bench_steps, in_grams
from rosy_kettle.core.making.plan import sheet_of
from rosy_kettle.core.making.plan.piece_mass import piece_mass
from rosy_kettle.core.making.rack.air import Air
from rosy_kettle.core.making.rack.judge_tray import know_tray
from rosy_kettle.core.making.rack.tray import TrayState
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Room, Tables
from rosy_kettle.files import formula_to_file
from rosy_kettle.store.batches import BatchEventRow, BatchRow
from rosy_kettle.store.formulas import list_formulas, record_of
from rosy_kettle.store.rack import AirRow, TrayEventRow, TrayRow
from rosy_kettle.usecases.studio.season.shaping import shaped
from rosy_kettle.usecases.studio.season.truth import TRUTH, moment_of, weather
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["PIECE_G", "PlannedBowl", "plan_bowl", "seed_season"]

BOWL_G, PIECE_G, PAN = 1000.0, 60.0, 6
DOUGHS = ("Limpet domes", "Oar-blade slices", "Peat bricks")
SCOOPED = {"Limpet domes": "disher-20"}
"""What is shaped with a tool; all else is divided by hand."""
OTHERS = (
    "Larch resin pebbles",
    "Meadowsweet & oat melts",
    "Slipway rounds",
    "Gorse dust",
    "Net-loft pressed tablets",
    "Gale warning bar",
)
BATCHES, MENDED_G = 46, 8.0
DAYS_BEFORE_NOW = 12
"""The last batch of the season, so that the rack of today is not full of it."""
WETTER = (0.75, 1.0, 1.3)
"""How much of the written glycerin a dough is tried with."""
WEIGHED_AT = (0.0, 0.15, 0.35, 0.6, 0.85, 1.05, 1.2)
"""Shares of the hours a tray truly takes."""
DRIES_UNEVENLY, SCALE_SHAKE_G = 0.08, 0.04
WENT_WELL = ("slow and rich", "stood well, a thin ring", "as good as the last ones", "the scent holds", "", "", "")
WENT_WRONG = {
    "dry": (4, "four cracked on the second day, dry to the hand from the start"),
    "damp": (3, "never quite dried in that week's air, three stuck to the paper"),
    "wet": (2, "two slumped on the tray, soft in the middle"),
    "puffed": (5, "five puffed out of the mould overnight"),
}
DAMP_PCT = 64.0


@dataclass(frozen=True, slots=True)
class PlannedBowl:
    """One bowl of a formula, planned."""

    formula_id: int
    name: str
    made: Formula
    plan: dict[str, Any]
    steps: tuple[BenchStep, ...]


def seed_season(session: Session, now: datetime) -> None:
    """Put the year in: rows dated as they came to be, told by the truth of the studio and not by its tables."""
    chance = random.Random(46)  # noqa: S311 - demo noise, no secret
    end = now - timedelta(days=DAYS_BEFORE_NOW)
    begin = end - timedelta(days=365 - DAYS_BEFORE_NOW)
    tables, truth = studio_tables(session, {}), studio_tables(session, TRUTH)
    formulas = {row.name: row for row in list_formulas(session)}
    for number, row in enumerate(formulas.values()):
        row.created_at = row.working.created_at = begin - timedelta(days=3)
        row.updated_at = now - timedelta(hours=number)  # looked through lately, in the order they are listed in
    plans: dict[tuple[str, float], PlannedBowl] = {}
    for number in range(BATCHES):
        name = OTHERS[number // 4 % len(OTHERS)] if number % 4 == 3 else DOUGHS[number % 4]  # noqa: PLR2004 - one in four
        wetter = chance.choice(WETTER) if name in DOUGHS else 1.0
        if (name, wetter) not in plans:
            made = _wetted(in_grams(record_of(formulas[name]), tables, BOWL_G), wetter)
            plans[name, wetter] = plan_bowl(formulas[name].id, made, tables)
        at = moment_of((number + 0.5) / BATCHES, begin, end, chance)
        _make(session, plans[name, wetter], wetter, at, weather(at, chance), truth, chance)
    _log_air(session, begin, end, chance)


def plan_bowl(formula_id: int, made: Formula, tables: Tables) -> PlannedBowl:
    """Plan one bowl of a formula in grams, as its own file."""
    batch_g = sum(float(line.amount) for line in made.lines)
    tool = SCOOPED.get(made.name)
    given_g = PIECE_G if tool is None else None
    piece_g, basis = piece_mass(made, tables, weigh_formula(made, tables)[0], given_g, tool, "level")
    pieces = int(batch_g // piece_g)
    steps = bench_steps(made, tables, sheet_of(made, tables, batch_g, pieces, piece_g, basis, {}))
    plan = {
        "formula": formula_to_file(made).model_dump(mode="json"),
        "pieces": [{
            "name": "pieces", "tool": tool, "pieces": pieces, "piece_mass_g": piece_g, "basis": basis, "scoop_fill": "level",
        }],
        "bowl": 1, "bowls": 1, "first": None, "capacity_g": None, "schools": {}, "steps": [asdict(step) for step in steps],
    }  # fmt: skip
    return PlannedBowl(formula_id, made.name, made, plan, steps)


def _wetted(made: Formula, factor: float) -> Formula:
    """Return a formula with more or less of its glycerin."""
    portions = tuple(
        replace(portion, lines=tuple(
            replace(line, amount=f"{float(line.amount) * factor:.1f}") if line.ingredient == "glycerin" else line
            for line in portion.lines
        ))
        for portion in made.portions
    )  # fmt: skip
    return replace(made, portions=portions)


def _make(
    session: Session, planned: PlannedBowl, wetter: float, at: datetime, room: Room, truth: Tables, chance: random.Random
) -> None:
    """Write one batch with its day at the bench, and its tray."""
    made = replace(planned.made, room=room)
    told = evaluate(made, truth)
    dough = told.dough or told.portions[0].dough
    state = "play dough" if dough is None or dough.state is None else dough.state
    fault = _fault(state, room, planned, chance)
    events = list(
        _day(planned, wetter, at, room, state, room.temperature_c if dough is None else dough.temperature_c, fault, truth, chance)
    )
    batch_id = _next(session, BatchRow)
    session.execute(insert(BatchRow).values(
        id=batch_id, formula_id=planned.formula_id, version=1, name=planned.name, method=planned.made.method,
        batch_g=sum(float(line.amount) for line in made.lines), plan=planned.plan, created_at=at, closed_at=events[-1][0],
    ))  # fmt: skip
    session.execute(insert(BatchEventRow), [
        {"batch_id": batch_id, "seq": seq, "at": moment, "kind": kind, "data": data}
        for seq, (moment, kind, data) in enumerate(events, start=1)
    ])  # fmt: skip
    _dry(session, batch_id, planned, events[-1][0], room, truth, chance)


def _next(session: Session, row: type[Any]) -> int:
    return int(session.scalar(select(func.max(row.id))) or 0) + 1


def _fault(state: str, room: Room, planned: PlannedBowl, chance: random.Random) -> str | None:
    """Return what goes wrong with a batch, if anything does: the state of its dough and the air decide, and a little luck."""
    if room.humidity_pct >= DAMP_PCT:
        damp = "puffed" if any(line.ingredient == "citric-acid-anhydrous" for line in planned.made.lines) else "damp"
        return chance.choice((damp, damp, None))
    if state in {"crumbly dough", "damp sand"} and planned.made.method.endswith("dough"):
        return chance.choice(("dry", None))
    return chance.choice(("wet", None)) if state in {"sticky", "batter"} else None


def _day(
    planned: PlannedBowl,
    wetter: float,
    at: datetime,
    room: Room,
    state: str,
    dough_c: float,
    fault: str | None,
    truth: Tables,
    chance: random.Random,
) -> Iterator[tuple[datetime, str, dict[str, Any]]]:
    """Yield what happened at the bench, a minute or so apart."""
    moment, poured_g = at, 0.0
    if wetter != 1.0:
        yield (
            moment,
            "note",
            {"text": f"Tried with {abs(wetter - 1):.0%} {'less' if wetter < 1 else 'more'} glycerin than written."},
        )
    for step in planned.steps:
        moment += timedelta(seconds=chance.randrange(50, 130))
        if step.kind == "conditions":
            yield moment, "conditions", {
                "step": step.key, "room_c": room.temperature_c, "humidity_pct": room.humidity_pct, "tap": "moderate",
            }  # fmt: skip
        elif step.kind == "weigh":
            off = chance.uniform(-0.8, 0.8) * (step.tolerance_g or 0.0)
            actual_g = round((step.target_g or 0.0) + off, 1)
            poured_g += actual_g
            yield moment, "weighed", {"step": step.key, "actual_g": actual_g, "source": "scale"}
        else:
            if step.kind == "feel":
                yield moment, "temperature", {"step": step.key, "value_c": dough_c, "source": "thermometer"}
                yield moment, "felt", {"state": state, "predicted": "play dough"}
                if state == "crumbly dough" and fault is None:
                    poured_g += MENDED_G
                    yield moment, "corrected", {"ingredient": "glycerin", "mass_g": MENDED_G, "why": "felt crumbly"}
                    yield moment, "felt", {"state": "play dough", "predicted": "play dough"}
            if step.kind == "shape":
                yield from (
                    (moment, kind, data) for kind, data in shaped(planned.plan["pieces"][0], planned.made, poured_g, truth)
                )
            yield moment, "done", {"step": step.key}
    spoiled, remark = (0, chance.choice(WENT_WELL)) if fault is None else WENT_WRONG[fault]
    pieces = planned.plan["pieces"][0]["pieces"]
    moment += timedelta(days=2)
    yield moment, "outcome", {"pieces_good": pieces - spoiled, "pieces_spoiled": spoiled, "remarks": remark}
    yield moment + timedelta(minutes=1), "closed", {}


def _dry(
    session: Session, batch_id: int, planned: PlannedBowl, closed: datetime, room: Room, truth: Tables, chance: random.Random
) -> None:
    """Set the pieces out, weigh six of them along the curve they truly dry on, and wrap them."""
    out = closed - timedelta(days=2)
    placed = replace(planned.made, room=room)
    known = know_tray(TrayState(), placed, truth, [Air(out.isoformat(), room.temperature_c, room.humidity_pct)])
    hours, prior = known.prior.hours, known.prior
    if hours is None:
        return
    unevenly = math.exp(chance.gauss(0, DRIES_UNEVENLY))
    tray_id, end = _next(session, TrayRow), out + timedelta(hours=1.25 * hours * unevenly)
    session.execute(insert(TrayRow).values(
        id=tray_id, batch_id=batch_id, name=planned.name, formula=planned.plan["formula"], place="rack",
        pieces=planned.plan["pieces"][0]["pieces"], trays=1, set_out_at=out, wrapped_at=end,
    ))  # fmt: skip
    events = []
    for share in _weighings(planned):
        left = 1 - prior.share + prior.share * math.exp(-share * hours / prior.tau_h)
        mass_g = round(PAN * planned.plan["pieces"][0]["piece_mass_g"] * left + chance.gauss(0, SCALE_SHAKE_G), 1)
        events.append((out + timedelta(hours=share * hours * unevenly), "weighed", {
            "mass_g": mass_g, "pieces": PAN, "step_g": 0.1, "source": "scale",
        }))  # fmt: skip
    events.append((end, "wrapped", {}))
    session.execute(insert(TrayEventRow), [
        {"tray_id": tray_id, "seq": seq, "at": moment, "kind": kind, "data": data}
        for seq, (moment, kind, data) in enumerate(events, start=1)
    ])  # fmt: skip


def _weighings(planned: PlannedBowl) -> Sequence[float]:
    """Doughs are weighed until they are dry; what only sets is not weighed at all."""
    return WEIGHED_AT if planned.name in DOUGHS else ()


def _log_air(session: Session, begin: datetime, end: datetime, chance: random.Random) -> None:
    """Log the rack's air once a day in the morning."""
    days = int((end - begin).total_seconds() // 86400)
    rooms = [(begin + timedelta(days=day), weather(begin + timedelta(days=day), chance)) for day in range(days)]
    session.execute(insert(AirRow), [
        {
            "place": "rack", "at": at, "temperature_c": room.temperature_c, "humidity_pct": room.humidity_pct,
            "source": "hygrometer",
        }
        for at, room in rooms
    ])  # fmt: skip
