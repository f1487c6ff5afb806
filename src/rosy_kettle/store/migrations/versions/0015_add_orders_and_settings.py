"""Add orders and settings."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"


def upgrade() -> None:
    """Create the tables."""
    op.create_table(
        "orders",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("who", sa.String, nullable=False),
        sa.Column("formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="RESTRICT"), nullable=False),
        sa.Column("pieces", sa.Integer, nullable=False),
        sa.Column("tool", sa.String),
        sa.Column("due_at", sa.DateTime),
        sa.Column("note", sa.String, nullable=False),
        sa.Column("state", sa.String, nullable=False),
        sa.Column("starts_at", sa.DateTime),
        sa.Column("batch_id", sa.Integer),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String),
    )
    op.create_index("ix_orders_formula_id", "orders", ["formula_id"])
    op.create_index("ix_orders_state", "orders", ["state"])
    op.create_index("ix_orders_request_key", "orders", ["request_key"], unique=True)
    op.create_table(
        "settings",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("said", sa.JSON, nullable=False),
        sa.Column("updated_at", sa.DateTime, nullable=False),
    )
