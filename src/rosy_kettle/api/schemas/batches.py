"""Plans, batches and what happens to them."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, RootModel

from rosy_kettle.api.schemas.common import Described, Limit, Moment, Number, Query, Request, Response, UtcOffset
from rosy_kettle.core.making.bench import BenchState, FeelAnswer, HandFeel, RescueOption
from rosy_kettle.core.making.bench.compare_batches import BatchComparison
from rosy_kettle.core.making.bench.window_watch import WindowWatch
from rosy_kettle.core.making.plan.order import Wish
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.files import FormulaFile
from rosy_kettle.usecases.batches.list_batches import BatchGlance
from rosy_kettle.usecases.batches.plan_batch import BatchPlan

__all__ = [
    "BatchAnswer", "BatchBegin", "BatchComparisonAnswer", "BatchList", "BatchPath", "BatchQuery", "EventSave", "FeelList",
    "OtherBatch", "PlanAnswer", "PlanSave", "StockSave", "TimelineEntry", "WaysOut", "WaysQuery",
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
    utc_offset_min: UtcOffset = 0
    schools: dict[str, str] = {}


class PlanAnswer(Described, RootModel[BatchPlan]):
    """The plan."""


class BatchBegin(PlanSave):
    """Begin the first bowl of a plan at the bench."""

    formula_id: Annotated[int, Field(ge=1, le=2**53)]
    key: Annotated[str, Field(min_length=8, max_length=80, pattern=r"^[A-Za-z0-9-]+$")] | None = None
    """A name for this asking: the same key again gives the batch that was begun with it."""


class BatchPath(BaseModel):
    """Which batch."""

    batch_id: Annotated[int, Field(ge=1, le=2**53)]


class ConditionsEvent(Request):
    """The air and the tap as they are."""

    kind: Literal["conditions"]
    step: Key
    room_c: Celsius | None = None
    humidity_pct: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None
    tap: Annotated[str, Field(max_length=40)] = ""


class WeighedEvent(Request):
    """A line was weighed."""

    kind: Literal["weighed"]
    step: Key
    actual_g: Grams
    source: Literal["scale", "hand"] = "hand"


class SkippedEvent(Request):
    """A step was left out."""

    kind: Literal["skipped"]
    step: Key
    why: Annotated[str, Field(max_length=200)]


class StepEvent(Request):
    """A step was done, or is gone back to."""

    kind: Literal["done", "back"]
    step: Key


class LotEvent(Request):
    """A line is taken from another lot than the one that expires first."""

    kind: Literal["lot"]
    ingredient: Annotated[str, Field(min_length=1, max_length=80)]
    code: Annotated[str, Field(min_length=1, max_length=80)]


class TemperatureEvent(Request):
    """A temperature was taken."""

    kind: Literal["temperature"]
    step: Key
    value_c: Celsius
    source: Literal["thermometer", "hand"] = "hand"


class TimerEvent(Request):
    """A clock was started."""

    kind: Literal["timer"]
    step: Key
    minutes: Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)]


class FeltEvent(Request):
    """What the hands found."""

    kind: Literal["felt"]
    state: Annotated[str, Field(max_length=40)]


class CorrectedEvent(Request):
    """Something was added to mend the dough."""

    kind: Literal["corrected"]
    ingredient: Annotated[str, Field(max_length=80)]
    mass_g: Some
    why: Annotated[str, Field(max_length=200)] = ""


class RescuedEvent(Request):
    """A way out of pouring too much was taken."""

    kind: Literal["rescued"]
    step: Key
    actual_g: Grams
    way: Literal["take-out", "scale-up", "rebalance", "keep"]
    source: Literal["scale", "hand"] = "scale"


class PiecesEvent(Request):
    """Pieces came off the tool; a negative count takes some back."""

    kind: Literal["pieces"]
    count: Annotated[int, Field(ge=-1000, le=1000)]


class SampledEvent(Request):
    """One piece was weighed."""

    kind: Literal["sampled"]
    mass_g: Some


class NoteEvent(Request):
    """Something to remember; after closing, an amendment."""

    kind: Literal["note", "amended"]
    text: Text


class OutcomeEvent(Request):
    """What became of it."""

    kind: Literal["outcome"]
    dry_at: Moment | None = None
    """Stored in UTC."""
    pieces_good: Annotated[int, Field(ge=0, le=100_000)] | None = None
    pieces_spoiled: Annotated[int, Field(ge=0, le=100_000)] | None = None
    tub_dose_g: Some | None = None
    tub_l: Some | None = None
    foam_height_cm: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None
    remarks: Annotated[str, Field(max_length=2000)] | None = None


class ClosedEvent(Request):
    """The record is closed for good."""

    kind: Literal["closed"]


Happening = Annotated[
    ConditionsEvent | WeighedEvent | SkippedEvent | StepEvent | LotEvent
    | TemperatureEvent | TimerEvent | FeltEvent | CorrectedEvent
    | RescuedEvent | PiecesEvent | SampledEvent | NoteEvent | OutcomeEvent | ClosedEvent,
    Field(discriminator="kind"),
]  # fmt: skip


class EventSave(Request):
    """One thing that happened, after all that was seen before it."""

    after: Annotated[int, Field(ge=0)]
    event: Happening


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


class BatchAnswer(Response):
    """A batch with everything the bench shows of it."""

    id: int
    formula_id: int
    version: int
    name: str
    method: str
    batch_g: float
    pieces: int
    created_at: datetime
    closed_at: datetime | None
    planned: FormulaFile
    made: FormulaFile
    bowl: int
    bowls: int
    state: BenchState
    events: list[TimelineEntry]
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
