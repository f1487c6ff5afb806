"""Settings of the studio."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from rosy_kettle.api.schemas.common import Request, Response
from rosy_kettle.usecases.studio.studio_settings import StudioSettings

__all__ = ["StudioAnswer", "StudioSave"]

Text = Annotated[str, Field(max_length=300)]
Hour = Annotated[int, Field(ge=0, le=24)]


class DaySave(Request):
    """When hands may work on a day; from and to alike is closed."""

    from_h: Hour
    to_h: Hour


class StudioSave(Request):
    """Maker, markets, units, money, hours and hands."""

    maker: Text = ""
    place: Text = ""
    contact: Text = ""
    markets: Annotated[list[Literal["US", "EU", "UK"]], Field(min_length=1, max_length=3)] = ["US"]
    mass_unit: Literal["g", "oz"] = "g"
    temperature_unit: Literal["°C", "°F"] = "°C"
    volume_unit: Literal["mL", "fl oz"] = "mL"
    decimal_sign: Literal[".", ","] = "."
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] = "USD"
    hands: Annotated[int, Field(ge=1, le=3)] = 1
    bowls: Annotated[int, Field(ge=1, le=20)] = 1
    week: Annotated[list[DaySave], Field(min_length=7, max_length=7)]


class StudioAnswer(Response):
    """What the maker has said, with what is usual where nothing was said."""

    settings: StudioSettings
