"""Cells of tables as spreadsheets take them."""

from __future__ import annotations

__all__ = ["begins_formula"]

SIGNS = frozenset("=+-@\uff1d\uff0b\uff0d\uff20")
"""What begins a formula; the wide forms are read as the narrow ones by spreadsheets in East Asian settings."""
PASSED_OVER = " \t\r\n\f\v\0\u00a0\ufeff\u200b\u200e\u200f\u3000"
"""What a spreadsheet passes over before it looks at the first sign."""


def begins_formula(text: str) -> bool:
    """Whether a spreadsheet would run a cell as a formula (OWASP: CSV injection).

    Parameters
    ----------
    text : str
        The cell

    Returns
    -------
    bool
        Also where blanks or line breaks stand before the sign, or it is written wide; a cell that begins with a tab or a line
        break is taken for one too

    References
    ----------
    .. [1] OWASP, CSV Injection.
    """
    return text[:1] in {"\t", "\r", "\n"} or text.lstrip(PASSED_OVER)[:1] in SIGNS
