"""A made-up, plausible history of any length, so that lists, search and start can be measured on ten years of work.

The same seed makes the same studio. Nothing of it is anyone's: names are drawn from two lists of words, figures from the demo's
formulas with noise.
"""

from __future__ import annotations

import json
import math
import random
from collections.abc import Callable, Iterator
from dataclasses import asdict, dataclass, replace
from datetime import UTC, datetime, timedelta
from importlib.resources import files
from multiprocessing import get_context
from pathlib import Path
from typing import Any

from sqlalchemy import func, insert, select
from sqlalchemy.orm import Session

from rosy_kettle.core.making.bench import bench_steps, in_grams
from rosy_kettle.core.making.plan import sheet_of
from rosy_kettle.core.records import Formula, Portion, Tables
from rosy_kettle.files import formula_to_file
from rosy_kettle.files.formula_file import formula_file_from_data
from rosy_kettle.store import Studio, open_studio
from rosy_kettle.store.batches import BatchEventRow, BatchRow
from rosy_kettle.store.formulas import FormulaRow, find_formula, record_of
from rosy_kettle.store.ingredients import OwnIngredientRow
from rosy_kettle.store.journal import JournalRow
from rosy_kettle.store.rack import TrayEventRow, TrayRow
from rosy_kettle.usecases.formulas.check_formula import check_formula
from rosy_kettle.usecases.formulas.save_formula import store_new_formula
from rosy_kettle.usecases.studio.keep_up import judge_formulas, keep_up, tell_journal
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["Growth", "grow_studio"]

YEARS_BEGIN, YEARS_END = datetime(2016, 11, 1, 8, tzinfo=UTC), datetime(2026, 11, 1, 18, tzinfo=UTC)
FIRST = ("Rain", "Kelp", "Gorse", "Peat", "Slate", "Thrift", "Marram", "Squall", "Limpet", "Sorrel", "Driftwood", "Lichen")
SECOND = ("scoop", "bar", "melt", "pebble", "slice", "dome", "brick", "tablet", "round", "dust", "truffle", "button")
REMARKS = (
    "slow and rich", "stood well, a thin ring", "two cracked on the second day", "a little soft at the edge",
    "the scent is faint", "foam gone after ten minutes", "dry a day early", "stuck in the mould", "as good as the last ones",
    "", "", "",
)  # fmt: skip
MADE_OFTEN = 200  # formulas that batches are made of, each planned once
BOWL_G, PIECE_G = 1000.0, 60.0
AT_ONCE = 20_000  # rows written in one go
STAND_STILL = 8  # trays that are still on the rack


@dataclass(frozen=True, slots=True)
class Growth:
    """How many of each there are afterwards."""

    formulas: int
    batches: int
    weigh_ins: int
    journal_entries: int


def grow_studio(
    studio: Studio, formulas: int, batches: int, weigh_ins: int, seed: int, tell: Callable[[str], None] = lambda _said: None
) -> Growth:
    """Fill a studio with a made-up history and keep up its lists and its journal; ``tell`` hears how far it is."""
    chance = random.Random(seed)  # noqa: S311 - made-up data, no secret
    tell("formulas")
    made = _grow_formulas(studio, formulas, chance)
    judging = get_context("spawn").Process(
        target=_judge_beside, args=(studio.path.parent,)
    )  # on another core, while the rest is written
    judging.start()
    tell("batches")
    plans = _plans(studio, made[:MADE_OFTEN], chance) if batches or weigh_ins else []
    numbers = _grow_batches(studio, plans, batches, chance)
    tell("weigh-ins")
    _grow_trays(studio, numbers, weigh_ins, chance)
    tell("journal")
    tell_journal(studio, at_once=AT_ONCE)
    tell("lists")
    judging.join()
    keep_up(studio)
    return _counts(studio)


def _judge_beside(folder: Path) -> None:
    studio = open_studio(folder)
    judge_formulas(studio)
    studio.close()


def _counts(studio: Studio) -> Growth:
    with studio.reading() as session:

        def count(row: Any, *where: Any) -> int:
            return session.scalar(select(func.count()).select_from(row).where(*where)) or 0

        return Growth(count(FormulaRow), count(BatchRow), count(TrayEventRow, TrayEventRow.kind == "weighed"), count(JournalRow))


def _grow_formulas(studio: Studio, count: int, chance: random.Random) -> list[int]:
    data = json.loads((files("rosy_kettle.demo") / "studio.json").read_text(encoding="utf-8"))
    found: list[int] = []
    with studio.writing() as session:
        for own in data["ingredients"]:
            session.merge(OwnIngredientRow(**own))
        session.flush()
        tables = studio_tables(session)
        templates = [check_formula(formula_file_from_data(each), tables) for each in data["formulas"]]
    for begin in range(0, count, 500):
        with studio.writing() as session:
            for number in range(begin, min(count, begin + 500)):
                row = store_new_formula(session, _shaken(chance.choice(templates), number, chance), tables)
                at = YEARS_BEGIN + (YEARS_END - YEARS_BEGIN) * (number / count)
                row.created_at = row.updated_at = row.working.created_at = at
                found.append(row.id)
            session.flush()
            session.expunge_all()
    return found


def _shaken(formula: Formula, number: int, chance: random.Random) -> Formula:
    """Return a formula with its own name, and its grams a little otherwise."""

    def line(each: Any) -> Any:
        if each.unit != "g":
            return each
        try:
            return replace(each, amount=f"{float(each.amount) * chance.uniform(0.85, 1.15):.1f}")
        except ValueError:
            return each

    portions = tuple(
        Portion(p.name, tuple(line(each) for each in p.lines), p.share_pct, p.mass_g, p.split) for p in formula.portions
    )  # fmt: skip
    return replace(formula, name=f"{chance.choice(FIRST)} {chance.choice(SECOND)} {number + 1}", portions=portions)


@dataclass(frozen=True, slots=True)
class _Planned:
    formula_id: int
    name: str
    method: str
    made: dict[str, Any]
    plan: dict[str, Any]
    steps: tuple[Any, ...]


_Made = tuple[int, _Planned, datetime]
"""Number, plan and moment of a batch."""


def _plans(studio: Studio, formula_ids: list[int], chance: random.Random) -> list[_Planned]:
    """Plan a bowl of each formula that is made often."""
    found = []
    with studio.reading() as session:
        tables = studio_tables(session)
        for formula_id in formula_ids:
            row = find_formula(session, formula_id)
            planned = in_grams(record_of(row), tables, BOWL_G)
            found.append(_planned(row.id, planned, tables))
    chance.shuffle(found)
    return found


def _planned(formula_id: int, planned: Formula, tables: Tables) -> _Planned:
    pieces = int(BOWL_G // PIECE_G)
    sheet = sheet_of(planned, tables, BOWL_G, pieces, PIECE_G, "given", {})
    steps = bench_steps(planned, tables, sheet)
    file = formula_to_file(planned).model_dump(mode="json")
    plan = {
        "formula": file, "pieces": [{"name": "pieces", "tool": None, "pieces": pieces, "piece_mass_g": PIECE_G}],
        "bowl": 1, "bowls": 1, "first": None, "capacity_g": None, "schools": {}, "steps": [asdict(step) for step in steps],
    }  # fmt: skip
    return _Planned(formula_id, planned.name, planned.method, file, plan, steps)


def _grow_batches(studio: Studio, plans: list[_Planned], count: int, chance: random.Random) -> list[_Made]:
    """Write batches over the years, each with its day at the bench; return number, plan and moment of each."""
    found: list[_Made] = []
    with studio.reading() as session:
        first = (session.scalar(select(func.max(BatchRow.id))) or 0) + 1
    for begin in range(0, count, 1000):
        batches, events = [], []
        for number in range(begin, min(count, begin + 1000)):
            planned = plans[int(len(plans) * chance.random() ** 2)]
            at = YEARS_BEGIN + (YEARS_END - YEARS_BEGIN) * ((number + 1) / (count + 1))
            id_ = first + number
            batches.append({
                "id": id_, "formula_id": planned.formula_id, "version": 1, "name": planned.name, "method": planned.method,
                "batch_g": BOWL_G, "plan": planned.plan, "created_at": at, "closed_at": at + timedelta(hours=4),
            })  # fmt: skip
            events += [
                {"batch_id": id_, "seq": seq, "at": moment, "kind": kind, "data": data}
                for seq, (moment, kind, data) in enumerate(_day(planned, at, chance), start=1)
            ]
            found.append((id_, planned, at))
        with studio.writing() as session:
            _write(session, BatchRow, batches)
            _write(session, BatchEventRow, events)
    return found


def _day(planned: _Planned, at: datetime, chance: random.Random) -> Iterator[tuple[datetime, str, dict[str, Any]]]:
    """Yield what happened to a batch at the bench, one minute after the other."""
    moment = at
    season = math.cos(2 * math.pi * (at.timetuple().tm_yday - 20) / 365)
    humidity, spoiled = round(55 - 8 * season + chance.uniform(-8, 8), 1), chance.choice((0, 0, 0, 0, 1, 3))
    for step in planned.steps:
        moment += timedelta(minutes=1)
        if step.kind == "conditions":
            yield moment, "conditions", {"step": step.key, "room_c": round(18 - 3 * season, 1), "humidity_pct": humidity}
        elif step.kind == "weigh":
            actual_g = round(step.target_g + chance.uniform(-0.9, 0.9) * step.tolerance_g, 1)
            yield moment, "weighed", {"step": step.key, "actual_g": actual_g, "source": "scale"}
        else:
            if step.kind == "feel":
                felt = chance.choice(("play dough", "play dough", "play dough", "crumbly dough", "sticky"))
                yield moment, "felt", {"state": felt, "predicted": "play dough"}
                if felt == "crumbly dough":
                    yield moment, "corrected", {"ingredient": "glycerin", "mass_g": 6.0, "why": "felt crumbly"}
            yield moment, "done", {"step": step.key}
    pieces = planned.plan["pieces"][0]["pieces"]
    yield moment, "outcome", {"pieces_good": pieces - spoiled, "pieces_spoiled": spoiled, "remarks": chance.choice(REMARKS)}
    yield moment + timedelta(minutes=1), "closed", {}


def _grow_trays(studio: Studio, batches: list[_Made], count: int, chance: random.Random) -> None:
    """Set the pieces of batches out, weigh each tray as often as it takes, and wrap all but the last."""
    if not count or not batches:
        return
    with studio.reading() as session:
        first = (session.scalar(select(func.max(TrayRow.id))) or 0) + 1
    each, more = divmod(count, len(batches))
    trays, events = [], []
    for number, (batch_id, planned, at) in enumerate(batches):
        weighings, out = each + (number < more), at + timedelta(hours=4)
        still = number >= len(batches) - STAND_STILL
        end = out + timedelta(hours=48)
        trays.append({
            "id": first + number, "batch_id": batch_id, "name": planned.name, "formula": planned.made, "place": "rack",
            "pieces": planned.plan["pieces"][0]["pieces"], "trays": 1, "set_out_at": out, "wrapped_at": None if still else end,
        })  # fmt: skip
        tau_h, lost = chance.uniform(8, 20), chance.uniform(0.01, 0.05)
        for seq in range(weighings):
            hours = 46.0 * seq / max(1, weighings)
            mass_g = 6 * PIECE_G * (1 - lost * (1 - math.exp(-hours / tau_h))) + chance.gauss(0, 0.05)
            events.append({
                "tray_id": first + number, "seq": seq + 1, "at": out + timedelta(hours=hours), "kind": "weighed",
                "data": {"mass_g": round(mass_g, 1), "pieces": 6, "step_g": 0.1, "source": "scale"},
            })  # fmt: skip
        if not still:
            events.append({"tray_id": first + number, "seq": weighings + 1, "at": end, "kind": "wrapped", "data": {}})
        if len(events) >= AT_ONCE or number == len(batches) - 1:
            with studio.writing() as session:
                _write(session, TrayRow, trays)
                _write(session, TrayEventRow, events)
            trays, events = [], []


def _write(session: Session, row: Any, values: list[dict[str, Any]]) -> None:
    if values:
        session.execute(insert(row.__table__), values)
