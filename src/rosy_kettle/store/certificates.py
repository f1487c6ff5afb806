"""Certificates of the studio's scents, entered once and used by every formula."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.core.records import Certificate, certificate_from_data, certificate_to_data
from rosy_kettle.store.base import Base, JsonObject, UtcTime, now_utc

__all__ = ["ScentCertificateRow", "delete_certificate", "list_certificates", "put_certificate"]


OWN_COLUMNS = frozenset({"limit_pct", "category", "flash_c", "allergens"})


class ScentCertificateRow(Base):
    """What the supplier's paper says of one scent; null is not known."""

    __tablename__ = "scent_certificates"

    ingredient_id: Mapped[str] = mapped_column(primary_key=True)
    limit_pct: Mapped[float | None]
    category: Mapped[str | None]
    flash_c: Mapped[float | None]
    allergens: Mapped[dict[str, Any]] = mapped_column(JsonObject, default=dict)
    """Share of the scent by allergen name [%], where the paper gave names only."""
    paper: Mapped[dict[str, Any]] = mapped_column(JsonObject, default=dict)
    """The rest of it: amendment, day, issuer, file, vanillin, and substances with their CAS numbers."""
    updated_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)


def list_certificates(session: Session) -> dict[str, Certificate]:
    """Return all certificates by ingredient id."""
    rows = session.scalars(select(ScentCertificateRow))
    return {row.ingredient_id: _certificate(row) for row in rows}


def _certificate(row: ScentCertificateRow) -> Certificate:
    told = {"limit_pct": row.limit_pct, "category": row.category, "flash_c": row.flash_c, "allergens": row.allergens}
    try:
        return certificate_from_data({**(row.paper or {}), **told})
    except (AttributeError, KeyError, TypeError):  # of another version: what stands in its own columns is read
        return certificate_from_data(told)


def put_certificate(session: Session, ingredient_id: str, paper: Certificate) -> None:
    """Write a certificate over any earlier one; one that says nothing is taken away."""
    if paper == Certificate(allergens={}):
        return delete_certificate(session, ingredient_id)
    row = ScentCertificateRow(
        ingredient_id=ingredient_id, limit_pct=paper.limit_pct, category=paper.category, flash_c=paper.flash_c,
        allergens=dict(paper.allergens), updated_at=now_utc(),
        paper={name: value for name, value in certificate_to_data(paper).items() if name not in OWN_COLUMNS},
    )  # fmt: skip
    session.merge(row)
    return None


def delete_certificate(session: Session, ingredient_id: str) -> None:
    """Forget a certificate."""
    if row := session.get(ScentCertificateRow, ingredient_id):
        session.delete(row)
