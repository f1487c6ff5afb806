"""Whether fat or powder carries a piece."""

from __future__ import annotations

import math

from rosy_kettle.core.mixing.sloped import clip
from rosy_kettle.core.parameters.mixing import MixingParameters

__all__ = ["fat_carries"]


def fat_carries(saturation_molten: float, fat_volume_share: float, fat_share: float, p: MixingParameters) -> float:
    """Return how far the fat, not the powder, carries the piece.

    .. math:: c = clip\\left(\\frac{S_{full}-from_S}{over_S}\\right) clip\\left(\\frac{v_{fat}-from_{fat}}{over_{fat}}\\right)

    from, over: ``carried_from_saturation``, ``carried_over_saturation``, ``carried_from_fat``, ``carried_over_fat``.

    Parameters
    ----------
    saturation_molten : float
        S with every fat molten [-]; NaN where no powder drinks
    fat_volume_share : float
        Fat as a share of the liquid volume [-]
    fat_share : float
        Fat as a share of the mass [-]
    p : MixingParameters
        Where fat begins to carry, and where it does wholly

    Returns
    -------
    float
        c from 0 (powder) to 1 (fat) [-]; 1 where there is fat and no powder

    References
    ----------
    .. [1] Fitted to common practice, no published source.
    """
    if math.isnan(saturation_molten):
        return 1.0 if fat_share > 0 else 0.0
    by_saturation = clip((saturation_molten - p.carried_from_saturation) / p.carried_over_saturation)
    return by_saturation * clip((fat_volume_share - p.carried_from_fat) / p.carried_over_fat)
