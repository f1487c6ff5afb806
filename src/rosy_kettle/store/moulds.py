"""How many of each mould the studio has."""

from __future__ import annotations

from sqlalchemy import CheckConstraint, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import Base

__all__ = ["MouldRow", "list_moulds", "set_moulds"]


class MouldRow(Base):
    """So many moulds of one kind."""

    __tablename__ = "moulds"
    __table_args__ = (CheckConstraint("count > 0", name="count_positive"),)

    tool_id: Mapped[str] = mapped_column(primary_key=True)
    count: Mapped[int]


def list_moulds(session: Session) -> dict[str, int]:
    """Return how many there are by tool; what is not in it has not been counted."""
    return {row.tool_id: row.count for row in session.scalars(select(MouldRow))}


def set_moulds(session: Session, tool_id: str, count: int | None) -> None:
    """Write how many there are; None is not counted."""
    if count is not None:
        session.merge(MouldRow(tool_id=tool_id, count=count))
    elif row := session.get(MouldRow, tool_id):
        session.delete(row)
