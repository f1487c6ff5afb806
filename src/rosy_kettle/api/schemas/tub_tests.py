"""Tests in the tub: what went into which bath, what was foretold, what was seen."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Limit, Number, PlainText, Query, Request, RequestKey, Response
from rosy_kettle.api.schemas.happenings import EventId, MadeAt, Said, said_union
from rosy_kettle.core.making.tub.foretold import Foretold
from rosy_kettle.core.making.tub.tub_test import TUB_EVENTS, TubState
from rosy_kettle.core.records import Use

__all__ = ["BathSave", "TestAnswer", "TestEventSave", "TestList", "TestPath", "TestQuery", "TestSave"]


class TestPath(BaseModel):
    """Which test."""

    __test__ = False

    test_id: Number


class TestQuery(BaseModel):
    """A page of tests: words in the name, one formula's, and where the page before ended."""

    __test__ = False

    q: Query = ""
    formula_id: Number | None = None
    cursor: Number | None = None
    limit: Limit = 50


class BathSave(Request):
    """A bath and how much goes into it."""

    dose_g: Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)]
    tub_l: Annotated[float, Field(ge=1, le=2000, allow_inf_nan=False)] = Use().tub_l
    tub_area_m2: Annotated[float, Field(ge=0.01, le=10, allow_inf_nan=False)] = Use().tub_area_m2
    bath_c: Annotated[float, Field(ge=5, le=60, allow_inf_nan=False)] = Use().bath_c
    hardness: Annotated[str, Field(max_length=40)] = "moderate"
    way: Literal["crumbled", "held", "whole"] = "crumbled"


class TestSave(BathSave):
    """A piece, or part of one, and a bath."""

    __test__ = False

    batch_id: Number | None = None
    formula_id: Number | None = None
    name: PlainText = ""
    key: RequestKey | None = None


if TYPE_CHECKING:
    TestHappening = Said
else:
    TestHappening = said_union(TUB_EVENTS, "Tub")


class TestEventSave(Request):
    """One thing that happened, after what the browser has seen."""

    __test__ = False

    after: Annotated[int, Field(ge=0, le=2**53)]
    event: TestHappening
    id: EventId | None = None
    """The event's own name, where it does not stand in the event itself."""
    made_at: MadeAt | None = None


class TestAnswer(Response):
    """A test as it stands."""

    __test__ = False

    id: int
    formula_id: int | None
    batch_id: int | None
    version: int | None
    name: str
    use: Use
    foretold: Foretold
    begun_at: datetime
    closed_at: datetime | None
    series_id: int | None
    blind: bool
    """A bath of a series whose code is closed: formula, batch and what was foretold are not told yet."""
    baths: float | None
    """How many baths the piece is good for, by what was left of it."""
    state: TubState


class TestList(Response):
    """Tests, the newest first."""

    __test__ = False

    items: list[TestAnswer]
    next: int | None
