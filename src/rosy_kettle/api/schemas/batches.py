"""Plans, batches and what happens to them."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING, Annotated, Any, Literal

from pydantic import BaseModel, Field, RootModel

from rosy_kettle.api.schemas.common import Described, Limit, Moment, Number, Query, Request, Response, UtcOffset, ZoneName
from rosy_kettle.api.schemas.happenings import EventId, MadeAt, Said, said_union
from rosy_kettle.core.making.bench import BATCH_EVENTS, BenchState, FeelAnswer, HandFeel, RescueOption
from rosy_kettle.core.making.bench.compare_batches import BatchComparison
from rosy_kettle.core.making.bench.window_watch import WindowWatch
from rosy_kettle.core.making.plan.order import Wish
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.files import FormulaFile
from rosy_kettle.usecases.batches.list_batches import BatchGlance
from rosy_kettle.usecases.batches.plan_batch import BatchPlan

__all__ = [
    "BatchAnswer", "BatchBegin", "BatchComparisonAnswer", "BatchList", "BatchPath", "BatchQuery", "EventSave", "FeelList",
    "HeldAnswer", "OtherBatch", "PlanAnswer", "PlanSave", "StockSave", "TimelineEntry", "WaysOut", "WaysQuery",
]  # fmt: skip

Grams = Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]
Some = Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)]
Celsius = Annotated[float, Field(ge=-40, le=200, allow_inf_nan=False)]
Key = Annotated[str, Field(max_length=40)]
Text = Annotated[str, Field(min_length=1, max_length=2000)]


class WishSave(Request):
    """Some pieces from one tool."""

    pieces: Annotated[int, Field(ge=1, le=100_000)] | None = None
    tool: Annotated[str, Field(max_length=60)] | None = None
    piece_mass_g: Some | None = None
    scoop_fill: Literal["level", "rounded", "domed"] = "level"
    sheet_mm: Annotated[float, Field(ge=1, le=60, allow_inf_nan=False)] = Wish().sheet_mm
    layers: Annotated[int, Field(ge=1, le=6)] = Wish().layers
    cut: Literal["thread", "knife"] = "thread"


class PlanSave(Request):
    """What is wanted, and when."""

    wishes: Annotated[list[WishSave], Field(min_length=1, max_length=8)]
    mass_g: Some | None = None
    capacity_g: Some | None = None
    room_c: Celsius | None = None
    humidity_pct: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None
    start_at: Moment | None = None
    ready_by: Moment | None = None
    zone: ZoneName | None = None
    utc_offset_min: UtcOffset = 0
    schools: dict[str, str] = {}


class PlanAnswer(Described, RootModel[BatchPlan]):
    """The plan."""


class BatchBegin(PlanSave):
    """Begin the first bowl of a plan at the bench."""

    formula_id: Annotated[int, Field(ge=1, le=2**53)]
    key: Annotated[str, Field(min_length=8, max_length=80, pattern=r"^[A-Za-z0-9-]+$")] | None = None
    """A name for this asking: the same key again gives the batch that was begun with it."""


if TYPE_CHECKING:
    Happening = Said
else:
    Happening = said_union(BATCH_EVENTS, "Bench")


class BatchPath(BaseModel):
    """Which batch."""

    batch_id: Annotated[int, Field(ge=1, le=2**53)]


class EventSave(Request):
    """One thing that happened, after all that was seen before it."""

    after: Annotated[int, Field(ge=0, le=2**53)]
    event: Happening
    id: EventId | None = None
    """The event's own name, where it does not stand in the event itself."""
    made_at: MadeAt | None = None
    hold: bool = False
    """Keep it for both sides to see where it no longer follows, instead of refusing it."""


class BatchQuery(BaseModel):
    """A page of batches: words in the name or the record, one formula's, and where the page before ended."""

    q: Query = ""
    formula_id: Number | None = None
    cursor: Number | None = None
    limit: Limit = 50


class BatchList(Response):
    """A page of batches, the newest first."""

    batches: list[BatchGlance]
    next: int | None
    """Cursor of the next page; null at the end."""
    in_all: int
    """Batches there are, whatever is searched for."""
    still_open: int


class OtherBatch(BaseModel):
    """The batch beside it."""

    other: Number


class BatchComparisonAnswer(Described, RootModel[BatchComparison]):
    """Two batches side by side."""


class TimelineEntry(Response):
    """One event as it is told."""

    seq: int
    at: str
    kind: str
    data: dict[str, Any]
    text: str
    """The same as a sentence."""
    id: str | None
    made_at: str | None
    """When it was made, by the clock of the device it was made on; null where it was told at once."""


class HeldAnswer(Response):
    """What a device that was away had done and what no longer follows, beside what the record says."""

    id: str
    kind: str
    text: str
    made_at: str | None
    at: str
    """When the studio heard of it."""
    beside: list[TimelineEntry]
    """What had happened meanwhile of the same step, or since."""


class BatchAnswer(Response):
    """A batch with everything the bench shows of it."""

    id: int
    formula_id: int
    version: int
    name: str
    method: str
    batch_g: float
    pieces: int
    """As planned."""
    pieces_now: int
    """As counted; before that, as what was weighed gives them."""
    created_at: datetime
    closed_at: datetime | None
    planned: FormulaFile
    made: FormulaFile
    bowl: int
    bowls: int
    state: BenchState
    events: list[TimelineEntry]
    held: list[HeldAnswer]
    before: Evaluation
    now: Evaluation
    so_far: Evaluation
    watch: WindowWatch | None
    feel: FeelAnswer | None
    clock_rate: float


class WaysQuery(BaseModel):
    """How much is in the cup."""

    actual_g: Grams


class WaysOut(Response):
    """The ways out of pouring too much."""

    ways: list[RescueOption]


class FeelList(Response):
    """The tiles of the squeeze and drop tests."""

    feels: list[HandFeel]


class StockSave(Request):
    """What is on hand; null is not known [g]."""

    on_hand_g: Grams | None
