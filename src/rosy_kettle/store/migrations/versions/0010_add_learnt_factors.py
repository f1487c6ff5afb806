"""Add the factors a studio has accepted."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"


def upgrade() -> None:
    """Create the table."""
    op.create_table(
        "learnt_factors",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column("yours", sa.Float, nullable=False),
        sa.Column("said", sa.String, nullable=False),
        sa.Column("accepted_at", sa.DateTime, nullable=False),
    )
