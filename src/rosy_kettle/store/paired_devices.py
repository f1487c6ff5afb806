"""Devices that may use the studio over the network; of their tokens only the hashes are kept."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.store.base import Base, UtcTime, now_utc

__all__ = ["ROLES", "PairedDeviceRow", "add_paired_device", "list_paired_devices", "revoke_paired_device", "roles_by_token"]

ROLES = ("look", "bench", "all")
"""look reads; bench also weighs, judges, weighs in and tests; all does what the studio's own machine does, but pairs nobody."""


class PairedDeviceRow(Base):
    """One device."""

    __tablename__ = "paired_devices"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str]
    role: Mapped[str]
    token_hash: Mapped[str] = mapped_column(unique=True)
    """SHA-256 of the device's token."""
    paired_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    revoked_at: Mapped[datetime | None] = mapped_column(UtcTime)


def add_paired_device(session: Session, name: str, role: str, token_hash: str) -> PairedDeviceRow:
    """Keep a device."""
    row = PairedDeviceRow(name=name, role=role, token_hash=token_hash)
    session.add(row)
    session.flush()
    return row


def list_paired_devices(session: Session) -> list[PairedDeviceRow]:
    """Return the devices that are not revoked, the newest first."""
    asked = select(PairedDeviceRow).where(PairedDeviceRow.revoked_at.is_(None)).order_by(PairedDeviceRow.id.desc())
    return list(session.scalars(asked))


def revoke_paired_device(session: Session, device_id: int) -> None:
    """Shut a device out from its next request on.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    row = session.get(PairedDeviceRow, device_id)
    if row is None or row.revoked_at is not None:
        raise NotFoundError(f"There is no paired device {device_id}.", noun="paired device", id=device_id)
    row.revoked_at = now_utc()


def roles_by_token(session: Session) -> dict[str, str]:
    """Return the role of every device that may come in, by the hash of its token."""
    return {row.token_hash: row.role for row in list_paired_devices(session)}
