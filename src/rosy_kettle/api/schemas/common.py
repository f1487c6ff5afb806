"""Models that every blueprint uses."""

from __future__ import annotations

from copy import deepcopy
from datetime import date, datetime
from typing import Annotated, Any

from pydantic import AfterValidator, AwareDatetime, BaseModel, BeforeValidator, ConfigDict, Field

__all__ = [
    "Day",
    "Described",
    "ErrorAnswer",
    "Limit",
    "Moment",
    "Number",
    "PlainText",
    "Query",
    "Request",
    "RequestKey",
    "Response",
    "UtcOffset",
    "ZoneName",
]


def _written_out(value: object) -> object:
    if value is None or isinstance(value, str):
        return value
    raise ValueError("a moment is written as text with its offset, such as 2026-05-04T09:30:00Z")


def _near(moment: datetime) -> datetime:
    if not YEARS[0] <= moment.year < YEARS[1]:
        raise ValueError(f"a moment lies between {YEARS[0]} and {YEARS[1]}")
    return moment


YEARS = (2000, 2200)
Moment = Annotated[AwareDatetime, Field(strict=False), BeforeValidator(_written_out), AfterValidator(_near)]
"""A moment in ISO 8601 with its offset from UTC, near enough to be reckoned with; a bare number is none."""


Query = Annotated[str, Field(max_length=200, description="Words to be found")]
"""What a list is searched for."""
Limit = Annotated[int, Field(ge=1, le=200, description="Length of a page")]
"""How much of a list is asked for at once."""
UtcOffset = Annotated[int, Field(ge=-840, le=840)]
"""What the maker's clock is ahead of UTC, where no zone is named [min]."""
ZoneName = Annotated[str, Field(max_length=60, pattern=r"^[A-Za-z0-9_+/-]*$")]
"""The maker's zone as the IANA database names it, such as Europe/London; that of the settings goes before."""
Number = Annotated[int, Field(ge=1, le=2**53)]
"""Number of a row."""

PlainText = Annotated[str, Field(max_length=200, pattern=r"^[^\x00-\x1f\x7f]*$")]
"""A name or a line of text, without signs that steer a printer."""
RequestKey = Annotated[str, Field(min_length=8, max_length=80, pattern=r"^[A-Za-z0-9-]+$")]
"""A name for one asking: the same key again gives what was begun with it."""


def _day(value: object) -> object:
    if value is None or isinstance(value, date):
        return value
    try:
        day = date.fromisoformat(str(value))
    except ValueError:
        raise ValueError("a day is written as year-month-day, such as 2026-05-04") from None
    if not YEARS[0] <= day.year < YEARS[1]:
        raise ValueError(f"a day lies between {YEARS[0]} and {YEARS[1]}")
    return day


Day = Annotated[date, Field(strict=False), BeforeValidator(_day)]
"""A day in ISO 8601."""


_DESCRIPTIONS: dict[tuple[type, str], dict[str, Any]] = {}


class Described:
    """A model that is described once: the web package asks at every route, and for queries at every request."""

    @classmethod
    def model_json_schema(cls, *arguments: Any, **options: Any) -> dict[str, Any]:
        """Return pydantic's description, a copy where the web package may work on it."""
        key = (cls, repr((arguments, options)))
        if key not in _DESCRIPTIONS:
            _DESCRIPTIONS[key] = super().model_json_schema(*arguments, **options)  # type: ignore[misc]
        return deepcopy(_DESCRIPTIONS[key]) if options else _DESCRIPTIONS[key]


class Request(Described, BaseModel):
    """A request body: types as sent, nothing coerced, unknown keys ignored."""

    model_config = ConfigDict(strict=True, extra="ignore")


class Response(Described, BaseModel):
    """A response body: every field is present."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)


class ErrorAnswer(Response):
    """What every refused request gets."""

    code: str
    message: str
    details: dict[str, Any]
