"""Settings of the studio."""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from rosy_kettle.api.schemas.common import Day, PlainText, Request, Response
from rosy_kettle.usecases.studio.studio_settings import StudioSettings

__all__ = ["StudioAnswer", "StudioSave"]

Text = Annotated[str, Field(max_length=300)]
Currency = Annotated[str, Field(pattern=r"^[A-Z]{3}$")]
Sum = Annotated[Decimal, Field(ge=0, le=1_000_000, allow_inf_nan=False, strict=False)]
Hour = Annotated[int, Field(ge=0, le=24)]


class DaySave(Request):
    """When hands may work on a day; from and to alike is closed."""

    from_h: Hour
    to_h: Hour


class RateSave(Request):
    """What one US dollar costs in a currency, as typed on a day."""

    currency: Currency
    per_usd: Annotated[Decimal, Field(gt=0, le=1_000_000, allow_inf_nan=False, strict=False)]
    on: Day


class DeliverySave(Request):
    """What a supplier asks for delivery, and from which sum on nothing."""

    supplier: PlainText
    fee: Sum
    free_from: Sum | None = None
    currency: Currency


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
    currency: Currency = "USD"
    rates: Annotated[list[RateSave], Field(max_length=60)] = []
    deliveries: Annotated[list[DeliverySave], Field(max_length=60)] = []
    paper: Literal["A4", "Letter"] = "A4"
    hands: Annotated[int, Field(ge=1, le=3)] = 1
    bowls: Annotated[int, Field(ge=1, le=20)] = 1
    week: Annotated[list[DaySave], Field(min_length=7, max_length=7)]


class StudioAnswer(Response):
    """What the maker has said, with what is usual where nothing was said."""

    settings: StudioSettings
