"""Lines saved as a table: comma, semicolon or tab between cells, with a heading."""

from __future__ import annotations

import csv
import io

__all__ = ["is_line_table", "table_as_recipes"]

SEPARATORS = ",;\t"


def is_line_table(text: str) -> bool:
    """Return whether the first line is the heading of a table of lines."""
    return _separator(text) is not None


def table_as_recipes(text: str) -> dict[str, str]:
    """Return the rows of a table as recipe text, one line each, portion by portion.

    Parameters
    ----------
    text : str
        A table whose heading names at least ``ingredient`` and ``amount``; ``unit`` is grams where it is left out

    Returns
    -------
    dict of str
        By the name of the portion ("" where the table names none), in the table's order: lines of
        "amount unit ingredient", as a maker would write them; an id's hyphens become spaces
    """
    rows = csv.DictReader(io.StringIO(text.strip()), delimiter=_separator(text) or ",")
    portions: dict[str, list[str]] = {}
    for row in rows:
        cells = {(name or "").strip().lower(): (cell or "").strip() for name, cell in row.items() if isinstance(cell, str | None)}
        name = cells.get("ingredient", "").replace("-", " ")
        if name:
            lines = portions.setdefault(cells.get("portion", ""), [])
            lines.append(f"{cells.get('amount') or '0'} {cells.get('unit') or 'g'} {name}")
    return {portion: "\n".join(lines) for portion, lines in portions.items()}


def _separator(text: str) -> str | None:
    heading = text.strip().partition("\n")[0].lower()
    for separator in SEPARATORS:
        cells = {cell.strip().strip('"') for cell in heading.split(separator)}
        if {"ingredient", "amount"} <= cells:
            return separator
    return None
