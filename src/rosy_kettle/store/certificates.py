"""Certificates of the studio's scents, entered once and used by every formula."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.core.records import Certificate
from rosy_kettle.store.base import Base, JsonObject, UtcTime, now_utc

__all__ = ["ScentCertificateRow", "delete_certificate", "list_certificates", "put_certificate"]


class ScentCertificateRow(Base):
    """What the supplier's paper says of one scent; null is not known."""

    __tablename__ = "scent_certificates"

    ingredient_id: Mapped[str] = mapped_column(primary_key=True)
    limit_pct: Mapped[float | None]
    category: Mapped[str | None]
    flash_c: Mapped[float | None]
    allergens: Mapped[dict[str, Any]] = mapped_column(JsonObject, default=dict)
    """Share of the scent by allergen name [%]."""
    updated_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)


def list_certificates(session: Session) -> dict[str, Certificate]:
    """Return all certificates by ingredient id."""
    rows = session.scalars(select(ScentCertificateRow))
    return {row.ingredient_id: Certificate(row.limit_pct, row.category, row.flash_c, row.allergens) for row in rows}


def put_certificate(session: Session, ingredient_id: str, paper: Certificate) -> None:
    """Write a certificate over any earlier one; one that says nothing is taken away."""
    if paper == Certificate(allergens={}):
        return delete_certificate(session, ingredient_id)
    row = ScentCertificateRow(
        ingredient_id=ingredient_id, limit_pct=paper.limit_pct, category=paper.category, flash_c=paper.flash_c,
        allergens=dict(paper.allergens), updated_at=now_utc(),
    )  # fmt: skip
    session.merge(row)
    return None


def delete_certificate(session: Session, ingredient_id: str) -> None:
    """Forget a certificate."""
    if row := session.get(ScentCertificateRow, ingredient_id):
        session.delete(row)
