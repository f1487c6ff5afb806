"""Add guided measurements."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"

NEVER = """
CREATE TRIGGER measurements_no_{name} BEFORE {verb} ON measurements
BEGIN SELECT RAISE(ABORT, 'a measurement is left out by a later row, never changed'); END
"""


def upgrade() -> None:
    """Create the table; the file itself refuses to change a measurement."""
    op.create_table(
        "measurements",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="RESTRICT")),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("formula", sa.JSON, nullable=False),
        sa.Column("facts", sa.JSON, nullable=False),
        sa.Column("leaves_out", sa.Integer),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String),
    )
    op.create_index("ix_measurements_formula_id", "measurements", ["formula_id"])
    op.create_index("ix_measurements_request_key", "measurements", ["request_key"], unique=True)
    for verb in ("UPDATE", "DELETE"):
        op.execute(NEVER.format(name=verb.lower(), verb=verb))
