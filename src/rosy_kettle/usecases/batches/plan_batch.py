"""From a stored formula to a plan: batch, bowls, pieces, needs, times and the run sheet of one bowl."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, tzinfo

from sqlalchemy.orm import Session

from rosy_kettle.core.clinic.forewarn import LikelyTrouble, forewarn, with_outcomes
from rosy_kettle.core.making.plan import Order, RunSheet, Schedule, Wish, make_schedule, plan_order, sheet_of
from rosy_kettle.core.making.stock.lots import LotWord
from rosy_kettle.core.records import Formula, Room, Tables
from rosy_kettle.reference import load_troubles
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.lots import list_stock
from rosy_kettle.store.moulds import list_moulds
from rosy_kettle.store.rack import list_places, trays_taken
from rosy_kettle.store.troubles import list_outcomes
from rosy_kettle.usecases.pantry.keep_lots import lots_to_use, said_of
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["BatchPlan", "Outline", "PlanAsk", "needs_of_order", "outline_batch", "plan_batch"]


@dataclass(frozen=True, slots=True)
class PlanAsk:
    """What is wanted, of what, when, in which air."""

    wishes: Sequence[Wish]
    mass_g: float | None = None
    capacity_g: float | None = None
    room: Room | None = None
    start_at: datetime | None = None
    ready_by: datetime | None = None
    zone: tzinfo = UTC
    """The maker's, to know night from day."""
    schools: Mapping[str, str] = field(default_factory=dict)
    """Option by school, where it is not made as usual."""


@dataclass(frozen=True, slots=True)
class BatchPlan:
    """All that is planned."""

    formula_id: int
    name: str
    order: Order
    schedule: Schedule
    run_sheet: RunSheet
    """Of one bowl."""
    jars: tuple[LotWord, ...]
    """What is to be said of the jars it would be taken from: expired, nearly out, open for long."""
    troubles: tuple[LikelyTrouble, ...]
    """The likeliest troubles of this formula in this room, with what would lower each."""


@dataclass(frozen=True, slots=True)
class Outline:
    """How much and when: what the week and the shopping list ask of a plan."""

    formula: Formula
    order: Order
    schedule: Schedule


def outline_batch(session: Session, formula_id: int, ask: PlanAsk, tables: Tables) -> Outline:
    """Return order and stages of a stored formula.

    Raises
    ------
    InputError
        If a wish cannot be meant.
    NotFoundError
        If there is no such formula.
    """
    formula = record_of(find_formula(session, formula_id))
    if ask.room is not None:
        formula = replace(formula, room=ask.room)
    order = plan_order(formula, tables, ask.wishes, ask.mass_g, ask.capacity_g, list_stock(session), list_moulds(session))
    schedule = make_schedule(
        formula, tables, order, formula.room, datetime.now(UTC), start_at=ask.start_at, ready_by=ask.ready_by,
        zone=ask.zone,
    )  # fmt: skip
    return Outline(formula, order, schedule)


def needs_of_order(session: Session, formula_id: int, wish: Wish, tables: Tables) -> Order:
    """Return what an order takes, without its times.

    Raises
    ------
    InputError
        If a wish cannot be meant.
    NotFoundError
        If there is no such formula.
    """
    formula = record_of(find_formula(session, formula_id))
    return plan_order(formula, tables, [wish], None, None, list_stock(session), list_moulds(session))


def plan_batch(session: Session, formula_id: int, ask: PlanAsk) -> BatchPlan:
    """Return the plan of a stored formula.

    Raises
    ------
    InputError
        If a wish cannot be meant.
    NotFoundError
        If there is no such formula.
    """
    tables = studio_tables(session)
    outline = outline_batch(session, formula_id, ask, tables)
    formula, order, schedule = outline.formula, outline.order, outline.schedule
    first, pieces = order.pieces[0], sum(item.pieces for item in order.pieces)
    bowls = len(order.bowls_g)
    share = -(-pieces // bowls)
    sheet = sheet_of(formula, tables, order.bowls_g[0], share, first.piece_mass_g, first.basis, ask.schools)
    schedule = replace(schedule, conflicts=(*schedule.conflicts, *_full_racks(session)))
    needed = [need.ingredient for need in order.needs]
    jars = [said_of(rows[0]) for rows in lots_to_use(session, needed).values() if rows]
    likely = forewarn(formula, tables, with_outcomes(load_troubles(), list_outcomes(session)))
    said = tuple(word for words in jars for word in words)
    return BatchPlan(formula_id, formula.name, order, schedule, sheet, said, tuple(likely))


def _full_racks(session: Session) -> list[str]:
    """Say where every tray is taken: pieces made now find no place to dry."""
    taken, places = trays_taken(session), list_places(session)
    if any(taken.get(place.name, 0) < place.trays for place in places):
        return []
    return [f'All {place.trays} trays in "{place.name}" are taken: wrap what is dry first.' for place in places]
