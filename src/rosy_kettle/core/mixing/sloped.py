"""Numbers that carry their slopes: one pass through a model gives a reading and its derivative by every line.

A ``Sloped`` is a float, so every model runs on it as written; what a model does with it, it does with the slopes
too (forward differentiation). At a kink (a minimum, a cap) it takes the side the value lies on. Models call
``exp``, ``log1p``, ``sqrt`` and ``cbrt`` of this module, since those of ``math`` would drop the slopes.
"""

from __future__ import annotations

import math
from typing import Self

import numpy as np
from numpy.typing import NDArray

__all__ = ["Sloped", "cbrt", "clip", "exp", "log1p", "slopes_of", "sqrt"]


class Sloped(float):
    """A value with its derivative by each of n masses.

    References
    ----------
    .. [1] Wengert, R. E. A simple automatic derivative evaluation program. Commun. ACM 7 (1964) 463.
    """

    __slots__ = ("slopes",)
    slopes: NDArray[np.float64]

    def __new__(cls, value: float, slopes: NDArray[np.float64]) -> Self:
        """Make a value with its slopes."""
        self = super().__new__(cls, value)
        self.slopes = slopes
        return self

    def __add__(self, other: float) -> Sloped:
        rise = self.slopes + other.slopes if isinstance(other, Sloped) else self.slopes
        return Sloped(float.__add__(self, other), rise)

    __radd__ = __add__

    def __sub__(self, other: float) -> Sloped:
        rise = self.slopes - other.slopes if isinstance(other, Sloped) else self.slopes
        return Sloped(float.__sub__(self, other), rise)

    def __rsub__(self, other: float) -> Sloped:
        return Sloped(float.__rsub__(self, other), -self.slopes)

    def __mul__(self, other: float) -> Sloped:
        rise = self.slopes * float(other)
        if isinstance(other, Sloped):
            rise = rise + other.slopes * float(self)
        return Sloped(float.__mul__(self, other), rise)

    __rmul__ = __mul__

    def __truediv__(self, other: float) -> Sloped:
        value = float.__truediv__(self, other)
        rise = self.slopes / float(other)
        if isinstance(other, Sloped):
            rise = rise - other.slopes * (value / float(other))
        return Sloped(value, rise)

    def __rtruediv__(self, other: float) -> Sloped:
        value = float.__rtruediv__(self, other)
        return Sloped(value, self.slopes * (-value / float(self)))

    def __neg__(self) -> Sloped:
        return Sloped(float.__neg__(self), -self.slopes)

    def __abs__(self) -> Sloped:
        return -self if self < 0 else self

    def __pow__(self, power: float, modulo: None = None) -> Sloped:
        base, fixed = float(self), float(power)
        value = base**fixed
        return Sloped(value, self.slopes * (fixed * base ** (fixed - 1) if fixed else 0.0))

    def __rpow__(self, base: float, modulo: None = None) -> Sloped:
        value = float(base) ** float(self)
        return Sloped(value, self.slopes * (value * math.log(base)))


def exp(x: float) -> float:
    """Return e to the power of x, slopes kept.

    Parameters
    ----------
    x : float
        Exponent [-]

    Returns
    -------
    float
        Value [-]
    """
    value = math.exp(x)
    return Sloped(value, value * x.slopes) if isinstance(x, Sloped) else value


def log1p(x: float) -> float:
    """Return ln(1 + x), slopes kept.

    Parameters
    ----------
    x : float
        Above -1 [-]

    Returns
    -------
    float
        Value [-]
    """
    value = math.log1p(x)
    return Sloped(value, x.slopes / (1 + float(x))) if isinstance(x, Sloped) else value


def sqrt(x: float) -> float:
    """Return the square root, slopes kept; at zero, where it has none, the slope is zero.

    Parameters
    ----------
    x : float
        Zero or above [-]

    Returns
    -------
    float
        Value [-]
    """
    value = math.sqrt(x)
    return Sloped(value, x.slopes * (0.5 / value if value else 0.0)) if isinstance(x, Sloped) else value


def cbrt(x: float) -> float:
    """Return the cube root, slopes kept.

    Parameters
    ----------
    x : float
        Above zero [-]

    Returns
    -------
    float
        Value [-]
    """
    value = math.cbrt(x)
    return Sloped(value, x.slopes * (value / (3 * float(x)))) if isinstance(x, Sloped) else value


def clip(value: float, low: float = 0.0, high: float = 1.0) -> float:
    """Return a value held between two bounds.

    Parameters
    ----------
    value : float
        Any number [its own unit]
    low : float
        Lower bound [same unit]
    high : float
        Upper bound [same unit]

    Returns
    -------
    float
        The value, or the bound it passed [same unit]
    """
    return min(high, max(low, value))


def slopes_of(value: float | None, count: int) -> NDArray[np.float64]:
    """Return the slopes of a reading; a reading that no mass moves has zeros.

    Parameters
    ----------
    value : float or None
        A reading [its own unit]
    count : int
        Number of lines n [-]

    Returns
    -------
    NDArray
        Derivative by each mass, shape (n,) [reading's unit per g]
    """
    return value.slopes if isinstance(value, Sloped) else np.zeros(count)
