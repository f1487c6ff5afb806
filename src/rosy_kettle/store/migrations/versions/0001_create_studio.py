"""Create the first tables: formulas, versions, portions, lines, own ingredients, prices, synonyms."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    """Create all tables."""
    op.create_table(
        "formulas",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("updated_at", sa.DateTime, nullable=False),
        sa.Column("deleted_at", sa.DateTime),
    )
    op.create_table(
        "versions",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("formula_id", sa.Integer, sa.ForeignKey("formulas.id", ondelete="CASCADE"), nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("note", sa.String, nullable=False),
        sa.Column("method", sa.String, nullable=False),
        sa.Column("batch_g", sa.Float, nullable=False),
        sa.Column("settings", sa.JSON, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("frozen_at", sa.DateTime),
        sa.UniqueConstraint("formula_id", "number"),
    )
    op.create_index("ix_versions_formula_id", "versions", ["formula_id"])
    op.create_table(
        "portions",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("version_id", sa.Integer, sa.ForeignKey("versions.id", ondelete="CASCADE"), nullable=False),
        sa.Column("position", sa.Integer, nullable=False),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("share_pct", sa.Float),
        sa.Column("mass_g", sa.Float),
        sa.Column("split", sa.String),
    )
    op.create_index("ix_portions_version_id", "portions", ["version_id"])
    op.create_table(
        "lines",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("portion_id", sa.Integer, sa.ForeignKey("portions.id", ondelete="CASCADE"), nullable=False),
        sa.Column("position", sa.Integer, nullable=False),
        sa.Column("ingredient_id", sa.String),
        sa.Column("amount", sa.String, nullable=False),
        sa.Column("unit", sa.String, nullable=False),
        sa.Column("grams", sa.Float),
        sa.Column("text", sa.String, nullable=False),
        sa.Column("phase", sa.String, nullable=False),
        sa.Column("notes", sa.JSON, nullable=False),
        sa.Column("suggestions", sa.JSON, nullable=False),
        sa.Column("locked", sa.Boolean, nullable=False),
        sa.Column("min_g", sa.Float),
        sa.Column("max_g", sa.Float),
        sa.Column("poured_g", sa.Float),
        sa.CheckConstraint("grams IS NULL OR grams >= 0", name="grams_not_negative"),
    )
    op.create_index("ix_lines_portion_id", "lines", ["portion_id"])
    op.create_table(
        "own_ingredients",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column("based_on", sa.String, nullable=False),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("inci", sa.String, nullable=False),
        sa.Column("note", sa.String, nullable=False),
        sa.Column("properties", sa.JSON, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
    )
    op.create_table(
        "ingredient_prices",
        sa.Column("ingredient_id", sa.String, primary_key=True),
        sa.Column("price_per_kg", sa.Text, nullable=False),
        sa.Column("currency", sa.String, nullable=False),
        sa.Column("updated_at", sa.DateTime, nullable=False),
        sa.CheckConstraint("price_per_kg <> ''", name="price_not_empty"),
    )
    op.create_table(
        "ingredient_synonyms",
        sa.Column("phrase", sa.String, primary_key=True),
        sa.Column("ingredient_id", sa.String, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
    )
    op.create_index("ix_ingredient_synonyms_ingredient_id", "ingredient_synonyms", ["ingredient_id"])
