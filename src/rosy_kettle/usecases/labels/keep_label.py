"""Labels drawn, kept as they are printed, and given to the printer."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace
from datetime import datetime

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import BlockedError, InputError
from rosy_kettle.core.making.label.gate import Block
from rosy_kettle.core.making.label.layout import LabelLayout, PlacedLine
from rosy_kettle.core.making.label.sheet import LabelSheet, places_on
from rosy_kettle.core.making.label.texts import LabelFacts
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.words.clearance import LABEL_BLOCKED
from rosy_kettle.core.words.label_languages import IDENTITIES
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.labels import LabelRow, add_label
from rosy_kettle.usecases.labels.batch_gate import blocks_of_batch
from rosy_kettle.usecases.labels.from_batch import KnownFact, facts_of_batch
from rosy_kettle.usecases.labels.make_label import MadeLabel, make_label
from rosy_kettle.usecases.labels.say_facts import said_facts
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.studio.studio_zone import studio_zone

__all__ = ["DrawnLabels", "LabelOrder", "LabelSource", "draw_labels", "keep_label", "layout_of", "sheet_of_label"]


@dataclass(frozen=True, slots=True)
class LabelSource:
    """What a label is of: a batch as it was made, else a formula as typed, else a stored one."""

    formula: Formula | None = None
    formula_id: int | None = None
    batch_id: int | None = None


@dataclass(frozen=True, slots=True)
class LabelOrder:
    """A label to be printed."""

    market: str
    width_mm: float
    height_mm: float
    copies: int
    sheet: LabelSheet | None
    draft: bool
    key: str | None


@dataclass(frozen=True, slots=True)
class DrawnLabels:
    """Labels of some markets with the facts they were drawn by."""

    facts: LabelFacts
    made: tuple[MadeLabel, ...]
    known: tuple[KnownFact, ...]


@dataclass(frozen=True, slots=True)
class _Of:
    formula: Formula
    tables: Tables
    facts: LabelFacts
    known: tuple[KnownFact, ...]
    formula_id: int | None
    version: int | None
    name: str
    blocks: tuple[Block, ...] = ()
    """What the batch itself holds against a final label."""


def draw_labels(
    session: Session, source: LabelSource, typed: LabelFacts, markets: Sequence[str], width_mm: float, height_mm: float
) -> DrawnLabels:
    """Return the labels of some markets.

    Raises
    ------
    InputError
        If nothing says of what, there are no rules for a market, or no label has that size.
    NotFoundError
        If there is no such batch or formula.
    """
    of = _of(session, source, typed)
    made = tuple(_made(of, market, width_mm, height_mm) for market in markets)
    return DrawnLabels(of.facts, made, of.known)


def keep_label(session: Session, source: LabelSource, typed: LabelFacts, order: LabelOrder) -> LabelRow:
    """Keep a label as it is printed.

    Raises
    ------
    InputError
        If its texts do not fit, or it does not go on the sheet.
    BlockedError
        If it lacks something or the rules hold it back, and no draft was asked for.
    NotFoundError
        If there is no such batch or formula.
    """
    of = _of(session, source, typed)
    made = _made(of, order.market, order.width_mm, order.height_mm)
    made.refuse_too_small()
    if made.draft and not order.draft:
        _refuse(made)
    if order.sheet is not None:
        places_on(order.sheet, order.width_mm, order.height_mm, order.copies)
    drawn = {
        "texts": [asdict(each) for each in made.texts_told(draft=order.draft)],
        "missing": [asdict(each) for each in made.texts.missing], "blocks": [asdict(each) for each in made.blocks],
        "lines": [asdict(each) for each in made.layout.lines], "used_mm": made.layout.used_mm,
    }  # fmt: skip
    return add_label(session, LabelRow(
        formula_id=of.formula_id, batch_id=source.batch_id, version=of.version, name=of.name, market=order.market,
        width_mm=order.width_mm, height_mm=order.height_mm, facts=asdict(of.facts), made=drawn, draft=order.draft,
        copies=order.copies, sheet=None if order.sheet is None else asdict(order.sheet), request_key=order.key,
    ))  # fmt: skip


def _made(of: _Of, market: str, width_mm: float, height_mm: float) -> MadeLabel:
    """Return a label with the blocks of the batch it is of."""
    made = make_label(of.formula, of.tables, of.facts, market, width_mm, height_mm)
    said = {each.rule for each in made.blocks}
    return replace(made, blocks=(*made.blocks, *(each for each in of.blocks if each.rule not in said)))


def _refuse(made: MadeLabel) -> None:
    """Refuse a final label, with all that holds it back."""
    first = made.blocks[0].text if made.blocks else f"{made.texts.missing[0].message} ({made.texts.missing[0].rule})"
    raise BlockedError(
        LABEL_BLOCKED.format(first=first),
        blocks=[asdict(each) for each in made.blocks], missing=[asdict(each) for each in made.texts.missing],
    )  # fmt: skip


def layout_of(row: LabelRow) -> LabelLayout:
    """Return where every line of a kept label stood."""
    lines = tuple(PlacedLine(**each) for each in row.made["lines"])
    return LabelLayout(row.width_mm, row.height_mm, lines, row.made["used_mm"], fits=True)


def sheet_of_label(row: LabelRow) -> LabelSheet | None:
    """Return how the paper of a kept label was cut."""
    return None if row.sheet is None else LabelSheet(**row.sheet)


def _named(facts: LabelFacts, formula: Formula, tables: Tables) -> LabelFacts:
    """Return the facts with what it is in plain words, by its kind, where nobody has said it."""
    kind = tables.methods[formula.method].product_kind if formula.method in tables.methods else ""
    words = IDENTITIES.get(kind, {})
    language = facts.languages[0] if facts.languages and "en" not in facts.languages else "en"
    return facts if facts.identity or not words else replace(facts, identity=words[language])


def _of(session: Session, source: LabelSource, typed: LabelFacts) -> _Of:
    if source.batch_id is not None:
        batch = facts_of_batch(session, source.batch_id)
        row = batch.bench.row
        facts = said_facts(session, row.formula_id, batch, typed)
        blocks = blocks_of_batch(batch, facts, datetime.now(studio_zone(session)).date())
        facts = _named(facts, batch.formula, batch.tables)
        return _Of(batch.formula, batch.tables, facts, batch.known, row.formula_id, row.version, row.name, blocks)
    facts = said_facts(session, source.formula_id, None, typed)
    tables = studio_tables(session)
    if source.formula is not None:
        facts = _named(facts, source.formula, tables)
        return _Of(source.formula, tables, facts, (), source.formula_id, None, source.formula.name)
    if source.formula_id is None:
        raise InputError("A label is of a batch or of a formula; say which.", quantity="formula_id")
    stored = find_formula(session, source.formula_id)
    formula = record_of(stored)
    return _Of(formula, tables, _named(facts, formula, tables), (), stored.id, None, formula.name)
