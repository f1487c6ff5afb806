"""Density of a piece, whether it floats, and whether it spins."""

from __future__ import annotations

from dataclasses import replace

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import require
from rosy_kettle.core.mixing.setting import Setting, missing_of
from rosy_kettle.core.models.gas.gas_release import brisk_per_100_g
from rosy_kettle.core.models.pieces import mix_true_density, packing_fraction
from rosy_kettle.core.models.pieces.floating import float_verdict, spin
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.pieces import PieceParameters
from rosy_kettle.core.records.evaluation import Missing, PieceReading
from rosy_kettle.core.records.reading import Reading

__all__ = ["READINGS", "read_piece", "with_spin"]

READINGS = (
    Reading(
        "piece.density_g_ml", "Density", "g/mL", "physical", "piece", "The mix without air, times how it packs. Band 7 %.",
        page="pieces", question="feel", place=29, rests_on=("pieces",),
        compute=lambda look: look.piece and look.piece.density_g_ml,
    ),
    Reading(
        "piece.spin", "Spin", "of 100", "practice", "piece",
        "How much two unequal halves turn a floating piece; from 3 : 1 on it will. Band 25.",
        page="pieces", question="feel", place=37, rests_on=("pieces",), scale=(0.0, 100.0),
    ),
)  # fmt: skip
"""Declarations."""


def read_piece(mix: Mix, setting: Setting, missing: list[Missing]) -> PieceReading:
    """Return density and float of a piece.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Packing and room
    missing : list
        Takes what cannot be said

    Returns
    -------
    PieceReading
        No verdict on floating for dust and poured pieces; spin is added where there are two portions
    """
    assumed = setting.assumed
    try:
        require(mix.palette, mix.palette.true_volume_ml_g, mix.mass_g > 0, "true_density_g_ml")
    except MissingDataError as error:
        missing.append(missing_of("piece.density_g_ml", error))
        return PieceReading()
    density = mix_true_density(mix) * packing_fraction(assumed.packing, mix.saturation(setting.judged_c), mix.parameters.pieces)
    if assumed.packing in {"loose", "poured"}:
        return PieceReading(density, None, 0.0)
    salt_share = mix.grams_of_role("salt") / mix.total_g
    verdict = float_verdict(
        density, 2 * assumed.half_thickness_mm, brisk_per_100_g(mix), mix.oily_share, salt_share, mix.parameters.pieces
    )
    return PieceReading(density, verdict, 0.0)


def with_spin(piece: PieceReading, brisk_of_portions: list[float], p: PieceParameters = USUAL.pieces) -> PieceReading:
    """Return a piece's readings with its spin, from the brisk gas of its two halves.

    Parameters
    ----------
    piece : PieceReading
        Readings of the whole piece
    brisk_of_portions : list
        Brisk gas of the two heaviest portions [mol/100 g]
    p : PieceParameters
        How freely a piece turns

    Returns
    -------
    PieceReading
        With spin; unchanged where there is no verdict on floating
    """
    if piece.float is None:
        return piece
    return replace(piece, spin=spin(brisk_of_portions[0], brisk_of_portions[1], piece.float, p))
