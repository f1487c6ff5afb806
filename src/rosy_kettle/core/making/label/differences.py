"""What two markets' labels of the same piece say differently, and by which rule."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.making.label.texts import LabelTexts

__all__ = ["LabelDifference", "differences"]


@dataclass(frozen=True, slots=True)
class LabelDifference:
    """One element that is not the same on both; empty is not there."""

    element: str
    first: str
    second: str
    first_mm: float | None
    second_mm: float | None
    rules: tuple[str, ...]
    """Ids of the rules behind it."""


def differences(first: LabelTexts, second: LabelTexts) -> list[LabelDifference]:
    """Return what differs in words or height of letters, in the order of the first.

    Parameters
    ----------
    first : LabelTexts
        Texts of one market
    second : LabelTexts
        Texts of another

    Returns
    -------
    list of LabelDifference
        What is lacking on one side names the rule that asks for it there
    """
    here, there = ({text.element: text for text in made.texts} for made in (first, second))
    asked = {(made.market, each.element): each.rule for made in (first, second) for each in made.missing}
    found = []
    for element in dict.fromkeys([*here, *there]):
        one, two = here.get(element), there.get(element)
        if one is not None and two is not None and (one.text, one.height_mm) == (two.text, two.height_mm):
            continue
        rules = [text.rule for text in (one, two) if text is not None]
        rules += [asked[key] for key in ((first.market, element), (second.market, element)) if key in asked]
        found.append(LabelDifference(
            element, "" if one is None else one.text, "" if two is None else two.text,
            None if one is None else one.height_mm, None if two is None else two.height_mm, tuple(dict.fromkeys(rules)),
        ))  # fmt: skip
    return found
