"""Activity of ions in bath water."""

from __future__ import annotations

import math

from rosy_kettle.core.amounts.units import ZERO_CELSIUS_K
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.bath import BathParameters

__all__ = ["davies_activity_coefficient", "debye_huckel_slope"]


def debye_huckel_slope(temperature_c: float, p: BathParameters = USUAL.bath) -> float:
    r"""Return the Debye-Hückel slope of water.

    .. math:: A = k (\varepsilon T)^{-3/2}
    .. math:: \varepsilon = e_0 + e_1 t + e_2 t^2 + e_3 t^3

    k: ``debye_huckel_factor``; e: ``permittivity_0`` to ``permittivity_3``.

    Parameters
    ----------
    temperature_c : float
        Temperature t [°C]
    p : BathParameters
        Permittivity of water

    Returns
    -------
    float
        A [kg^0.5/mol^0.5]

    Examples
    --------
    >>> debye_huckel_slope(25.0)
    0.51

    References
    ----------
    .. [1] Malmberg, C. G.; Maryott, A. A. Dielectric constant of water from 0 to 100 °C. J. Res. Natl. Bur. Stand. 56 (1956) 1.
    """
    t = temperature_c
    permittivity = p.permittivity_0 + p.permittivity_1 * t + p.permittivity_2 * t * t + p.permittivity_3 * t**3
    return float(p.debye_huckel_factor * (permittivity * (t + ZERO_CELSIUS_K)) ** -1.5)


def davies_activity_coefficient(charge: int, ionic_strength_mol_kg: float, slope: float, p: BathParameters = USUAL.bath) -> float:
    r"""Return the activity coefficient of an ion (Davies equation).

    .. math:: \log_{10}\gamma = -A z^2\left(\frac{\sqrt I}{1+\sqrt I} - d I\right)

    d: ``davies``.

    Parameters
    ----------
    charge : int
        Charge number z [-]
    ionic_strength_mol_kg : float
        Ionic strength I; above 0.5 the value at 0.5 is used [mol/kg]
    slope : float
        Debye-Hückel slope A [kg^0.5/mol^0.5]
    p : BathParameters
        Linear term, and where the equation ends

    Returns
    -------
    float
        Activity coefficient [-]

    Examples
    --------
    A sodium ion at 0.1 mol/kg:

    >>> davies_activity_coefficient(1, 0.1, 0.509)
    0.78

    References
    ----------
    .. [1] Davies, C. W. Ion Association. London: Butterworths, 1962.
    """
    strength = min(ionic_strength_mol_kg, p.davies_ends_mol_l)
    root = math.sqrt(strength)
    return float(10.0 ** (-slope * charge * charge * (root / (1.0 + root) - p.davies * strength)))
