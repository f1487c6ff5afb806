"""Whether a label may be final: blocks of the ledger for its market, judged on the label as it is drawn."""

from __future__ import annotations

from dataclasses import dataclass, replace

from rosy_kettle.core.making.label.parts import parts_on
from rosy_kettle.core.making.label.texts import LabelTexts
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import LedgerEntry

__all__ = ["Block", "blocks_of_label"]

INCH_MM = 25.4
BLOCK = "block"
GATING_STAGES = frozenset({"formula", "label"})
"""Whose blocks hold a label back; bench and sale are gated where they are done."""


@dataclass(frozen=True, slots=True)
class Block:
    """What holds a final label back."""

    rule: str
    text: str


def blocks_of_label(formula: Formula, tables: Tables, texts: LabelTexts, *, for_sale: bool = False) -> tuple[Block, ...]:
    """Return what the rules hold against a final label of one market.

    Parameters
    ----------
    formula : Formula
        As typed or made
    tables : Tables
        Reference tables, with the certificates of scents
    texts : LabelTexts
        The label as it is drawn
    for_sale : bool
        Whether the papers that sale asks for count too

    Returns
    -------
    tuple
        Blocks of the formula, and of the label where ``missing`` does not say the same; nothing here says a product is safe
    """
    told = evaluate(_labelled(formula, texts), tables, "sale" if for_sale else "label")
    gating = GATING_STAGES | {"sale"} if for_sale else GATING_STAGES
    lacking = {each.rule for each in texts.missing}
    return tuple(
        Block(entry.rule, _text(entry))
        for entry in told.skin.ledger
        if entry.severity == BLOCK and entry.stage in gating and not (entry.stage == "label" and entry.rule in lacking)
    )


def _labelled(formula: Formula, texts: LabelTexts) -> Formula:
    """Return the formula as it stands behind a label: one market, and what is on the label, whatever was said of it before."""
    warning_mm = next((text.height_mm for text in texts.texts if text.element == "caution"), None)
    product = replace(
        formula.product, markets=(texts.market,), label=tuple(sorted(parts_on([texts]))), declared_allergens=texts.allergens,
        warning_height_in=None if warning_mm is None else warning_mm / INCH_MM,
    )  # fmt: skip
    return replace(formula, product=product)


def _text(entry: LedgerEntry) -> str:
    unknown = f" Not known: {', '.join(entry.unknown)}." if entry.unknown else ""
    return f"{entry.message}{unknown}"
