"""Labels: drawn while facts are typed, kept as they were printed."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Limit, Number, Query, Request, RequestKey, Response
from rosy_kettle.core.making.label.differences import LabelDifference
from rosy_kettle.core.making.label.gate import Block
from rosy_kettle.core.making.label.layout import PlacedLine
from rosy_kettle.core.making.label.texts import LabelText, MissingElement
from rosy_kettle.files import FormulaFile
from rosy_kettle.files.label_file import LabelFactsFile
from rosy_kettle.usecases.labels import USUAL_LABEL_MM
from rosy_kettle.usecases.labels.from_batch import KnownFact

__all__ = [
    "DrawnLabel", "LabelAnswer", "LabelAsk", "LabelDrawing", "LabelList", "LabelPath", "LabelQuery", "LabelSave", "RuleWords",
    "SheetSave",
]  # fmt: skip

Market = Literal["US", "EU", "UK"]
Millimetres = Annotated[float, Field(gt=0, le=300, allow_inf_nan=False)]
Gap = Annotated[float, Field(ge=0, le=200, allow_inf_nan=False)]
USUAL_WIDTH_MM, USUAL_HEIGHT_MM = USUAL_LABEL_MM
Rows = Annotated[int, Field(ge=1, le=60)]


class LabelAsk(Request):
    """A label to be drawn: of a formula as it is typed, or of a batch as it was made."""

    formula: FormulaFile | None = None
    formula_id: Number | None = None
    batch_id: Number | None = None
    markets: Annotated[list[Market], Field(min_length=1, max_length=3)] = ["US"]
    width_mm: Millimetres = USUAL_WIDTH_MM
    height_mm: Millimetres = USUAL_HEIGHT_MM
    facts: LabelFactsFile = LabelFactsFile()


class SheetSave(Request):
    """How a sheet of stickers is cut [mm]."""

    paper: Literal["A4", "Letter"] = "A4"
    rows: Rows = 8
    columns: Rows = 3
    left_mm: Gap = 6.0
    top_mm: Gap = 12.0
    gap_x_mm: Gap = 3.0
    gap_y_mm: Gap = 0.0


class LabelSave(Request):
    """A label to be kept and printed; one that lacks something is printed as a draft only, and crossed."""

    formula_id: Number | None = None
    batch_id: Number | None = None
    market: Market
    width_mm: Millimetres = USUAL_WIDTH_MM
    height_mm: Millimetres = USUAL_HEIGHT_MM
    facts: LabelFactsFile = LabelFactsFile()
    copies: Annotated[int, Field(ge=1, le=1000)] = 1
    sheet: SheetSave | None = None
    draft: bool = False
    key: RequestKey | None = None


class LabelPath(BaseModel):
    """Which label."""

    label_id: Number


class LabelQuery(BaseModel):
    """A page of labels."""

    q: Query = ""
    formula_id: Number | None = None
    batch_id: Number | None = None
    cursor: Number | None = None
    limit: Limit = 50


class SmallestLabel(Response):
    """The smallest label that holds its texts [mm]."""

    width_mm: float
    height_mm: float


class DrawnLabel(Response):
    """One market's label at true size."""

    market: str
    texts: list[LabelText]
    missing: list[MissingElement]
    blocks: list[Block]
    """What the rules, and a batch itself, hold against a final label."""
    draft: bool
    lines: list[PlacedLine]
    used_mm: float
    fits: bool
    smallest: SmallestLabel | None


class RuleWords(Response):
    """What a rule says, and where it stands."""

    id: str
    message: str
    citation: str


class LabelDrawing(Response):
    """Labels of the markets that were asked for, side by side."""

    width_mm: float
    height_mm: float
    facts: LabelFactsFile
    """With what the batch, the last label and the settings say where nothing was typed."""
    labels: list[DrawnLabel]
    differences: list[LabelDifference]
    """Between the first two."""
    rules: list[RuleWords]
    known: list[KnownFact]
    """What the batch knows, and from where."""


class LabelAnswer(Response):
    """A label as it was printed."""

    id: int
    formula_id: int | None
    batch_id: int | None
    version: int | None
    name: str
    market: str
    width_mm: float
    height_mm: float
    facts: dict[str, Any]
    texts: list[LabelText]
    missing: list[MissingElement]
    blocks: list[Block]
    draft: bool
    copies: int
    sheet: SheetSave | None
    created_at: datetime


class LabelList(Response):
    """Labels, the newest first."""

    items: list[LabelAnswer]
    next: int | None
