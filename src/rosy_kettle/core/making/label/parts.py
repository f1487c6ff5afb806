"""Which parts a label has, in the words of the safety rules, so that they do not ask for what stands on it."""

from __future__ import annotations

from collections.abc import Sequence

from rosy_kettle.core.making.label.texts import LabelTexts
from rosy_kettle.core.words.label import CAUTION_740_17

__all__ = ["parts_on"]

PARTS: dict[str, tuple[str, ...]] = {
    "identity": ("identity", "function"), "net_quantity": ("net_metric", "net_inch_pound"), "directions": ("directions",),
    "caution": ("precautions",), "ingredients": ("ingredients",), "maker": ("name_place", "rp"),
    "responsible_person": ("rp",), "origin": ("origin",), "contact": ("ae_contact",),
    "batch": ("batch",), "durability": ("best_before", "pao"),
}  # fmt: skip
FIXED_CAUTION = "caution_740_17"
"""The US foaming-bath caution; only a US label has it."""


def parts_on(labels: Sequence[LabelTexts]) -> frozenset[str]:
    """Return the parts that all labels have which a batch is given.

    Parameters
    ----------
    labels : Sequence
        Texts of one market each

    Returns
    -------
    frozenset
        A part that is missing from one of them is not there; the fixed US caution is looked for on the US label alone
    """
    each = [
        {part for text in label.texts for part in PARTS.get(text.element, ())}
        - {part for lack in label.missing for part in PARTS.get(lack.element, ())}
        for label in labels
    ]  # fmt: skip
    common = frozenset.intersection(*map(frozenset, each)) if each else frozenset()
    fixed = any(CAUTION_740_17 in text.text for label in labels for text in label.texts)
    return common | {FIXED_CAUTION} if fixed else common
