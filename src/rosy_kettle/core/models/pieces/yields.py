"""How many pieces a batch gives, and how big a batch some pieces need."""

from __future__ import annotations

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.mixing.batch_loss import batch_loss
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.mixing import MixingParameters

__all__ = ["batch_for_pieces", "pieces_from_batch", "tool_piece_mass"]

ROUNDS = 60  # fixed-point rounds; converges in under ten
PIECE_ROUNDING = 1e-9  # a piece short by rounding alone still counts


def batch_for_pieces(pieces: int, piece_mass_g: float, method_loss_fraction: float, p: MixingParameters = USUAL.mixing) -> float:
    """Return the batch mass that gives a number of pieces after loss.

    Parameters
    ----------
    pieces : int
        Number of pieces [-]
    piece_mass_g : float
        Mass of one piece [g]
    method_loss_fraction : float
        Loss of the method at about 1.1 kg [-]
    p : MixingParameters
        How loss grows with the surface

    Returns
    -------
    float
        Batch mass [g]

    Raises
    ------
    InputError
        If there are no pieces, or a piece has no mass.
    """
    if pieces < 1:
        raise InputError(f"pieces must be 1 or more, got {pieces}", quantity="pieces", value=pieces)
    if piece_mass_g <= 0:
        raise InputError(f"piece mass must be above 0 g, got {piece_mass_g:g} g", quantity="piece_mass_g", value=piece_mass_g)
    wanted_g = pieces * piece_mass_g
    batch_g = wanted_g
    for _ in range(ROUNDS):
        batch_g = wanted_g / (1 - batch_loss(method_loss_fraction, batch_g, p))
    return batch_g


def pieces_from_batch(
    batch_g: float, piece_mass_g: float, method_loss_fraction: float, p: MixingParameters = USUAL.mixing
) -> tuple[int, float]:
    """Return the whole pieces a batch gives, and what is left over.

    Parameters
    ----------
    batch_g : float
        Batch mass [g]
    piece_mass_g : float
        Mass of one piece [g]
    method_loss_fraction : float
        Loss of the method at about 1.1 kg [-]
    p : MixingParameters
        How loss grows with the surface

    Returns
    -------
    tuple
        Number of pieces [-] and leftover [g]

    Raises
    ------
    InputError
        If a piece has no mass.
    """
    if piece_mass_g <= 0:
        raise InputError(f"piece mass must be above 0 g, got {piece_mass_g:g} g", quantity="piece_mass_g", value=piece_mass_g)
    usable_g = batch_g * (1 - batch_loss(method_loss_fraction, batch_g, p))
    pieces = int(usable_g / piece_mass_g + PIECE_ROUNDING)
    return pieces, max(0.0, usable_g - pieces * piece_mass_g)


def tool_piece_mass(volume_ml: float, true_density_g_ml: float, packing: float, fill: float = 1.0) -> float:
    """Return the mass of one piece from a tool.

    .. math:: m = V\\, \\rho\\, \\varphi\\, fill

    Parameters
    ----------
    volume_ml : float
        Volume of the tool [mL]
    true_density_g_ml : float
        Density of the mix without air [g/mL]
    packing : float
        Packing fraction [-]
    fill : float
        Volume against the level volume [-]

    Returns
    -------
    float
        Mass [g]

    References
    ----------
    .. [1] Arithmetic; fills of a scoop: common practice, no published source.

    Examples
    --------
    A 2 in ball of damp sand, packed by hand:

    >>> tool_piece_mass(68.64, 1.98, 0.58)
    78.8
    """
    return volume_ml * true_density_g_ml * packing * fill
