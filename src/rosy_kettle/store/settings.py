"""The studio's settings: one row of figures and facts."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import Base, JsonObject, UtcTime, now_utc

__all__ = ["SettingsRow", "read_settings", "write_settings"]

ONLY = 1


class SettingsRow(Base):
    """What the maker has said of the studio."""

    __tablename__ = "settings"

    id: Mapped[int] = mapped_column(primary_key=True)
    said: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    updated_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)


def read_settings(session: Session) -> dict[str, Any]:
    """Return what was said; empty where nothing was, or where another hand left no settings at all."""
    row = session.get(SettingsRow, ONLY)
    return dict(row.said) if row is not None and isinstance(row.said, dict) else {}


def write_settings(session: Session, said: dict[str, Any]) -> None:
    """Keep what was said in place of what was said before."""
    session.merge(SettingsRow(id=ONLY, said=said, updated_at=now_utc()))
