"""Hours until dry or set, and the fizz lost on the shelf."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.drying import drying_time
from rosy_kettle.core.models.drying.shelf import acid_loss_pct_day
from rosy_kettle.core.records.evaluation import Dry, Shelf
from rosy_kettle.core.records.reading import Reading, Watched

__all__ = ["READINGS", "read_drying", "read_shelf"]

READINGS = (
    Reading(
        "drying.hours", "Dry after", "h", "practice", "piece",
        "Water, alcohol or fat, whichever takes longest, and the glycerin on top, in your room's air.",
        page="drying", question="set", place=23, rests_on=("drying", "dough", "mixing"),
        compute=lambda look: look.drying and look.drying.hours, aim=True, watched=Watched(3, 8.0), scale=(0.0, 72.0), decimals=0,
        desk=1,
    ),
    Reading(
        "shelf.acid_loss_pct_day", "Fizz lost a day, open", "%/day", "practice", "piece",
        "Fast acid a naked piece loses on the shelf in your room's air. Within a factor of 3.",
        page="drying", question="set", place=38, rests_on=("shelf",), compute=lambda look: look.shelf.acid_loss_pct_day,
    ),
)  # fmt: skip
"""Declarations."""


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
    return Dry(dry.hours, dry.low_hours, dry.high_hours, dry.dries, dry.reason, dry.why_not)


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
