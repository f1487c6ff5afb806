"""Add tests in the tub and what happened in them."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"

NEVER = """
CREATE TRIGGER tub_test_events_no_{name} BEFORE {verb} ON tub_test_events {when}
BEGIN SELECT RAISE(ABORT, 'what happened in a test is never changed'); END
"""
REPLACES = """
WHEN EXISTS (SELECT 1 FROM tub_test_events WHERE id = NEW.id OR (test_id = NEW.test_id AND seq = NEW.seq))
"""


def upgrade() -> None:
    """Create the tables; the file itself refuses to change what happened in a test."""
    op.create_table(
        "tub_tests",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="RESTRICT")),
        sa.Column("batch_id", sa.Integer, sa.ForeignKey("batches.id", ondelete="RESTRICT")),
        sa.Column("version", sa.Integer),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("formula", sa.JSON),
        sa.Column("use", sa.JSON, nullable=False),
        sa.Column("foretold", sa.JSON, nullable=False),
        sa.Column("begun_at", sa.DateTime, nullable=False),
        sa.Column("closed_at", sa.DateTime),
        sa.Column("request_key", sa.String),
    )
    op.create_index("ix_tub_tests_formula_id", "tub_tests", ["formula_id"])
    op.create_index("ix_tub_tests_batch_id", "tub_tests", ["batch_id"])
    op.create_index("ix_tub_tests_request_key", "tub_tests", ["request_key"], unique=True)
    op.create_table(
        "tub_test_events",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("test_id", sa.Integer, sa.ForeignKey("tub_tests.id", ondelete="RESTRICT"), nullable=False),
        sa.Column("seq", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
        sa.UniqueConstraint("test_id", "seq", name="uq_tub_test_events_test_id"),
    )
    op.add_column("journal", sa.Column("test_id", sa.Integer))
    for verb, when in (("UPDATE", ""), ("DELETE", ""), ("INSERT", REPLACES)):
        op.execute(NEVER.format(name=verb.lower(), verb=verb, when=when))
