"""What in the pantry could stand in for an ingredient the open orders lack, where the readings hold."""

from __future__ import annotations

import math
from dataclasses import dataclass

from sqlalchemy.orm import Session

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.substitute import KEPT_SATURATION, Substitute, substitutes
from rosy_kettle.core.change.why.levers import Effect
from rosy_kettle.core.errors import NotFoundError, WorkbenchError
from rosy_kettle.core.making.plan import Wish
from rosy_kettle.core.readings.registry import notable
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.lots import list_stock
from rosy_kettle.store.orders import OrderRow, list_orders
from rosy_kettle.usecases.batches.plan_batch import PlanAsk, plan_batch
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.week.plan_week import MOST_ORDERS

__all__ = ["StandIn", "StandInsForOrder", "stand_ins"]

MOST_SHOWN = 6


@dataclass(frozen=True, slots=True)
class StandIn:
    """One ingredient that could stand in for another in a batch."""

    ingredient: str
    name: str
    needed_g: float
    """What the batch takes of it [g]."""
    on_hand_g: float
    effects: tuple[Effect, ...]
    """Readings that move visibly beside the one it holds."""


@dataclass(frozen=True, slots=True)
class StandInsForOrder:
    """An open order that takes the ingredient, and what is there in its place."""

    order_id: int
    who: str
    formula_id: int
    formula: str
    needed_g: float
    """What the batch takes of the ingredient that is short [g]."""
    found: tuple[StandIn, ...]


def stand_ins(session: Session, ingredient: str) -> list[StandInsForOrder]:
    """Return for every open order that takes an ingredient what could stand in for it, the least change first.

    Parameters
    ----------
    session : Session
        The studio
    ingredient : str
        Id of what is short

    Returns
    -------
    list of StandInsForOrder
        Only what holds the reading the line is there for and leaves the dough as it is, has nothing against it, and lies in
        the pantry in that amount

    Raises
    ------
    NotFoundError
        If there is no such ingredient.
    """
    tables = studio_tables(session)
    if ingredient not in tables.ingredients:
        raise NotFoundError(f'There is no ingredient "{ingredient[:60]}".', noun="ingredient", id=ingredient[:60])
    on_hand, told = list_stock(session), []
    for row in list_orders(session, query="", state="open", before=None, limit=MOST_ORDERS):
        try:
            each = _of_order(session, row, ingredient, tables, on_hand)
        except WorkbenchError:
            continue  # the shopping list itself says why this order cannot be planned
        if each is not None:
            told.append(each)
    return told


def _of_order(
    session: Session, row: OrderRow, ingredient: str, tables: Tables, on_hand: dict[str, float]
) -> StandInsForOrder | None:
    plan = plan_batch(session, row.formula_id, PlanAsk([Wish(row.pieces, row.tool)]))
    needed_g = next((need.needed_g for need in plan.order.needs if need.ingredient == ingredient), 0.0)
    formula = record_of(find_formula(session, row.formula_id))
    line = _heaviest_line(formula, tables, ingredient)
    if needed_g <= 0 or line is None:
        return None
    position, in_formula_g = line
    found = []
    for each in substitutes(formula, tables, position):
        takes_g = needed_g * each.after_g / in_formula_g
        if each.holds and not each.why_not and _keeps_dough(each) and takes_g <= on_hand.get(each.ingredient, 0.0):
            found.append(_told(each, takes_g, on_hand))
    return StandInsForOrder(row.id, row.who, row.formula_id, plan.name, needed_g, tuple(found[:MOST_SHOWN]))


def _heaviest_line(formula: Formula, tables: Tables, ingredient: str) -> tuple[int, float] | None:
    """Position and mass of the line that holds most of an ingredient; its substitute is judged there, for all of it."""
    lines = [each for each in weigh_formula(formula, tables)[0] if each.ingredient.id == ingredient and each.mass_g > 0]
    heaviest = max(lines, key=lambda each: each.mass_g, default=None)
    return None if heaviest is None else (heaviest.position, heaviest.mass_g)


def _keeps_dough(each: Substitute) -> bool:
    moved = next((effect for effect in each.effects if effect.reading == "dough.saturation"), None)
    return moved is None or (moved.after is not None and abs(moved.after - moved.before) <= KEPT_SATURATION)


def _moves(effect: Effect) -> bool:
    return effect.after is None or abs(effect.after - effect.before) > notable(effect.reading, math.inf)


def _told(each: Substitute, takes_g: float, on_hand: dict[str, float]) -> StandIn:
    return StandIn(
        each.ingredient, each.name, takes_g, on_hand[each.ingredient], tuple(effect for effect in each.effects if _moves(effect))
    )  # fmt: skip
