"""Add designs of mini-batches and their results."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"

NEVER = """
CREATE TRIGGER trial_results_no_{name} BEFORE {verb} ON trial_results
BEGIN SELECT RAISE(ABORT, 'a result is amended by a later one, never changed'); END
"""


def upgrade() -> None:
    """Create the tables; the file itself refuses to change a result."""
    op.create_table(
        "trial_designs",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="RESTRICT"), nullable=False),
        sa.Column("trials_formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="RESTRICT"), nullable=False),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("reading", sa.String, nullable=False),
        sa.Column("wanted", sa.String, nullable=False),
        sa.Column("bounds", sa.JSON, nullable=False),
        sa.Column("batch_g", sa.Float, nullable=False),
        sa.Column("degree", sa.Integer, nullable=False),
        sa.Column("efficiency", sa.Float, nullable=False),
        sa.Column("points", sa.JSON, nullable=False),
        sa.Column("designed_at", sa.DateTime, nullable=False),
        sa.Column("request_key", sa.String),
    )
    op.create_index("ix_trial_designs_formula_id", "trial_designs", ["formula_id"])
    op.create_index("ix_trial_designs_request_key", "trial_designs", ["request_key"], unique=True)
    op.create_table(
        "trial_results",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("design_id", sa.Integer, sa.ForeignKey("trial_designs.id", ondelete="RESTRICT"), nullable=False),
        sa.Column("trial", sa.Integer, nullable=False),
        sa.Column("value", sa.Float),
        sa.Column("amends", sa.Integer),
        sa.Column("at", sa.DateTime, nullable=False),
    )
    op.create_index("ix_trial_results_design_id", "trial_results", ["design_id"])
    for verb in ("UPDATE", "DELETE"):
        op.execute(NEVER.format(name=verb.lower(), verb=verb))
