"""The rack: trays, what happens to them, the air they stand in."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, Field

from rosy_kettle.api.schemas.common import Moment, PlainText, Request, RequestKey, Response, UtcOffset
from rosy_kettle.core.making.rack.judge_tray import TrayReading
from rosy_kettle.core.making.rack.tray import TrayState, TrayWeighing

__all__ = [
    "AirAnswer", "AirList", "AirQuery", "AirSave", "CalendarQuery", "PlacePath", "PlaceSave", "RackList", "RackQuery",
    "TrayAnswer", "TrayEventSave", "TrayPath", "TraySave", "WeighInList", "WeighInSave",
]  # fmt: skip

Id = Annotated[int, Field(ge=1, le=2**53)]
PlaceName = Annotated[str, Field(min_length=1, max_length=60, pattern=r"^[^\x00-\x1f\x7f/]*$")]
Kind = Annotated[str, Field(min_length=1, max_length=40)]
RoomCelsius = Annotated[float, Field(ge=-40, le=60, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
PanGrams = Annotated[float, Field(ge=0.01, le=100_000, allow_inf_nan=False)]
Pieces = Annotated[int, Field(ge=1, le=100_000)]
Text = Annotated[str, Field(min_length=1, max_length=2000)]


def _near(moment: datetime) -> datetime:
    if not YEARS[0] <= moment.year <= YEARS[1]:
        raise ValueError(f"a moment of the rack lies between {YEARS[0]} and {YEARS[1]}")
    return moment


YEARS = (2000, 2100)
NearMoment = Annotated[Moment, AfterValidator(_near)]


class TrayPath(BaseModel):
    """Which tray."""

    tray_id: Id


class RackQuery(BaseModel):
    """Which trays: those on the rack, or those wrapped; a page of them."""

    wrapped: bool = False
    q: Annotated[str, Field(max_length=200)] = ""
    cursor: Id | None = None
    limit: Annotated[int, Field(ge=1, le=200)] = 50


class TraySave(Request):
    """Pieces to set out."""

    pieces: Pieces
    batch_id: Id | None = None
    name: PlainText = ""
    formula_id: Id | None = None
    """What they are made of, where no batch says it."""
    place: PlaceName = "rack"
    trays: Annotated[int, Field(ge=1, le=1000)] = 1
    set_out_at: NearMoment | None = None
    key: RequestKey | None = None
    """A name for this asking: the same key again gives the tray that was set out with it."""


class AmendedEvent(Request):
    """What a weigh-in should have said; what it said stays in the record."""

    kind: Literal["amended"]
    of: Id
    mass_g: PanGrams | None = None
    pieces: Pieces | None = None
    left_out: bool | None = None
    why: Annotated[str, Field(max_length=500)] = ""


class CheckedEvent(Request):
    """The answer to a question to the hands."""

    kind: Literal["checked"]
    check: Kind
    passed: bool


class TaskEvent(Request):
    """A task is done, or was not done after all."""

    kind: Literal["done", "undone"]
    task: Kind


class MovedEvent(Request):
    """A task is put off, or brought forward."""

    kind: Literal["moved"]
    task: Kind
    to: NearMoment


class PutEvent(Request):
    """The tray stands in another place now."""

    kind: Literal["put"]
    place: PlaceName


class RackNoteEvent(Request):
    """Something worth remembering."""

    kind: Literal["note"]
    text: Text


class WrappedEvent(Request):
    """The pieces are wrapped, or opened again."""

    kind: Literal["wrapped", "opened"]


TrayHappening = Annotated[
    AmendedEvent | CheckedEvent | TaskEvent | MovedEvent | PutEvent | RackNoteEvent | WrappedEvent,
    Field(discriminator="kind"),
]


class TrayEventSave(Request):
    """One thing that happened, after what the browser has seen."""

    after: Annotated[int, Field(ge=0, le=2**53)]
    event: TrayHappening


class WeighInSave(Request):
    """The pan with some pieces."""

    after: Annotated[int, Field(ge=0, le=2**53)]
    mass_g: PanGrams
    pieces: Pieces = 1
    tare_g: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] = 0.0
    scale_step_g: Annotated[float, Field(ge=0.001, le=100, allow_inf_nan=False)] = 0.1
    at: NearMoment | None = None
    temperature_c: RoomCelsius | None = None
    humidity_pct: Percent | None = None
    source: Literal["scale", "hand"] = "hand"


class TrayAnswer(Response):
    """A tray as it stands."""

    id: int
    batch_id: int | None
    name: str
    place: str
    pieces: int
    trays: int
    set_out_at: datetime
    wrapped_at: datetime | None
    state: TrayState
    reading: TrayReading


class PlaceAnswer(Response):
    """A place where pieces dry."""

    name: str
    trays: int
    taken: int
    temperature_c: float | None
    humidity_pct: float | None
    air_at: datetime | None


class RackList(Response):
    """Trays, the newest first, and the places they stand in."""

    items: list[TrayAnswer]
    next: int | None
    places: list[PlaceAnswer]
    now: datetime


class WeighInList(Response):
    """What was weighed of a tray."""

    items: list[TrayWeighing]
    next: int | None


class PlacePath(BaseModel):
    """Which place."""

    place: PlaceName


class CalendarQuery(BaseModel):
    """The maker's clock ahead of UTC, for the hours of the workshop [min]; without it, that of this machine."""

    utc_offset_min: UtcOffset | None = None


class PlaceSave(Request):
    """How many trays it holds."""

    trays: Annotated[int, Field(ge=0, le=10_000)]


class AirQuery(BaseModel):
    """Air of which place, over how many days."""

    place: PlaceName = "rack"
    days: Annotated[float, Field(gt=0, le=4000)] = 7.0


class AirSave(Request):
    """The air of a place."""

    place: PlaceName = "rack"
    temperature_c: RoomCelsius
    humidity_pct: Percent
    at: NearMoment | None = None


class AirAnswer(Response):
    """The air at one moment."""

    at: datetime
    temperature_c: float
    humidity_pct: float
    source: str


class AirList(Response):
    """The air of a place, oldest first."""

    items: list[AirAnswer]
    next: int | None
