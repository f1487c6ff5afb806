"""Formulas with their versions, portions and lines."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import CheckConstraint, ForeignKey, UniqueConstraint, func, select
from sqlalchemy.orm import Mapped, Session, mapped_column, relationship

from rosy_kettle.core.errors import ConflictError, NotFoundError
from rosy_kettle.core.records import Formula, Heat, Line, Making, Piece, Portion, Room, Use, product_from_data, product_to_data
from rosy_kettle.store.base import Base, JsonList, JsonObject, UtcTime, now_utc

__all__ = [
    "FormulaRow", "LineRow", "PortionRow", "VersionRow",
    "add_formula", "delete_formula", "find_formula", "find_formula_ever", "formulas_with",
    "has_formulas", "keep_version", "list_formulas", "put_version",
    "record_of", "restore_formula", "save_formula",
]  # fmt: skip

SETTINGS: dict[str, Any] = {"piece": Piece, "use": Use, "room": Room, "heat": Heat}


class FormulaRow(Base):
    """A formula; its last version is the one being worked on."""

    __tablename__ = "formulas"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str]
    revision: Mapped[int] = mapped_column(default=1)
    """Counts every save, so that two tabs cannot overwrite each other unseen."""
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    updated_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    deleted_at: Mapped[datetime | None] = mapped_column(UtcTime)
    versions: Mapped[list[VersionRow]] = relationship(
        back_populates="formula", order_by="VersionRow.number", cascade="all, delete-orphan"
    )

    @property
    def working(self) -> VersionRow:
        """The version being worked on."""
        return self.versions[-1]


class VersionRow(Base):
    """One version; kept for good once ``frozen_at`` is set."""

    __tablename__ = "versions"
    __table_args__ = (UniqueConstraint("formula_id", "number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    formula_id: Mapped[int] = mapped_column(ForeignKey("formulas.id", ondelete="CASCADE"), index=True)
    number: Mapped[int]
    note: Mapped[str] = mapped_column(default="")
    method: Mapped[str]
    batch_g: Mapped[float]
    settings: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """Piece, use, room, heat and product as they stand in a formula file."""
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)
    frozen_at: Mapped[datetime | None] = mapped_column(UtcTime)
    formula: Mapped[FormulaRow] = relationship(back_populates="versions")
    portions: Mapped[list[PortionRow]] = relationship(order_by="PortionRow.position", cascade="all, delete-orphan")


class PortionRow(Base):
    """A portion of a version."""

    __tablename__ = "portions"

    id: Mapped[int] = mapped_column(primary_key=True)
    version_id: Mapped[int] = mapped_column(ForeignKey("versions.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    name: Mapped[str]
    share_pct: Mapped[float | None]
    mass_g: Mapped[float | None]
    split: Mapped[str | None]
    lines: Mapped[list[LineRow]] = relationship(order_by="LineRow.position", cascade="all, delete-orphan")


class LineRow(Base):
    """A line: the amount as typed, and the grams it came to."""

    __tablename__ = "lines"
    __table_args__ = (CheckConstraint("grams IS NULL OR grams >= 0", name="grams_not_negative"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    portion_id: Mapped[int] = mapped_column(ForeignKey("portions.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    ingredient_id: Mapped[str | None]
    amount: Mapped[str]
    unit: Mapped[str]
    grams: Mapped[float | None]
    text: Mapped[str] = mapped_column(default="")
    phase: Mapped[str] = mapped_column(default="")
    notes: Mapped[list[str]] = mapped_column(JsonList, default=list)
    suggestions: Mapped[list[str]] = mapped_column(JsonList, default=list)
    locked: Mapped[bool] = mapped_column(default=False)
    min_g: Mapped[float | None]
    max_g: Mapped[float | None]
    poured_g: Mapped[float | None]


def list_formulas(session: Session) -> list[FormulaRow]:
    """Return all formulas that are not deleted, last changed first."""
    query = select(FormulaRow).where(FormulaRow.deleted_at.is_(None)).order_by(FormulaRow.updated_at.desc(), FormulaRow.id)
    return list(session.scalars(query))


def has_formulas(session: Session) -> bool:
    """Whether there is any formula that is not deleted."""
    return session.scalar(select(FormulaRow.id).where(FormulaRow.deleted_at.is_(None)).limit(1)) is not None


def formulas_with(session: Session, ingredient_id: str) -> list[str]:
    """Return the names of the formulas whose working version has an ingredient."""
    newest = select(func.max(VersionRow.id)).where(VersionRow.formula_id == FormulaRow.id).correlate(FormulaRow).scalar_subquery()
    asked = (
        select(FormulaRow.name).distinct()
        .join(VersionRow, VersionRow.id == newest).join(PortionRow).join(LineRow)
        .where(FormulaRow.deleted_at.is_(None), LineRow.ingredient_id == ingredient_id).order_by(FormulaRow.name)
    )  # fmt: skip
    return list(session.scalars(asked))


def find_formula(session: Session, formula_id: int) -> FormulaRow:
    """Return one formula.

    Raises
    ------
    NotFoundError
        If there is none under that id, or it was deleted.
    """
    row = session.get(FormulaRow, formula_id)
    if row is None or row.deleted_at is not None:
        raise NotFoundError(f"There is no formula {formula_id}; it may have been deleted.", noun="formula", id=formula_id)
    return row


def find_formula_ever(session: Session, formula_id: int) -> FormulaRow:
    """Return a formula, also one that was put aside: what rests on it can still be told.

    Raises
    ------
    NotFoundError
        If there never was one under that id.
    """
    row = session.get(FormulaRow, formula_id)
    if row is None:
        raise NotFoundError(f"There is no formula {formula_id}.", noun="formula", id=formula_id)
    return row


def add_formula(session: Session, formula: Formula, grams: dict[int, float]) -> FormulaRow:
    """Store a new formula as version 1 and return it."""
    row = FormulaRow(name=formula.name, revision=1, versions=[_version(formula, grams, number=1)])
    session.add(row)
    session.flush()
    return row


def save_formula(session: Session, formula_id: int, revision: int, formula: Formula, grams: dict[int, float]) -> FormulaRow:
    """Write the version being worked on.

    Raises
    ------
    ConflictError
        If the formula was saved elsewhere since ``revision``.
    """
    row = find_formula(session, formula_id)
    if row.revision != revision:
        raise ConflictError(
            "This formula was changed in another tab since you opened it here.",
            noun="formula", reason="revision", saved_revision=row.revision, your_revision=revision,
        )  # fmt: skip
    working = row.working
    if working.frozen_at is not None:
        row.versions.append(_version(formula, grams, number=working.number + 1))
    else:
        _fill(working, formula, grams)
    row.name = formula.name
    row.revision += 1
    row.updated_at = now_utc()
    session.flush()
    return row


def keep_version(session: Session, formula_id: int, note: str) -> FormulaRow:
    """Freeze the version being worked on under a note; the next change starts a new one."""
    row = find_formula(session, formula_id)
    if row.working.frozen_at is not None:
        raise ConflictError("Nothing has changed since this version was kept.", noun="version", reason="unchanged")
    row.working.note = note
    row.working.frozen_at = now_utc()
    session.flush()
    return row


def delete_formula(session: Session, formula_id: int) -> None:
    """Put a formula aside; ``restore_formula`` brings it back."""
    find_formula(session, formula_id).deleted_at = now_utc()


def restore_formula(session: Session, formula_id: int) -> FormulaRow:
    """Bring a deleted formula back."""
    row = session.get(FormulaRow, formula_id)
    if row is None:
        raise NotFoundError(f"There is no formula {formula_id}.", noun="formula", id=formula_id)
    row.deleted_at = None
    return row


def record_of(row: FormulaRow, version: VersionRow | None = None) -> Formula:
    """Return the formula record of a stored version, by default the working one."""
    source = version or row.working
    portions = tuple(
        Portion(portion.name, tuple(_line(line) for line in portion.lines), portion.share_pct, portion.mass_g, portion.split)
        for portion in source.portions
    )
    settings = {name: kind(**source.settings.get(name, {})) for name, kind in SETTINGS.items()}
    return Formula(
        name=row.name, portions=portions, method=source.method, batch_g=source.batch_g,
        profile=source.settings.get("profile"), product=product_from_data(source.settings.get("product", {})),
        making=Making(**{name: Decimal(text) for name, text in source.settings.get("making", {}).items()}), **settings,
    )  # fmt: skip


def find_version(row: FormulaRow, number: int) -> VersionRow:
    """Return one version of a formula.

    Raises
    ------
    NotFoundError
        If it has no such version.
    """
    found = next((version for version in row.versions if version.number == number), None)
    if found is None:
        raise NotFoundError(f"{row.name} has no version {number}.", noun="version", id=number)
    return found


def _line(row: LineRow) -> Line:
    return Line(
        ingredient=row.ingredient_id, amount=row.amount, unit=row.unit, text=row.text, phase=row.phase,
        notes=tuple(row.notes), suggestions=tuple(row.suggestions), locked=row.locked,
        min_g=row.min_g, max_g=row.max_g, poured_g=row.poured_g,
    )  # fmt: skip


def _version(formula: Formula, grams: dict[int, float], number: int) -> VersionRow:
    version = VersionRow(number=number, note="")
    _fill(version, formula, grams)
    return version


def _fill(version: VersionRow, formula: Formula, grams: dict[int, float]) -> None:
    version.method = formula.method
    version.batch_g = formula.batch_g
    version.settings = {
        name: {slot: getattr(getattr(formula, name), slot) for slot in kind.__slots__} for name, kind in SETTINGS.items()
    } | {
        "product": product_to_data(formula.product),
        "profile": formula.profile,
        "making": {slot: str(getattr(formula.making, slot)) for slot in Making.__slots__},
    }
    version.portions.clear()
    position = 0
    for index, portion in enumerate(formula.portions):
        lines: list[LineRow] = []
        for line in portion.lines:
            lines.append(_line_row(line, len(lines), grams.get(position)))
            position += 1
        version.portions.append(
            PortionRow(
                position=index,
                name=portion.name,
                share_pct=portion.share_pct,
                mass_g=portion.mass_g,
                split=portion.split,
                lines=lines,
            )
        )


def _line_row(line: Line, position: int, grams: float | None) -> LineRow:
    return LineRow(
        position=position, ingredient_id=line.ingredient, amount=line.amount, unit=line.unit, grams=grams, text=line.text,
        phase=line.phase, notes=list(line.notes), suggestions=list(line.suggestions), locked=line.locked,
        min_g=line.min_g, max_g=line.max_g, poured_g=line.poured_g,
    )  # fmt: skip


def put_version(row: FormulaRow, formula: Formula, grams: dict[int, float], kept: Mapping[str, Any]) -> VersionRow:
    """Add a version as it was in another studio: its number, note and moments are ``kept`` as they were."""
    version = VersionRow(**kept)
    _fill(version, formula, grams)
    row.versions.append(version)
    return version
