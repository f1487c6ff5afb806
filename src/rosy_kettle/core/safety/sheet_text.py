"""Reads the table of a supplier's allergen sheet from pasted text: every row is shown, what is not known is asked."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from difflib import get_close_matches

__all__ = ["SheetRow", "read_sheet"]

CAS = re.compile(r"\b\d{2,7}-\d{2}-\d\b")
SHARE = re.compile(r"(?:[<>≤~]\s*)?(\d+(?:[.,]\d+)?)(?:\s*[-–]\s*(\d+(?:[.,]\d+)?))?\s*(%|ppm)?", re.IGNORECASE)
PPM = 1e4  # parts per million in a per cent
WHOLE_PCT = 100.0
MOST_ROWS = 400


@dataclass(frozen=True, slots=True)
class SheetRow:
    """One line of the sheet as it was read."""

    text: str
    name: str
    cas: str | None
    pct: float | None
    """Share of the scent, the upper end of a range [%]; None where none can be read."""
    known_as: str | None
    """The name the lists give it; None where nobody knows it."""
    nearest: str | None
    """The known name nearest to one that nobody knows, to be asked."""


def read_sheet(text: str, names: Mapping[str, str]) -> list[SheetRow]:
    """Return the rows of a pasted sheet.

    Parameters
    ----------
    text : str
        Lines with a name, a CAS number or both, and a share
    names : Mapping
        Names of substances by any of their names and CAS numbers, in small letters

    Returns
    -------
    list of SheetRow
        One for each line that holds a CAS number, a known name, or a name with a share [%]
    """
    found = [_row(line.strip(), names) for line in text.splitlines()]
    return [row for row in found if row is not None][:MOST_ROWS]


def _row(line: str, names: Mapping[str, str]) -> SheetRow | None:
    cas = next(iter(CAS.findall(line)), None)
    rest = CAS.sub(" ", line)
    cells = [cell.strip() for cell in re.split(r"\t|;|\||\s{2,}|,(?=\s|[A-Za-z])", rest) if cell.strip()]
    name, share = _name_and_share(cells, names)
    if not name and cas is None:
        return None
    known = names.get(cas or "") or names.get(name.casefold())
    if known is None and (share is None or not re.search(r"[a-z]{3}", name.casefold())):
        return None if cas is None else SheetRow(line, name, cas, share, None, None)
    near = None
    if known is None:
        close = get_close_matches(name.casefold(), names, n=1, cutoff=0.7)
        near = names[close[0]] if close else None
    return SheetRow(line, name, cas, share, known, near)


def _name_and_share(cells: list[str], names: Mapping[str, str]) -> tuple[str, float | None]:
    """Return the name and the share of a row: the last cell that is a figure, or the figure behind the name."""
    for at in range(len(cells) - 1, -1, -1):
        whole = SHARE.fullmatch(cells[at])
        if whole is not None:
            before = " ".join(cells[:at])
            return (before if before else " ".join(cells[at + 1 :])), _share(whole)
    joined = " ".join(cells)
    if joined.casefold() in names:
        return joined, None
    behind = re.fullmatch(rf"(?P<name>.*?[^\s\d.,<>≤~])[\s:]+(?P<share>{SHARE.pattern})", joined, re.IGNORECASE)
    if behind is None:
        return joined, None
    return behind["name"].strip(), _share(SHARE.fullmatch(behind["share"].strip()))


def _share(found: re.Match[str] | None) -> float | None:
    if found is None:
        return None
    high = float((found[2] or found[1]).replace(",", "."))
    pct = high / PPM if (found[3] or "").casefold() == "ppm" else high
    return pct if pct <= WHOLE_PCT else None
