"""What is left of a batch once it is ready: dried, or kept wet in a jar."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting

__all__ = ["dried_share", "stays_wet"]

WET_PACKS = frozenset({"open_jar_scoop", "jar"})
"""Packs a dough goes into as it is, to be scooped."""


def stays_wet(setting: Setting) -> bool:
    """Return whether the dough is kept as it is, in a jar: then its water stays in it.

    Parameters
    ----------
    setting : Setting
        Method and pack
    """
    return setting.method.product_kind == "bubble_bar" and setting.formula.product.pack in WET_PACKS


def dried_share(mix: Mix, setting: Setting) -> float:
    """Return the share of the batch that is left when it is ready.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Method and pack

    Returns
    -------
    float
        Share [-]; alcohol leaves everything, water what is dried
    """
    water = 0.0 if stays_wet(setting) else mix.parameters.skin.water_evaporates * mix.water_share
    return 1 - water - mix.alcohol_share
