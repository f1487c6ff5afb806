"""Orders: taken, changed, and made only from batches that may go."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.label.texts import MARKETS
from rosy_kettle.core.making.plan import Wish
from rosy_kettle.store.batches import find_batch
from rosy_kettle.store.orders import OrderRow, add_order, find_order, put_batches_of_order
from rosy_kettle.usecases.batches.plan_batch import PlanAsk, outline_batch
from rosy_kettle.usecases.labels.clear_order import refuse_uncleared
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["PURPOSES", "STATES", "OrderChange", "OrderTake", "change_order", "take_order"]

STATES = ("open", "made", "cancelled")
PURPOSES = ("sale", "gift", "own")
"""What an order is for; a gift is held to the same as a sale, own use is not held back."""
OWN_USE = "own"


@dataclass(frozen=True, slots=True)
class OrderTake:
    """An order as it is taken."""

    who: str
    formula_id: int
    pieces: int
    tool: str | None = None
    due_at: datetime | None = None
    note: str = ""
    key: str | None = None
    for_: str = "sale"
    market: str | None = None


def take_order(session: Session, take: OrderTake, now: datetime) -> OrderRow:
    """Take an order.

    Raises
    ------
    InputError
        If it is for nobody, of nothing, due in the past, or larger than any bowl.
    """
    if not take.who.strip():
        raise InputError("Who is it for? A name, or the market.", quantity="who")
    if take.due_at is not None and take.due_at <= now:
        raise InputError("That day is past; give one to come.", quantity="due_at")
    outline_batch(
        session, take.formula_id, PlanAsk([Wish(take.pieces, take.tool)]), studio_tables(session)
    )  # refuses in its own words
    return add_order(session, OrderRow(
        who=take.who.strip(), formula_id=take.formula_id, pieces=take.pieces, tool=take.tool, due_at=take.due_at, note=take.note,
        request_key=take.key, for_=_purpose(take.for_),
        market=None if take.market is None else _market(take.market),
    ))  # fmt: skip


@dataclass(frozen=True, slots=True)
class OrderChange:
    """What becomes of an order; None leaves it as it is."""

    state: str | None = None
    starts_at: datetime | None = None
    """Where it is dragged to."""
    free: bool = False
    """Whether the week may find a place for it again."""
    batch_ids: Sequence[int] | None = None
    """Batches it was made from."""
    for_: str | None = None
    market: str | None = None


def change_order(session: Session, order_id: int, change: OrderChange, now: datetime) -> OrderRow:
    """Say what became of an order and which batches it was made from, drag it, or let the week find a place for it again.

    Raises
    ------
    InputError
        If there is no such state, purpose or market, a batch is of another formula, or it would begin before this hour.
    BlockedError
        If it is for sale or a gift, and one of its batches may not go.
    """
    row = find_order(session, order_id)
    if change.for_ is not None:
        row.for_ = _purpose(change.for_)
    if change.market is not None:
        row.market = _market(change.market)
    if change.batch_ids is not None:
        _made_from(session, row, change.batch_ids)
    if change.state is not None:
        _becomes(session, row, change.state)
    if change.starts_at is not None:
        if change.starts_at < now - timedelta(hours=1):
            raise InputError("That hour is past; drag it to one to come.", quantity="starts_at")
        row.starts_at = change.starts_at
    if change.free:
        row.starts_at = None
    session.flush()
    return row


def _purpose(word: str) -> str:
    if word not in PURPOSES:
        raise InputError(f"An order is for {', '.join(PURPOSES)}.", quantity="for")
    return word


def _market(word: str) -> str:
    if word not in MARKETS:
        raise InputError(f"There are no rules for that market here; choose {', '.join(MARKETS)}.", quantity="market")
    return word


def _made_from(session: Session, row: OrderRow, batch_ids: Sequence[int]) -> None:
    for batch_id in batch_ids:
        if find_batch(session, batch_id).formula_id != row.formula_id:
            raise InputError(f"Batch {batch_id} is of another formula than the order.", quantity="batch_ids")
    put_batches_of_order(session, row.id, batch_ids)


def _becomes(session: Session, row: OrderRow, state: str) -> None:
    if state not in STATES:
        raise InputError(f"An order is {', '.join(STATES)}.", quantity="state")
    if state == "made" and row.for_ != OWN_USE:
        refuse_uncleared(session, row)
    row.state = state
