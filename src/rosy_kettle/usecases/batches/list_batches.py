"""All batches at a glance."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy.orm import Session

from rosy_kettle.store.batches import (
    BatchEventRow,
    BatchRow,
    PageOfBatches,
    count_events,
    list_remarks,
    page_of_batches,
    planned_pieces,
)
from rosy_kettle.store.happenings import said_by
from rosy_kettle.store.journal import batches_told_of

__all__ = ["BatchGlance", "glance_at_batches"]


@dataclass(frozen=True, slots=True)
class BatchGlance:
    """One batch in the list."""

    id: int
    formula_id: int
    version: int
    name: str
    method: str
    batch_g: float
    created_at: datetime
    closed_at: datetime | None
    pieces: int
    pieces_good: int | None
    remarks: str
    """Notes and remarks, for the search."""
    happened: int
    """How many things have happened to it."""


def glance_at_batches(session: Session, ask: PageOfBatches) -> list[BatchGlance]:
    """Return a page of batches, the newest first; what is searched for may stand in the name or in what the journal tells."""
    rows = page_of_batches(session, ask, batches_told_of(ask.query))
    numbers = [row.id for row in rows]
    told, happened, pieces = list_remarks(session, numbers), count_events(session, numbers), planned_pieces(session, numbers)
    return [_glance(row, told.get(row.id, []), happened.get(row.id, 0), pieces.get(row.id, 0)) for row in rows]


def _glance(row: BatchRow, events: Sequence[BatchEventRow], happened: int, pieces: int) -> BatchGlance:
    outcome: dict[str, object] = {}
    for event in events:
        outcome |= said_by(event) if event.kind == "outcome" else {}
    words = [str(said_by(event).get("text", "")) for event in events if event.kind in {"note", "amended"}]
    good = outcome.get("pieces_good")
    return BatchGlance(
        row.id, row.formula_id, row.version, row.name, row.method, row.batch_g, row.created_at, row.closed_at,
        pieces, good if isinstance(good, int) else None,
        " ".join([*words, str(outcome.get("remarks", ""))]).strip(), happened,
    )  # fmt: skip
