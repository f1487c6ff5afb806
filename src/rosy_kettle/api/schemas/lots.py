"""Lots and their movements."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Day, Limit, Number, Query, Request, RequestKey, Response
from rosy_kettle.core.making.bench.record import JarPart
from rosy_kettle.core.making.stock.lots import LotWord
from rosy_kettle.core.safety.sheet_text import SheetRow
from rosy_kettle.files.product_file import CertificateFile
from rosy_kettle.usecases.pantry.keep_lots import LARGEST_G

__all__ = [
    "BatchLots",
    "CertificateRows",
    "CertificateText",
    "CountSave",
    "LotAnswer",
    "LotList",
    "LotPath",
    "LotQuery",
    "LotSave",
    "LotStateAnswer",
    "LotStateSave",
    "LotTraceAnswer",
    "LotUseAnswer",
    "MovementAnswer",
    "MovementList",
    "MovementQuery",
]  # fmt: skip


Short = Annotated[str, Field(max_length=80, pattern=r"^[^\x00-\x1f\x7f]*$")]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]


class LotPath(BaseModel):
    """Which lot."""

    lot_id: Number


class LotQuery(BaseModel):
    """A page of lots: words in code, supplier or ingredient, one ingredient's, and where the page before ended."""

    q: Query = ""
    ingredient: Annotated[str, Field(max_length=80)] | None = None
    cursor: Number | None = None
    limit: Limit = 50


class LotSave(Request):
    """A purchase."""

    ingredient: Annotated[str, Field(min_length=1, max_length=80)]
    code: Short
    quantity_g: Annotated[float, Field(gt=0, le=LARGEST_G, allow_inf_nan=False)]
    supplier: Annotated[str, Field(max_length=200)] = ""
    bought_on: Day | None = None
    price: Annotated[str, Field(max_length=20)] | None = None
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] = "USD"
    best_before: Day | None = None
    opened_on: Day | None = None
    active_fraction: Share | None = None
    water_fraction: Share | None = None
    certificate: CertificateFile | None = None
    """The supplier's paper of this lot; it goes before the ingredient's."""
    key: RequestKey | None = None


class CountSave(Request):
    """What a lot holds by the scale, and why the book says otherwise."""

    left_g: Annotated[float, Field(ge=0, le=LARGEST_G, allow_inf_nan=False)]
    reason: Annotated[str, Field(max_length=200)]


class LotStateSave(Request):
    """That a lot is held back or released, and why."""

    state: Literal["held", "released"]
    reason: Annotated[str, Field(max_length=500)]
    who: Annotated[str, Field(max_length=200)] = ""
    key: RequestKey | None = None


class LotStateAnswer(Response):
    """One word of it."""

    state: str
    reason: str
    who: str
    at: datetime


class LotAnswer(Response):
    """A lot as it stands."""

    id: int
    ingredient: str
    name: str
    form: str
    """Liquid, paste, powder and so on; empty where the ingredient has gone."""
    code: str
    supplier: str
    bought_on: date | None
    price: str | None
    currency: str
    quantity_g: float
    left_g: float
    best_before: date | None
    opened_on: date | None
    properties: dict[str, float]
    certificate: CertificateFile | None
    said: list[LotWord]
    held: bool
    """Whether it is held back."""


class LotList(Response):
    """Lots, the newest first."""

    items: list[LotAnswer]
    next: int | None


class CertificateText(Request):
    """A supplier's allergen sheet as it was pasted."""

    text: Annotated[str, Field(max_length=100_000)]


class CertificateRows(Response):
    """Its rows, each to be looked at."""

    rows: list[SheetRow]


class MovementAnswer(Response):
    """Something that came into a lot or went out of it."""

    id: int
    lot_id: int
    batch_id: int | None
    kind: str
    """bought, used, stocktake, wasted or withdrawn; a word of another version is told as it is."""
    mass_g: float
    reason: str
    at: datetime
    assumed: bool | None


class MovementQuery(BaseModel):
    """A page of movements: of one lot, of one batch, and where the page before ended."""

    lot_id: Number | None = None
    batch_id: Number | None = None
    cursor: Number | None = None
    limit: Limit = 50


class MovementList(Response):
    """Movements, the newest first."""

    items: list[MovementAnswer]
    next: int | None


class LotUseAnswer(Response):
    """A batch that drew from a lot."""

    batch_id: int
    name: str
    made_at: datetime
    mass_g: float
    assumed_g: float
    """How much of it nobody has said came from this lot."""
    pieces: int


class LotTraceAnswer(Response):
    """A lot with everything that came and went."""

    lot: LotAnswer
    movements: list[MovementAnswer]
    uses: list[LotUseAnswer]
    states: list[LotStateAnswer]
    """That it was held or released, the newest first."""


class LineLots(Response):
    """The lots a line can be taken from, the first one first."""

    ingredient: str
    name: str
    chosen: int | None
    """The jar named last; null while it is only assumed."""
    jars: list[JarPart]
    """All jars named for the line."""
    lots: list[LotAnswer]


class DrawnLot(Response):
    """What a closed batch took from a lot."""

    lot_id: int
    code: str
    ingredient: str
    name: str
    mass_g: float
    assumed: bool | None
    """Whether nobody has said that it came from this lot; null before that was asked."""
    cost: str | None
    currency: str


class BatchLots(Response):
    """Lots of a batch: what its lines can be taken from, what they were taken from, and what that cost."""

    lines: list[LineLots]
    drawn: list[DrawnLot]
    cost: dict[str, str]
    every_lot_priced: bool
