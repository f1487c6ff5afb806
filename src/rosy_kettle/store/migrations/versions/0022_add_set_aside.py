"""Add what is set aside: records no page can read, with all that belongs to them, until they are taken back."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0022"
down_revision = "0021"


def upgrade() -> None:
    """Create the table."""
    op.create_table(
        "set_aside",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("of_table", sa.String, nullable=False),
        sa.Column("of_id", sa.String, nullable=False),
        sa.Column("why", sa.String, nullable=False),
        sa.Column("kept", sa.JSON, nullable=False),
        sa.Column("set_aside_at", sa.DateTime, nullable=False),
    )
