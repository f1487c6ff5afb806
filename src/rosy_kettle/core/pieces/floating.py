"""Whether a piece floats (physical, calibrated)."""

from __future__ import annotations

import math

from rosy_kettle.core.mix import clip

__all__ = ["float_verdict"]

FLOATS_BELOW = 0.985  # density that floats for sure [g/mL]
STILL_WATER = 0.99  # density of warm water, nearly [g/mL]
LIFT_MM = 12.0  # lift of clinging gas on a piece of 12 mm [mm]


def float_verdict(density_g_ml: float, diameter_mm: float, brisk_mol_per_100_g: float, fat_share: float) -> str:
    """Return floats, may or sinks.

    .. math:: may:\\ \\rho < 0.99 + \\frac{12}{d} clip(brisk/0.20) e^{-3 fat}

    Parameters
    ----------
    density_g_ml : float
        Density of the piece [g/mL]
    diameter_mm : float
        Diameter or thickness [mm]
    brisk_mol_per_100_g : float
        Brisk gas [mol/100 g]
    fat_share : float
        Fat and oil as a share of the mass [-]

    Returns
    -------
    str
        floats, may or sinks
    """
    if density_g_ml < FLOATS_BELOW:
        return "floats"
    lift = LIFT_MM / diameter_mm * clip(brisk_mol_per_100_g / 0.20) * math.exp(-3 * fat_share)
    return "may" if density_g_ml < STILL_WATER + lift else "sinks"
