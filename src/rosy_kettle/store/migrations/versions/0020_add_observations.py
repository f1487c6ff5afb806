"""Add observations: what batches, trays, baths and measurements say of the defaults, kept until they rest on something else."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0020"
down_revision = "0019"


def upgrade() -> None:
    """Create the table."""
    op.create_table(
        "observations",
        sa.Column("kind", sa.String, primary_key=True),
        sa.Column("source_id", sa.Integer, primary_key=True),
        sa.Column("mark", sa.String, nullable=False),
        sa.Column("rests_on", sa.String, nullable=False),
        sa.Column("told", sa.JSON, nullable=False),
    )
