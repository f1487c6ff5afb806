"""How much of a formula a change may move before it is another formula."""

from __future__ import annotations

import numpy as np

from rosy_kettle.core.mixing.palette import FloatArray

__all__ = ["ANOTHER_FORMULA", "MASS_KEPT", "moved_share"]

ANOTHER_FORMULA = 0.35  # of the batch's mass moved: beyond that it is another formula [-]; common practice, estimate
MASS_KEPT = (0.7, 1.5)  # how far the batch may shrink or grow unasked [-]; common practice, estimate


def moved_share(before_g: FloatArray, after_g: FloatArray) -> float:
    """Return what is put in or taken out, whichever is more, as a share of the batch.

    Parameters
    ----------
    before_g : FloatArray
        Masses, shape (n,) [g]
    after_g : FloatArray
        Masses after the change, shape (n,) [g]

    Returns
    -------
    float
        A gram that one line gives another counts once [-]
    """
    moved = np.asarray(after_g - before_g)
    return float(max(moved.clip(min=0.0).sum(), (-moved).clip(min=0.0).sum()) / before_g.sum())
