"""All batches at a glance."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy.orm import Session

from rosy_kettle.store.batches import count_events, list_batches, list_events_of_all

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


def glance_at_batches(session: Session) -> list[BatchGlance]:
    """Return all batches, the newest first."""
    found = []
    told, happened = list_events_of_all(session), count_events(session)
    for row in list_batches(session):
        events = told.get(row.id, [])
        outcome: dict[str, object] = {}
        for event in events:
            outcome |= event.data if event.kind == "outcome" else {}
        words = [str(event.data["text"]) for event in events if event.kind in {"note", "amended"}]
        good = outcome.get("pieces_good")
        found.append(BatchGlance(
            row.id, row.formula_id, row.version, row.name, row.method, row.batch_g, row.created_at, row.closed_at,
            sum(item["pieces"] for item in row.plan["pieces"]), good if isinstance(good, int) else None,
            " ".join([*words, str(outcome.get("remarks", ""))]).strip(), happened.get(row.id, 0),
        ))  # fmt: skip
    return found
