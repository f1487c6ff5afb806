"""Orders and the week they are made in."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from rosy_kettle.api.schemas.common import (
    Limit,
    Moment,
    Number,
    PlainText,
    Query,
    Request,
    RequestKey,
    Response,
    UtcOffset,
    ZoneName,
)
from rosy_kettle.core.making.label.gate import Block

__all__ = [
    "OrderAnswer", "OrderChange", "OrderList", "OrderPath", "OrderQuery", "OrderSave", "PlannedOrderAnswer", "WeekAnswer",
    "WeekSave",
]  # fmt: skip

State = Literal["open", "made", "cancelled"]
Purpose = Literal["sale", "gift", "own"]
Market = Literal["US", "EU", "UK"]


class OrderPath(BaseModel):
    """Which order."""

    order_id: Number


class OrderQuery(BaseModel):
    """A page of orders: for whom, in which state, and where the page before ended."""

    q: Query = ""
    state: State | None = None
    cursor: Number | None = None
    limit: Limit = 50


class OrderSave(Request):
    """Some pieces of one formula for somebody, by a day."""

    who: PlainText
    formula_id: Number
    pieces: Annotated[int, Field(ge=1, le=100_000)]
    tool: Annotated[str, Field(max_length=80)] | None = None
    due_at: Moment | None = None
    note: Annotated[str, Field(max_length=500)] = ""
    for_: Purpose = Field(default="sale", alias="for")
    """What it is for: sale, gift (held to the same), or the maker's own use."""
    market: Market | None = None
    """Where it goes; null asks for every market of its formula."""
    key: RequestKey | None = None


class OrderChange(Request):
    """What became of it, where it is dragged to, or that the week may find a place again."""

    state: State | None = None
    starts_at: Moment | None = None
    free: bool = False
    batch_ids: Annotated[list[Number], Field(max_length=100)] | None = None
    """Batches it was made from, in place of what was said before."""
    for_: Purpose | None = Field(default=None, alias="for")
    market: Market | None = None


class OrderAnswer(Response):
    """An order."""

    id: int
    who: str
    formula_id: int
    pieces: int
    tool: str | None
    due_at: datetime | None
    note: str
    state: str
    """open, made or cancelled; a word of another version is told as it is."""
    starts_at: datetime | None
    created_at: datetime
    for_: str = Field(alias="for")
    """sale, gift or own."""
    market: str | None
    batch_ids: list[int]
    """Batches it was made from, as far as somebody has said."""
    blocks: list[Block]
    """What stands against it where it was made all the same, for own use; empty before it is made."""

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True, json_schema_serialization_defaults_required=True)


class OrderList(Response):
    """Orders, the newest first."""

    items: list[OrderAnswer]
    next: int | None


class WeekSave(Request):
    """How many days, by whose clock, and how long a better plan may be searched for."""

    days: Annotated[int, Field(ge=1, le=42)] = 7
    zone: ZoneName | None = None
    utc_offset_min: UtcOffset = 0
    seconds: Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)] = 0.0


class PlannedOrderAnswer(Response):
    """An order with its place in the week."""

    order: OrderAnswer
    name: str
    batch_g: float
    bowls: int
    fillings: int
    hands_h: int
    dry_h: int
    trays: int
    starts_at: datetime | None
    hands_end_at: datetime | None
    dry_at: datetime | None
    fixed: bool
    why_not: str


class Span(Response):
    """From one moment to another."""

    from_at: datetime
    to_at: datetime


class WeekAnswer(Response):
    """The open orders with their places."""

    begins_at: datetime
    days: int
    zone: str
    """By whose clock, as a browser knows it."""
    days_begin_at: list[datetime]
    """Midnight of each day, and of the day after the last."""
    orders: list[PlannedOrderAnswer]
    open_hours: list[Span]
    hands: int
    trays: int | None
    trays_taken: int
    cost: float
    gap: float | None
    searched: bool
