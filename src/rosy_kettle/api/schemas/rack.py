"""The rack: trays, what happens to them, the air they stand in."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import BaseModel, Field, RootModel

from rosy_kettle.api.schemas.common import Described, Moment, PlainText, Request, RequestKey, Response, UtcOffset, ZoneName
from rosy_kettle.api.schemas.happenings import EventId, MadeAt, Said, said_union
from rosy_kettle.core.making.rack.judge_tray import TrayReading
from rosy_kettle.core.making.rack.tray import TRAY_EVENTS, TrayState, TrayWeighing
from rosy_kettle.usecases.rack.log_air import AirTyped

__all__ = [
    "AirAnswer", "AirList", "AirQuery", "AirSave", "AirTypedAnswer",
    "CalendarQuery", "PlacePath", "PlaceSave", "RackList", "RackQuery",
    "TrayAnswer", "TrayEventSave", "TrayPath", "TraySave", "WeighInList", "WeighInSave",
]  # fmt: skip

Id = Annotated[int, Field(ge=1, le=2**53)]
PlaceName = Annotated[str, Field(min_length=1, max_length=60, pattern=r"^[^\x00-\x1f\x7f/]*$")]
RoomCelsius = Annotated[float, Field(ge=-40, le=60, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
PanGrams = Annotated[float, Field(ge=0.01, le=100_000, allow_inf_nan=False)]
Pieces = Annotated[int, Field(ge=1, le=100_000)]


class TrayPath(BaseModel):
    """Which tray."""

    tray_id: Id


class RackQuery(BaseModel):
    """Which trays: those on the rack, or those wrapped; a page of them."""

    wrapped: bool = False
    q: Annotated[str, Field(max_length=200)] = ""
    cursor: Id | None = None
    limit: Annotated[int, Field(ge=1, le=200)] = 50
    zone: ZoneName | None = None


class TraySave(Request):
    """Pieces to set out."""

    pieces: Pieces
    batch_id: Id | None = None
    name: PlainText = ""
    formula_id: Id | None = None
    """What they are made of, where no batch says it."""
    place: PlaceName = "rack"
    trays: Annotated[int, Field(ge=1, le=1000)] = 1
    set_out_at: Moment | None = None
    key: RequestKey | None = None
    """A name for this asking: the same key again gives the tray that was set out with it."""


if TYPE_CHECKING:
    TrayHappening = Said
else:
    TrayHappening = said_union(TRAY_EVENTS, "Tray")


class TrayEventSave(Request):
    """One thing that happened, after what the browser has seen."""

    after: Annotated[int, Field(ge=0, le=2**53)]
    event: TrayHappening
    id: EventId | None = None
    """The event's own name, where it does not stand in the event itself."""
    made_at: MadeAt | None = None


class WeighInSave(Request):
    """The pan with some pieces."""

    after: Annotated[int, Field(ge=0, le=2**53)]
    mass_g: PanGrams
    pieces: Pieces = 1
    tare_g: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] = 0.0
    scale_step_g: Annotated[float, Field(ge=0.001, le=100, allow_inf_nan=False)] = 0.1
    at: Moment | None = None
    temperature_c: RoomCelsius | None = None
    humidity_pct: Percent | None = None
    source: Literal["scale", "hand", "stand-in"] = "hand"
    id: EventId | None = None
    made_at: MadeAt | None = None


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
    tonight_at: datetime
    """When the present day ends, by the maker's clock."""


class WeighInList(Response):
    """What was weighed of a tray."""

    items: list[TrayWeighing]
    next: int | None


class PlacePath(BaseModel):
    """Which place."""

    place: PlaceName


class CalendarQuery(BaseModel):
    """By whose clock the hours of the workshop are; without one, that of this machine."""

    zone: ZoneName | None = None
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
    at: Moment | None = None
    source: Literal["hand", "hygrometer", "stand-in"] = "hand"
    """A stand-in's reading is refused: nobody measured it."""


class AirAnswer(Response):
    """The air at one moment."""

    at: datetime
    temperature_c: float
    humidity_pct: float
    source: str


class AirTypedAnswer(Described, RootModel[AirTyped]):
    """Air as somebody typed it last."""


class AirList(Response):
    """The air of a place, oldest first."""

    items: list[AirAnswer]
    next: int | None
