"""What batches, trays, baths and measurements say of the defaults, kept so that learning has it at once."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Any, NamedTuple

from sqlalchemy import Select, and_, delete, exists, func, or_, select
from sqlalchemy.orm import InstrumentedAttribute, Mapped, Session, mapped_column

from rosy_kettle.store.base import Base, JsonList
from rosy_kettle.store.batches import BatchEventRow, BatchRow
from rosy_kettle.store.measurements import MeasurementRow, counted_measurements
from rosy_kettle.store.rack import AirRow, TrayEventRow, TrayRow
from rosy_kettle.store.tub_tests import TubTestEventRow, TubTestRow

__all__ = [
    "KINDS",
    "ObservationRow",
    "Source",
    "forget_observations",
    "kept_observations",
    "list_sources",
    "marks_of_kept",
    "put_observations",
]

KINDS = ("felt", "measured", "dried", "foam", "shaped")
"""What is learnt from, in the order in which it is told."""


class Source(NamedTuple):
    """A batch, tray, bath or measurement that may say something, and what has happened to it so far."""

    kind: str
    id: int
    mark: str


class ObservationRow(Base):
    """What one source said when it was last looked at."""

    __tablename__ = "observations"

    kind: Mapped[str] = mapped_column(primary_key=True)
    source_id: Mapped[int] = mapped_column(primary_key=True)
    mark: Mapped[str]
    """How far the source had come."""
    rests_on: Mapped[str]
    """Fingerprint of the tables it was held against."""
    told: Mapped[list[dict[str, Any]]] = mapped_column(JsonList)


def list_sources(session: Session, limit: int) -> list[Source]:
    """Return the newest of each kind that may say something, the newest first."""
    asked = {
        "felt": _batches(_any_event(BatchEventRow.kind == "felt"), limit),
        "measured": counted_measurements(limit).add_columns(MeasurementRow.at),
        "dried": _trays(limit),
        "foam": _newest(TubTestRow.id, TubTestRow.begun_at, TubTestEventRow.test_id, TubTestEventRow.seq, limit),
        "shaped": _batches(and_(_any_event(BatchEventRow.kind == "sampled"), BatchRow.closed_at.is_not(None)), limit),
    }
    return [
        Source(kind, id_, "/".join("" if each is None else str(each) for each in mark))
        for kind in KINDS
        for id_, *mark in session.execute(asked[kind])
    ]


def _any_event(which: Any) -> Any:
    return exists().where(BatchEventRow.batch_id == BatchRow.id, which)


def _newest(
    id_: InstrumentedAttribute[int], made: InstrumentedAttribute[datetime], of: InstrumentedAttribute[int],
    seq: InstrumentedAttribute[int], limit: int,
) -> Any:  # fmt: skip
    """Ask for the newest rows, when each was made, and the number of the last thing that happened to it.

    By its moment a row is told from another of its number in a studio that was brought back meanwhile.
    """
    last = select(func.max(seq)).where(of == id_).scalar_subquery()
    return select(id_, made, last).order_by(id_.desc()).limit(limit)


def _batches(which: Any, limit: int) -> Select[Any]:
    asked: Select[Any] = _newest(BatchRow.id, BatchRow.created_at, BatchEventRow.batch_id, BatchEventRow.seq, limit).where(which)
    return asked


def _trays(limit: int) -> Select[Any]:
    """Ask for trays that were weighed, with their last thing and the air logged while they stood."""
    weighed = exists().where(TrayEventRow.tray_id == TrayRow.id, TrayEventRow.kind == "weighed")
    stood = and_(
        AirRow.place == TrayRow.place, AirRow.at >= TrayRow.set_out_at,
        or_(TrayRow.wrapped_at.is_(None), AirRow.at <= TrayRow.wrapped_at),
    )  # fmt: skip
    airs, last_air = (select(each).where(stood).scalar_subquery() for each in (func.count(AirRow.id), func.max(AirRow.at)))
    asked: Select[Any] = _newest(TrayRow.id, TrayRow.set_out_at, TrayEventRow.tray_id, TrayEventRow.seq, limit).where(weighed)
    return asked.add_columns(airs, last_air)


def marks_of_kept(session: Session, rests_on: str) -> set[Source]:
    """Return the sources whose word is kept, as far as they had come, where it still rests on the same."""
    asked = select(ObservationRow.kind, ObservationRow.source_id, ObservationRow.mark).where(ObservationRow.rests_on == rests_on)
    return {Source(*row) for row in session.execute(asked)}


def kept_observations(session: Session, rests_on: str) -> dict[Source, list[dict[str, Any]]]:
    """Return what is kept of each source and still rests on the same."""
    kept = ObservationRow
    asked = select(kept.kind, kept.source_id, kept.mark, kept.told).where(kept.rests_on == rests_on)
    return {Source(kind, id_, mark): told for kind, id_, mark, told in session.execute(asked)}


def put_observations(session: Session, rows: Iterable[ObservationRow]) -> None:
    """Keep what some sources say, in place of what they said before."""
    for row in rows:
        session.merge(row)


def forget_observations(session: Session, sources: Iterable[Source]) -> None:
    """Let go of what is kept of sources that are not learnt from any more."""
    for each in sources:
        session.execute(delete(ObservationRow).where(ObservationRow.kind == each.kind, ObservationRow.source_id == each.id))
