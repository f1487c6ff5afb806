"""The letters papers are set in: embedded, with Latin, Greek and Cyrillic."""

from __future__ import annotations

from pathlib import Path

from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

__all__ = ["BOLD", "FILES", "REGULAR"]

REGULAR, BOLD = "YsabeauOffice", "YsabeauOffice-Bold"
FOLDER = Path(__file__).parent / "fonts"

FILES = {REGULAR: FOLDER / "ysabeau-office-regular.ttf", BOLD: FOLDER / "ysabeau-office-bold.ttf"}
"""Font files by name; SIL Open Font License, which stands beside them."""

for _name, _file in FILES.items():
    _font = TTFont(_name, _file)
    _font.face.name = type(_font.face.name)(_name) if isinstance(_font.face.name, str) else _name.encode()
    """Both files carry one PostScript name, by which a PDF keeps a font once: bold would be set in regular letters."""
    pdfmetrics.registerFont(_font)
