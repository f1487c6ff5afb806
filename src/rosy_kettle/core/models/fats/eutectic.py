"""Cocoa-like and lauric fats in one blend: softer than their mean (practice, low edge of the band)."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix, once_per_mix

__all__ = ["eutectic_loss", "eutectic_product"]


@once_per_mix
def eutectic_product(mix: Mix) -> float:
    """Return the product of the shares of cocoa-like and lauric fat among all fat and oil.

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    float
        Product [-], at most 0.25
    """
    lauric_g = mix.grams_of_nature("lauric") if mix.fat_g > 0 else 0.0
    return mix.grams_of_nature("cocoa-like") / mix.oily_g * (lauric_g / mix.oily_g) if lauric_g > 0 else 0.0


def eutectic_loss(mix: Mix) -> float:
    """Return the solid share a blend may lose because its fats do not crystallise together.

    .. math:: \\Delta SFC = k\\, w_{cocoa}\\, w_{lauric}

    k: ``loss_per_product``.

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    float
        Solid share off the mean at the low edge of the band [-]

    References
    ----------
    .. [1] Bailey's Industrial Oil and Fat Products (incompatibility of cocoa and lauric fats; k is an estimate).
    """
    return mix.parameters.fats.loss_per_product * eutectic_product(mix)
