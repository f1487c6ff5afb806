"""Lines pasted or saved as a table: comma, semicolon, tab or pipe between cells, with or without a heading."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Sequence

__all__ = ["is_line_table", "table_as_recipes"]

SEPARATORS = ("\t", "|", ";", ",")
RULE = re.compile(r"[|\s:+-]*-{2,}[|\s:+-]*")
NAME_HEADINGS = frozenset(
    "ingredient ingredients item items name material materials zutat zutaten ingrédient ingrédients what".split()
)
AMOUNT_HEADINGS = frozenset("amount quantity qty weight mass menge quantité poids how much amt gewicht value".split())
UNIT_HEADINGS = frozenset("unit units uom measure einheit unité".split())
PORTION_HEADINGS = frozenset({"portion"})
UNIT_OF_HEADING = {
    "g": "g", "gram": "g", "grams": "g", "gramm": "g", "grammes": "g", "kg": "kg", "oz": "oz", "ounces": "oz", "lb": "lb",
    "ml": "ml", "%": "pct", "percent": "pct", "pct": "pct", "parts": "part", "cups": "cup", "tbsp": "tbsp", "tsp": "tsp",
}  # fmt: skip
"""Units that may head a column of bare numbers, the preferred first."""
BARE_NUMBER = re.compile(r"[\d\s.,·'’/½⅓⅔¼¾⅛⅜⅝⅞]+")
TOTAL = re.compile(r"(?:sub)?total|sum|summe|gesamt", re.IGNORECASE)
FEWEST_ROWS = 2  # without a heading it takes as many rows alike to make a table


def is_line_table(text: str) -> bool:
    """Return whether the text is a table of lines."""
    rows = _rows(text)
    return bool(rows) and (_columns(rows[0][1]) is not None or _headless(rows))


def table_as_recipes(text: str) -> dict[str, str]:
    """Return the rows of a table as recipe text, one line each, portion by portion.

    Parameters
    ----------
    text : str
        A table whose heading names at least the ingredient and an amount, a unit alone standing for its amount; or, without
        a heading, rows that each hold a name and an amount

    Returns
    -------
    dict of str
        By the name of the portion ("" where the table names none), in the table's order: lines of
        "amount unit ingredient", as a maker would write them; an id's hyphens become spaces
    """
    rows = _rows(text)
    columns = _columns(rows[0][1]) if rows else None
    portions: dict[str, list[str]] = {}
    for _separator, cells in rows[1:] if columns else rows:
        if columns is None:
            portions.setdefault("", []).append(" ".join(cell for cell in cells if cell))
            continue
        name = _cell(cells, columns["name"])
        if re.fullmatch(r"[a-z0-9]+(?:-[a-z0-9]+)+", name):
            name = name.replace("-", " ")
        if name and not TOTAL.fullmatch(name):
            portion = _cell(cells, columns.get("portion"))
            portions.setdefault(portion, []).append(_line(cells, columns, name))
    return {portion: "\n".join(lines) for portion, lines in portions.items()}


def _line(cells: Sequence[str], columns: dict[str, int | str], name: str) -> str:
    amount = _cell(cells, columns["amount"])
    if not amount:
        return name
    if not BARE_NUMBER.fullmatch(amount):
        return f"{amount} {name}"
    unit = _cell(cells, columns.get("unit")) or str(columns.get("unit_of_all", "g"))
    return f"{amount} {unit} {name}"


def _cell(cells: Sequence[str], column: int | str | None) -> str:
    return cells[column] if isinstance(column, int) and column < len(cells) else ""


def _rows(text: str) -> list[tuple[str, list[str]]]:
    """Cells of each line, cut at the separator of the first line that is no rule; [] where there is none."""
    lines = [line for line in text.strip().split("\n") if line.strip() and not RULE.fullmatch(line.strip())]
    separator = next((each for each in SEPARATORS if lines and each in lines[0].strip("| \t")), None)
    if separator is None:
        return []
    stripped = [line.strip().strip("|") if separator == "|" else line.strip(" ") for line in lines]
    try:
        read = list(csv.reader(io.StringIO("\n".join(stripped)), delimiter=separator))
    except csv.Error:
        return []
    return [(separator, [cell.strip() for cell in row]) for row in read if any(cell.strip() for cell in row)]


def _columns(heading: Sequence[str]) -> dict[str, int | str] | None:
    """Which column holds what; None where the first row is no heading."""
    found: dict[str, int | str] = {}
    by_unit: dict[str, int] = {}
    for index, cell in enumerate(heading):
        words = re.findall(r"[^\W\d_]+|%", cell.lower())
        units = [UNIT_OF_HEADING[word] for word in words if word in UNIT_OF_HEADING]
        if any(word in NAME_HEADINGS for word in words) and "name" not in found:
            found["name"] = index
        elif any(word in PORTION_HEADINGS for word in words):
            found["portion"] = index
        elif any(word in UNIT_HEADINGS for word in words):
            found["unit"] = index
        elif units:
            by_unit.setdefault(units[0], index)
        elif any(word in AMOUNT_HEADINGS for word in words) and "amount" not in found:
            found["amount"] = index
    if "amount" not in found and by_unit:
        unit = next(unit for unit in UNIT_OF_HEADING.values() if unit in by_unit)
        found |= {"amount": by_unit[unit], "unit_of_all": unit}
    return found if {"name", "amount"} <= found.keys() else None


def _headless(rows: list[tuple[str, list[str]]]) -> bool:
    """Whether rows without heading are alike: a name without digits in the first cell, a number in a later one."""
    if len(rows) < FEWEST_ROWS or rows[0][0] == ",":
        return False
    return all(
        len(cells) > 1 and not re.search(r"\d", cells[0]) and re.match(r"[\d½⅓⅔¼¾]", cells[1]) is not None for _, cells in rows
    )
