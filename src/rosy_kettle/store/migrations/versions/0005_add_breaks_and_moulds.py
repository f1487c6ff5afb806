"""Add price breaks, and how many of a mould there are."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    """Add a column and a table; what is there stays as it is."""
    op.add_column("ingredient_prices", sa.Column("breaks", sa.JSON, nullable=False, server_default="[]"))
    op.create_table(
        "moulds",
        sa.Column("tool_id", sa.String, primary_key=True),
        sa.Column("count", sa.Integer, nullable=False),
        sa.CheckConstraint("count > 0", name="ck_moulds_count_positive"),
    )
