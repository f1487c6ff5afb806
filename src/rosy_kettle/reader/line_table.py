"""Lines saved as a table: comma, semicolon or tab between cells, with a heading."""

from __future__ import annotations

import csv
import io

__all__ = ["is_line_table", "table_as_recipe"]

SEPARATORS = ",;\t"


def is_line_table(text: str) -> bool:
    """Return whether the first line is the heading of a table of lines."""
    return _separator(text) is not None


def table_as_recipe(text: str) -> str:
    """Return the rows of a table as recipe text, one line each.

    Parameters
    ----------
    text : str
        A table whose heading names at least ``ingredient`` and ``amount``; ``unit`` is grams where it is left out

    Returns
    -------
    str
        "amount unit ingredient", as a maker would write it; an id's hyphens become spaces
    """
    rows = csv.DictReader(io.StringIO(text.strip()), delimiter=_separator(text) or ",")
    lines = []
    for row in rows:
        cells = {(name or "").strip().lower(): (cell or "").strip() for name, cell in row.items() if isinstance(cell, str | None)}
        name = cells.get("ingredient", "").replace("-", " ")
        if name:
            lines.append(f"{cells.get('amount') or '0'} {cells.get('unit') or 'g'} {name}")
    return "\n".join(lines)


def _separator(text: str) -> str | None:
    heading = text.strip().partition("\n")[0].lower()
    for separator in SEPARATORS:
        cells = {cell.strip().strip('"') for cell in heading.split(separator)}
        if {"ingredient", "amount"} <= cells:
            return separator
    return None
