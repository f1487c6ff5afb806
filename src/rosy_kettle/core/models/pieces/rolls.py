"""Sheets rolled up and sliced: geometry (exact)."""

from __future__ import annotations

import math
from dataclasses import dataclass

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.pieces import PieceParameters

__all__ = ["Roll", "cuts_mm", "roll_geometry"]


@dataclass(frozen=True, slots=True)
class Roll:
    """One roll and its slices."""

    length_mm: float
    """Length of the sheet that is rolled up."""
    width_mm: float
    thickness_mm: float
    """All layers together."""
    diameter_mm: float
    turns: float
    slices: int
    trimmed_ml: float
    rolls: bool
    verdict: str


def roll_geometry(
    volume_ml: float,
    width_mm: float,
    layers: int,
    sheet_mm: float,
    slice_mm: float,
    cut: str = "knife",
    trim_mm: float | None = None,
    p: PieceParameters = USUAL.pieces,
) -> Roll:
    """Return the roll that a volume of dough makes.

    .. math:: l = V/(W t),\\quad D = \\sqrt{4 l t/\\pi},\\quad n = D/2t,\\quad
              slices = \\lfloor (W - 2\\,trim)/(slice + cut) \\rfloor

    Parameters
    ----------
    volume_ml : float
        Dough, packed [mL]
    width_mm : float
        Width of the sheet, which becomes the length of the roll [mm]
    layers : int
        Sheets on top of each other [-]
    sheet_mm : float
        Thickness of one sheet [mm]
    slice_mm : float
        Thickness of a slice [mm]
    cut : str
        thread or knife
    trim_mm : float
        Cut off each end [mm]; None takes what is usual
    p : PieceParameters
        Cuts and turns

    Returns
    -------
    Roll
        Lengths [mm], turns, slices

    Raises
    ------
    InputError
        If a length is not above zero, or the cut is unknown.

    References
    ----------
    .. [1] Geometry of a spiral of even thickness; what is trimmed and cut away: common practice, no published source.
    """
    for name, value in (("volume", volume_ml), ("width", width_mm), ("sheet", sheet_mm), ("slice", slice_mm), ("layers", layers)):
        if value <= 0:
            raise InputError(f"{name} must be above 0, got {value:g}.", quantity=name, value=value)
    cuts = cuts_mm(p)
    trim_mm = p.trim_mm if trim_mm is None else trim_mm
    if cut not in cuts:
        raise InputError(f'cut must be thread or knife, got "{cut[:20]}".', quantity="cut", value=cut[:20])
    thickness = layers * sheet_mm
    length = volume_ml * 1000 / (width_mm * thickness)
    diameter = math.sqrt(4 * length * thickness / math.pi)
    turns = diameter / (2 * thickness)
    usable = width_mm - 2 * trim_mm
    slices = max(0, math.floor(usable / (slice_mm + cuts[cut]) + 1e-9))
    possible = diameter >= p.thinnest_roll * thickness
    trimmed = math.pi / 4 * diameter**2 * min(width_mm, 2 * trim_mm) / 1000
    return Roll(length, width_mm, thickness, diameter, turns, slices, trimmed, possible, _verdict(turns, p, possible=possible))


def cuts_mm(p: PieceParameters) -> dict[str, float]:
    """Return the width lost at each cut by what it is made with [mm].

    Parameters
    ----------
    p : PieceParameters
        Width a knife takes

    Returns
    -------
    dict
        Thread and knife [mm]
    """
    return {"thread": 0.0, "knife": p.knife_mm}


def _verdict(turns: float, p: PieceParameters, *, possible: bool) -> str:
    if not possible:
        return "too thick to roll: roll the sheets thinner, or make a longer sheet"
    if turns < p.fewest_turns:
        return "fewer than two turns: the swirl hardly shows"
    return "more than four turns: slow to roll, may crack" if turns > p.most_turns else "a good swirl"
