"""Whether a piece floats (physical, calibrated)."""

from __future__ import annotations

from rosy_kettle.core.mixing.sloped import clip, exp

__all__ = ["float_verdict", "spin"]

FLOATS_BELOW = 0.985  # density that floats for sure [g/mL]
STILL_WATER = 0.99  # density of warm water, nearly [g/mL]
SPIN_BY_FLOAT = {"floats": 1.0, "may": 0.6, "sinks": 0.1}  # how freely a piece turns [-]; estimate
FULL_SPIN_MOL = 0.45  # brisk gas of both halves together that turns a piece with all its might [mol/100 g]; estimate
LIFT_MM = 9.0  # lift of clinging gas on a piece of 9 mm [mm]; fitted: with a tenth of salt a ball of 140 g is on the edge
FULL_LIFT_MOL = 0.25  # brisk gas that keeps the whole surface covered [mol/100 g]; estimate
SALT_LETS_GO = 2.9  # how much less gas clings for each share of salt [-]; fitted as above
SURE_BELOW, SURE_ABOVE = 0.95, 1.04  # of the lift: used up to here it floats, from there it sinks [-]; estimate


def float_verdict(
    density_g_ml: float, diameter_mm: float, brisk_mol_per_100_g: float, fat_share: float, salt_share: float = 0.0
) -> str:
    """Return floats, may or sinks.

    .. math:: r = (\\rho - 0.99) \\Big/ \\frac{9}{d} clip(brisk/0.25) e^{-3 fat - 2.9 salt}

    Gas clings to the surface, so a small piece is lifted more than a large one; it floats while the lift is not used up.

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
    salt_share : float
        Salts as a share of the mass [-]

    Returns
    -------
    str
        floats (r below 0.95, or lighter than 0.985 g/mL), may (up to 1.04) or sinks
    """
    if density_g_ml < FLOATS_BELOW:
        return "floats"
    lift = LIFT_MM / diameter_mm * clip(brisk_mol_per_100_g / FULL_LIFT_MOL) * exp(-3 * fat_share - SALT_LETS_GO * salt_share)
    if density_g_ml >= STILL_WATER + SURE_ABOVE * lift:
        return "sinks"
    return "floats" if density_g_ml < STILL_WATER + SURE_BELOW * lift else "may"


def spin(first_mol: float, second_mol: float, verdict: str) -> float:
    """Return how much a piece of two unequal halves turns in the water.

    .. math:: 100 \\frac{|b_1-b_2|}{b_1+b_2} \\min\\left(1, \\frac{b_1+b_2}{0.6}\\right) float

    Parameters
    ----------
    first_mol : float
        Brisk gas of one half [mol/100 g]
    second_mol : float
        Brisk gas of the other [mol/100 g]
    verdict : str
        floats, may or sinks

    Returns
    -------
    float
        0 to 100 [-]; band 25. Makers give one half five times the acid; from 3 : 1 on it will spin if it floats.
    """
    both = first_mol + second_mol
    if both <= 0:
        return 0.0
    return 100 * abs(first_mol - second_mol) / both * min(1.0, both / FULL_SPIN_MOL) * SPIN_BY_FLOAT[verdict]
