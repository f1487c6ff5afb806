"""Active surfactant: what is left of a powder or a bottle once water and salts are taken off."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import require

__all__ = ["active_share", "tub_concentration"]


def active_share(mix: Mix) -> float:
    """Return active surfactant as a share of the mass.

    .. math:: a = \\sum m_i a_i / \\sum m_i

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    float
        Active share [-]; 0 without surfactant

    Raises
    ------
    MissingDataError
        If a surfactant lacks its active fraction.

    References
    ----------
    .. [1] Arithmetic; active shares are those of the ingredient's table or certificate.
    """
    require(mix.palette, mix.palette.active_fraction, mix.mass_g > 0, "active_fraction")
    return mix.of(mix.palette.active_known) / mix.total_g


def tub_concentration(active_g: float, tub_l: float) -> float:
    """Return the concentration of active surfactant in the bath water.

    Parameters
    ----------
    active_g : float
        Active surfactant in one dose [g]
    tub_l : float
        Water in the tub [L]

    Returns
    -------
    float
        Concentration [mg/L]

    Examples
    --------
    >>> tub_concentration(3.0, 150.0)
    20.0
    """
    return active_g / tub_l * 1000
