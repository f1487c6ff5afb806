"""Add labels: kept as they were printed."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"


def upgrade() -> None:
    """Create the table; a label is never changed."""
    op.create_table(
        "labels",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="RESTRICT")),
        sa.Column("batch_id", sa.Integer, sa.ForeignKey("batches.id", ondelete="RESTRICT")),
        sa.Column("version", sa.Integer),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("market", sa.String, nullable=False),
        sa.Column("width_mm", sa.Float, nullable=False),
        sa.Column("height_mm", sa.Float, nullable=False),
        sa.Column("facts", sa.JSON, nullable=False),
        sa.Column("made", sa.JSON, nullable=False),
        sa.Column("draft", sa.Boolean, nullable=False),
        sa.Column("copies", sa.Integer, nullable=False),
        sa.Column("sheet", sa.JSON),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String),
    )
    op.create_index("ix_labels_batch_id", "labels", ["batch_id"])
    op.create_index("ix_labels_formula_id", "labels", ["formula_id"])
    op.create_index("ix_labels_request_key", "labels", ["request_key"], unique=True)
    for change in ("UPDATE", "DELETE"):
        op.execute(
            f"CREATE TRIGGER labels_no_{change.lower()} BEFORE {change} ON labels "
            "BEGIN SELECT RAISE(ABORT, 'a printed label is kept as it was'); END"
        )
