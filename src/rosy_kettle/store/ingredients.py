"""What a studio adds to the reference table: own ingredients, prices, everyday names."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import CheckConstraint, Text, select
from sqlalchemy.orm import Mapped, Session, mapped_column
from sqlalchemy.types import TypeDecorator

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.core.records import PriceBreak
from rosy_kettle.store.base import Base, JsonList, JsonObject, UtcTime, now_utc

__all__ = [
    "IngredientPriceRow", "IngredientSynonymRow", "OwnIngredientRow",
    "delete_own_ingredient", "delete_price", "delete_synonym", "learn_synonym", "list_own_ingredients",
    "list_prices", "list_synonyms", "set_price",
]  # fmt: skip


class DecimalText(TypeDecorator[Decimal]):
    """Money as text: SQLite would make a binary fraction of it."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: Decimal | None, dialect: object) -> str | None:  # noqa: ARG002 - SQLAlchemy's signature
        """Return what is stored."""
        return None if value is None else str(value)

    def process_result_value(self, value: str | None, dialect: object) -> Decimal | None:  # noqa: ARG002 - as above
        """Return what was meant; None where another hand left something that is no amount."""
        try:
            return None if value is None else Decimal(value)
        except (ArithmeticError, TypeError, ValueError):
            return None


class OwnIngredientRow(Base):
    """An ingredient of the studio's own, copied from the nearest one in the reference table."""

    __tablename__ = "own_ingredients"

    id: Mapped[str] = mapped_column(primary_key=True)
    based_on: Mapped[str]
    name: Mapped[str]
    inci: Mapped[str] = mapped_column(default="")
    note: Mapped[str] = mapped_column(default="")
    properties: Mapped[dict[str, Any]] = mapped_column(JsonObject, default=dict)
    """Numbers that differ from the ingredient it is based on; null means not known."""
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)


class IngredientPriceRow(Base):
    """What the studio pays for an ingredient."""

    __tablename__ = "ingredient_prices"
    __table_args__ = (CheckConstraint("price_per_kg <> ''", name="price_not_empty"),)

    ingredient_id: Mapped[str] = mapped_column(primary_key=True)
    price_per_kg: Mapped[Decimal | None] = mapped_column(DecimalText, nullable=False)
    """None only where it cannot be read."""
    breaks: Mapped[list[list[str]]] = mapped_column(JsonList, default=list)
    """Pairs of amount from which [kg] and price [currency/kg], as decimal text, smallest amount first."""
    currency: Mapped[str] = mapped_column(default="USD")
    updated_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)


class IngredientSynonymRow(Base):
    """A name the recipe reader has learned."""

    __tablename__ = "ingredient_synonyms"

    phrase: Mapped[str] = mapped_column(primary_key=True)
    ingredient_id: Mapped[str] = mapped_column(index=True)
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)


def list_own_ingredients(session: Session) -> list[OwnIngredientRow]:
    """Return the studio's own ingredients by name."""
    return list(session.scalars(select(OwnIngredientRow).order_by(OwnIngredientRow.name)))


def list_prices(session: Session) -> list[IngredientPriceRow]:
    """Return the studio's prices, each in the currency it was typed in."""
    return list(session.scalars(select(IngredientPriceRow)))


def breaks_of(row: IngredientPriceRow) -> tuple[PriceBreak, ...]:
    """Return what larger amounts cost, smallest amount first."""
    try:
        return tuple(PriceBreak(Decimal(from_kg), Decimal(price)) for from_kg, price in row.breaks)
    except (ArithmeticError, TypeError, ValueError):  # of another version: the price alone stands
        return ()


def list_synonyms(session: Session) -> list[IngredientSynonymRow]:
    """Return all learned names."""
    return list(session.scalars(select(IngredientSynonymRow).order_by(IngredientSynonymRow.phrase)))


def set_price(
    session: Session, ingredient_id: str, price_per_kg: Decimal, currency: str, breaks: Sequence[PriceBreak] = ()
) -> None:
    """Write the price of an ingredient, and of larger amounts of it, over any earlier one."""
    pairs = [[str(each.from_kg), str(each.price_per_kg)] for each in breaks]
    session.merge(IngredientPriceRow(
        ingredient_id=ingredient_id, price_per_kg=price_per_kg, breaks=pairs, currency=currency, updated_at=now_utc()
    ))  # fmt: skip


def delete_price(session: Session, ingredient_id: str) -> None:
    """Go back to the reference band."""
    if row := session.get(IngredientPriceRow, ingredient_id):
        session.delete(row)


def learn_synonym(session: Session, phrase: str, ingredient_id: str) -> None:
    """Remember a name; a name already learned moves to the new ingredient."""
    session.merge(IngredientSynonymRow(phrase=phrase, ingredient_id=ingredient_id, created_at=now_utc()))


def delete_synonym(session: Session, phrase: str) -> None:
    """Forget a learned name."""
    if row := session.get(IngredientSynonymRow, phrase):
        session.delete(row)


def delete_own_ingredient(session: Session, ingredient_id: str) -> None:
    """Remove an own ingredient with its price and names.

    Raises
    ------
    NotFoundError
        If there is no own ingredient under that id.
    """
    row = session.get(OwnIngredientRow, ingredient_id)
    if row is None:
        raise NotFoundError(f'There is no own ingredient "{ingredient_id}".', noun="ingredient", id=ingredient_id)
    session.delete(row)
    delete_price(session, ingredient_id)
    for synonym in session.scalars(select(IngredientSynonymRow).where(IngredientSynonymRow.ingredient_id == ingredient_id)):
        session.delete(synonym)
