"""Lots of ingredients and every movement of them, never changed; what is left is kept beside the lot."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date, datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import ForeignKey, Select, Text, and_, cast, func, insert, or_, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.core.errors import ConflictError
from rosy_kettle.store.base import Base, JsonObject, UtcTime, now_utc
from rosy_kettle.store.ingredients import DecimalText
from rosy_kettle.store.rows import AskedForRow, find, newest_first, speaking_of

__all__ = [
    "LotRow", "MovementRow", "add_lot", "add_lots", "find_lot", "list_lots", "list_movements", "list_stock", "lot_by_code",
    "lots_of", "lots_of_ingredients", "lots_with_sheets", "move", "movements_of_batch",
]  # fmt: skip


class LotRow(AskedForRow):
    """One purchase of one ingredient."""

    __noun__ = "lot"
    __tablename__ = "lots"

    id: Mapped[int] = mapped_column(primary_key=True)
    ingredient_id: Mapped[str] = mapped_column(index=True)
    code: Mapped[str] = mapped_column(unique=True)
    """What stands on the jar."""
    supplier: Mapped[str] = mapped_column(default="")
    bought_on: Mapped[date | None]
    price: Mapped[Decimal | None] = mapped_column(DecimalText)
    """Of the whole lot, in its currency."""
    currency: Mapped[str] = mapped_column(default="USD")
    quantity_g: Mapped[float]
    left_g: Mapped[float]
    """Kept: always the sum of the lot's movements."""
    best_before: Mapped[date | None]
    opened_on: Mapped[date | None]
    certificate: Mapped[dict[str, Any] | None] = mapped_column(JsonObject(none_as_null=True))
    """The supplier's paper of this lot; it goes before the ingredient's."""
    properties: Mapped[dict[str, float]] = mapped_column(JsonObject, default=dict)
    """What the supplier's sheet says in place of the reference: active_fraction, water_fraction."""
    held: Mapped[str | None]
    """Kept: why it is held back, by the last word of its states; None where it is not."""
    counted: Mapped[bool] = mapped_column(default=True)
    """False: the lot is no longer part of what is on hand."""
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


class MovementRow(Base):
    """Something that came into a lot or went out of it. Rows are only ever added."""

    __tablename__ = "movements"

    id: Mapped[int] = mapped_column(primary_key=True)
    lot_id: Mapped[int] = mapped_column(ForeignKey("lots.id", ondelete="RESTRICT"), index=True)
    batch_id: Mapped[int | None] = mapped_column(ForeignKey("batches.id", ondelete="RESTRICT"), index=True)
    kind: Mapped[str]
    """bought, used, stocktake, wasted or withdrawn."""
    mass_g: Mapped[float]
    """In is above nothing, out below [g]."""
    reason: Mapped[str] = mapped_column(default="")
    at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    assumed: Mapped[bool | None]
    """Of what a batch used: whether nobody had said that it came from this jar; None before that was asked."""


def add_lot(session: Session, row: LotRow, reason: str = "") -> LotRow:
    """Enter a lot with the movement that brought it; the same key twice enters one.

    Raises
    ------
    ConflictError
        If another lot has its code.
    """
    if row.request_key is not None:
        kept = session.scalar(select(LotRow).where(LotRow.request_key == row.request_key))
        if kept is not None:
            return kept
    if lot_by_code(session, row.code) is not None:
        raise ConflictError(f'There is a lot "{row.code}" already; give this one another code.', noun="lot", reason="code")
    row.left_g = 0.0
    session.add(row)
    session.flush()
    move(session, row, "bought", row.quantity_g, reason)
    return row


def add_lots(session: Session, entries: Sequence[Mapping[str, Any]], reason: str) -> int:
    """Enter many lots at once, each with the movement that brought it; return how many were new.

    An entry whose key is known already is passed over; one whose code is taken gets its key behind the code.
    """
    known = set(session.scalars(select(LotRow.request_key).where(LotRow.request_key.is_not(None))))
    codes = set(session.scalars(select(LotRow.code)))
    first, at = (session.scalar(select(func.max(LotRow.id))) or 0) + 1, now_utc()
    lots: list[dict[str, Any]] = []
    for entry in entries:
        if entry["request_key"] in known:
            continue
        code = entry["code"] if entry["code"] not in codes else f"{entry['code']} ({entry['request_key']})"
        codes.add(code)
        kept = {"id": first + len(lots), "code": code, "left_g": entry["quantity_g"], "counted": True, "created_at": at}
        lots.append({**entry, **kept})
    if lots:
        brought = [
            {"lot_id": lot["id"], "kind": "bought", "mass_g": lot["quantity_g"], "reason": reason, "at": at} for lot in lots
        ]  # fmt: skip
        session.execute(insert(LotRow), lots)
        session.execute(insert(MovementRow), brought)
    return len(lots)


def move(
    session: Session, lot: LotRow, kind: str, mass_g: float, reason: str = "", batch_id: int | None = None,
    assumed: bool | None = None,
) -> None:  # fmt: skip
    """Write a movement, and keep what is left."""
    session.add(MovementRow(lot_id=lot.id, batch_id=batch_id, kind=kind, mass_g=mass_g, reason=reason, assumed=assumed))
    lot.left_g += mass_g
    session.flush()


def find_lot(session: Session, lot_id: int) -> LotRow:
    """Return a lot; a NotFoundError where there is none under that number."""
    return find(session, LotRow, lot_id)


def lot_by_code(session: Session, code: str) -> LotRow | None:
    """Return the lot a jar's code belongs to, or None."""
    return session.scalar(select(LotRow).where(LotRow.code == code))


def lots_of(session: Session, ingredient_id: str) -> list[LotRow]:
    """Return the lots of an ingredient that count."""
    return lots_of_ingredients(session, [ingredient_id])[ingredient_id]


def lots_of_ingredients(session: Session, ingredient_ids: Sequence[str]) -> dict[str, list[LotRow]]:
    """Return the lots of some ingredients that count, asked for at once."""
    found: dict[str, list[LotRow]] = {id_: [] for id_ in ingredient_ids}
    asked = select(LotRow).where(LotRow.ingredient_id.in_(ingredient_ids), LotRow.counted).order_by(LotRow.id)
    for row in session.scalars(asked):
        found[row.ingredient_id].append(row)
    return found


def list_lots(session: Session, *, query: str, ingredient_id: str | None, before: int | None, limit: int) -> list[LotRow]:
    """Return lots that count, the newest first."""
    asked = select(LotRow).where(LotRow.counted)
    asked = speaking_of(asked, query, LotRow.code, LotRow.supplier, LotRow.ingredient_id)
    if ingredient_id is not None:
        asked = asked.where(LotRow.ingredient_id == ingredient_id)
    return newest_first(session, asked, LotRow, before, limit)


def list_stock(session: Session) -> dict[str, float]:
    """Return what is on hand by ingredient [g]; one without a lot is not known."""
    asked = select(LotRow.ingredient_id, func.sum(LotRow.left_g)).where(LotRow.counted).group_by(LotRow.ingredient_id)
    return {ingredient_id: float(left_g) for ingredient_id, left_g in session.execute(asked)}


def lots_with_sheets(session: Session) -> dict[str, LotRow]:
    """Return, by ingredient, the lot in use where its supplier's sheet says something: the first expiring that is not empty."""
    asked = select(LotRow).where(LotRow.counted, LotRow.left_g > 0)
    expired = and_(LotRow.best_before.is_not(None), LotRow.best_before < now_utc().date())
    order = (LotRow.ingredient_id, expired, LotRow.best_before.is_(None), LotRow.best_before, LotRow.id)
    asked = asked.order_by(*order)
    first: dict[str, LotRow] = {}
    for row in session.scalars(asked.where(LotRow.ingredient_id.in_(_with_sheet()))):
        first.setdefault(row.ingredient_id, row)
    return {id_: row for id_, row in first.items() if row.properties or row.certificate}


def _with_sheet() -> Select[str]:
    """Ingredients that have a lot with a sheet at all: most have none, and need not be looked at."""
    return select(LotRow.ingredient_id).where(or_(cast(LotRow.properties, Text) != "{}", LotRow.certificate.is_not(None)))


def list_movements(
    session: Session, *, lot_id: int | None, batch_id: int | None, before: int | None, limit: int
) -> list[MovementRow]:
    """Return movements, the newest first."""
    asked = select(MovementRow)
    if lot_id is not None:
        asked = asked.where(MovementRow.lot_id == lot_id)
    if batch_id is not None:
        asked = asked.where(MovementRow.batch_id == batch_id)
    if before is not None:
        asked = asked.where(MovementRow.id < before)
    return list(session.scalars(asked.order_by(MovementRow.id.desc()).limit(limit)))


def movements_of_batch(session: Session, batch_id: int) -> list[tuple[MovementRow, LotRow]]:
    """Return what a batch drew, each with its lot."""
    asked = select(MovementRow, LotRow).join(LotRow, LotRow.id == MovementRow.lot_id).where(MovementRow.batch_id == batch_id)
    return [(movement, lot) for movement, lot in session.execute(asked.order_by(MovementRow.id))]
