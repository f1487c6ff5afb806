"""The exposure sheet as a spreadsheet: where the assessor types a level without effect, the margin stands beside it."""

from __future__ import annotations

import io
from collections.abc import Sequence

from openpyxl import Workbook
from openpyxl.styles import Font

from rosy_kettle.core.safety.exposure import Bather, ExposureRow

__all__ = ["exposure_xlsx"]

FIRST_ROW = 2
LETTERS = "ABCDEFGHIJ"


def exposure_xlsx(rows: Sequence[ExposureRow], people: Sequence[Bather], notes: Sequence[str]) -> bytes:
    """Return the sheet.

    Parameters
    ----------
    rows : Sequence
        Substances with their exposure [mg/kg/d]
    people : Sequence
        Who it is worked out for, in the order of the exposures
    notes : Sequence
        What it rests on, on a sheet of its own

    Returns
    -------
    bytes
        An XLSX file; margins are formulas, empty until a level without effect is typed
    """
    book = Workbook()
    sheet = book.active or book.create_sheet()
    sheet.title = "Exposure"
    sheet.append([
        "Substance", "% of the product", "mg in a bath", *(f"mg/kg/day, {who.name}" for who in people),
        "NOAEL, mg/kg/day (assessor)", "Reference (assessor)", f"Margin, {people[0].name} (computed)",
    ])  # fmt: skip
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    level = LETTERS[3 + len(people)]
    for number, row in enumerate(rows, start=FIRST_ROW):
        margin = f'=IF(AND(ISNUMBER({level}{number}),D{number}>0),{level}{number}/D{number},"")'
        name = f"\u200b{row.name}" if row.name[:1] in "=+-@" else row.name
        sheet.append([name, row.share_pct, row.in_bath_mg, *row.mg_kg_day, None, None, margin])
    rests = book.create_sheet("Rests on")
    for note in notes:
        rests.append([note])
    target = io.BytesIO()
    book.save(target)
    return target.getvalue()
