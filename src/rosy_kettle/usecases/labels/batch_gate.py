"""What a batch itself holds against a final label: lots past their day, pieces not known to be dry, missing papers."""

from __future__ import annotations

from datetime import date

from rosy_kettle.core.making.label.durability import last_day_of
from rosy_kettle.core.making.label.gate import Block
from rosy_kettle.core.making.label.texts import LabelFacts
from rosy_kettle.core.words.clearance import DRYING_OPEN, DRYING_UNKNOWN, DURABILITY, LOT_EXPIRED, LOT_HELD, NO_PAPER
from rosy_kettle.usecases.labels.from_batch import BatchFacts

__all__ = ["blocks_of_batch"]


def blocks_of_batch(facts: BatchFacts, said: LabelFacts, today: date) -> tuple[Block, ...]:
    """Return the blocks of one batch.

    Parameters
    ----------
    facts : BatchFacts
        What is known of it
    said : LabelFacts
        What stands on its label
    today : date
        The workshop's day

    Returns
    -------
    tuple
        Of its lots, its drying and its scents' papers
    """
    return (*_of_lots(facts, today), *_of_durability(facts, said), *_of_drying(facts), *_of_papers(facts))


def _of_lots(facts: BatchFacts, today: date) -> list[Block]:
    items = facts.tables.ingredients
    found = [Block("LOT-HELD", LOT_HELD.format(lot=lot.code, why=lot.held)) for lot, _mass_g in facts.lots if lot.held]
    return found + [
        Block("LOT-EXPIRED", LOT_EXPIRED.format(lot=lot.code, of=items[lot.ingredient_id].short_name, day=lot.best_before))
        for lot, _mass_g in facts.lots
        if lot.best_before is not None and lot.best_before < today and lot.ingredient_id in items
    ]


def _of_durability(facts: BatchFacts, said: LabelFacts) -> list[Block]:
    """Hold back a day that was typed beyond the shortest-lived raw material, unless the maker said why it keeps longer."""
    ends = [(lot.best_before, lot.code) for lot, _mass_g in facts.lots if lot.best_before is not None]
    last = last_day_of(said.best_before)
    if not ends or last is None or said.best_before_reason.strip():
        return []
    day, lot = min(ends)
    return [Block("SHELF-01", DURABILITY.format(said=said.best_before, lot=lot, day=day))] if last > day else []


def _of_drying(facts: BatchFacts) -> list[Block]:
    """Ask for pieces that were weighed dry, or wrapped as such; what has nothing to dry is asked for nothing."""
    if facts.bench.now.drying.hours == 0:
        return []
    if not facts.trays:
        return [Block("DRYING-UNKNOWN", DRYING_UNKNOWN)]
    wet = [tray for tray in facts.trays if not tray.reading.ready and tray.row.wrapped_at is None]
    return [Block("DRYING-OPEN", DRYING_OPEN.format(tray=tray.row.name)) for tray in wet]


def _of_papers(facts: BatchFacts) -> list[Block]:
    items, papers = facts.tables.ingredients, facts.tables.certificates
    scents = {line.ingredient for line in facts.formula.lines if line.ingredient and items[line.ingredient].role == "fragrance"}
    return [
        Block("IFRA-03", NO_PAPER.format(of=items[id_].short_name))
        for id_ in sorted(scents)
        if id_ not in papers or papers[id_].limit_pct is None
    ]
