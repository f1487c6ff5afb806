"""Add series of tests side by side, and the place of a test in its series."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    """Create the table and the two columns of tests."""
    op.create_table(
        "test_series",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("claim", sa.JSON, nullable=False),
        sa.Column("variants", sa.JSON, nullable=False),
        sa.Column("use", sa.JSON, nullable=False),
        sa.Column("places", sa.JSON, nullable=False),
        sa.Column("opened", sa.Integer, nullable=False),
        sa.Column("begun_at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String),
    )
    op.create_index("ix_test_series_request_key", "test_series", ["request_key"], unique=True)
    op.add_column("tub_tests", sa.Column("series_id", sa.Integer))
    op.add_column("tub_tests", sa.Column("series_place", sa.Integer))
    op.create_index("ix_tub_tests_series_id", "tub_tests", ["series_id"])
