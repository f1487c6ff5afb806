"""Add batches, what happened to them, and what is on hand."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"

NEVER = """
CREATE TRIGGER batch_events_no_{verb} BEFORE {verb} ON batch_events
BEGIN SELECT RAISE(ABORT, 'what happened to a batch is never changed'); END
"""


def upgrade() -> None:
    """Create the tables; the file itself refuses to change what happened."""
    op.create_table(
        "batches",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="RESTRICT"), nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("method", sa.String, nullable=False),
        sa.Column("batch_g", sa.Float, nullable=False),
        sa.Column("plan", sa.JSON, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("closed_at", sa.DateTime),
    )
    op.create_index("ix_batches_formula_id", "batches", ["formula_id"])
    op.create_table(
        "batch_events",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("batch_id", sa.Integer, sa.ForeignKey("batches.id", ondelete="RESTRICT"), nullable=False),
        sa.Column("seq", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
        sa.UniqueConstraint("batch_id", "seq", name="uq_batch_events_batch_id"),
    )
    op.create_index("ix_batch_events_batch_id", "batch_events", ["batch_id"])
    for verb in ("UPDATE", "DELETE"):
        op.execute(NEVER.format(verb=verb))
    op.create_table(
        "stock",
        sa.Column("ingredient_id", sa.String, primary_key=True),
        sa.Column("on_hand_g", sa.Float, nullable=False),
        sa.Column("updated_at", sa.DateTime, nullable=False),
    )
