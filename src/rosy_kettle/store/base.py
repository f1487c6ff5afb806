"""What all tables share."""

from __future__ import annotations

import json
from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any, ClassVar

from sqlalchemy import JSON, DateTime, Dialect, MetaData
from sqlalchemy.orm import DeclarativeBase
from sqlalchemy.types import TypeDecorator

__all__ = ["Base", "JsonList", "JsonObject", "UtcTime", "now_utc"]

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


class _OddJson(TypeDecorator[Any]):
    """JSON of one kind; what another hand left in its place, or broke, is read as nothing, and ``check`` names it."""

    impl = JSON
    kind: ClassVar[type]

    def result_processor(self, dialect: Dialect, coltype: object) -> Callable[[Any], Any]:  # noqa: ARG002 - SQLAlchemy's signature
        """Return what reads a stored value: never anything but the kind, or null where the column may be."""

        def read(stored: Any) -> Any:
            try:
                value = None if stored is None else json.loads(stored)
            except (TypeError, ValueError):
                value = ...
            return value if value is None or isinstance(value, self.kind) else self.kind()

        return read


class JsonObject(_OddJson):
    """An object of JSON."""

    cache_ok = True
    kind = dict


class JsonList(_OddJson):
    """A list of JSON."""

    cache_ok = True
    kind = list


def now_utc() -> datetime:
    """Return the present moment in UTC."""
    return datetime.now(UTC)
