"""The season's jars and orders: what the batches drew from, jars that are used up by now, and who got the pieces."""

from __future__ import annotations

import random
from collections.abc import Sequence
from datetime import datetime, timedelta
from decimal import Decimal

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.store.batches import BatchRow
from rosy_kettle.store.lots import LotRow, MovementRow
from rosy_kettle.store.orders import OrderBatchRow, OrderRow

__all__ = ["seed_trade"]

JARS = {"baking-soda": ("NB", "2.10"), "corn-starch": ("CS", "2.40"), "slsa-fine": ("SF", "22.00"), "glycerin": ("GL", "9.00")}
"""Ingredient with the letters of its jars' codes, and its price [USD/kg]."""
QUARTERS, FIRST_NUMBER = 4, 101
WHO = ("Harbour market", "The guesthouse", "Island post office", "A wedding, forty guests", "The lifeboat raffle")
NAMED_SHARE = 0.8  # of what was drawn, somebody named the jar
ORDERS = 12
SUPPLIER = "Quay stores"


def seed_trade(session: Session) -> None:
    """Put in the jars the season's batches were made from, what they drew, and the orders that were made from them."""
    chance = random.Random(12)  # noqa: S311 - demo noise, no secret
    batches = list(session.scalars(select(BatchRow).where(BatchRow.closed_at.is_not(None)).order_by(BatchRow.created_at)))
    if not batches:
        return
    size = -(-len(batches) // QUARTERS)
    for ingredient, (letters, price_per_kg) in JARS.items():
        for quarter in range(QUARTERS):
            code = f"{letters}-{FIRST_NUMBER + quarter}"
            _jar(session, ingredient, code, price_per_kg, batches[quarter * size : (quarter + 1) * size], chance)
    _orders(session, batches, chance)


def _jar(
    session: Session, ingredient: str, code: str, price_per_kg: str, batches: Sequence[BatchRow], chance: random.Random
) -> None:
    """Enter one jar, all of which some batches drew."""
    drawn = [(row, used_g) for row in batches if (used_g := _used_g(row, ingredient)) > 0]
    if not drawn:
        return
    whole_g, bought = sum(used_g for _, used_g in drawn), batches[0].created_at - timedelta(days=9)
    lot = LotRow(
        ingredient_id=ingredient, code=code, supplier=SUPPLIER, bought_on=bought.date(), quantity_g=whole_g, left_g=0.0,
        price=(Decimal(price_per_kg) * Decimal(f"{whole_g / 1000:.3f}")).quantize(Decimal("0.01")), properties={},
        best_before=(bought + timedelta(days=540)).date(), counted=False, created_at=bought,
    )  # fmt: skip
    session.add(lot)
    session.flush()
    session.add(MovementRow(lot_id=lot.id, kind="bought", mass_g=whole_g, at=bought))
    session.add_all(
        MovementRow(
            lot_id=lot.id, batch_id=row.id, kind="used", mass_g=-used_g, at=row.closed_at or row.created_at,
            assumed=chance.random() > NAMED_SHARE,
        )
        for row, used_g in drawn
    )  # fmt: skip


def _used_g(row: BatchRow, ingredient: str) -> float:
    """Return what the plan of a batch asked for of an ingredient, to half a gram: such sums are exact."""
    asked_g = sum(
        float(line["amount"])
        for portion in row.plan["formula"]["portions"] for line in portion["lines"]
        if line["ingredient"] == ingredient and line["unit"] == "g"
    )  # fmt: skip
    return round(2 * asked_g) / 2


def _orders(session: Session, batches: Sequence[BatchRow], chance: random.Random) -> None:
    """Enter orders that were made, each from one batch; of the last nobody has said from which."""
    for number, row in enumerate(batches[:: max(1, len(batches) // ORDERS)][:ORDERS]):
        due: datetime = row.created_at + timedelta(days=chance.randint(5, 12))
        order = OrderRow(
            who=WHO[number % len(WHO)], formula_id=row.formula_id, pieces=8, due_at=due, state="made", created_at=row.created_at,
            note="by the harbour office",
        )  # fmt: skip
        session.add(order)
        session.flush()
        if number < ORDERS - 1:
            session.add(OrderBatchRow(order_id=order.id, batch_id=row.id))
