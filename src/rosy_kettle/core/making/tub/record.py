"""Where a test in the tub stands: the state its events add up to."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from rosy_kettle.core.making.happening import NotUnderstood

__all__ = ["SEEN", "FoamHeight", "TubState"]

SEEN = {
    "gone_after_min": "Gone after", "floats": "Floats", "spins": "Spins", "tint": "Tint", "cloud": "Cloud", "ring": "Ring",
    "film": "Film on the water", "slip": "Slippery floor", "skin": "Skin afterwards", "scent": "Scent",
}  # fmt: skip
"""What is looked at beside the foam, with its name."""


@dataclass(frozen=True, slots=True)
class FoamHeight:
    """Foam as it stood, or as it has been amended since."""

    seq: int
    minutes: float
    """Since the tap was opened [min]."""
    height_cm: float
    left_out: bool = False


@dataclass(frozen=True, slots=True)
class TubState:
    """Where a test stands."""

    seq: int = 0
    opened_at: str | None = None
    """When the tap was opened [UTC, ISO 8601]."""
    heights: tuple[FoamHeight, ...] = ()
    seen: Mapping[str, Any] = field(default_factory=dict)
    left_g: float | None = None
    """What is left of the piece for the next bath [g]."""
    notes: tuple[str, ...] = ()
    photos: tuple[str, ...] = ()
    """Names of their files."""
    closed_at: str | None = None
    unknown: tuple[NotUnderstood, ...] = ()
    """Events this version does not know, kept as they are."""
    dose_g: float = 0.0
    """What went into the bath [g]."""
