"""Tap water by hardness class."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = ["TapWater"]


@dataclass(frozen=True, slots=True)
class TapWater:
    """A hardness class with typical alkalinity and pH."""

    id: str
    name: str
    hardness_mg_l_caco3: float
    alkalinity_mg_l_caco3: float
    ph: float
