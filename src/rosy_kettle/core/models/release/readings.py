"""How long a piece takes to go."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.release import release_minutes
from rosy_kettle.core.records.evaluation import Missing, Release
from rosy_kettle.core.records.reading import Reading, Watched

__all__ = ["READINGS", "read_release"]

READINGS = (
    Reading(
        "release.minutes", "Gone after", "min", "practice", "dose",
        "Melting, fizzing and washing together. Within a factor of 1.6.",
        page="release", question="feel", place=22, rests_on=("release", "mixing"), compute=lambda look: look.release.minutes,
        aim=True, watched=Watched(4, 3.0), scale=(0.0, 45.0), desk=2,
    ),
)  # fmt: skip
"""Declarations."""


def read_release(mix: Mix, setting: Setting, missing: list[Missing]) -> Release:
    """Return how long a piece takes to go.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Piece, way and bath
    missing : list
        Takes why it will not go

    Returns
    -------
    Release
        Minutes [min]
    """
    assumed = setting.assumed
    minutes = release_minutes(mix, assumed.half_thickness_mm, assumed.way, assumed.bath_c, assumed.room_c, assumed.packing)
    if minutes is None:
        missing.append(Missing("release.minutes", None, None, f"does not go at {assumed.bath_c:g} °C; it needs a warmer bath"))
    return Release(minutes)
