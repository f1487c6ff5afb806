"""Density of a piece: the mix without air, times how well it packs."""

from __future__ import annotations

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import known, require
from rosy_kettle.core.mixing.sloped import clip
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.pieces import PieceParameters

__all__ = ["mix_true_density", "packing_fraction"]


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

    References
    ----------
    .. [1] Volumes add up; true densities: CRC Handbook and typical values.
    """
    require(mix.palette, mix.palette.true_volume_ml_g, mix.mass_g > 0, "true_density_g_ml")
    return mix.total_g / mix.of(known(mix.palette.true_volume_ml_g))


def packing_fraction(packing: str, saturation: float | None, p: PieceParameters = USUAL.pieces) -> float:
    """Return the share of a piece that is not air.

    .. math:: \\varphi = \\varphi_t + (\\varphi_d - \\varphi_t)\\, clip\\left(\\frac{S - S_{from}}{S_{over}}\\right)

    φ_t of the tool, φ_d: ``dough``; S_from, S_over: ``packing_starts_at``, ``packing_over``.

    Parameters
    ----------
    packing : str
        loose, hand, press, dough or poured
    saturation : float or None
        S at working temperature [-]; None where no powder drinks
    p : PieceParameters
        How pieces pack

    Returns
    -------
    float
        Packing fraction [-]

    Raises
    ------
    InputError
        If the packing is unknown.

    References
    ----------
    .. [1] Calibrated on what makers' moulds hold: common practice, no published source.
    """
    packings = p.packings
    if packing not in packings:
        raise InputError(f'packing must be one of {", ".join(packings)}, got "{packing}"', quantity="packing", value=packing)
    by_tool = packings[packing]
    if by_tool >= p.dough or saturation is None:
        return by_tool
    return by_tool + (p.dough - by_tool) * clip((saturation - p.packing_starts_at) / p.packing_over)
