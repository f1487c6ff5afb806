"""What is true of the invented studio and stands in no table: thirsty soda, slow drying, a softer tap, a fuller scoop."""

from __future__ import annotations

import math
import random
from collections.abc import Mapping
from datetime import UTC, datetime

from rosy_kettle.core.records import Room

__all__ = ["TRUTH", "moment_of", "weather"]

TRUTH: Mapping[str, float] = {
    "demand.base": 1.3,
    "drying": 1.4,
    "foam": 1.3,
    "packing.disher-20": 1.08,
    "loss.glycerin-dough": 6.5,
}
"""Factors the season is made with, and learning has to find."""
DAYS = 365.0
COLDEST_DAY = 20  # of the year, in the north
MEAN_C, SWING_C = 18.5, 3.5
MEAN_PCT, SWING_PCT, SHAKE_PCT = 54.0, 9.0, 6.0


def moment_of(share: float, begin: datetime, end: datetime, chance: random.Random) -> datetime:
    """Return a working moment of the year: so far along it, in the forenoon."""
    day = begin + (end - begin) * share
    return datetime(day.year, day.month, day.day, 8, tzinfo=UTC).replace(
        hour=8 + chance.randrange(3), minute=chance.randrange(60)
    )


def weather(at: datetime, chance: random.Random) -> Room:
    """Return the air of the workshop: warm and damp in summer, dry and cool when it is heated."""
    season = math.cos(2 * math.pi * (at.timetuple().tm_yday - COLDEST_DAY) / DAYS)
    return Room(
        temperature_c=round(MEAN_C - SWING_C * season + chance.uniform(-1, 1), 1),
        humidity_pct=round(MEAN_PCT - SWING_PCT * season + chance.uniform(-SHAKE_PCT, SHAKE_PCT), 1),
    )
