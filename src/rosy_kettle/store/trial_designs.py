"""Designs of mini-batches, and what each trial was read to be; results are only ever added."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.store.base import Base, JsonList, UtcTime, now_utc
from rosy_kettle.store.rows import AskedForRow, find, keep, kept_with, newest_first, speaking_of

__all__ = [
    "TrialDesignRow", "TrialResultRow", "add_trial_design", "add_trial_result", "designed_with", "find_trial_design",
    "list_trial_designs", "list_trial_results",
]  # fmt: skip


class TrialDesignRow(AskedForRow):
    """One design: which ingredients of a formula are varied, and the trials."""

    __noun__ = "design"
    __tablename__ = "trial_designs"

    id: Mapped[int] = mapped_column(primary_key=True)
    formula_id: Mapped[int] = mapped_column(ForeignKey("formulas.id", ondelete="RESTRICT"), index=True)
    """What it was designed from."""
    trials_formula_id: Mapped[int] = mapped_column(ForeignKey("formulas.id", ondelete="RESTRICT"))
    """Where each trial is a version, in their order from version 1."""
    name: Mapped[str]
    reading: Mapped[str]
    wanted: Mapped[str]
    """more or less."""
    bounds: Mapped[list[dict[str, Any]]] = mapped_column(JsonList)
    """Ingredient, low and high [share of what they weigh together]."""
    batch_g: Mapped[float]
    degree: Mapped[int]
    efficiency: Mapped[float]
    points: Mapped[list[list[float]]] = mapped_column(JsonList)
    designed_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    request_key: Mapped[str | None] = mapped_column(unique=True)


class TrialResultRow(Base):
    """What a trial read, or what an earlier result should have said. Rows are only ever added."""

    __tablename__ = "trial_results"

    id: Mapped[int] = mapped_column(primary_key=True)
    design_id: Mapped[int] = mapped_column(ForeignKey("trial_designs.id", ondelete="RESTRICT"), index=True)
    trial: Mapped[int]
    """From 0."""
    value: Mapped[float | None]
    """In the reading's unit; null leaves the result out that ``amends`` names."""
    amends: Mapped[int | None]
    at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)


def add_trial_design(session: Session, row: TrialDesignRow) -> TrialDesignRow:
    """Keep a design."""
    return keep(session, row)


def designed_with(session: Session, key: str | None) -> int | None:
    """Return the number of the design that was made with a key, or None."""
    return kept_with(session, TrialDesignRow, key)


def find_trial_design(session: Session, design_id: int) -> TrialDesignRow:
    """Return a design; a NotFoundError where there is none under that number."""
    return find(session, TrialDesignRow, design_id)


def list_trial_designs(session: Session, *, query: str, before: int | None, limit: int) -> list[TrialDesignRow]:
    """Return designs, the newest first."""
    asked = select(TrialDesignRow)
    asked = speaking_of(asked, query, TrialDesignRow.name)
    return newest_first(session, asked, TrialDesignRow, before, limit)


def list_trial_results(session: Session, design_ids: list[int]) -> dict[int, list[TrialResultRow]]:
    """Return the results of some designs in the order they were read back, asked for at once."""
    found: dict[int, list[TrialResultRow]] = {id_: [] for id_ in design_ids}
    for row in session.scalars(
        select(TrialResultRow).where(TrialResultRow.design_id.in_(design_ids)).order_by(TrialResultRow.id)
    ):
        found[row.design_id].append(row)
    return found


def add_trial_result(session: Session, row: TrialResultRow) -> None:
    """Add a result, or what an earlier one should have said."""
    session.add(row)
    session.flush()
