"""Add lots and their movements; what was on hand becomes an opening lot of each ingredient."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"

NEVER = """
CREATE TRIGGER movements_no_{name} BEFORE {verb} ON movements
BEGIN SELECT RAISE(ABORT, 'a movement is righted by a later one, never changed'); END
"""
OPENING = """
INSERT INTO lots (ingredient_id, code, supplier, price, currency, quantity_g, left_g, properties, counted, created_at)
SELECT ingredient_id, 'opening ' || ingredient_id, '', NULL, 'USD', on_hand_g, on_hand_g, '{}', 1, updated_at FROM stock
"""
OPENED = """
INSERT INTO movements (lot_id, kind, mass_g, reason, at)
SELECT id, 'bought', quantity_g, 'what was on hand before there were lots', created_at FROM lots
"""


def upgrade() -> None:
    """Create the tables, take over what was on hand, and let the file itself refuse to change a movement."""
    op.create_table(
        "lots",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("ingredient_id", sa.String, nullable=False),
        sa.Column("code", sa.String, nullable=False),
        sa.Column("supplier", sa.String, nullable=False),
        sa.Column("bought_on", sa.Date),
        sa.Column("price", sa.Text),
        sa.Column("currency", sa.String, nullable=False),
        sa.Column("quantity_g", sa.Float, nullable=False),
        sa.Column("left_g", sa.Float, nullable=False),
        sa.Column("best_before", sa.Date),
        sa.Column("opened_on", sa.Date),
        sa.Column("certificate", sa.JSON),
        sa.Column("properties", sa.JSON, nullable=False),
        sa.Column("counted", sa.Boolean, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String),
    )
    op.create_index("ix_lots_ingredient_id", "lots", ["ingredient_id"])
    op.create_index("ix_lots_code", "lots", ["code"], unique=True)
    op.create_index("ix_lots_request_key", "lots", ["request_key"], unique=True)
    op.create_table(
        "movements",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("lot_id", sa.Integer, sa.ForeignKey("lots.id", ondelete="RESTRICT"), nullable=False),
        sa.Column("batch_id", sa.Integer, sa.ForeignKey("batches.id", ondelete="RESTRICT")),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("mass_g", sa.Float, nullable=False),
        sa.Column("reason", sa.String, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
    )
    op.create_index("ix_movements_lot_id", "movements", ["lot_id"])
    op.create_index("ix_movements_batch_id", "movements", ["batch_id"])
    op.execute(OPENING)
    op.execute(OPENED)
    op.drop_table("stock")
    for verb in ("UPDATE", "DELETE"):
        op.execute(NEVER.format(name=verb.lower(), verb=verb))
