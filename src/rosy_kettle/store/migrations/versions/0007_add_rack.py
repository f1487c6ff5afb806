"""Add trays, what happened to them, and the air they dry in."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"

NEVER = """
CREATE TRIGGER tray_events_no_{name} BEFORE {verb} ON tray_events {when}
BEGIN SELECT RAISE(ABORT, 'what happened to a tray is never changed'); END
"""
REPLACES = """
WHEN EXISTS (SELECT 1 FROM tray_events WHERE id = NEW.id OR (tray_id = NEW.tray_id AND seq = NEW.seq))
"""


def upgrade() -> None:
    """Create the tables; the file itself refuses to change what happened to a tray."""
    op.create_table(
        "trays",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("batch_id", sa.Integer, sa.ForeignKey("batches.id", ondelete="RESTRICT")),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("formula", sa.JSON),
        sa.Column("place", sa.String, nullable=False),
        sa.Column("pieces", sa.Integer, nullable=False),
        sa.Column("trays", sa.Integer, nullable=False),
        sa.Column("set_out_at", sa.DateTime, nullable=False),
        sa.Column("wrapped_at", sa.DateTime),
        sa.Column("request_key", sa.String),
    )
    op.create_index("ix_trays_batch_id", "trays", ["batch_id"])
    op.create_index("ix_trays_wrapped_at", "trays", ["wrapped_at"])
    op.create_index("ix_trays_request_key", "trays", ["request_key"], unique=True)
    op.create_table(
        "tray_events",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("tray_id", sa.Integer, sa.ForeignKey("trays.id", ondelete="RESTRICT"), nullable=False),
        sa.Column("seq", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
        sa.UniqueConstraint("tray_id", "seq", name="uq_tray_events_tray_id"),
    )
    for verb, when in (("UPDATE", ""), ("DELETE", ""), ("INSERT", REPLACES)):
        op.execute(NEVER.format(name=verb.lower(), verb=verb, when=when))
    op.create_table(
        "air_log",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("place", sa.String, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("temperature_c", sa.Float, nullable=False),
        sa.Column("humidity_pct", sa.Float, nullable=False),
        sa.Column("source", sa.String, nullable=False),
    )
    op.create_index("ix_air_log_place", "air_log", ["place", "at"])
    op.create_table(
        "rack_places",
        sa.Column("name", sa.String, primary_key=True),
        sa.Column("trays", sa.Integer, nullable=False),
    )
    op.execute("INSERT INTO rack_places (name, trays) VALUES ('rack', 12)")
