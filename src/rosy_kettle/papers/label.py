"""A label as PDF and SVG at true size, with embedded letters that hold Latin, Greek and Cyrillic."""

from __future__ import annotations

import base64
import io
import math
from collections.abc import Sequence
from functools import cache
from xml.sax.saxutils import escape

from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from rosy_kettle.core.making.label.layout import LabelLayout
from rosy_kettle.core.making.label.sheet import PAPERS, LabelSheet
from rosy_kettle.core.words.label import DRAFT, DRAFT_MM
from rosy_kettle.papers.letters import BOLD, FILES, REGULAR

__all__ = ["label_pdf", "label_sheet_pdf", "label_svg"]

FAMILY = "Ysabeau Office"
DRAFT_GREY = 0.72
"""Of the large words across a draft, so that its texts stay readable through them."""
DRAFT_SHARE = 0.62
"""Of a label's diagonal that the words across a draft take."""


def label_pdf(layout: LabelLayout, title: str, *, draft: bool = False) -> bytes:
    """Return one label as a page of its own size; the same label gives the same bytes."""
    return _pages(layout, title, (layout.width_mm, layout.height_mm), [[(0.0, 0.0)]], draft=draft)


def label_sheet_pdf(
    layout: LabelLayout, title: str, sheet: LabelSheet, places: Sequence[Sequence[tuple[float, float]]], *, draft: bool
) -> bytes:
    """Return sheets of one label at true size, hair lines at the corners to see whether the printer scales.

    Parameters
    ----------
    layout : LabelLayout
        The label
    title : str
        Of the document
    sheet : LabelSheet
        How the paper is cut
    places : Sequence
        A list a sheet, of the left and upper edges of its labels [mm]
    draft : bool
        Whether it is crossed as not complete
    """
    return _pages(layout, title, PAPERS[sheet.paper], places, draft=draft)


def _pages(
    layout: LabelLayout, title: str, paper_mm: tuple[float, float], pages: Sequence[Sequence[tuple[float, float]]], *, draft: bool
) -> bytes:
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(paper_mm[0] * mm, paper_mm[1] * mm), invariant=1)
    canvas.setTitle(title)
    for places in pages:
        for left_mm, top_mm in places:
            _draw(canvas, layout, left_mm, paper_mm[1] - top_mm, draft=draft)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _draw(canvas: Canvas, layout: LabelLayout, left_mm: float, upper_mm: float, *, draft: bool) -> None:
    """Draw one label whose upper left corner lies there, from the lower left of the paper [mm]."""
    if draft:
        _cross(canvas, layout, left_mm, upper_mm)
    for line in layout.lines:
        canvas.setFont(BOLD if line.bold else REGULAR, line.size_mm * mm)
        canvas.drawString((left_mm + line.x_mm) * mm, (upper_mm - line.baseline_mm) * mm, line.text)


def _cross(canvas: Canvas, layout: LabelLayout, left_mm: float, upper_mm: float) -> None:
    """Set large grey words under the texts, along the falling diagonal, and small black ones in the lower corner."""
    angle, size_mm = _along(layout)
    canvas.saveState()
    canvas.setFillGray(DRAFT_GREY)
    canvas.translate((left_mm + layout.width_mm / 2) * mm, (upper_mm - layout.height_mm / 2) * mm)
    canvas.rotate(-angle)
    canvas.setFont(BOLD, size_mm * mm)
    canvas.drawCentredString(0, -0.3 * size_mm * mm, DRAFT)
    canvas.restoreState()
    canvas.setFont(BOLD, DRAFT_MM * mm)
    canvas.drawRightString((left_mm + layout.width_mm - 1) * mm, (upper_mm - layout.height_mm + 1) * mm, DRAFT)


def _along(layout: LabelLayout) -> tuple[float, float]:
    """Return the angle of a label's diagonal [degrees] and the size of the words along it [mm]."""
    diagonal_mm = math.hypot(layout.width_mm, layout.height_mm)
    wide = stringWidth(DRAFT, BOLD, 1.0)
    return math.degrees(math.atan2(layout.height_mm, layout.width_mm)), DRAFT_SHARE * diagonal_mm / wide


def label_svg(layout: LabelLayout, title: str, *, draft: bool = False) -> str:
    """Return one label as a drawing in millimetres."""
    lines = "".join(
        f'<text x="{line.x_mm:.3f}" y="{line.baseline_mm:.3f}" font-size="{line.size_mm:.3f}"'
        f' font-weight="{700 if line.bold else 400}" data-element="{line.element}">{escape(line.text)}</text>'
        for line in layout.lines
    )
    faces = "".join(
        f'@font-face{{font-family:"{FAMILY}";font-weight:{weight};src:url(data:font/ttf;base64,{_base64(name)})}}'
        for weight, name in ((400, REGULAR), (700, BOLD))
    )
    if draft:
        angle, size_mm = _along(layout)
        across = (
            f'<text transform="translate({layout.width_mm / 2:g} {layout.height_mm / 2:g}) rotate({angle:.2f})"'
            f' text-anchor="middle" dy=".3em" font-size="{size_mm:.3f}" font-weight="700" fill="#b8b8b8"'
            f' data-element="draft">{DRAFT}</text>'
        )
        lines = (
            across
            + lines
            + (
                f'<text x="{layout.width_mm - 1:g}" y="{layout.height_mm - 1:g}" text-anchor="end"'
                f' font-size="{DRAFT_MM}">{DRAFT}</text>'
            )
        )
    width, height = f"{layout.width_mm:g}", f"{layout.height_mm:g}"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}"'
        f' font-family="{FAMILY}, sans-serif"><title>{escape(title)}</title><style>{faces}</style>'
        f'<rect width="{width}" height="{height}" fill="#fff"/>{lines}</svg>\n'
    )


@cache
def _base64(name: str) -> str:
    return base64.b64encode(FILES[name].read_bytes()).decode()
