"""All the studio knows of a batch, in the order an assessor reads it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from sqlalchemy.orm import Session

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.making.label.parts import parts_on
from rosy_kettle.core.making.label.texts import MARKETS, LabelFacts, LabelTexts
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.store.labels import LabelRow, list_labels
from rosy_kettle.store.lots import LotRow
from rosy_kettle.usecases.batches.tell_batch import tell_batch
from rosy_kettle.usecases.labels.from_batch import BatchFacts, KnownFact, facts_of_batch
from rosy_kettle.usecases.labels.make_label import make_label
from rosy_kettle.usecases.labels.say_facts import said_facts
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.tub.run_test import TubTest, look_at_tests

__all__ = ["ASSESSOR_DECIDES", "ProductRecord", "RecordLine", "product_record"]

ASSESSOR_DECIDES = (
    "Whether the product may be sold, and as what: local law and a licensed assessor.",
    "The safety assessment itself: exposure, margin of safety, undesirable effects. Nothing in this record claims that the "
    "product is safe.",
    "Stability, microbiology and preservation where water stays in the piece: tests by a laboratory.",
    "Whether the label is complete for each market; the texts below are a draft made by rules.",
    "Identity and purity of every raw material: the suppliers' own papers go before the reference values here.",
)
"""What this record does not decide."""
LABEL_MM = (100.0, 80.0)
MOST_TESTS = 50


@dataclass(frozen=True, slots=True)
class RecordLine:
    """One ingredient as it is in the product."""

    ingredient: str
    name: str
    inci: str
    cas: str
    function: str
    mass_g: float
    share_pct: float
    lots: tuple[str, ...]
    confidence: str


@dataclass(frozen=True, slots=True)
class ProductRecord:
    """Everything that is on file."""

    made_at: datetime
    facts: BatchFacts
    said: LabelFacts
    told: Evaluation
    lines: tuple[RecordLine, ...]
    lots: tuple[LotRow, ...]
    known: tuple[KnownFact, ...]
    story: tuple[tuple[str, str], ...]
    tests: tuple[TubTest, ...]
    labels: tuple[LabelTexts, ...]
    printed: tuple[LabelRow, ...]
    unknown: tuple[str, ...]
    """What the record lacks, each a sentence."""


def product_record(session: Session, batch_id: int) -> ProductRecord:
    """Return the record of a batch.

    Raises
    ------
    NotFoundError
        If there is no such batch.
    """
    facts = facts_of_batch(session, batch_id)
    settings = studio_settings(session)
    said = said_facts(session, facts.bench.row.formula_id, facts)
    markets = [market for market in MARKETS if market in settings.markets] or list(MARKETS[:1])
    labels = tuple(make_label(facts.formula, facts.tables, said, market, *LABEL_MM).texts for market in markets)
    told = evaluate(_labelled(facts.formula, labels, markets), facts.tables, "label")
    tests = look_at_tests(session, query="", formula_id=facts.bench.row.formula_id, before=None, limit=MOST_TESTS)
    story = zip((event.at[:16].replace("T", " ") for event in facts.bench.events), tell_batch(facts.bench), strict=True)
    return ProductRecord(
        datetime.now(UTC), facts, said, told, _lines(facts), tuple(lot for lot, _ in facts.lots), facts.known, tuple(story),
        tuple(tests), labels, tuple(list_labels(session, query="", formula_id=None, batch_id=batch_id, before=None, limit=50)),
        tuple(_unknown(facts, told, labels)),
    )  # fmt: skip


def _labelled(formula: Formula, labels: Sequence[LabelTexts], markets: Sequence[str]) -> Formula:
    """Return the formula as it is sold: in these markets, with what stands on their labels."""
    product = formula.product
    there = tuple(sorted({*product.label, *parts_on(labels)}))
    return replace(formula, product=replace(product, markets=tuple(markets), label=there))


def _lines(facts: BatchFacts) -> tuple[RecordLine, ...]:
    weighed, _missing = weigh_formula(facts.formula, facts.tables)
    masses: dict[str, float] = {}
    for line in weighed:
        masses[line.ingredient.id] = masses.get(line.ingredient.id, 0.0) + line.mass_g
    whole = sum(masses.values())
    codes: dict[str, list[str]] = {}
    for lot, _ in facts.lots:
        codes.setdefault(lot.ingredient_id, []).append(lot.code)
    items = facts.tables.ingredients
    return tuple(
        RecordLine(
            id_, items[id_].name, items[id_].inci, items[id_].cas, items[id_].role, mass_g, 100 * mass_g / whole,
            tuple(codes.get(id_, ())), items[id_].confidence,
        )
        for id_, mass_g in sorted(masses.items(), key=lambda each: -each[1]) if mass_g > 0
    )  # fmt: skip


def _unknown(facts: BatchFacts, told: Evaluation, labels: tuple[LabelTexts, ...]) -> list[str]:
    items = facts.tables.ingredients
    drawn = {lot.ingredient_id for lot, _ in facts.lots}
    used = [items[line.ingredient] for line in _lines(facts)]
    found = [f"{item.short_name}: no INCI name is known." for item in used if not item.inci]
    found += [f"{item.short_name}: from no lot on file." for item in used if item.id not in drawn]
    found += [f"{item.short_name}: no CAS number is on file." for item in used if not item.cas]
    found += [
        f"{item.short_name}: no certificate of the scent is on file."
        for item in used if item.role == "fragrance" and item.id not in facts.tables.certificates
    ]  # fmt: skip
    found += [f"{entry.message} Not known: {', '.join(entry.unknown)}." for entry in told.skin.ledger if entry.unknown]
    found += [f"Label, {made.market}: {each.message}" for made in labels for each in made.missing]
    found += [] if facts.trays else ["The pieces were never set out on the rack, so nothing is known of their drying."]
    found += [] if facts.bench.row.closed_at else ["The batch is still open at the bench."]
    return list(dict.fromkeys(found))
