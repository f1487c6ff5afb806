"""Whether an order may be made: every batch it was made from is cleared, in every market it goes to."""

from __future__ import annotations

from dataclasses import asdict

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import BlockedError
from rosy_kettle.core.making.label.gate import Block
from rosy_kettle.core.words.clearance import NO_BATCHES, ORDER_BLOCKED
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.orders import OrderRow, batches_of_orders
from rosy_kettle.usecases.labels.clear_batch import clearances_of_batch, not_signed

__all__ = ["blocks_of_order", "refuse_uncleared"]


def blocks_of_order(session: Session, row: OrderRow) -> tuple[Block, ...]:
    """Return what stands against an order: batches nobody has named or signed, and what holds each of them back."""
    batch_ids = batches_of_orders(session, [row.id])[row.id]
    if not batch_ids:
        return (Block("ORDER-BATCHES", NO_BATCHES),)
    markets = [row.market] if row.market else list(record_of(find_formula(session, row.formula_id)).product.markets)
    found: list[Block] = []
    for batch_id in batch_ids:
        for each in clearances_of_batch(session, batch_id, markets):
            found += each.blocks
            found += [] if each.signed else [not_signed(each.market)]
    return tuple({(each.rule, each.text): each for each in found}.values())


def refuse_uncleared(session: Session, row: OrderRow) -> None:
    """Refuse an order that is not for the maker's own use while anything stands against it.

    Raises
    ------
    BlockedError
        Naming all of it.
    """
    blocks = blocks_of_order(session, row)
    if blocks:
        raise BlockedError(ORDER_BLOCKED.format(first=blocks[0].text), blocks=[asdict(each) for each in blocks], missing=[])
