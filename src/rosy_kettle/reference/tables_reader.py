"""Opens the reference tables as text."""

from __future__ import annotations

import csv
from importlib.resources import files

__all__ = ["number_or_none", "table_rows"]

TABLES = files("rosy_kettle.reference") / "tables"


def table_rows(name: str) -> list[dict[str, str]]:
    """Return the rows of one CSV table as text."""
    text = (TABLES / f"{name}.csv").read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


def number_or_none(text: str | None) -> float | None:
    """Return a figure of a table; None where the cell is empty."""
    return float(text) if text else None
