"""Lists of stock and prices taken over."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Request, RequestKey, Response

__all__ = ["BackAnswer", "ImportAnswer", "ImportPath", "ImportSave"]


class ImportPath(BaseModel):
    """Which import."""

    key: RequestKey


class ImportSave(Request):
    """A file, what its columns are, and whether it is only looked at."""

    content: Annotated[str, Field(max_length=20_000_000, description="The file in Base64")]
    key: RequestKey
    columns: dict[Annotated[str, Field(max_length=40)], Annotated[int, Field(ge=0, le=1000)]] | None = None
    date_order: Annotated[str, Field(max_length=20)] | None = None
    decimal_sign: Literal[".", ","] | None = None
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] = "USD"
    meanings: dict[Annotated[str, Field(max_length=200)], Annotated[str, Field(max_length=80)]] = {}
    dry: bool = True


class ImportRow(Response):
    """What a row was taken for."""

    row: int
    text: str
    fate: Literal["lot", "price", "asked"]
    ingredient: str | None
    quantity_g: float | None
    price: str | None
    currency: str
    code: str
    best_before: date | None
    why: str
    suggestions: list[str]


class ImportAnswer(Response):
    """What a file says, and what was taken over; the first rows, those that are asked about before all others."""

    headings: list[str]
    columns: dict[str, int]
    known_columns: list[str]
    date_orders: list[str]
    rows: list[ImportRow]
    in_all: int
    asked: int
    taken: int


class BackAnswer(Response):
    """How many lots were withdrawn."""

    withdrawn: int
