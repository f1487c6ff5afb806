"""Add paired devices: tablets and telephones that may use the studio over the network."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"


def upgrade() -> None:
    """Create the table."""
    op.create_table(
        "paired_devices",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("role", sa.String, nullable=False),
        sa.Column("token_hash", sa.String, nullable=False),
        sa.Column("paired_at", sa.DateTime, nullable=False),
        sa.Column("revoked_at", sa.DateTime),
    )
    op.create_index("ix_paired_devices_token_hash", "paired_devices", ["token_hash"], unique=True)
