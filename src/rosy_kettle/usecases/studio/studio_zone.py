"""By whose clock the studio works: the zone of the settings, else the asker's, else this machine's; each with its rules."""

from __future__ import annotations

import os
from datetime import UTC, datetime, timedelta, timezone, tzinfo
from pathlib import Path
from zoneinfo import ZoneInfo

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.usecases.studio.studio_settings import studio_settings

__all__ = ["name_of_zone", "studio_zone", "zone_named"]


def zone_named(name: str) -> tzinfo:
    """Return a zone of the IANA time zone database.

    Raises
    ------
    InputError
        If there is none of that name.
    """
    try:
        if "/" not in name and name != "UTC":
            raise ValueError(name)
        return ZoneInfo(name)
    except (ValueError, LookupError, OSError) as error:
        sentence = f'There is no time zone "{name[:60]}"; name it by its region and city, such as Europe/London.'
        raise InputError(sentence, quantity="zone", value=name[:60]) from error


def studio_zone(session: Session, asked: str | None = None, utc_offset_min: int | None = None) -> tzinfo:
    """Return the zone of the settings; where none is set, that of who asks, or a fixed offset, or this machine's.

    Raises
    ------
    InputError
        If the zone that is asked for is none.
    """
    if asked:
        zone_named(asked)
    said = studio_settings(session).zone or asked
    if said:
        return zone_named(said)
    return _zone_here() if utc_offset_min is None else timezone(timedelta(minutes=utc_offset_min))


def name_of_zone(zone: tzinfo, now: datetime) -> str:
    """Return a name browsers know the zone by; a fixed offset is written as +01:00."""
    return zone.key if isinstance(zone, ZoneInfo) else now.astimezone(zone).isoformat()[-6:]


def _zone_here() -> tzinfo:
    """Return this machine's zone by name, so that its rules are known; where it has none, its present offset."""
    for name in (os.environ.get("TZ", "").lstrip(":"), str(Path("/etc/localtime").resolve()).rpartition("zoneinfo/")[2]):
        try:
            return zone_named(name)
        except InputError:
            continue
    return datetime.now(UTC).astimezone().tzinfo or UTC
