"""Add what the lists keep of each formula, and the journal with its full-text search."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"

WORDS = """
CREATE VIRTUAL TABLE journal_words USING fts5(
  title, text, tags, content='journal', content_rowid='id', prefix='3', tokenize='unicode61 remove_diacritics 2')
"""


def upgrade() -> None:
    """Create the tables; both hold only what can be worked out again from the others."""
    op.create_table(
        "formula_glances",
        sa.Column("formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("rests_on", sa.String, nullable=False),
        sa.Column("method", sa.String, nullable=False),
        sa.Column("lines", sa.Integer, nullable=False),
        sa.Column("mass_g", sa.Float, nullable=False),
        sa.Column("saturation", sa.Float),
        sa.Column("state", sa.String),
        sa.Column("wanted_states", sa.JSON, nullable=False),
        sa.Column("fits", sa.Boolean),
        sa.Column("ingredients", sa.JSON, nullable=False),
        sa.Column("words", sa.String, nullable=False),
        sa.Column("cost_piece", sa.String),
    )
    op.create_index("ix_batches_closed_at", "batches", ["closed_at"])
    op.create_index("ix_formulas_updated_at", "formulas", ["updated_at", "id"])
    op.create_table(
        "journal",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("source", sa.String, nullable=False),
        sa.Column("source_id", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("month", sa.Integer, nullable=False),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("formula_id", sa.Integer),
        sa.Column("batch_id", sa.Integer),
        sa.Column("tray_id", sa.Integer),
        sa.Column("version", sa.Integer),
        sa.Column("gone_wrong", sa.Boolean, nullable=False),
        sa.Column("drawn", sa.Float),
        sa.Column("title", sa.String, nullable=False),
        sa.Column("text", sa.String, nullable=False),
        sa.Column("tags", sa.String, nullable=False),
        sa.UniqueConstraint("source", "source_id", name="uq_journal_source"),
    )
    for column in ("month", "kind", "formula_id", "batch_id", "tray_id", "gone_wrong"):
        op.create_index(f"ix_journal_{column}", "journal", [column, "id"])
    op.execute(WORDS)
    op.create_table(
        "journal_marks",
        sa.Column("source", sa.String, primary_key=True),
        sa.Column("last_id", sa.Integer, nullable=False),
    )
