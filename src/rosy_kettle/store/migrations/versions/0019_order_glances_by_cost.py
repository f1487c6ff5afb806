"""Keep the glances in the order of their cost: the cheapest third is then found without sorting all of them."""

from __future__ import annotations

from alembic import op

revision = "0019"
down_revision = "0018"


def upgrade() -> None:
    """Create the index."""
    op.execute("CREATE INDEX ix_formula_glances_cost ON formula_glances (CAST(cost_piece AS FLOAT)) WHERE cost_piece IS NOT NULL")
