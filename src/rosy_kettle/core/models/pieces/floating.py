"""Whether a piece floats (physical, calibrated)."""

from __future__ import annotations

from rosy_kettle.core.mixing.sloped import clip, exp
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.pieces import PieceParameters

__all__ = ["float_verdict", "spin"]


def float_verdict(
    density_g_ml: float,
    diameter_mm: float,
    brisk_mol_per_100_g: float,
    fat_share: float,
    salt_share: float = 0.0,
    p: PieceParameters = USUAL.pieces,
) -> str:
    """Return floats, may or sinks.

    .. math:: r = (\\rho - \\rho_{water}) \\Big/ \\frac{lift}{d} clip(b/b_{lift}) e^{-k_{fat} fat - k_{salt} salt}

    lift [mm], b_lift [mol/100 g], k: ``lift_mm``, ``full_lift_mol``, ``fat_lets_go``, ``salt_lets_go``; d, the diameter [mm].

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
    p : PieceParameters
        How gas clings and lifts

    Returns
    -------
    str
        floats (r below 0.95, or lighter than 0.985 g/mL), may (up to 1.04) or sinks

    References
    ----------
    .. [1] Fitted to common practice, no published source.
    """
    if density_g_ml < p.floats_below_g_ml:
        return "floats"
    lift = (
        p.lift_mm
        / diameter_mm
        * clip(brisk_mol_per_100_g / p.full_lift_mol)
        * exp(-p.fat_lets_go * fat_share - p.salt_lets_go * salt_share)
    )
    if density_g_ml >= p.still_water_g_ml + p.sure_above * lift:
        return "sinks"
    return "floats" if density_g_ml < p.still_water_g_ml + p.sure_below * lift else "may"


def spin(first_mol: float, second_mol: float, verdict: str, p: PieceParameters = USUAL.pieces) -> float:
    """Return how much a piece of two unequal halves turns in the water.

    .. math:: 100 \\frac{|b_1-b_2|}{b_1+b_2} \\min\\left(1, \\frac{b_1+b_2}{b_{spin}}\\right) float

    b_spin: ``full_spin_mol``; float: ``spins_floating``, ``spins_maybe``, ``spins_sunk`` by the verdict.

    Parameters
    ----------
    first_mol : float
        Brisk gas of one half [mol/100 g]
    second_mol : float
        Brisk gas of the other [mol/100 g]
    verdict : str
        floats, may or sinks
    p : PieceParameters
        How freely a piece turns

    Returns
    -------
    float
        0 to 100 [-]; band 25. Makers give one half five times the acid; from 3 : 1 on it will spin if it floats.

    References
    ----------
    .. [1] Common practice and estimates, no published source.
    """
    both = first_mol + second_mol
    if both <= 0:
        return 0.0
    return 100 * abs(first_mol - second_mol) / both * min(1.0, both / p.full_spin_mol) * p.freely[verdict]
