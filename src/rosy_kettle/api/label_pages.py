"""The pages of a kept label, the same bytes every time."""

from __future__ import annotations

from rosy_kettle.core.making.label.sheet import places_on
from rosy_kettle.store.labels import LabelRow
from rosy_kettle.usecases.labels.keep_label import layout_of, sheet_of_label

__all__ = ["pages_of"]


def pages_of(row: LabelRow) -> bytes:
    """Return a label as a page of its own size, or sheets of it."""
    from rosy_kettle.papers.label import label_pdf, label_sheet_pdf  # here: the paper packages are a tenth of the start

    sheet, title = sheet_of_label(row), f"{row.name}, {row.market}"
    if sheet is None:
        return label_pdf(layout_of(row), title, draft=row.draft)
    places = places_on(sheet, row.width_mm, row.height_mm, row.copies)
    return label_sheet_pdf(layout_of(row), title, sheet, places, draft=row.draft)
