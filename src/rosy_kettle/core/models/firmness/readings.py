"""Firmness of a piece at 20 and 30 °C."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.fats.eutectic import eutectic_loss
from rosy_kettle.core.models.firmness import piece_firmness
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.records.evaluation import Firmness
from rosy_kettle.core.records.reading import Reading, Watched

__all__ = ["READINGS", "read_firmness"]

READINGS = (
    Reading(
        "firmness.at_20_c", "Firmness at 20 °C", "of 98", "practice", "piece",
        "What hardens less what softens, by share; fat-carried pieces by solid fat. "
        f"Band {USUAL.firmness.band:g}; trust a ranking 10 apart.",
        page="firmness", question="set", place=20, rests_on=("firmness", "mixing"),
        compute=lambda look: look.firm_at(look.mix.parameters.firmness.cool_room_c), aim=True, watched=Watched(2, 12.0),
        scale=(0.0, 100.0), decimals=0, desk=0, curve="solid-fat",
    ),
    Reading(
        "firmness.at_30_c", "Firmness at 30 °C", "of 98", "practice", "piece", "The same piece on a warm shelf.",
        page="firmness", question="set", place=21, rests_on=("firmness", "mixing"),
        compute=lambda look: look.firm_at(look.mix.parameters.firmness.warm_shelf_c), aim=True, scale=(0.0, 100.0),
        curve="solid-fat",
    ),
)  # fmt: skip
"""Declarations."""


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
