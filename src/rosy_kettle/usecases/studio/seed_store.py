"""What the invented studio has bought, and what is ordered from it."""

from __future__ import annotations

from datetime import datetime, timedelta
from decimal import Decimal

from sqlalchemy.orm import Session

from rosy_kettle.store.formulas import list_formulas
from rosy_kettle.store.lots import LotRow, add_lot
from rosy_kettle.store.orders import OrderRow, add_order

__all__ = ["seed_store"]

LOTS = (
    ("baking-soda", "NB-2291", 2400.0, "5.10", None), ("baking-soda", "NB-2305", 6000.0, "12.90", None),
    ("slsa-fine", "SF-88", 640.0, "14.90", 300), ("slsa-fine", "SF-91", 260.0, "6.20", 420),
    ("corn-starch", "CS-5", 2150.0, "5.30", 250), ("glycerin", "GL-31", 150.0, "1.40", 20),
    ("glycerin", "GL-47", 490.0, "4.40", 600),
    ("cream-of-tartar", "CT-9", 180.0, "4.05", None), ("cocoa-butter", "CB-12", 450.0, "10.60", 120),
)  # fmt: skip
"""Ingredient, code, grams, price of the lot, and the days until it is best before."""
ORDERS = (
    ("Saturday market", "Limpet domes", 40, 5), ("The guesthouse", "Peat bricks", 24, 6),
    ("Birthday of a friend", "Oar-blade slices", 12, 6),
)  # fmt: skip
"""For whom, what, how many, and in how many days."""
SUPPLIER = "Quay stores"


def seed_store(session: Session, now: datetime) -> None:
    """Put jars on the shelves and orders in the book."""
    for ingredient, code, quantity_g, price, days in LOTS:
        add_lot(session, LotRow(
            ingredient_id=ingredient, code=code, supplier=SUPPLIER, bought_on=(now - timedelta(days=40)).date(),
            price=Decimal(price), quantity_g=quantity_g, properties={},
            best_before=None if days is None else (now + timedelta(days=days)).date(),
        ))  # fmt: skip
    formulas = {row.name: row.id for row in list_formulas(session)}
    for who, name, pieces, days in ORDERS:
        due = (now + timedelta(days=days)).replace(hour=8, minute=0, second=0, microsecond=0)
        add_order(session, OrderRow(who=who, formula_id=formulas[name], pieces=pieces, tool=None, due_at=due))
