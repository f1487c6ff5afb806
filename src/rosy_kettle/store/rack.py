"""The rack: trays of pieces, every thing that happened to them, never changed, and the air they stand in."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import ForeignKey, Index, UniqueConstraint, delete, func, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import Base, JsonObject, UtcTime, now_utc
from rosy_kettle.store.happenings import HappenedRow, add_happened
from rosy_kettle.store.rows import AskedForRow, find, keep, kept_with, newest_first, speaking_of

__all__ = [
    "AirRow", "PlaceRow", "TrayEventRow", "TrayRow", "add_air", "add_tray", "add_tray_event", "air_since", "find_tray",
    "last_seqs", "latest_air", "list_places", "list_tray_events", "list_trays", "set_place", "thin_air", "tray_set_out_with",
    "trays_by_id", "trays_of_batch", "trays_taken",
]  # fmt: skip


class TrayRow(AskedForRow):
    """Pieces that were set out together in one place."""

    __noun__ = "tray"
    __tablename__ = "trays"

    id: Mapped[int] = mapped_column(primary_key=True)
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batches.id", ondelete="RESTRICT"), index=True)
    name: Mapped[str]
    formula: Mapped[dict[str, Any] | None] = mapped_column(JsonObject)
    """As made, a formula file; null for pieces from elsewhere."""
    place: Mapped[str]
    pieces: Mapped[int]
    trays: Mapped[int]
    """How many of the rack's trays they take."""
    set_out_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    wrapped_at: Mapped[datetime | None] = mapped_column(UtcTime, index=True)
    """Kept beside the event, so that a list finds what is still on the rack."""
    request_key: Mapped[str | None] = mapped_column(unique=True)


class TrayEventRow(HappenedRow):
    """One thing that happened. Rows are only ever added."""

    __tablename__ = "tray_events"
    __table_args__ = (
        UniqueConstraint("tray_id", "seq"),
        Index("ix_tray_events_tray_id_event_id", "tray_id", "event_id", unique=True),
    )

    tray_id: Mapped[int] = mapped_column(ForeignKey("trays.id", ondelete="RESTRICT"), sort_order=-1)


class AirRow(Base):
    """The air of a place at one moment."""

    __tablename__ = "air_log"

    id: Mapped[int] = mapped_column(primary_key=True)
    place: Mapped[str]
    at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    temperature_c: Mapped[float]
    humidity_pct: Mapped[float]
    source: Mapped[str]


class PlaceRow(Base):
    """A place where pieces dry, and how many trays it holds."""

    __tablename__ = "rack_places"

    name: Mapped[str] = mapped_column(primary_key=True)
    trays: Mapped[int]


def add_tray(session: Session, row: TrayRow) -> TrayRow:
    """Set out a tray."""
    return keep(session, row)


def tray_set_out_with(session: Session, key: str | None) -> int | None:
    """Return the number of the tray that was set out with a key, or None."""
    return kept_with(session, TrayRow, key)


def find_tray(session: Session, tray_id: int) -> TrayRow:
    """Return a tray; a NotFoundError where there is none under that number."""
    return find(session, TrayRow, tray_id)


def list_trays(
    session: Session, *, wrapped: bool, query: str, before: int | None, limit: int, wrapped_after: datetime | None = None
) -> list[TrayRow]:  # fmt: skip
    """Return trays, the newest first: those on the rack, or those wrapped, all of them or after a moment."""
    asked = select(TrayRow).where(TrayRow.wrapped_at.is_not(None) if wrapped else TrayRow.wrapped_at.is_(None))
    if wrapped_after is not None:
        asked = asked.where(TrayRow.wrapped_at > wrapped_after)
    asked = speaking_of(asked, query, TrayRow.name)
    return newest_first(session, asked, TrayRow, before, limit)


def trays_of_batch(session: Session, batch_id: int) -> list[TrayRow]:
    """Return the trays a batch was set out on."""
    return list(session.scalars(select(TrayRow).where(TrayRow.batch_id == batch_id).order_by(TrayRow.id)))


def trays_by_id(session: Session, tray_ids: Sequence[int]) -> list[TrayRow]:
    """Return the trays of some numbers, of those that are there."""
    return list(session.scalars(select(TrayRow).where(TrayRow.id.in_(tray_ids))))


def list_tray_events(session: Session, tray_ids: list[int]) -> dict[int, list[TrayEventRow]]:
    """Return everything that happened to some trays, in its order, asked for at once."""
    found: dict[int, list[TrayEventRow]] = {id_: [] for id_ in tray_ids}
    asked = select(TrayEventRow).where(TrayEventRow.tray_id.in_(tray_ids)).order_by(TrayEventRow.tray_id, TrayEventRow.seq)
    for row in session.scalars(asked):
        found[row.tray_id].append(row)
    return found


def last_seqs(session: Session, tray_ids: list[int]) -> dict[int, int]:
    """Return how many things have happened to each of some trays; none where nothing has."""
    asked = select(TrayEventRow.tray_id, func.max(TrayEventRow.seq)).where(TrayEventRow.tray_id.in_(tray_ids))
    return {tray_id: int(seq) for tray_id, seq in session.execute(asked.group_by(TrayEventRow.tray_id))}


def add_tray_event(
    session: Session, tray_id: int, after: int, kind: str, data: dict[str, Any], event_id: str | None = None,
    made_at: datetime | None = None,
) -> TrayEventRow:  # fmt: skip
    """Add one thing that happened; one without a name of its own is given one.

    Raises
    ------
    ConflictError
        If something else has happened since ``after``.
    """
    row = TrayEventRow(kind=kind, data=data, event_id=event_id, made_at=made_at)
    return add_happened(session, row, TrayEventRow.tray_id, tray_id, after, "tray")


def add_air(session: Session, row: AirRow) -> None:
    """Log the air of a place."""
    session.add(row)
    session.flush()


def air_since(session: Session, place: str, since: datetime, until: datetime | None) -> list[AirRow]:
    """Return the air of a place from one moment to another, oldest first."""
    asked = select(AirRow).where(AirRow.place == place, AirRow.at >= since)
    if until is not None:
        asked = asked.where(AirRow.at <= until)
    return list(session.scalars(asked.order_by(AirRow.at)))


def latest_air(session: Session, place: str | None, source: str | None = None) -> AirRow | None:
    """Return the air logged last in a place, or in any; of one source, or of any."""
    asked = select(AirRow).order_by(AirRow.at.desc()).limit(1)
    asked = asked if place is None else asked.where(AirRow.place == place)
    return session.scalar(asked if source is None else asked.where(AirRow.source == source))


def thin_air(session: Session, older_than: datetime) -> int:
    """Keep one reading of the hygrometer an hour of what is older; what was written by hand stays. Return how many went."""
    hour = func.strftime("%Y-%m-%d %H", AirRow.at)
    kept = select(func.min(AirRow.id)).where(AirRow.at < older_than, AirRow.source == "hygrometer").group_by(AirRow.place, hour)
    gone = delete(AirRow).where(AirRow.at < older_than, AirRow.source == "hygrometer", AirRow.id.not_in(kept))
    return int(session.execute(gone).rowcount)  # type: ignore[attr-defined]


def list_places(session: Session) -> list[PlaceRow]:
    """Return the places where pieces dry."""
    return list(session.scalars(select(PlaceRow).order_by(PlaceRow.name)))


def set_place(session: Session, name: str, trays: int) -> None:
    """Write how many trays a place holds."""
    session.merge(PlaceRow(name=name, trays=trays))


def trays_taken(session: Session) -> dict[str, int]:
    """Return how many trays are taken by place, of those not wrapped yet."""
    asked = select(TrayRow.place, func.sum(TrayRow.trays)).where(TrayRow.wrapped_at.is_(None)).group_by(TrayRow.place)
    return {place: int(taken) for place, taken in session.execute(asked)}


MONTH = timedelta(days=30)
"""How long the air log is kept as it was read."""
