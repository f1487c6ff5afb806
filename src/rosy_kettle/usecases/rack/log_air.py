"""The air pieces dry in: logged by hand or from the hygrometer, thinned as it grows old."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.store.batches import latest_conditions
from rosy_kettle.store.rack import MONTH, AirRow, add_air, air_since, latest_air, list_places, thin_air

__all__ = ["AirTyped", "air_typed_last", "log_air", "read_air", "thin_old_air"]


def log_air(
    session: Session, place: str, temperature_c: float, humidity_pct: float, at: datetime | None = None, source: str = "hand"
) -> None:
    """Log the air of a place.

    Raises
    ------
    InputError
        If there is no such place, the moment is still to come, or nobody measured it.
    """
    if source == "stand-in":
        raise InputError(
            "A stand-in measures nothing: what it shows is not logged as air. Type what you read.", quantity="source"
        )
    now = datetime.now(UTC)
    if at is not None and at > now:
        raise InputError("Air is logged as it was, not as it will be.", quantity="at")
    if place not in {each.name for each in list_places(session)}:
        raise InputError(f'There is no place "{place[:60]}" to dry in.', quantity="place")
    add_air(session, AirRow(place=place, at=at or now, temperature_c=temperature_c, humidity_pct=humidity_pct, source=source))


def read_air(session: Session, place: str, days: float) -> list[AirRow]:
    """Return the air of a place over the last days, oldest first."""
    return air_since(session, place, datetime.now(UTC) - timedelta(days=days), None)


@dataclass(frozen=True, slots=True)
class AirTyped:
    """Air as somebody typed it last, at the rack or at the bench; None where nobody has."""

    at: str | None
    room_c: float | None
    humidity_pct: float | None


def air_typed_last(session: Session) -> AirTyped:
    """Return the air that was typed last, wherever that was."""
    logged = latest_air(session, None, "hand")
    said = latest_conditions(session)
    if said is not None and (logged is None or said.at > logged.at):
        return AirTyped(said.at.isoformat(), said.data.get("room_c"), said.data.get("humidity_pct"))
    if logged is None:
        return AirTyped(None, None, None)
    return AirTyped(logged.at.isoformat(), logged.temperature_c, logged.humidity_pct)


def thin_old_air(session: Session) -> int:
    """Keep one reading an hour of what is older than a month; return how many went."""
    return thin_air(session, datetime.now(UTC) - MONTH)
