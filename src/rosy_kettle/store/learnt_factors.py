"""The factors a studio has accepted; all others are worked out anew when they are looked at."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import Base, UtcTime, now_utc

__all__ = ["LearntFactorRow", "accept_factor", "accepted_factors", "list_accepted", "put_factor_back"]


class LearntFactorRow(Base):
    """A factor that is used in place of a default."""

    __tablename__ = "learnt_factors"

    id: Mapped[str] = mapped_column(primary_key=True)
    yours: Mapped[float]
    said: Mapped[str]
    """The sentence it was accepted by."""
    accepted_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)


def list_accepted(session: Session) -> list[LearntFactorRow]:
    """Return what is accepted, with the sentence it was accepted by."""
    return list(session.scalars(select(LearntFactorRow).order_by(LearntFactorRow.id)))


def accepted_factors(session: Session) -> dict[str, float]:
    """Return what is accepted, by id."""
    return {row.id: row.yours for row in list_accepted(session) if isinstance(row.yours, float | int)}


def accept_factor(session: Session, id_: str, yours: float, said: str) -> None:
    """Use a factor from now on."""
    session.merge(LearntFactorRow(id=id_, yours=yours, said=said, accepted_at=now_utc()))


def put_factor_back(session: Session, id_: str) -> None:
    """Use the default again."""
    if row := session.get(LearntFactorRow, id_):
        session.delete(row)
