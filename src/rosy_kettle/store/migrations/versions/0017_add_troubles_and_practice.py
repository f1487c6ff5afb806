"""Add troubles with what became of them, and practice runs."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"


def upgrade() -> None:
    """Create the tables."""
    op.create_table(
        "troubles",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("symptom", sa.String, nullable=False),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="RESTRICT")),
        sa.Column("batch_id", sa.Integer, sa.ForeignKey("batches.id", ondelete="RESTRICT")),
        sa.Column("tray_id", sa.Integer, sa.ForeignKey("trays.id", ondelete="RESTRICT")),
        sa.Column("test_id", sa.Integer, sa.ForeignKey("tub_tests.id", ondelete="RESTRICT")),
        sa.Column("formula", sa.JSON),
        sa.Column("answers", sa.JSON, nullable=False),
        sa.Column("outcome", sa.String),
        sa.Column("remark", sa.String, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("decided_at", sa.DateTime),
        sa.Column("request_key", sa.String),
    )
    for column in ("formula_id", "batch_id"):
        op.create_index(f"ix_troubles_{column}", "troubles", [column])
    op.create_index("ix_troubles_request_key", "troubles", ["request_key"], unique=True)
    op.create_table(
        "practice_runs",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("scenario", sa.String, nullable=False),
        sa.Column("seed", sa.Integer, nullable=False),
        sa.Column("acts", sa.JSON, nullable=False),
        sa.Column("ended", sa.Boolean, nullable=False),
        sa.Column("score", sa.Float),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String),
    )
    op.create_index("ix_practice_runs_request_key", "practice_runs", ["request_key"], unique=True)
