"""A label at true size: texts in one column between margins, letters as high as the law wants, or the smallest size that fits."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.label.letters import LetterWidths, broken, size_of
from rosy_kettle.core.making.label.texts import LabelText

__all__ = ["LabelLayout", "PlacedLine", "lay_out", "smallest_label"]

MARGIN_MM, LEADING, GAP_MM = 2.0, 1.18, 0.7
WIDEST_MM, TALLEST_MM = 210.0, 297.0
RUN_ON = frozenset({"allergens", "contact", "batch", "durability"})
BEFORE_RUN_ON = RUN_ON | {"ingredients", "maker"}
"""Short texts that may stand behind the one before them, and those they may stand behind."""
RUN_ON_GAP, ALIKE_MM = 0.8, 1e-9  # space between them in sizes of type [-]; sizes that are one [mm]
AT_THE_FOOT = "net_quantity"
STEP = 1.02  # from one size that is tried to the next [-]


@dataclass(frozen=True, slots=True)
class PlacedLine:
    """One line of type; its baseline stands so far below the upper edge."""

    element: str
    text: str
    x_mm: float
    baseline_mm: float
    size_mm: float
    bold: bool


@dataclass(frozen=True, slots=True)
class LabelLayout:
    """A label of a size, or the reason why its texts do not go on it."""

    width_mm: float
    height_mm: float
    lines: tuple[PlacedLine, ...]
    used_mm: float
    """Height the texts take [mm]."""
    fits: bool


def lay_out(texts: Sequence[LabelText], width_mm: float, height_mm: float, widths: LetterWidths) -> LabelLayout:
    """Return the texts set on a label of a size.

    Parameters
    ----------
    texts : Sequence
        Texts in their order
    width_mm : float
        Width of the label [mm]
    height_mm : float
        Height of the label [mm]
    widths : LetterWidths
        Advances of the letters

    Returns
    -------
    LabelLayout
        Lines that lie below the lower edge are there all the same, and ``fits`` is false

    Raises
    ------
    InputError
        If the size is none a label can have.
    """
    if not (0 < width_mm <= WIDEST_MM and 0 < height_mm <= TALLEST_MM):
        raise InputError(f"A label is up to {WIDEST_MM:.0f} by {TALLEST_MM:.0f} mm; give it a size.", quantity="width_mm")
    room = width_mm - 2 * MARGIN_MM
    lines: list[PlacedLine] = []
    at, wide = MARGIN_MM, False
    for text in texts:
        size = size_of(text.text, text.height_mm)
        beside = _beside(lines, text, size, room, widths)
        if beside is not None:
            lines.append(beside)
            continue
        parts = broken(text.text, size, room, widths, bold=text.bold) if room > 0 else None
        wide = wide or parts is None
        for part in parts or [text.text]:
            at += LEADING * size
            lines.append(PlacedLine(text.element, part, MARGIN_MM, at - 0.25 * size, size, text.bold))
        at += GAP_MM
    used = at + MARGIN_MM
    fits = not wide and used <= height_mm
    return LabelLayout(width_mm, height_mm, tuple(_sunk(lines, height_mm - used) if fits else lines), used, fits)


def _sunk(lines: Sequence[PlacedLine], room_mm: float) -> list[PlacedLine]:
    """Return the lines with a net quantity that stands last set down to the lower edge, where the US wants it."""
    if not lines or lines[-1].element != AT_THE_FOOT:
        return list(lines)
    return [replace(each, baseline_mm=each.baseline_mm + room_mm) if each.element == AT_THE_FOOT else each for each in lines]


def _beside(
    lines: Sequence[PlacedLine], text: LabelText, size_mm: float, room_mm: float, widths: LetterWidths
) -> PlacedLine | None:
    """Return a short text set behind the line before it, where both are set alike and there is room."""
    if not lines or text.element not in RUN_ON or lines[-1].element not in BEFORE_RUN_ON:
        return None
    last = lines[-1]
    if last.bold != text.bold or abs(last.size_mm - size_mm) > ALIKE_MM:
        return None
    x_mm = last.x_mm + widths.of(last.text, last.size_mm, bold=last.bold) + RUN_ON_GAP * size_mm
    ends_mm = x_mm + widths.of(text.text, size_mm, bold=text.bold)
    return (
        PlacedLine(text.element, text.text, x_mm, last.baseline_mm, size_mm, text.bold)
        if ends_mm <= MARGIN_MM + room_mm
        else None
    )


def smallest_label(
    texts_of: Callable[[float], Sequence[LabelText]], width_mm: float, height_mm: float, widths: LetterWidths
) -> tuple[float, float] | None:
    """Return the smallest label of the wanted proportion that holds its texts.

    Parameters
    ----------
    texts_of : Callable
        Texts by the area of the label [mm2]: a larger one may ask for higher letters
    width_mm : float
        Width that was wanted [mm]
    height_mm : float
        Height that was wanted [mm]
    widths : LetterWidths
        Advances of the letters

    Returns
    -------
    tuple or None
        Width and height [mm]; None where not even a sheet of paper holds them
    """
    scale = 1.0
    while width_mm * scale <= WIDEST_MM and height_mm * scale <= TALLEST_MM:
        width, height = round(width_mm * scale, 1), round(height_mm * scale, 1)
        if lay_out(texts_of(width * height), width, height, widths).fits:
            return width, height
        scale *= STEP
    return None
