"""What is asked of rows alike: kept once, found by number or by the key of its request, listed from the newest."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, ClassVar, TypeVar

from sqlalchemy import Select, or_, select
from sqlalchemy.orm import InstrumentedAttribute, Mapped, Session

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.store.base import Base

__all__ = ["AskedForRow", "NumberedRow", "find", "keep", "keep_once", "kept_with", "newest_first", "speaking_of"]


class NumberedRow(Base):
    """A row with a number, and the word it goes by."""

    __abstract__ = True
    __noun__: ClassVar[str]
    if TYPE_CHECKING:
        id: Mapped[int]


class AskedForRow(NumberedRow):
    """A row that a request made; asked twice with one key, it is there once."""

    __abstract__ = True
    if TYPE_CHECKING:
        request_key: Mapped[str | None]


Numbered = TypeVar("Numbered", bound=NumberedRow)
AskedFor = TypeVar("AskedFor", bound=AskedForRow)


def keep(session: Session, row: Numbered) -> Numbered:
    """Keep a row and give it its number."""
    session.add(row)
    session.flush()
    return row


def keep_once(session: Session, row: AskedFor) -> AskedFor:
    """Keep a row, or return the one that was kept with the same key before."""
    if row.request_key is not None:
        kept = session.scalar(select(type(row)).where(type(row).request_key == row.request_key))
        if kept is not None:
            return kept
    return keep(session, row)


def kept_with(session: Session, kind: type[AskedFor], key: str | None) -> int | None:
    """Return the number of the row that was kept with a key, or None."""
    return None if key is None else session.scalar(select(kind.id).where(kind.request_key == key))


def find(session: Session, kind: type[Numbered], number: int) -> Numbered:
    """Return a row by its number.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    row = session.get(kind, number)
    if row is None:
        raise NotFoundError(f"There is no {kind.__noun__} {number}.", noun=kind.__noun__, id=number)
    return row


def speaking_of(asked: Select[Any], query: str, *columns: InstrumentedAttribute[str]) -> Select[Any]:
    """Narrow a question to the rows one of whose columns holds the words, whatever their case."""
    return asked.where(or_(*(column.icontains(query, autoescape=True) for column in columns))) if query else asked


def newest_first(
    session: Session, asked: Select[Numbered], kind: type[Numbered], before: int | None, limit: int
) -> list[Numbered]:
    """Return a page of rows from the newest on, or from the one before a number."""
    if before is not None:
        asked = asked.where(kind.id < before)
    return list(session.scalars(asked.order_by(kind.id.desc()).limit(limit)))
