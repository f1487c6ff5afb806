"""Values that nothing in a studio can mean: refused wherever data come in, before any of it is kept."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any

__all__ = ["odd_in"]

LARGEST, SMALLEST = 1e15, 1e-12
"""Beyond these no mass, time, price or count of a workshop lies; project default."""
MOST_DEEP = 60
"""Lists and objects in each other; a formula file has eight."""


def odd_in(data: Any, path: str = "", *, residues: bool = False) -> str:
    """Return what is wrong with the first value that cannot be meant; "" where all can.

    Parameters
    ----------
    data : Any
        What JSON holds: objects, lists, text, numbers, truths, nothing
    path : str
        Where it stands
    residues : bool
        Whether numbers near nothing pass, and nothing with a minus: what a studio works out leaves such behind

    Returns
    -------
    str
        As in 'answers.room_c must be a number that can be measured, got inf'

    Notes
    -----
    Numbers have to be finite and of a size that can be measured, without a minus before nothing; text holds no NUL and no half
    of a surrogate pair, which are no letters (RFC 8259, 8.2) and break files and printers.
    """
    if path.count(".") > MOST_DEEP:
        return f"{path[:60]} lies too deep"
    if isinstance(data, Mapping):
        for key, value in data.items():
            said = _odd_text(str(key), f"a name in {path or 'the body'}")
            said = said or odd_in(value, f"{path}.{key}" if path else str(key), residues=residues)
            if said:
                return said
        return ""
    if isinstance(data, list | tuple):
        told = (odd_in(value, f"{path}.{at}" if path else str(at), residues=residues) for at, value in enumerate(data))
        return next((said for said in told if said), "")
    if isinstance(data, str):
        return _odd_text(data, path)
    return _odd_number(data, path, residues=residues) if isinstance(data, float | int) and not isinstance(data, bool) else ""


def _odd_text(text: str, path: str) -> str:
    if "\0" in text:
        return f"{path[:120] or 'the text'} holds a NUL sign, which is no letter; leave it out"
    if not text.isascii() and any("\ud800" <= letter <= "\udfff" for letter in text):
        return f"{path[:120].encode('utf-8', 'replace').decode()} holds half a letter (a lone surrogate); type it again"
    return ""


def _odd_number(value: float, path: str, *, residues: bool) -> str:
    size = abs(value)
    if residues and size < SMALLEST:
        return ""
    minus_nothing = isinstance(value, float) and value == 0 and math.copysign(1.0, value) < 0
    if minus_nothing or not (size == 0 or SMALLEST <= size <= LARGEST):
        shown = f"{value}" if isinstance(value, float) else "a number of many digits"
        return f"{path[:120] or 'the number'} must be a number that can be measured, got {shown[:40]}"
    return ""
