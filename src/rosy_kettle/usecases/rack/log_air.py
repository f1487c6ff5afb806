"""The air pieces dry in: logged by hand or from the hygrometer, thinned as it grows old."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.store.rack import MONTH, AirRow, add_air, air_since, list_places, thin_air

__all__ = ["log_air", "log_read_air", "read_air", "thin_old_air"]


def log_air(
    session: Session, place: str, temperature_c: float, humidity_pct: float, at: datetime | None = None, source: str = "hand"
) -> None:
    """Log the air of a place.

    Raises
    ------
    InputError
        If there is no such place, or the moment is still to come.
    """
    now = datetime.now(UTC)
    if at is not None and at > now:
        raise InputError("Air is logged as it was, not as it will be.", quantity="at")
    if place not in {each.name for each in list_places(session)}:
        raise InputError(f'There is no place "{place[:60]}" to dry in.', quantity="place")
    add_air(session, AirRow(place=place, at=at or now, temperature_c=temperature_c, humidity_pct=humidity_pct, source=source))


def read_air(session: Session, place: str, days: float) -> list[AirRow]:
    """Return the air of a place over the last days, oldest first."""
    return air_since(session, place, datetime.now(UTC) - timedelta(days=days), None)


def log_read_air(session: Session, air: tuple[float, float] | None) -> bool:
    """Log what the hygrometer reads, temperature [°C] and humidity [%], where it stands; return whether it could be read."""
    places = list_places(session)
    if air is None or not places:
        return False
    log_air(session, places[0].name, *air, source="hygrometer")
    return True


def thin_old_air(session: Session) -> int:
    """Keep one reading an hour of what is older than a month; return how many went."""
    return thin_air(session, datetime.now(UTC) - MONTH)
