"""Settings of the studio."""

from __future__ import annotations

from dataclasses import asdict
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from rosy_kettle.api.schemas.common import Day, PlainText, Request, Response, ZoneName
from rosy_kettle.core.records import USUAL_TOLERANCE, USUAL_TUBS
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


class TubSave(Request):
    """A tub that tests are made in."""

    name: Annotated[PlainText, Field(min_length=1)]
    tub_l: Annotated[float, Field(ge=1, le=2000, allow_inf_nan=False)]
    tub_area_m2: Annotated[float, Field(ge=0.01, le=10, allow_inf_nan=False)]


class OwnToolSave(Request):
    """A tool of the studio, with the volume it was measured to have; its id stays when its name changes."""

    id: Annotated[str, Field(pattern=r"^own-[a-z0-9-]{1,60}$")]
    name: Annotated[PlainText, Field(min_length=1)]
    type: Literal["scoop", "mould", "cavity", "press", "pot"]
    volume_ml: Annotated[float, Field(ge=0.5, le=5000, allow_inf_nan=False)]


class ToleranceSave(Request):
    """How far a weighing may be off: the larger of the two."""

    share: Annotated[float, Field(ge=0.001, le=0.1, allow_inf_nan=False)]
    least_g: Annotated[float, Field(ge=0.01, le=50, allow_inf_nan=False)]


class MonthRoomSave(Request):
    """The workshop's air in a month."""

    temperature_c: Annotated[float, Field(ge=5, le=45, allow_inf_nan=False)]
    humidity_pct: Annotated[float, Field(ge=5, le=100, allow_inf_nan=False)]


class StudioSave(Request):
    """Maker, markets, units, money, hours and hands, and what stands in the workshop."""

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
    zone: ZoneName = ""
    """By whose clock; empty is that of the device that asks."""
    tubs: Annotated[list[TubSave], Field(min_length=1, max_length=30)] = [TubSave(**asdict(each)) for each in USUAL_TUBS]
    tools: Annotated[list[OwnToolSave], Field(max_length=100)] = []
    spray_ml: Annotated[float, Field(ge=0.02, le=5, allow_inf_nan=False)] | None = None
    tolerance: ToleranceSave = ToleranceSave(**asdict(USUAL_TOLERANCE))
    rooms: Annotated[list[MonthRoomSave], Field(max_length=12)] = []
    """From January to December, or none."""
    stand_ins: bool = False
    """Whether stand-in devices lie on the bench."""


class StudioAnswer(Response):
    """What the maker has said, with what is usual where nothing was said."""

    settings: StudioSettings
