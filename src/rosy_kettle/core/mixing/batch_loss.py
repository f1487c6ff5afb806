"""What sticks to bowl, gloves and paper."""

from __future__ import annotations

from rosy_kettle.core.mixing.sloped import cbrt

__all__ = ["batch_loss"]

REFERENCE_BATCH_KG = 1.1  # the batch whose loss the method states [kg]; common practice
FIXED_LOSS_SHARE = 0.4  # what sticks does not all grow with the surface [-]; estimate


def batch_loss(method_loss_fraction: float, batch_g: float) -> float:
    """Return the share of a batch that sticks to bowl, gloves and paper.

    .. math:: loss = loss_{method} \\left(0.4 + 0.6 \\sqrt[3]{1.1\\,kg/m}\\right)

    Parameters
    ----------
    method_loss_fraction : float
        Loss of the method at about 1.1 kg [-]
    batch_g : float
        Batch mass [g]

    Returns
    -------
    float
        Loss [-], at most one half

    Examples
    --------
    >>> batch_loss(0.04, 1100.0)
    0.04
    """
    if batch_g <= 0:
        return 0.0
    surface = cbrt(REFERENCE_BATCH_KG * 1000 / batch_g)
    return min(0.5, method_loss_fraction * (FIXED_LOSS_SHARE + (1 - FIXED_LOSS_SHARE) * surface))
