"""What sticks to bowl, gloves and paper."""

from __future__ import annotations

from rosy_kettle.core.mixing.sloped import cbrt
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.mixing import MixingParameters

__all__ = ["batch_loss"]


def batch_loss(method_loss_fraction: float, batch_g: float, p: MixingParameters = USUAL.mixing) -> float:
    """Return the share of a batch that sticks to bowl, gloves and paper.

    .. math:: loss = loss_{method} \\left(fixed + (1 - fixed) \\sqrt[3]{m_{ref}/m}\\right) \\le most

    fixed: ``fixed_loss_share``; m_ref: ``reference_batch_kg``; most: ``most_loss``.

    Parameters
    ----------
    method_loss_fraction : float
        Loss of the method at about 1.1 kg [-]
    batch_g : float
        Batch mass [g]
    p : MixingParameters
        How loss grows with the surface

    Returns
    -------
    float
        Loss [-], at most one half

    References
    ----------
    .. [1] What a bowl of a kilogram loses: common practice, no published source; the cube root is surface over volume.

    Examples
    --------
    >>> batch_loss(0.04, 1100.0)
    0.04
    """
    if batch_g <= 0:
        return 0.0
    surface = cbrt(p.reference_batch_kg * 1000 / batch_g)
    return min(p.most_loss, method_loss_fraction * (p.fixed_loss_share + (1 - p.fixed_loss_share) * surface))
