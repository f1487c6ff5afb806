"""What both papers share: black on white, ruled lines, no tint."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib import colors
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.platypus import Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from rosy_kettle.papers.letters import BOLD as BOLD_LETTERS
from rosy_kettle.papers.letters import REGULAR

__all__ = ["heading", "line", "pdf", "table"]

SIZES = {"A4": A4, "Letter": LETTER}
BODY = ParagraphStyle("body", fontName=REGULAR, fontSize=9.5, leading=12.5)
BOLD = ParagraphStyle("bold", parent=BODY, fontName=BOLD_LETTERS)
TITLE = ParagraphStyle("title", parent=BODY, fontSize=18, leading=22, spaceAfter=2)
HEAD = ParagraphStyle("head", parent=BODY, fontSize=11, leading=14, spaceBefore=8, spaceAfter=2)
PRINTABLE = str.maketrans({"\u2212": "-", "\u202f": " ", "\u2192": "to", "\u2265": "at least ", "\u2264": "at most "})
"""Signs the letters of the papers have not."""


def line(text: str, *, bold: bool = False) -> Paragraph:
    """Return a paragraph."""
    return Paragraph(escape(text.translate(PRINTABLE)), BOLD if bold else BODY)


def heading(text: str, *, title: bool = False) -> Paragraph:
    """Return a heading, or the title of the paper."""
    return Paragraph(escape(text.translate(PRINTABLE)), TITLE if title else HEAD)


def table(rows: Sequence[Sequence[str]], widths_mm: Sequence[float], *, figures: Sequence[int] = ()) -> Table:
    """Return a ruled table; its first row is the heading, ``figures`` are columns set to the right."""
    made = Table([[line(cell) for cell in row] for row in rows], colWidths=[width * mm for width in widths_mm], repeatRows=1)
    style: list[tuple[Any, ...]] = [
        ("LINEBELOW", (0, 0), (-1, -1), 0.4, colors.black), ("LINEBELOW", (0, 0), (-1, 0), 1.0, colors.black),
        ("LEFTPADDING", (0, 0), (-1, -1), 0), ("RIGHTPADDING", (0, 0), (-1, -1), 4),
        ("TOPPADDING", (0, 0), (-1, -1), 1.5), ("BOTTOMPADDING", (0, 0), (-1, -1), 2), ("VALIGN", (0, 0), (-1, -1), "TOP"),
    ]  # fmt: skip
    style += [("ALIGN", (column, 0), (column, -1), "RIGHT") for column in figures]
    made.setStyle(TableStyle(style))
    return made


def pdf(title: str, parts: Sequence[Any], paper: str = "A4") -> bytes:
    """Return the pages of a paper, A4 or Letter; the same parts give the same bytes."""
    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer, pagesize=SIZES[paper], title=title,
        leftMargin=16 * mm, rightMargin=16 * mm, topMargin=14 * mm, bottomMargin=14 * mm,
        invariant=True,
    )  # fmt: skip
    document.build([*parts, Spacer(1, 1)])
    return buffer.getvalue()
