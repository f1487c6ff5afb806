"""A label as PDF and SVG at true size, with embedded letters that hold Latin, Greek and Cyrillic."""

from __future__ import annotations

import base64
import io
from functools import cache
from xml.sax.saxutils import escape

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from rosy_kettle.core.making.label.layout import LabelLayout
from rosy_kettle.papers.letters import BOLD, FILES, REGULAR

__all__ = ["label_pdf", "label_svg"]

FAMILY = "Ysabeau Office"


def label_pdf(layout: LabelLayout, title: str) -> bytes:
    """Return one label as a page of its own size; the same label gives the same bytes."""
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(layout.width_mm * mm, layout.height_mm * mm), invariant=1)
    canvas.setTitle(title)
    for line in layout.lines:
        canvas.setFont(BOLD if line.bold else REGULAR, line.size_mm * mm)
        canvas.drawString(line.x_mm * mm, (layout.height_mm - line.baseline_mm) * mm, line.text)
    canvas.showPage()
    canvas.save()
    return out.getvalue()


def label_svg(layout: LabelLayout, title: str) -> str:
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
    width, height = f"{layout.width_mm:g}", f"{layout.height_mm:g}"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}"'
        f' font-family="{FAMILY}, sans-serif"><title>{escape(title)}</title><style>{faces}</style>'
        f'<rect width="{width}" height="{height}" fill="#fff"/>{lines}</svg>\n'
    )


@cache
def _base64(name: str) -> str:
    return base64.b64encode(FILES[name].read_bytes()).decode()
