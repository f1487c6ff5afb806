"""Two stored batches side by side."""

from __future__ import annotations

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.bench.compare_batches import BatchComparison, MadeBatch, compare_batches
from rosy_kettle.store.rack import trays_of_batch
from rosy_kettle.usecases.batches.run_batch import open_bench
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["compare_made"]


def compare_made(session: Session, first_id: int, second_id: int) -> BatchComparison:
    """Return two batches side by side.

    Raises
    ------
    InputError
        If it is one batch twice.
    NotFoundError
        If there is no such batch.
    """
    if first_id == second_id:
        raise InputError("A batch differs in nothing from itself; choose another.", quantity="other")
    return compare_batches(_made(session, first_id), _made(session, second_id), studio_tables(session))


def _made(session: Session, batch_id: int) -> MadeBatch:
    bench = open_bench(session, batch_id)
    dried = [
        (tray.wrapped_at - tray.set_out_at).total_seconds() / 3600
        for tray in trays_of_batch(session, batch_id)
        if tray.wrapped_at is not None
    ]
    return MadeBatch(
        bench.row.name, bench.made, bench.state, bench.row.batch_g, bench.row.version, max(dried, default=None),
    )  # fmt: skip
