"""Density of a piece: the mix without air, times how well it packs."""

from __future__ import annotations

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import known, require
from rosy_kettle.core.mixing.sloped import clip

__all__ = ["PACKINGS", "mix_true_density", "packing_fraction"]

PACKINGS = {"loose": 0.50, "hand": 0.58, "press": 0.63, "dough": 0.95, "poured": 0.97}
"""Share of a piece that is not air [-]; calibrated: a 2 in hand-packed ball holds 78 to 80 g."""
DOUGH_PACKING = 0.95  # a dough that rolls has hardly any air left [-]
PACKING_STARTS_AT = 0.20  # saturation from which liquid begins to fill the pores for good [-]
PACKING_SPAN = 0.42  # … up to play dough at 0.62 [-]


def mix_true_density(mix: Mix) -> float:
    """Return the density of the mix without any air.

    .. math:: \\rho = \\sum m_i / \\sum (m_i / \\rho_i)

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    float
        Density [g/mL]

    Raises
    ------
    MissingDataError
        If an ingredient lacks its true density.
    """
    require(mix.palette, mix.palette.true_volume_ml_g, mix.mass_g > 0, "true_density_g_ml")
    return mix.total_g / mix.of(known(mix.palette.true_volume_ml_g))


def packing_fraction(packing: str, saturation: float | None) -> float:
    """Return the share of a piece that is not air.

    .. math:: \\varphi = \\varphi_{tool} + (0.95 - \\varphi_{tool})\\, clip\\left(\\frac{S - 0.20}{0.42}\\right)

    Parameters
    ----------
    packing : str
        One of ``PACKINGS``
    saturation : float or None
        S at working temperature [-]; None where no powder drinks

    Returns
    -------
    float
        Packing fraction [-]

    Raises
    ------
    InputError
        If the packing is unknown.
    """
    if packing not in PACKINGS:
        raise InputError(f'packing must be one of {", ".join(PACKINGS)}, got "{packing}"', quantity="packing", value=packing)
    by_tool = PACKINGS[packing]
    if by_tool >= DOUGH_PACKING or saturation is None:
        return by_tool
    return by_tool + (DOUGH_PACKING - by_tool) * clip((saturation - PACKING_STARTS_AT) / PACKING_SPAN)
