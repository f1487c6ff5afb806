"""Readings of one finished piece: hard, dry, dense, and what its acid does on the shelf."""

from __future__ import annotations

from dataclasses import replace

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import require
from rosy_kettle.core.mixing.setting import Setting, missing_of
from rosy_kettle.core.models.drying import drying_time
from rosy_kettle.core.models.drying.shelf import acid_loss_pct_day
from rosy_kettle.core.models.fats.eutectic import eutectic_loss
from rosy_kettle.core.models.firmness import piece_firmness
from rosy_kettle.core.models.pieces import mix_true_density, packing_fraction
from rosy_kettle.core.models.pieces.floating import float_verdict, spin
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.pieces import PieceParameters
from rosy_kettle.core.readings.tub import brisk_per_100_g
from rosy_kettle.core.records.evaluation import Dry, Firmness, Missing, PieceReading, Shelf

__all__ = ["read_drying", "read_firmness", "read_piece", "read_shelf", "with_spin"]


def read_firmness(mix: Mix, setting: Setting) -> Firmness:
    """Return the firmness of a piece at 20 and 30 °C; null for dust.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Packing and room

    Returns
    -------
    Firmness
        With bands; the low edge counts the eutectic of cocoa-like and lauric fats
    """
    if setting.method.loose:
        return Firmness()
    p = mix.parameters.firmness
    values, bands = [], []
    for temperature_c in (p.cool_room_c, p.warm_shelf_c):
        at = {"temperature_c": temperature_c, "room_c": setting.assumed.room_c, "packing": setting.assumed.packing}
        value = piece_firmness(mix, **at, kneaded=setting.method.kneaded)  # type: ignore[arg-type]
        values.append(value)
        loss = eutectic_loss(mix)
        low = piece_firmness(mix, **at, kneaded=setting.method.kneaded, solid_loss=loss) if loss > 0 else value  # type: ignore[arg-type]
        half = p.band_by_fat if mix.carried > 0 else p.band
        bands.append((max(0.0, min(low, value - half)), min(p.highest, value + half)))
    return Firmness(values[0], values[1], bands[0], bands[1])


def read_drying(mix: Mix, setting: Setting) -> Dry:
    """Return the hours until dry or set.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Piece and air

    Returns
    -------
    Dry
        Hours [h] with their band, or the reason why not
    """
    assumed = setting.assumed
    dry = drying_time(
        mix, assumed.half_thickness_mm, assumed.room_c, assumed.humidity_pct,
        loose=setting.method.loose, dried_first=setting.dried_first, least_hours=setting.method.least_hours,
    )  # fmt: skip
    return Dry(dry.hours, dry.low_hours, dry.high_hours, dry.dries, dry.reason)


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


def read_shelf(mix: Mix, setting: Setting) -> Shelf:
    """Return how fast a piece loses its fizz on the shelf.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Piece and air

    Returns
    -------
    Shelf
        Acid lost [%/day] by wrapping; null, as nothing is there to lose, below 1 % fast acid
    """
    assumed = setting.assumed
    lost = [
        acid_loss_pct_day(mix, assumed.half_thickness_mm, assumed.room_c, assumed.humidity_pct, wrap)
        for wrap in ("open", "film", "jar")
    ]
    return Shelf(*lost)
