"""The product record as PDF, in the order an assessor reads it."""

from __future__ import annotations

from collections.abc import Sequence

from rosy_kettle.core.making.label.record_part import RecordPart
from rosy_kettle.papers.sheet import heading, line, pdf, table

__all__ = ["product_record_pdf"]


def product_record_pdf(title: str, lead: str, parts: Sequence[RecordPart], paper: str) -> bytes:
    """Return the record as pages; the same parts give the same bytes.

    Parameters
    ----------
    title : str
        Name and number of the batch
    lead : str
        Maker, version, dates
    parts : Sequence
        Parts in their order
    paper : str
        A4 or Letter
    """
    pages = [heading(title, title=True), line(lead)]
    for part in parts:
        pages.append(heading(part.title))
        pages += [line(sentence) for sentence in part.sentences]
        if len(part.rows) > 1:
            pages.append(table(part.rows, part.widths_mm, figures=part.figures))
        elif part.rows:
            pages.append(line("Nothing on file."))
    return pdf(title, pages, paper)
