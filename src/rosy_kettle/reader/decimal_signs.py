"""Numbers whose decimal sign may be a point or a comma: read by what the table shows, asked about where it shows nothing."""

from __future__ import annotations

import re
from collections.abc import Iterable
from decimal import Decimal

__all__ = ["DECIMAL_SIGNS", "decimal_sign_of", "read_number", "two_ways"]

DECIMAL_SIGNS = (".", ",")
NUMBER = re.compile(r"[-+]?\d[\d.,'\u00a0\u202f ]*")
GROUP = 3  # digits between two thousands signs


def decimal_sign_of(cells: Iterable[str]) -> str | None:
    """Return the decimal sign all cells agree on that show one; None where none does, or they differ.

    Parameters
    ----------
    cells : iterable of str
        Quantities and prices as they are written

    Returns
    -------
    str or None
        "." or ","
    """
    shown = {sign for cell in cells if (sign := _shown(_written(cell))) is not None}
    return shown.pop() if len(shown) == 1 else None


def two_ways(text: str) -> bool:
    """Return whether a number can be read two ways: 1,250 is one and a quarter, or one thousand two hundred and fifty."""
    written = _written(text)
    return _shown(written) is None and any(sign in written for sign in DECIMAL_SIGNS)


def read_number(text: str, decimal_sign: str) -> Decimal | None:
    """Return the number in a text; one that shows its own decimal sign is read by it.

    Parameters
    ----------
    text : str
        With unit or currency around it
    decimal_sign : str
        "." or ","; counts where the number itself does not tell

    Returns
    -------
    Decimal or None
        None where there is no number
    """
    written = _written(text)
    if not written:
        return None
    sign = _shown(written) or decimal_sign
    other = "," if sign == "." else "."
    return Decimal(written.replace(other, "").replace(sign, "."))


def _written(text: str) -> str:
    found = NUMBER.search(text)
    return "" if found is None else re.sub(r"[\s'\u00a0\u202f]", "", found[0]).rstrip(".,")


def _shown(written: str) -> str | None:
    """Return the decimal sign a number shows by itself; None where it has no sign, or could be grouped by it."""
    used = [sign for sign in DECIMAL_SIGNS if sign in written]
    if not used:
        return None
    if len(used) > 1:
        return max(used, key=written.rfind)
    sign = used[0]
    if written.count(sign) > 1:
        return "," if sign == "." else "."
    before, _, after = written.lstrip("+-").partition(sign)
    groups = len(after) == GROUP and 1 <= len(before) <= GROUP and not before.startswith("0")
    return None if groups else sign
