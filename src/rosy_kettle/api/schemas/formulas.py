"""Formulas, versions and pasted recipes."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field, RootModel

from rosy_kettle.api.schemas.common import Described, Limit, PlainText, Query, Request, Response
from rosy_kettle.core.change.why.compare import Comparison
from rosy_kettle.files.formula_file import FormulaFile
from rosy_kettle.usecases.formulas.list_formulas import FormulaGlance

__all__ = [
    "Branch", "ComparisonAnswer", "ComparisonQuery", "FormulaAnswer", "FormulaList", "FormulaPath", "FormulaQuery",
    "FormulaSave", "RecipeAnswer", "RecipeLine", "RecipeText", "RunSheetQuery", "VersionKeep", "VersionPath", "VersionSummary",
]  # fmt: skip


class FormulaPath(BaseModel):
    """Which formula."""

    formula_id: Annotated[int, Field(ge=1, le=2**53, description="Number of the formula")]


class FormulaSave(Request):
    """A save from the Desk: the formula, and the revision it was made on."""

    revision: Annotated[int, Field(ge=1)]
    formula: FormulaFile


class VersionKeep(Request):
    """Keep the version being worked on."""

    note: Annotated[str, Field(max_length=500)] = ""


class VersionPath(FormulaPath):
    """Which version of which formula."""

    number: Annotated[int, Field(ge=1, le=2**31, description="Number of the version")]


class ComparisonQuery(BaseModel):
    """Two versions to be compared."""

    first: Annotated[int, Field(ge=1, le=2**31)]
    second: Annotated[int, Field(ge=1, le=2**31)]


class Branch(Request):
    """A formula of its own from a version."""

    name: Annotated[PlainText, Field(min_length=1)]


class ComparisonAnswer(Described, RootModel[Comparison]):
    """Lines and readings side by side, with causes."""


class VersionSummary(Response):
    """One version of a formula."""

    number: int
    note: str
    created_at: datetime
    frozen_at: datetime | None


class FormulaAnswer(Response):
    """A stored formula with its working version."""

    id: int
    revision: int
    updated_at: datetime
    version: int
    versions: list[VersionSummary]
    formula: FormulaFile


class FormulaQuery(BaseModel):
    """A page of formulas: words in name, method or ingredients, and where the page before ended."""

    q: Query = ""
    cursor: Annotated[str, Field(max_length=80)] | None = None
    limit: Limit = 50


class FormulaList(Response):
    """A page of formulas, last changed first."""

    formulas: list[FormulaGlance]
    next: str | None
    """Cursor of the next page; null at the end."""
    in_all: int
    """Formulas there are, whatever is searched for."""
    off: int
    """Of those, how many would not give the dough their method wants."""
    waiting: int
    """Formulas whose figures are still being worked out."""


class RunSheetQuery(BaseModel):
    """How many pieces, of what size."""

    pieces: Annotated[int, Field(ge=1, le=100_000)] = 10
    piece_mass_g: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] | None = None
    tool: str | None = None
    scoop_fill: Literal["level", "rounded", "domed"] = "level"


class RecipeText(Request):
    """Pasted recipe text, and which of its recipes is wanted where it holds several."""

    text: str
    which: Annotated[int, Field(ge=0, le=1000)] = 0


class RecipeLine(Response):
    """A line as it was read."""

    text: str
    ingredient: str | None
    amount: str
    unit: str
    phase: str
    notes: list[str]
    suggestions: list[str]
    """For a name nobody knows, what it may be; for a known one, what may have been meant instead."""
    portion: str
    unknown_name: str | None


class RecipeAnswer(Response):
    """A recipe as it was read, for the maker to confirm."""

    name: str
    method: str
    lines: list[RecipeLine]
    aside: list[str]
    pieces: int | None
    """How many pieces the recipe says it makes."""
    recipes: list[str]
    """Names of all recipes of the text, in its order."""
