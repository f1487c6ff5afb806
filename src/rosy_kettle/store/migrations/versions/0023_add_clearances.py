"""Add papers of scents in full, held lots, signed clearances, batches of orders, and complaints."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0023"
down_revision = "0022"


def upgrade() -> None:
    """Create the tables and columns."""
    op.add_column("scent_certificates", sa.Column("paper", sa.JSON, nullable=False, server_default="{}"))
    op.add_column("orders", sa.Column("for", sa.String, nullable=False, server_default="sale"))
    op.add_column("orders", sa.Column("market", sa.String))
    op.add_column("lots", sa.Column("held", sa.String))
    op.create_table(
        "lot_states",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("lot_id", sa.Integer, sa.ForeignKey("lots.id", ondelete="RESTRICT"), nullable=False, index=True),
        sa.Column("state", sa.String, nullable=False),
        sa.Column("reason", sa.String, nullable=False),
        sa.Column("who", sa.String, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String, unique=True),
    )
    op.create_table(
        "clearances",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("batch_id", sa.Integer, sa.ForeignKey("batches.id", ondelete="RESTRICT"), nullable=False, index=True),
        sa.Column("market", sa.String, nullable=False),
        sa.Column("state", sa.String, nullable=False),
        sa.Column("who", sa.String, nullable=False),
        sa.Column("reason", sa.String, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String, unique=True),
    )
    op.create_table(
        "order_batches",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("order_id", sa.Integer, sa.ForeignKey("orders.id", ondelete="RESTRICT"), nullable=False, index=True),
        sa.Column("batch_id", sa.Integer, sa.ForeignKey("batches.id", ondelete="RESTRICT"), nullable=False, index=True),
    )
    op.create_table(
        "complaints",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("batch_id", sa.Integer, sa.ForeignKey("batches.id", ondelete="RESTRICT"), index=True),
        sa.Column("code", sa.String, nullable=False),
        sa.Column("what", sa.String, nullable=False),
        sa.Column("who", sa.String, nullable=False),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("serious", sa.Boolean, nullable=False),
        sa.Column("done", sa.String, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String, unique=True),
    )
