"""Clearances, recalls and complaints."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Limit, Moment, Number, Query, Request, RequestKey, Response
from rosy_kettle.core.making.label.gate import Block

__all__ = [
    "ClearanceAnswer", "ClearanceList", "ClearanceSave", "ComplaintAnswer", "ComplaintChange", "ComplaintList", "ComplaintPath",
    "ComplaintQuery", "ComplaintSave", "ComplaintTrendAnswer", "ComplaintTrendList", "RecallAnswer", "RecallQuery",
    "ReopenedAnswer", "ReopenedList", "SignatureAnswer",
]  # fmt: skip

Who = Annotated[str, Field(max_length=200, pattern=r"^[^\x00-\x1f\x7f]*$")]
Words = Annotated[str, Field(max_length=2000)]
Market = Literal["US", "EU", "UK"]
Kind = Literal["skin", "eyes", "swallowed", "breathing", "slip", "fire", "other"]


class ClearanceSave(Request):
    """A signature for a market, or its being taken back with a reason."""

    market: Market
    state: Literal["signed", "taken-back"] = "signed"
    who: Who
    reason: Words = ""
    key: RequestKey | None = None


class SignatureAnswer(Response):
    """One word of a clearance: who signed or took it back, and when."""

    state: str
    who: str
    reason: str
    at: datetime


class ClearanceAnswer(Response):
    """A batch for one market."""

    market: str
    clean: bool
    """Signed, and nothing stands against it."""
    blocks: list[Block]
    signed: SignatureAnswer | None
    history: list[SignatureAnswer]
    """All that was signed and taken back, the newest first."""


class ClearanceList(Response):
    """A batch for each of its markets."""

    batch_id: int
    items: list[ClearanceAnswer]


class ReopenedAnswer(Response):
    """A signed clearance against which something has come up since."""

    batch_id: int
    name: str
    market: str
    who: str
    at: datetime
    blocks: list[Block]


class ReopenedList(Response):
    """All of those."""

    items: list[ReopenedAnswer]


class RecallQuery(BaseModel):
    """The code of a lot or batch, or what is printed on a label."""

    code: Annotated[str, Field(min_length=1, max_length=200)]


class RecallAnswer(Response):
    """What hangs together with a code; each entry says how."""

    code: str
    lots: list[dict[str, Any]]
    batches: list[dict[str, Any]]
    trays: list[dict[str, Any]]
    labels: list[dict[str, Any]]
    orders: list[dict[str, Any]]
    people: list[dict[str, Any]]
    photos: list[dict[str, Any]]
    complaints: list[dict[str, Any]]
    assumed: list[dict[str, Any]]
    """What nobody has said, and was taken to be so."""


class ComplaintPath(BaseModel):
    """Which complaint."""

    complaint_id: Number


class ComplaintQuery(BaseModel):
    """A page of complaints: words in it, one batch's, and where the page before ended."""

    q: Query = ""
    batch_id: Number | None = None
    cursor: Number | None = None
    limit: Limit = 50


class ComplaintSave(Request):
    """What somebody said of a piece."""

    at: Moment | None = None
    batch_id: Number | None = None
    code: Annotated[str, Field(max_length=200)] = ""
    what: Words
    who: Who = ""
    kind: Kind
    serious: bool = False
    done: Words = ""
    key: RequestKey | None = None


class ComplaintChange(Request):
    """What was done about it, or that it is serious after all."""

    done: Words | None = None
    serious: bool | None = None


class ComplaintAnswer(Response):
    """A complaint."""

    id: int
    at: datetime
    batch_id: int | None
    code: str
    what: str
    who: str
    kind: str
    serious: bool
    done: str
    report_by: date | None
    """US: the day a serious one is to be reported by, 15 business days on."""


class ComplaintList(Response):
    """Complaints, the newest first."""

    items: list[ComplaintAnswer]
    next: int | None


class ComplaintTrendAnswer(Response):
    """How often a product or a lot was complained of."""

    of: str
    name: str
    count: int
    serious: int


class ComplaintTrendList(Response):
    """The most complained of first."""

    items: list[ComplaintTrendAnswer]
