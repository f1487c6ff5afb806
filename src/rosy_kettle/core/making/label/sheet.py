"""A sheet of labels: rows and columns of one label between margins, in millimetres."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.errors import InputError

__all__ = ["PAPERS", "LabelSheet", "places_on"]

PAPERS = {"A4": (210.0, 297.0), "Letter": (215.9, 279.4)}
"""Width and height by name [mm]; ISO 216, ANSI/ASME Y14.1 size A."""
MOST_LABELS = 1_000
HAIR = 1e-6  # what adding millimetres in binary may be off [mm]


@dataclass(frozen=True, slots=True)
class LabelSheet:
    """How a sheet of stickers is cut [mm]."""

    paper: str = "A4"
    rows: int = 8
    columns: int = 3
    left_mm: float = 6.0
    top_mm: float = 12.0
    gap_x_mm: float = 3.0
    gap_y_mm: float = 0.0


def places_on(sheet: LabelSheet, width_mm: float, height_mm: float, copies: int) -> list[list[tuple[float, float]]]:
    """Return where labels lie, sheet by sheet, row by row.

    Parameters
    ----------
    sheet : LabelSheet
        How it is cut
    width_mm : float
        Width of a label [mm]
    height_mm : float
        Height of a label [mm]
    copies : int
        How many labels [-]

    Returns
    -------
    list
        A list a sheet, of the left and upper edges of its labels [mm]

    Raises
    ------
    InputError
        If the paper is not known, or so many labels do not go on it.
    """
    if sheet.paper not in PAPERS:
        raise InputError(f"Paper is {' or '.join(PAPERS)}.", quantity="paper")
    if not (sheet.rows >= 1 and sheet.columns >= 1 and 1 <= copies <= MOST_LABELS):
        raise InputError(
            f"A sheet has a row and a column at least, and 1 to {MOST_LABELS} labels are printed.", quantity="copies"
        )
    paper_w, paper_h = PAPERS[sheet.paper]
    needed_w = sheet.left_mm + sheet.columns * width_mm + (sheet.columns - 1) * sheet.gap_x_mm
    needed_h = sheet.top_mm + sheet.rows * height_mm + (sheet.rows - 1) * sheet.gap_y_mm
    if needed_w > paper_w + HAIR or needed_h > paper_h + HAIR:
        raise InputError(
            f"{sheet.columns} by {sheet.rows} labels of {width_mm:g} by {height_mm:g} mm "
            f"need {needed_w:.1f} by {needed_h:.1f} mm; {sheet.paper} has {paper_w:g} by {paper_h:g}.",
            quantity="columns",
        )
    one = [
        (sheet.left_mm + column * (width_mm + sheet.gap_x_mm), sheet.top_mm + row * (height_mm + sheet.gap_y_mm))
        for row in range(sheet.rows) for column in range(sheet.columns)
    ]  # fmt: skip
    return [one[: copies - begin] for begin in range(0, copies, len(one))]
