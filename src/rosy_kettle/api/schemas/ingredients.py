"""Ingredients, prices and learned names."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Request, Response
from rosy_kettle.files.product_file import CertificateFile
from rosy_kettle.usecases.pantry.read_pantry import PropertyView

__all__ = [
    "IngredientAnswer", "IngredientList", "IngredientPath", "IngredientSummary", "OwnIngredientSave",
    "PriceSave", "SynonymPath", "SynonymSave",
]  # fmt: skip

MaybeNumber = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] | None


class IngredientPath(BaseModel):
    """Which ingredient."""

    ingredient_id: str


class SynonymPath(IngredientPath):
    """Which learned name."""

    phrase: str


class IngredientSummary(Response):
    """An ingredient in the list."""

    id: str
    name: str
    short_name: str
    inci: str
    role: str
    form: str
    phase: str
    own: bool
    price_per_kg: str | None
    price_basis: str | None
    confidence: str
    certificate: CertificateFile | None
    """The supplier's paper of a scent, where the studio has entered it."""
    synonyms: list[str]
    """Everyday names, the learned ones among them; for searching."""


class IngredientList(Response):
    """All ingredients, the studio's own first."""

    ingredients: list[IngredientSummary]


class IngredientAnswer(Response):
    """Everything known about an ingredient."""

    id: str
    name: str
    short_name: str
    inci: str
    role: str
    note: str
    own: bool
    based_on: str | None
    price_per_kg: str | None
    price_basis: str | None
    price_band: list[str] | None
    price_breaks: list[list[str]]
    """Pairs of amount from which [kg] and price [currency/kg], smallest amount first."""
    currency: str
    price_note: str
    """What to know of the price: converted by which rate, or why there is none."""
    properties: list[PropertyView]
    learned: list[str]
    synonyms: list[str]
    certificate: CertificateFile | None
    on_hand_g: float | None
    """What is there [g]; null is not known."""


class PriceBreakText(Request):
    """A price that holds from some amount on, as typed."""

    from_kg: Annotated[str, Field(max_length=20)]
    price_per_kg: Annotated[str, Field(max_length=20)]


class PriceSave(Request):
    """What the studio pays, as typed [USD/kg]."""

    price_per_kg: Annotated[str, Field(max_length=20)]
    breaks: Annotated[list[PriceBreakText], Field(max_length=12)] = []


class SynonymSave(Request):
    """A name the reader should know from now on."""

    phrase: Annotated[str, Field(min_length=1, max_length=100)]


class OwnIngredientSave(Request):
    """An ingredient of the studio's own. Null properties are not known; left-out ones come from ``based_on``."""

    based_on: str
    name: Annotated[str, Field(min_length=1, max_length=100)]
    inci: Annotated[str, Field(max_length=500)] = ""
    note: Annotated[str, Field(max_length=2000)] = ""
    properties: Annotated[dict[str, MaybeNumber], Field(default_factory=dict)]
