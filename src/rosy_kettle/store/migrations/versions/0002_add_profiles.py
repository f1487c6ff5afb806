"""Add the studio's profiles."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    """Create the table."""
    op.create_table(
        "profiles",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("summary", sa.String, nullable=False),
        sa.Column("ledger_profile", sa.String, nullable=False),
        sa.Column("bands", sa.JSON, nullable=False),
    )
