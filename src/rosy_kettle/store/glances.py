"""What the list of formulas keeps beside each formula, so that a list never has to judge one."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import Float, ForeignKey, and_, cast, exists, func, or_, select
from sqlalchemy.orm import Mapped, Session, mapped_column, selectinload

from rosy_kettle.store.base import Base, JsonList
from rosy_kettle.store.formulas import FormulaRow, PortionRow, VersionRow

__all__ = [
    "FormulaGlanceRow",
    "PageOfFormulas",
    "cost_of_cheapest_third",
    "count_formulas",
    "count_stale",
    "page_of_formulas",
    "put_glance",
    "stale_formulas",
]


class FormulaGlanceRow(Base):
    """Readings of a formula's working version as they were when it was last judged."""

    __tablename__ = "formula_glances"

    formula_id: Mapped[int] = mapped_column(ForeignKey("formulas.id", ondelete="CASCADE"), primary_key=True)
    revision: Mapped[int]
    """Revision of the formula these were worked out from."""
    version: Mapped[int]
    rests_on: Mapped[str]
    """Fingerprint of the prices, ingredients and constants these were worked out with."""
    method: Mapped[str]
    lines: Mapped[int]
    mass_g: Mapped[float]
    saturation: Mapped[float | None]
    state: Mapped[str | None]
    wanted_states: Mapped[list[str]] = mapped_column(JsonList)
    fits: Mapped[bool | None]
    ingredients: Mapped[list[str]] = mapped_column(JsonList)
    words: Mapped[str]
    """Names of method and ingredients in lower case, for the search."""
    cost_piece: Mapped[str | None]


@dataclass(frozen=True, slots=True)
class PageOfFormulas:
    """What is asked of a page of formulas."""

    query: str
    before: tuple[datetime, int] | None
    """Moment of the last change and number of the formula the page comes after."""
    limit: int


def page_of_formulas(session: Session, ask: PageOfFormulas) -> list[tuple[FormulaRow, FormulaGlanceRow | None]]:
    """Return formulas that are not deleted with what is kept of them, last changed first."""
    asked = (
        select(FormulaRow, FormulaGlanceRow)
        .outerjoin(FormulaGlanceRow, FormulaGlanceRow.formula_id == FormulaRow.id)
        .where(FormulaRow.deleted_at.is_(None))
    )
    for word in ask.query.lower().split():
        asked = asked.where(
            or_(FormulaRow.name.icontains(word, autoescape=True), FormulaGlanceRow.words.contains(word, autoescape=True))
        )
    if ask.before is not None:
        at, last = ask.before
        asked = asked.where(or_(FormulaRow.updated_at < at, and_(FormulaRow.updated_at == at, FormulaRow.id > last)))
    asked = asked.order_by(FormulaRow.updated_at.desc(), FormulaRow.id).limit(ask.limit)
    return [(row[0], row[1]) for row in session.execute(asked)]


def count_formulas(session: Session) -> tuple[int, int]:
    """Return how many formulas there are, and how many of them are known not to give the dough their method wants."""
    there = FormulaRow.deleted_at.is_(None)
    off = select(func.count()).select_from(FormulaRow).join(FormulaGlanceRow).where(there, FormulaGlanceRow.fits.is_(False))
    return session.scalar(select(func.count(FormulaRow.id)).where(there)) or 0, session.scalar(off) or 0


def _stale(rests_on: str) -> Any:
    kept = FormulaGlanceRow.formula_id == FormulaRow.id
    sound = and_(kept, FormulaGlanceRow.revision == FormulaRow.revision, FormulaGlanceRow.rests_on == rests_on)
    return and_(FormulaRow.deleted_at.is_(None), ~select(FormulaGlanceRow.formula_id).where(sound).exists())


def revisions_of_stale(session: Session, rests_on: str) -> dict[int, int]:
    """Return the revision of every formula that still has to be judged, by its number."""
    asked = select(FormulaRow.id, FormulaRow.revision).where(_stale(rests_on))
    return {row.id: row.revision for row in session.execute(asked)}


def stale_formulas(session: Session, rests_on: str, limit: int, leave_out: Collection[int] = ()) -> list[FormulaRow]:
    """Return formulas that have changed, or rest on what has, since they were judged; the last changed first."""
    waiting = (_stale(rests_on), FormulaRow.id.not_in(leave_out))
    asked = select(FormulaRow).where(*waiting).order_by(FormulaRow.updated_at.desc()).limit(limit)
    whole = selectinload(FormulaRow.versions).selectinload(VersionRow.portions).selectinload(PortionRow.lines)
    return list(session.scalars(asked.options(whole)))


def count_stale(session: Session, rests_on: str) -> int:
    """Return how many formulas still have to be judged."""
    return session.scalar(select(func.count()).select_from(FormulaRow).where(_stale(rests_on))) or 0


def put_glance(session: Session, row: FormulaGlanceRow) -> None:
    """Keep what was worked out of a formula."""
    session.merge(row)


def cost_of_cheapest_third(session: Session) -> Decimal | None:
    """Return the cost of a piece that the cheapest third of the formulas keep under; None where none is known."""
    there = exists().where(FormulaRow.id == FormulaGlanceRow.formula_id, FormulaRow.deleted_at.is_(None))
    kept = (FormulaGlanceRow.cost_piece.is_not(None), there)
    third = max(0, (session.scalar(select(func.count()).select_from(FormulaGlanceRow).where(*kept)) or 0) // 3 - 1)
    in_order = cast(FormulaGlanceRow.cost_piece, Float)  # as the index has it
    found = session.scalar(select(FormulaGlanceRow.cost_piece).where(*kept).order_by(in_order).offset(third).limit(1))
    return None if found is None else Decimal(found)
