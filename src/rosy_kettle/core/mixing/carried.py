"""Whether fat or powder carries a piece."""

from __future__ import annotations

import math

from rosy_kettle.core.mixing.sloped import clip

__all__ = ["fat_carries"]


def fat_carries(saturation_molten: float, fat_volume_share: float, fat_share: float) -> float:
    """Return how far the fat, not the powder, carries the piece.

    .. math:: c = clip\\left(\\frac{S_{full}-2.0}{0.6}\\right) clip\\left(\\frac{v_{fat}-0.4}{0.2}\\right)

    Parameters
    ----------
    saturation_molten : float
        S with every fat molten [-]; NaN where no powder drinks
    fat_volume_share : float
        Fat as a share of the liquid volume [-]
    fat_share : float
        Fat as a share of the mass [-]

    Returns
    -------
    float
        c from 0 (powder) to 1 (fat) [-]; 1 where there is fat and no powder
    """
    if math.isnan(saturation_molten):
        return 1.0 if fat_share > 0 else 0.0
    return clip((saturation_molten - 2.0) / 0.6) * clip((fat_volume_share - 0.4) / 0.2)
