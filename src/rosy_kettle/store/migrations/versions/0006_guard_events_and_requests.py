"""Keep events from being replaced, and begin a batch once a request."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    """Refuse INSERT OR REPLACE over an event, which the triggers on update and delete do not see; add the request's key."""
    op.execute(
        "CREATE TRIGGER batch_events_no_replace BEFORE INSERT ON batch_events "
        "WHEN EXISTS (SELECT 1 FROM batch_events WHERE id = NEW.id OR (batch_id = NEW.batch_id AND seq = NEW.seq)) "
        "BEGIN SELECT RAISE(ABORT, 'what happened to a batch is never changed'); END"
    )
    op.add_column("batches", sa.Column("request_key", sa.String))
    op.create_index("ix_batches_request_key", "batches", ["request_key"], unique=True)
