"""A tool that gives a piece its shape."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = ["Tool"]


@dataclass(frozen=True, slots=True)
class Tool:
    """A mould, scoop, cutter, press or sheet with the volume of one piece."""

    id: str
    name: str
    type: str
    volume_ml: float
    diameter_mm: float | None
    height_mm: float | None
    geometry: str
    note: str
    source: str
    confidence: str
    packs: float = 1.0
    """How much more dough it takes than volume and packing say, as a studio has learnt it [×]."""
