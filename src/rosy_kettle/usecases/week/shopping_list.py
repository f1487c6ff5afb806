"""What the open orders lack: needs of all of them less what is on hand, in packs as they were bought before."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.making.plan import Wish
from rosy_kettle.core.making.stock.packs import Delivery, Offer, Purchase, cheapest_packs
from rosy_kettle.store.lots import LotRow, list_stock
from rosy_kettle.store.orders import list_orders
from rosy_kettle.usecases.batches.plan_batch import needs_of_order
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.week.plan_week import MOST_ORDERS

__all__ = ["Lacking", "ShoppingList", "shopping_list"]


@dataclass(frozen=True, slots=True)
class Lacking:
    """One ingredient the open orders take."""

    ingredient: str
    name: str
    needed_g: float
    on_hand_g: float | None
    """None: nobody has said, so all of it is on the list."""
    short_g: float
    packs: tuple[Purchase, ...]
    """What to buy of it; empty where it was never bought in a pack with a price."""


@dataclass(frozen=True, slots=True)
class ShoppingList:
    """What to buy."""

    lines: tuple[Lacking, ...]
    cost: dict[str, Decimal]
    """By currency, of the packs that have a price."""
    orders: int
    left_out: tuple[str, ...]
    """Orders that cannot be planned, with the reason."""
    deliveries: tuple[Delivery, ...]
    """Those that are paid for; they are in the cost."""


def shopping_list(session: Session) -> ShoppingList:
    """Return what the open orders lack."""
    needed, names, left_out = _needs(session)
    on_hand = list_stock(session)
    short = {id_: max(0.0, mass_g - max(0.0, on_hand.get(id_, 0.0))) for id_, mass_g in needed.items()}
    bought, paid, _open = cheapest_packs(short, _offers(session), studio_settings(session).deliveries)
    lines = [
        Lacking(
            id_, names[id_], needed[id_], on_hand.get(id_), short_g,
            tuple(purchase for purchase in bought if purchase.offer.ingredient == id_),
        )
        for id_, short_g in sorted(short.items(), key=lambda each: -each[1]) if short_g > 0
    ]  # fmt: skip
    cost: dict[str, Decimal] = {}
    for purchase in bought:
        cost[purchase.offer.currency] = cost.get(purchase.offer.currency, Decimal(0)) + purchase.cost
    for delivery in paid:
        cost[delivery.currency] = cost.get(delivery.currency, Decimal(0)) + delivery.fee
    orders = len(list_orders(session, query="", state="open", before=None, limit=MOST_ORDERS))
    return ShoppingList(tuple(lines), cost, orders, tuple(left_out), tuple(paid))


def _needs(session: Session) -> tuple[dict[str, float], dict[str, str], list[str]]:
    tables = studio_tables(session)
    needed: dict[str, float] = {}
    left_out = []
    for row in list_orders(session, query="", state="open", before=None, limit=MOST_ORDERS):
        try:
            order = needs_of_order(session, row.formula_id, Wish(row.pieces, row.tool), tables)
        except WorkbenchError as error:  # the formula has changed since: said with the list
            left_out.append(f"{row.who}: {error.message}")
            continue
        for need in order.needs:
            needed[need.ingredient] = needed.get(need.ingredient, 0.0) + need.needed_g
    return needed, {id_: tables.ingredients[id_].short_name for id_ in needed}, left_out


def _offers(session: Session) -> list[Offer]:
    """Packs as they were bought: the latest price of each size from each supplier."""
    found: dict[tuple[str, str, float], Offer] = {}
    asked = select(LotRow).where(LotRow.price.is_not(None), LotRow.quantity_g > 0).order_by(LotRow.id)
    for row in session.scalars(asked):
        if row.price is not None:
            key = (row.ingredient_id, row.supplier, row.quantity_g)
            found[key] = Offer(row.ingredient_id, row.supplier, row.quantity_g, row.price, row.currency)
    return list(found.values())
