"""A label of a formula for one market: texts, what is missing, and where every line stands."""

from __future__ import annotations

from dataclasses import dataclass, replace

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.label.gate import Block, blocks_of_label
from rosy_kettle.core.making.label.layout import LabelLayout, lay_out, smallest_label
from rosy_kettle.core.making.label.letters import LetterWidths, not_settable
from rosy_kettle.core.making.label.texts import LabelFacts, LabelText, LabelTexts, MissingElement, at_area, label_texts
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.words.label import DRAFT, DRAFT_MM
from rosy_kettle.reference import load_letter_widths

__all__ = ["DRAFT_TEXT", "MadeLabel", "make_label"]

DRAFT_TEXT = LabelText("draft", DRAFT, DRAFT_MM, "information", bold=True, rule="")
"""What crosses a label that may not be final."""


@dataclass(frozen=True, slots=True)
class MadeLabel:
    """A label at true size."""

    texts: LabelTexts
    layout: LabelLayout
    fits: bool
    smallest_mm: tuple[float, float] | None
    """Width and height of the smallest one that holds its texts, where this one does not."""
    blocks: tuple[Block, ...]
    """What the rules hold against a final one."""

    @property
    def draft(self) -> bool:
        """Whether it is a draft only: something is missing or blocked."""
        return bool(self.texts.missing or self.blocks)

    def texts_told(self, *, draft: bool | None = None) -> tuple[LabelText, ...]:
        """Return its texts as they are printed; a draft says what it is."""
        is_draft = self.draft if draft is None else draft
        return (*self.texts.texts, DRAFT_TEXT) if is_draft else self.texts.texts

    def refuse_too_small(self) -> None:
        """Refuse a label whose texts do not go on it.

        Raises
        ------
        InputError
            Naming the smallest one that would do.
        """
        if self.fits:
            return
        would = "no sheet of paper holds them"
        would = would if self.smallest_mm is None else f"{self.smallest_mm[0]:g} by {self.smallest_mm[1]:g} mm would do"
        raise InputError(f"The texts do not fit at the heights the rules ask for; {would}.", quantity="width_mm")


def _settable(texts: LabelTexts, widths: LetterWidths) -> LabelTexts:
    """Say of which texts the letters are not there: such a label is not complete."""
    found = [(text, not_settable(text.text, widths)) for text in texts.texts]
    missing = [MissingElement(text.element, text.rule, f"{why[0].upper()}{why[1:]}.") for text, why in found if why]
    return replace(texts, missing=(*texts.missing, *missing))


def make_label(formula: Formula, tables: Tables, facts: LabelFacts, market: str, width_mm: float, height_mm: float) -> MadeLabel:
    """Return the label of a formula.

    Raises
    ------
    InputError
        If there are no rules for the market, or no label has that size.
    """
    widths = load_letter_widths()
    texts = _settable(label_texts(formula, tables, facts, market, width_mm * height_mm), widths)
    layout = lay_out(texts.texts, width_mm, height_mm, widths)
    smallest = None
    if not layout.fits:
        smallest = smallest_label(lambda area: at_area(texts, facts.net_g, area), width_mm, height_mm, widths)
    return MadeLabel(texts, layout, layout.fits, smallest, blocks_of_label(formula, tables, texts))
