"""The temperatures between which a dough with fat in it can be worked."""

from __future__ import annotations

import numpy as np

from rosy_kettle.core.dough.saturation import DoughFill
from rosy_kettle.core.dough.texture import STATES, TextureCurve

__all__ = ["working_window"]

LEAST_FAT_SHARE = 0.05  # with less fat, temperature hardly matters [-]
LEAST_SOLID_SHARE = 0.02  # the last crystals that hold a kneaded body [-]


def working_window(
    curve: TextureCurve, fill: DoughFill, states: tuple[str, ...], *, kneaded: bool
) -> tuple[tuple[float, float] | None, str | None]:
    """Return the longest unbroken run of temperatures in the wanted states.

    Parameters
    ----------
    curve : TextureCurve
        State by temperature
    fill : DoughFill
        The fill the curve was made from
    states : tuple
        Wanted states
    kneaded : bool
        Whether the method kneads; then at least 2 % of fat and oil must still be solid

    Returns
    -------
    tuple
        ((low, high), None) [°C], or (None, reason) with the reason "no fat" or "never"
    """
    if float(fill.fat_share) < LEAST_FAT_SHARE:
        return None, "no fat"
    inside = np.isin(curve.state_index, [STATES.index(state) for state in states])
    if kneaded:
        inside &= fill.solid_share >= LEAST_SOLID_SHARE
    # Where a run begins the mask steps up, where it has ended it steps down.
    steps = np.diff(inside.astype(np.int8), prepend=0, append=0)
    begins, ends = np.flatnonzero(steps == 1), np.flatnonzero(steps == -1)
    if begins.size == 0:
        return None, "never"
    longest = int(np.argmax(ends - begins))
    return (float(curve.temperature_c[begins[longest]]), float(curve.temperature_c[ends[longest] - 1])), None
