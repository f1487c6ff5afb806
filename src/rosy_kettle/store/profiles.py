"""Profiles of the studio: own ones, and ready-made ones it has changed."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.store.base import Base, JsonList, JsonObject

__all__ = ["ProfileRow", "delete_profile", "list_profiles", "put_profile"]


class ProfileRow(Base):
    """Named target bands on readings."""

    __tablename__ = "profiles"

    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    summary: Mapped[str] = mapped_column(default="")
    ledger_profile: Mapped[str] = mapped_column(default="adult")
    bands: Mapped[list[dict[str, Any]]] = mapped_column(JsonList, default=list)
    """Reading, low, high; null where open."""
    settings: Mapped[dict[str, Any]] = mapped_column(JsonObject, default=dict)
    """What the profile assumes of market, user, bath and room, where it says so."""


def list_profiles(session: Session) -> list[ProfileRow]:
    """Return the studio's profiles by name."""
    return list(session.scalars(select(ProfileRow).order_by(ProfileRow.name)))


def put_profile(session: Session, row: ProfileRow) -> None:
    """Write a profile over the one of the same id."""
    session.merge(row)
    session.flush()


def delete_profile(session: Session, profile_id: str) -> None:
    """Take a profile of the studio's own away; a changed ready-made one becomes as delivered.

    Raises
    ------
    NotFoundError
        If the studio has none under that id.
    """
    row = session.get(ProfileRow, profile_id)
    if row is None:
        raise NotFoundError(f'There is no profile of your own under "{profile_id[:60]}".', noun="profile", id=profile_id[:60])
    session.delete(row)
