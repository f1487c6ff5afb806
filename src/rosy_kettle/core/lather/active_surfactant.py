"""Active surfactant: what is left of a powder or a bottle once water and salts are taken off."""

from __future__ import annotations

from rosy_kettle.core.palette import FloatArray, Palette, require

__all__ = ["active_share", "tub_concentration"]


def active_share(palette: Palette, mass_g: FloatArray) -> float:
    """Return active surfactant as a share of the mass.

    .. math:: a = \\sum m_i a_i / \\sum m_i

    Parameters
    ----------
    palette : Palette
        n ingredients
    mass_g : FloatArray
        Masses of one formula, shape (n,) [g]

    Returns
    -------
    float
        Active share [-]; 0 without surfactant or without mass

    Raises
    ------
    MissingDataError
        If a surfactant lacks its active fraction.
    """
    require(palette, palette.active_fraction, mass_g > 0, "active_fraction")
    total_g = float(mass_g.sum())
    return float((palette.active_fraction * mass_g).sum()) / total_g if total_g > 0 else 0.0


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
