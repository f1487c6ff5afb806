"""Ways in which what dries leaves a piece: how much of it is still there after so many of its own times."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

__all__ = ["SHAPES", "Shape", "ShapeCode"]

FloatArray = NDArray[np.float64]
ShapeCode = Literal["one-phase", "fast-start", "root-start", "root-throughout", "root-ending"]

EARLY, TERMS = 0.3, 8  # own times until which the root of time holds for a slab, and terms of its series after them
LATEST = 400.0  # of a shape's own times: by then nothing is left
POINTS = 4001  # at which a shape is turned round
LEAST = 1e-9  # less than this share of all that leaves is nothing [-]


@dataclass(frozen=True, slots=True)
class Shape:
    """One of them, and how likely it is before anything was weighed."""

    code: ShapeCode
    likely: float
    still: Callable[[FloatArray], FloatArray]
    """Share of all that leaves which is still there, by hours over the shape's own time [-]; 1 at the beginning."""

    def after(self, share: FloatArray) -> FloatArray:
        """Return when so little is still there.

        Parameters
        ----------
        share : FloatArray
            Of all that leaves [-]

        Returns
        -------
        FloatArray
            In the shape's own times [-]; 0 where it is so from the beginning
        """
        gone, times = _turned(self)
        return np.asarray(np.interp(-np.log(np.clip(share, LEAST, 1.0)), gone, times))


@cache
def _turned(shape: Shape) -> tuple[FloatArray, FloatArray]:
    """Return the shape the other way about: minus the logarithm of what is still there, and the times."""
    times = np.concatenate([[0.0], np.geomspace(1e-6, LATEST, POINTS)])
    return -np.log(np.maximum(shape.still(times), LEAST)), times


def _one_phase(time: FloatArray) -> FloatArray:
    return np.exp(-time)


def _fast_start(share: float, faster: float) -> Callable[[FloatArray], FloatArray]:
    """Return an exponential of which a share leaves so many times faster: the surface dries before the core does."""
    return lambda time: np.asarray((1 - share) * np.exp(-time) + share * np.exp(-faster * time))


_ODD = (2 * np.arange(TERMS) + 1.0) ** 2


def _slab(time: FloatArray) -> FloatArray:
    """Diffusion out of a slab (Crank, The Mathematics of Diffusion, 2nd ed. 1975, eq. 4.18 and 4.20): the root of time first."""
    early = 1 - 4 * np.sqrt(np.minimum(time, EARLY) / np.pi**3)
    late = (8 / (np.pi**2 * _ODD) * np.exp(-np.multiply.outer(np.maximum(time, EARLY), _ODD))).sum(axis=-1)
    return np.where(time < EARLY, early, late)


def _root(time: FloatArray) -> FloatArray:
    return np.exp(-np.sqrt(time))


def _root_ending(time: FloatArray) -> FloatArray:
    return np.asarray(np.maximum(0.0, 1 - np.sqrt(time)))


FAST_SHARES, FASTER = (0.20, 0.267, 0.333), (3.0, 4.0, 5.0)  # a fifth to a third, three to five times faster
SHAPES = (
    Shape("one-phase", 0.44, _one_phase),
    *(Shape("fast-start", 0.26 / 9, _fast_start(share, faster)) for share in FAST_SHARES for faster in FASTER),
    Shape("root-start", 0.10, _slab),
    Shape("root-throughout", 0.10, _root),
    Shape("root-ending", 0.10, _root_ending),
)
"""How likely each is: estimates, no published source."""
