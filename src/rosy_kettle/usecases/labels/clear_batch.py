"""Clearance of a batch for a market: what stands against it, who signed it, and what has come up since."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import asdict, dataclass, fields
from datetime import datetime
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import BlockedError, InputError
from rosy_kettle.core.making.label.gate import Block, blocks_of_label
from rosy_kettle.core.making.label.texts import MARKETS, LabelFacts
from rosy_kettle.core.records import Certificate, Tables
from rosy_kettle.core.records.product import BATH_CATEGORY, BODY_CATEGORY
from rosy_kettle.core.words.clearance import (
    CERTIFICATE_LAPSED,
    CLEARANCE_BLOCKED,
    COMPLAINED,
    LOT_EXPIRED,
    LOT_HELD,
    NOT_SIGNED,
)
from rosy_kettle.store.batches import find_batch
from rosy_kettle.store.clearances import (
    SIGNED,
    TAKEN_BACK,
    ClearanceRow,
    add_clearance,
    clearances_of,
    signed_clearances,
)
from rosy_kettle.store.complaints import ComplaintRow, complaints_of_batches
from rosy_kettle.store.labels import list_labels
from rosy_kettle.store.lots import movements_of_batch
from rosy_kettle.usecases.labels.from_batch import BatchFacts, facts_of_batch
from rosy_kettle.usecases.labels.keep_label import LabelSource, draw_labels
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.studio.studio_zone import studio_zone

__all__ = [
    "Clearance",
    "Reopened",
    "clearances_of_batch",
    "not_signed",
    "reopened_clearances",
    "sign_clearance",
    "take_back_clearance",
]

LABEL_MM = (100.0, 100.0)
"""Size a label is drawn at to see whether anything is missing of it; whether it fits is judged where it is printed [mm]."""
MOST_LOOKED_AT = 200
NO_CERTIFICATE = Certificate()


@dataclass(frozen=True, slots=True)
class Clearance:
    """One batch for one market."""

    market: str
    blocks: tuple[Block, ...]
    """What stands against it today."""
    signed: ClearanceRow | None
    """The signature that stands; None where nobody has signed, or it was taken back."""
    history: tuple[ClearanceRow, ...]
    """All that was signed and taken back, the newest first."""

    @property
    def clean(self) -> bool:
        """Whether it may go: signed, and nothing stands against it."""
        return self.signed is not None and not self.blocks


@dataclass(frozen=True, slots=True)
class Reopened:
    """A signed clearance against which something has come up since."""

    batch_id: int
    name: str
    market: str
    signed: ClearanceRow
    blocks: tuple[Block, ...]


def clearances_of_batch(session: Session, batch_id: int, markets: Sequence[str] = ()) -> list[Clearance]:
    """Return the clearances of a batch: of some markets, else of those its formula and the studio name, and those signed.

    Raises
    ------
    NotFoundError
        If there is no such batch.
    """
    facts = facts_of_batch(session, batch_id)
    history = clearances_of(session, batch_id)
    usual = (*facts.formula.product.markets, *studio_settings(session).markets)
    asked = markets or [*usual, *(row.market for row in history)]
    wanted = [market for market in dict.fromkeys(asked) if market in MARKETS]
    return [_clearance(session, facts, market, history) for market in wanted]


def sign_clearance(session: Session, batch_id: int, market: str, who: str, key: str | None = None) -> ClearanceRow:
    """Sign that a batch may be sold in a market.

    Raises
    ------
    InputError
        If nobody signs, or there are no rules for the market.
    BlockedError
        If anything stands against it.
    NotFoundError
        If there is no such batch.
    """
    name = _signing(who, market)
    facts = facts_of_batch(session, batch_id)
    blocks = _blocks(session, facts, market, None)
    if blocks:
        raise BlockedError(CLEARANCE_BLOCKED.format(first=blocks[0].text), blocks=[asdict(each) for each in blocks], missing=[])
    return add_clearance(session, ClearanceRow(batch_id=batch_id, market=market, state=SIGNED, who=name, request_key=key))


def take_back_clearance(
    session: Session, batch_id: int, market: str, who: str, reason: str, key: str | None = None
) -> ClearanceRow:  # fmt: skip
    """Take a signature back.

    Raises
    ------
    InputError
        If nobody takes it back, no reason is given, or nobody had signed.
    NotFoundError
        If there is no such batch.
    """
    name = _signing(who, market)
    find_batch(session, batch_id)
    if not reason.strip():
        raise InputError("Why is it taken back? A sentence is enough; it stays beside the signature.", quantity="reason")
    if _signed(clearances_of(session, batch_id), market) is None:
        raise InputError(f"Nobody has signed this batch for {market}; there is nothing to take back.", quantity="market")
    row = ClearanceRow(
        batch_id=batch_id, market=market, state=TAKEN_BACK, who=name, reason=reason.strip(), request_key=key
    )  # fmt: skip
    return add_clearance(session, row)


def reopened_clearances(session: Session) -> list[Reopened]:
    """Return signed clearances that something has come up against since: a lot held or past its day, a paper, a complaint."""
    found = []
    for row in signed_clearances(session)[:MOST_LOOKED_AT]:
        blocks = _since_signed(session, row)
        if blocks:
            found.append(Reopened(row.batch_id, find_batch(session, row.batch_id).name, row.market, row, blocks))
    return found


def not_signed(market: str) -> Block:
    """Return what is said of a batch that nobody has signed."""
    return Block("NOT-SIGNED", NOT_SIGNED.format(market=market))


def _clearance(session: Session, facts: BatchFacts, market: str, history: Sequence[ClearanceRow]) -> Clearance:
    signed = _signed(history, market)
    of_market = tuple(row for row in history if row.market == market)
    return Clearance(market, _blocks(session, facts, market, signed), signed, of_market)


def _blocks(session: Session, facts: BatchFacts, market: str, signed: ClearanceRow | None) -> tuple[Block, ...]:
    """Return all that stands against a batch in a market: label, rules up to sale, lots, drying, papers, complaints."""
    batch_id = facts.bench.row.id
    drawn = draw_labels(session, LabelSource(batch_id=batch_id), _printed(session, batch_id, market), [market], *LABEL_MM).made[0]
    found = [*drawn.blocks, *blocks_of_label(facts.formula, facts.tables, drawn.texts, for_sale=True)]
    found += [
        Block(each.rule, f"The label lacks {each.element.replace('_', ' ')}: {each.message}") for each in drawn.texts.missing
    ]
    found += _complaints(complaints_of_batches(session, [batch_id]), signed)
    return tuple({(each.rule, each.text): each for each in found}.values())


def _printed(session: Session, batch_id: int, market: str) -> LabelFacts:
    """Return what the last label kept of the batch says, of that market where there is one."""
    rows = list_labels(session, query="", formula_id=None, batch_id=batch_id, before=None, limit=MOST_LOOKED_AT)
    last = next((row for row in rows if row.market == market), rows[0] if rows else None)
    if last is None:
        return LabelFacts()
    known = {field.name for field in fields(LabelFacts)}
    said: dict[str, Any] = {
        name: tuple(value) if isinstance(value, list) else value for name, value in last.facts.items() if name in known
    }
    return LabelFacts(**said)


def _complaints(rows: Sequence[ComplaintRow], signed: ClearanceRow | None) -> list[Block]:
    """Say a complaint that came after the signature, and a serious one nobody has done anything about."""
    return [
        Block("COMPLAINT", COMPLAINED.format(kind=row.kind, what=row.what))
        for row in rows
        if (signed is not None and row.created_at > signed.at) or (row.serious and not row.done.strip())
    ]


def _since_signed(session: Session, row: ClearanceRow) -> tuple[Block, ...]:
    """Return what has come up against a signature; looked up only, so that the first page does not wait for a judgement."""
    lots = {lot.id: lot for movement, lot in movements_of_batch(session, row.batch_id) if movement.mass_g < 0}
    today, tables = datetime.now(studio_zone(session)).date(), studio_tables(session)
    found = [Block("LOT-HELD", LOT_HELD.format(lot=lot.code, why=lot.held)) for lot in lots.values() if lot.held is not None]
    for lot in lots.values():
        item = tables.ingredients.get(lot.ingredient_id)
        if lot.best_before is not None and row.at.date() <= lot.best_before < today and item is not None:
            found.append(Block("LOT-EXPIRED", LOT_EXPIRED.format(lot=lot.code, of=item.short_name, day=lot.best_before)))
    found += _lapsed(session, row, {lot.ingredient_id for lot in lots.values() if lot.certificate}, tables)
    return (*found, *_complaints(complaints_of_batches(session, [row.batch_id]), row))


def _lapsed(session: Session, row: ClearanceRow, with_own_paper: Collection[str], tables: Tables) -> list[Block]:
    """Say of which scents of a batch no certificate counts any more: neither the lot's own nor the ingredient's."""
    portions = find_batch(session, row.batch_id).plan["formula"]["portions"]
    ids = dict.fromkeys(line.get("ingredient") for portion in portions for line in portion["lines"])
    scents = [item for id_ in ids if (item := tables.ingredients.get(id_ or "")) is not None and item.role == "fragrance"]
    papers = {item.id: tables.certificates.get(item.id, NO_CERTIFICATE) for item in scents if item.id not in with_own_paper}
    lapsed = [item for item in scents if item.id in papers and not _counts(papers[item.id])]
    return [Block("IFRA-03", CERTIFICATE_LAPSED.format(of=item.short_name)) for item in lapsed]


def _counts(paper: Certificate) -> bool:
    return paper.limit_pct is not None and paper.category in {None, BATH_CATEGORY, BODY_CATEGORY}


def _signed(history: Sequence[ClearanceRow], market: str) -> ClearanceRow | None:
    last = next((row for row in history if row.market == market), None)
    return last if last is not None and last.state == SIGNED else None


def _signing(who: str, market: str) -> str:
    if not who.strip():
        raise InputError("Who signs? A name is kept with the moment.", quantity="who")
    if market not in MARKETS:
        raise InputError(f'There are no rules for "{market[:20]}" here; choose {", ".join(MARKETS)}.', quantity="market")
    return who.strip()
