"""Keep certificates once per scent, and what a profile assumes."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    """Create the table and the column."""
    op.create_table(
        "scent_certificates",
        sa.Column("ingredient_id", sa.String, primary_key=True),
        sa.Column("limit_pct", sa.Float),
        sa.Column("category", sa.String),
        sa.Column("flash_c", sa.Float),
        sa.Column("allergens", sa.JSON, nullable=False),
        sa.Column("updated_at", sa.DateTime, nullable=False),
    )
    op.add_column("profiles", sa.Column("settings", sa.JSON, nullable=False, server_default="{}"))
