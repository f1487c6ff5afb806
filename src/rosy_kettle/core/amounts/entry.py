"""Reading one amount as typed: "218", "0,75", "2/3", "1 1/2", "1½"."""

from __future__ import annotations

import math
import re
from fractions import Fraction

from rosy_kettle.core.errors import InputError

__all__ = ["parse_amount"]

VULGAR_FRACTIONS = {
    "½": Fraction(1, 2), "⅓": Fraction(1, 3), "⅔": Fraction(2, 3), "¼": Fraction(1, 4), "¾": Fraction(3, 4),
    "⅕": Fraction(1, 5), "⅖": Fraction(2, 5), "⅗": Fraction(3, 5), "⅘": Fraction(4, 5), "⅙": Fraction(1, 6),
    "⅚": Fraction(5, 6), "⅛": Fraction(1, 8), "⅜": Fraction(3, 8), "⅝": Fraction(5, 8), "⅞": Fraction(7, 8),
}  # fmt: skip
LONGEST_AMOUNT = 40  # characters; anything longer is a slip, not a number

_MIXED = re.compile(r"(?:(\d+)\s+)?(\d+)\s*[/⁄]\s*(\d+)")
_WITH_VULGAR = re.compile(rf"(\d+)?\s*([{''.join(VULGAR_FRACTIONS)}])")
_DECIMAL = re.compile(r"(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][+-]?\d{1,3})?")


def parse_amount(text: str) -> float:
    """Return the number meant by an amount as typed.

    A comma is a decimal comma. An empty text counts as nothing yet, so it is 0.

    Parameters
    ----------
    text : str
        A decimal number, a fraction, or a whole number and a fraction

    Returns
    -------
    float
        The amount, 0 or more [the unit that stands beside it]

    Raises
    ------
    InputError
        If the text is no number, or is negative or not finite.

    Examples
    --------
    >>> parse_amount("1 1/2")
    1.5
    >>> parse_amount("0,75")
    0.75
    """
    clean = text.strip()
    if not clean:
        return 0.0
    if clean.startswith(("-", "−")):
        raise InputError(f"must be 0 or more, got {clean[:LONGEST_AMOUNT]}", quantity="amount", value=clean[:LONGEST_AMOUNT])
    value = _value(clean.lstrip("+")) if len(clean) <= LONGEST_AMOUNT else None
    if value is None or not math.isfinite(value):
        raise InputError(
            f'must be a number such as 218, 0.75 or 1 1/2, got "{clean[:LONGEST_AMOUNT]}"',
            quantity="amount",
            value=clean[:LONGEST_AMOUNT],
        )
    return value


def _value(text: str) -> float | None:
    if _DECIMAL.fullmatch(text):
        return float(text.replace(",", "."))
    if match := _MIXED.fullmatch(text):
        whole, top, bottom = match.groups()
        return None if int(bottom) == 0 else int(whole or 0) + int(top) / int(bottom)
    if match := _WITH_VULGAR.fullmatch(text):
        return int(match[1] or 0) + float(VULGAR_FRACTIONS[match[2]])
    return None
