"""Tests in the tub: what went into which bath, what was foretold, what was seen."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Limit, Number, PlainText, Query, Request, RequestKey, Response
from rosy_kettle.core.making.tub.foretold import Foretold
from rosy_kettle.core.making.tub.tub_test import TubState
from rosy_kettle.core.records import Use

__all__ = ["BathSave", "TestAnswer", "TestEventSave", "TestList", "TestPath", "TestQuery", "TestSave"]

Centimetres = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
Minutes = Annotated[float, Field(ge=0, le=600, allow_inf_nan=False)]
Word = Annotated[str, Field(min_length=1, max_length=200)]


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


class OpenedEvent(Request):
    """The tap is opened, or the test is closed."""

    kind: Literal["opened", "closed"]


class FoamEvent(Request):
    """Foam stands so high so long after the tap was opened."""

    kind: Literal["foam"]
    minutes: Minutes
    height_cm: Centimetres


class AmendedHeight(Request):
    """What a height should have said; what it said stays in the record."""

    kind: Literal["amended"]
    of: Number
    height_cm: Centimetres | None = None
    left_out: bool | None = None


class SeenEvent(Request):
    """What was seen beside the foam."""

    kind: Literal["seen"]
    gone_after_min: Minutes | None = None
    floats: Word | None = None
    spins: Word | None = None
    tint: Word | None = None
    cloud: Word | None = None
    ring: Word | None = None
    film: Word | None = None
    slip: Word | None = None
    skin: Word | None = None
    scent: Word | None = None


class LeftEvent(Request):
    """What is left of the piece, for the next bath."""

    kind: Literal["left"]
    mass_g: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]


class TestNote(Request):
    """Something worth remembering."""

    __test__ = False

    kind: Literal["note"]
    text: Annotated[str, Field(min_length=1, max_length=2000)]


TestHappening = Annotated[OpenedEvent | FoamEvent | AmendedHeight | SeenEvent | LeftEvent | TestNote, Field(discriminator="kind")]


class TestEventSave(Request):
    """One thing that happened, after what the browser has seen."""

    __test__ = False

    after: Annotated[int, Field(ge=0, le=2**53)]
    event: TestHappening


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
