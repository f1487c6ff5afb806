"""Designs of mini-batches: what is varied, the trials, what they read, and what is fitted."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Limit, Number, Query, Request, RequestKey, Response
from rosy_kettle.core.learning.mixture_response import MixtureResponse
from rosy_kettle.usecases.learning.run_trials import Trial, TrialBound

__all__ = ["AmendSave", "DesignAnswer", "DesignList", "DesignPath", "DesignQuery", "DesignSave", "ResultPath", "ResultSave"]

Percent = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
Figure = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]


class DesignPath(BaseModel):
    """Which design."""

    design_id: Number


class ResultPath(DesignPath):
    """Which result of which design."""

    result_id: Number


class DesignQuery(BaseModel):
    """A page of designs: words in the name, and where the page before ended."""

    q: Query = ""
    cursor: Number | None = None
    limit: Limit = 50


class BoundSave(Request):
    """An ingredient and how much of the formula it may be."""

    ingredient: Annotated[str, Field(min_length=1, max_length=80)]
    low_pct: Percent
    high_pct: Percent


class DesignSave(Request):
    """Two or three ingredients of a formula, varied against each other in mini-batches."""

    formula_id: Number
    reading: Annotated[str, Field(min_length=1, max_length=60)]
    wanted: Literal["more", "less"] = "more"
    bounds: Annotated[list[BoundSave], Field(max_length=10)]
    trials: Annotated[int, Field(ge=2, le=30)] = 8
    batch_g: Annotated[float, Field(ge=20, le=2000, allow_inf_nan=False)] = 80.0
    key: RequestKey | None = None


class ResultSave(Request):
    """What a trial read."""

    trial: Annotated[int, Field(ge=1, le=1000)]
    value: Figure


class AmendSave(Request):
    """What a result should have said; null leaves it out."""

    value: Figure | None


class DesignAnswer(Response):
    """A design as it stands."""

    id: int
    formula_id: int
    trials_formula_id: int
    name: str
    reading: str
    label: str
    unit: str
    wanted: str
    batch_g: float
    degree: int
    efficiency: float
    designed_at: datetime
    bounds: list[TrialBound]
    trials: list[Trial]
    response: MixtureResponse
    warning: str
    """What speaks against beginning; "" where nothing does."""


class PouredAnswer(Response):
    """The version that the best mixture became."""

    formula_id: int
    version: int
    note: str
    """What proves it."""


class DesignList(Response):
    """Designs, the newest first."""

    items: list[DesignAnswer]
    next: int | None
