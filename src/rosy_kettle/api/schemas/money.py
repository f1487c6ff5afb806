"""Price, cost and margin of a formula."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from rosy_kettle.api.schemas.common import Request, Response
from rosy_kettle.files import FormulaFile

__all__ = ["DearAnswer", "MoneyAnswer", "MoneyAsk", "SizeAnswer"]

Size = Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)]


class MoneyAsk(Request):
    """A formula as it is typed, and sizes of the batch to ask about [g]; none takes a quarter to sixteen times as written."""

    formula: FormulaFile
    sizes_g: Annotated[list[Size], Field(max_length=40)] = []


class SizeAnswer(Response):
    """One piece of a batch of some size; money as decimal text."""

    batch_g: float
    pieces: float
    ingredients: str
    packaging: str
    labour: str
    overhead: str
    whole: str
    margin: str | None
    margin_pct: float | None


class DearAnswer(Response):
    """What an ingredient takes of the money; money as decimal text."""

    ingredient: str
    name: str
    mass_g: float
    cost: str
    share_pct: float
    per_gram: str


class MoneyAnswer(Response):
    """All that is said of the money of a formula."""

    currency: str
    note: str
    written_g: float
    piece_mass_g: float
    price: str
    written: SizeAnswer | None
    sizes: list[SizeAnswer]
    dearest: list[DearAnswer]
    lots: dict[str, str]
    """What the batch as written costs by the lots it would be made from now, by the currency they were paid in."""
    not_priced: list[str]
