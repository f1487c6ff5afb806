"""Letters of a label: how high the law wants them, how large that makes the type, and where lines break."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from unicodedata import bidirectional

from rosy_kettle.core.parameters.label import LabelParameters

__all__ = ["LetterWidths", "broken", "heights_of", "not_settable", "size_of"]

SQUARE_INCH_MM2 = 645.16
UNITS = 1000.0  # the type's own units of its size [-]
X_HEIGHT, CAP_HEIGHT = 0.415, 0.658  # of the type's size, read from its font file [-]
NAME_TO_IDENTITY = 1.4
"""How much higher the product's name stands than what it is; the law gives the identity a height, the name none."""
INFORMATION = (
    "ingredients", "allergens", "second_text", "maker", "responsible_person", "origin", "contact", "batch", "durability",
)  # fmt: skip
"""Elements set in the small letters of a market."""
NOT_IN_FONT = 0.6
"""Width of a letter the font has not, in shares of the size."""


@dataclass(frozen=True, slots=True)
class LetterWidths:
    """Advance of each letter, in thousandths of the size."""

    regular: Mapping[str, float]
    bold: Mapping[str, float]

    def of(self, text: str, size_mm: float, *, bold: bool) -> float:
        """Return the width of a text [mm]."""
        widths = self.bold if bold else self.regular
        return sum(widths.get(letter, UNITS * NOT_IN_FONT) for letter in text) * size_mm / UNITS


def heights_of(market: str, net_g: float | None, panel_mm2: float, p: LabelParameters) -> dict[str, float]:
    """Return how high the letters of each element must be.

    Parameters
    ----------
    market : str
        US, EU or UK
    net_g : float or None
        Net weight [g]
    panel_mm2 : float
        Area of the principal panel [mm2]
    p : LabelParameters
        Heights of the law [mm]

    Returns
    -------
    dict
        Height by element [mm]
    """
    us = market == "US"
    small = p.us_small_text_mm if panel_mm2 < p.us_small_area_mm2 else p.us_text_mm
    text = small if us else p.eu_text_mm
    heights = dict.fromkeys(
        ("ingredients", "allergens", "second_text", "maker", "responsible_person", "origin", "contact", "batch", "durability"),
        text,
    )
    heights |= dict.fromkeys(("caution", "directions"), p.us_text_mm if us else p.eu_text_mm)
    net = _us_net(panel_mm2 / SQUARE_INCH_MM2, p) if us else _eu_net(net_g or 0.0, p)
    identity = max(p.identity_mm, net if us else 0.0)
    return heights | {"net_quantity": net, "identity": identity, "name": NAME_TO_IDENTITY * identity, "scent_name": identity}


def _us_net(square_inches: float, p: LabelParameters) -> float:
    steps = ((5, p.us_net_5_mm), (25, p.us_net_25_mm), (100, p.us_net_100_mm))
    return next((height for limit, height in steps if square_inches <= limit), p.us_net_more_mm)


def _eu_net(net_g: float, p: LabelParameters) -> float:
    steps = ((50, p.eu_net_50_mm), (200, p.eu_net_200_mm), (1000, p.eu_net_1000_mm))
    return next((height for limit, height in steps if net_g <= limit), p.eu_net_more_mm)


def not_settable(text: str, widths: LetterWidths) -> str:
    """Return why a text cannot be set in these letters; empty where it can.

    Parameters
    ----------
    text : str
        The text
    widths : LetterWidths
        Letters there are
    """
    if any(bidirectional(letter) in {"R", "AL"} for letter in text):
        return "it is written from right to left, which is not set here: print that text apart"
    strange = [letter for letter in dict.fromkeys(text) if not letter.isspace() and letter not in widths.regular]
    return f"the letters {' '.join(strange[:8])} are not in the label's type" if strange else ""


def size_of(text: str, height_mm: float) -> float:
    """Return the size of type whose letters are so high.

    Parameters
    ----------
    text : str
        The text; figures and capitals alone are measured as capitals, else the lower-case o is
    height_mm : float
        Height [mm]

    Returns
    -------
    float
        Size [mm]
    """
    lower = any(letter.islower() for letter in text)
    return height_mm / (X_HEIGHT if lower else CAP_HEIGHT)


def broken(text: str, size_mm: float, width_mm: float, widths: LetterWidths, *, bold: bool) -> list[str] | None:
    """Return the lines of a text in a width; None where a single word is wider.

    Parameters
    ----------
    text : str
        The text
    size_mm : float
        Size of the type [mm]
    width_mm : float
        Width there is [mm]
    widths : LetterWidths
        Advances of the letters
    bold : bool
        Whether it is set bold

    Returns
    -------
    list of str or None
        Lines
    """
    lines: list[str] = []
    here = ""
    for word in _words(text):
        if widths.of(word, size_mm, bold=bold) > width_mm:
            return None
        longer = f"{here} {word}".strip()
        if here and widths.of(longer, size_mm, bold=bold) > width_mm:
            lines.append(here)
            here = word
        else:
            here = longer
    return [*lines, here] if here else lines


def _words(text: str) -> Sequence[str]:
    """Words, which also part behind the strokes of long chemical names."""
    return text.replace("/", "/\u200b").replace("\u200b", " ").split() if "/" in text else text.split()
