"""What all tables share."""

from __future__ import annotations

from datetime import UTC, datetime

from sqlalchemy import DateTime, MetaData
from sqlalchemy.orm import DeclarativeBase
from sqlalchemy.types import TypeDecorator

__all__ = ["Base", "UtcTime", "now_utc"]

NAMES = {
    "ix": "ix_%(column_0_label)s",
    "uq": "uq_%(table_name)s_%(column_0_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


class Base(DeclarativeBase):
    """All tables of the studio."""

    metadata = MetaData(naming_convention=NAMES)


class UtcTime(TypeDecorator[datetime]):
    """A moment, stored in UTC without offset, read back with it."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: object) -> datetime | None:  # noqa: ARG002 - SQLAlchemy's signature
        """Return what is stored."""
        return None if value is None else value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: object) -> datetime | None:  # noqa: ARG002 - as above
        """Return what was meant."""
        return None if value is None else value.replace(tzinfo=UTC)


def now_utc() -> datetime:
    """Return the present moment in UTC."""
    return datetime.now(UTC)
