"""What a workshop has of its own: tubs it tests in, tools of its own volume, how closely it weighs."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.records.formula import Use

__all__ = ["USUAL_SPRAY_ML", "USUAL_TOLERANCE", "USUAL_TUBS", "OwnTool", "Tolerance", "Tub"]

USUAL_SPRAY_ML = 0.14  # one stroke of a fine-mist finger pump [mL]; common practice, no published source


@dataclass(frozen=True, slots=True)
class Tub:
    """A bath, or what stands for one."""

    name: str
    tub_l: float
    """Water in it [L]."""
    tub_area_m2: float
    """Its surface [m2]."""


USUAL_TUBS = (
    Tub("a usual bath", Use().tub_l, Use().tub_area_m2),
    Tub("a small or half-full bath", 90.0, 0.65),
    Tub("a bucket, poured from 1 m", 5.0, 0.05),
)
"""Baths of most homes; a bucket takes a thirtieth of the dose. Common practice, no published source."""


@dataclass(frozen=True, slots=True)
class OwnTool:
    """A scoop, mould or press of the studio, of the volume it was measured to have."""

    id: str
    name: str
    type: str
    volume_ml: float


@dataclass(frozen=True, slots=True)
class Tolerance:
    """How far a weighing may be off: the larger of a share and a mass, and never half of what is weighed."""

    share: float = 0.01
    """Of what is weighed [-]; common practice, no published source."""
    least_g: float = 0.5
    """As much is always allowed [g]; common practice, no published source."""

    def of(self, target_g: float) -> float:
        """Return how far a weighing may be off.

        Parameters
        ----------
        target_g : float
            What is to be weighed [g]

        Returns
        -------
        float
            Tolerance either way [g]

        Examples
        --------
        >>> Tolerance().of(37.0)
        0.5
        >>> Tolerance().of(220.0)
        2.2
        """
        return min(max(self.least_g, self.share * target_g), target_g / 2)


USUAL_TOLERANCE = Tolerance()
