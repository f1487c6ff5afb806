"""Name events: each by its own id and the moment it was made; say of every movement whether its jar was only assumed."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0021"
down_revision = "0020"

OWNERS = {"batch_events": ("batch_id", "replace"), "tray_events": ("tray_id", "insert"), "tub_test_events": ("test_id", "insert")}
REPLACED = """
CREATE TRIGGER {table}_no_{name} BEFORE INSERT ON {table}
WHEN EXISTS (
    SELECT 1 FROM {table} WHERE id = NEW.id OR ({owner} = NEW.{owner} AND (seq = NEW.seq OR event_id = NEW.event_id))
)
BEGIN SELECT RAISE(ABORT, 'what happened is never changed'); END
"""


def upgrade() -> None:
    """Add the columns; events of former studios stay as they are, without a name."""
    for table, (owner, name) in OWNERS.items():
        op.add_column(table, sa.Column("event_id", sa.String))
        op.add_column(table, sa.Column("made_at", sa.DateTime))
        op.create_index(f"ix_{table}_{owner}_event_id", table, [owner, "event_id"], unique=True)
        op.execute(f"DROP TRIGGER IF EXISTS {table}_no_{name}")
        op.execute(REPLACED.format(table=table, owner=owner, name=name))
    op.add_column("movements", sa.Column("assumed", sa.Boolean))
