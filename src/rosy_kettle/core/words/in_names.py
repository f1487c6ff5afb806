"""Words of everyday names, INCI names and numbers."""

from __future__ import annotations

import re

__all__ = ["words_of"]


def words_of(text: str) -> tuple[str, ...]:
    """Return the words of a name in small letters, without signs.

    Parameters
    ----------
    text : str
        Everyday name, INCI name or CAS number
    """
    return tuple(re.findall(r"\w+", text.casefold()))
