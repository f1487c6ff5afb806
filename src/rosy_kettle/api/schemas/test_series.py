"""Series of tests side by side: a claim, its variants, the baths under their codes, and what they say."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Limit, Number, PlainText, Query, Request, RequestKey, Response
from rosy_kettle.api.schemas.tub_tests import BathSave
from rosy_kettle.core.learning.blind_series import SeriesPlace, TestReading
from rosy_kettle.core.learning.series import Claim, SeriesJudgement
from rosy_kettle.core.records import Use
from rosy_kettle.usecases.tub.run_series import SeriesTest, VariantSheet

__all__ = ["ClaimSave", "MoreSave", "SeriesAnswer", "SeriesList", "SeriesPath", "SeriesQuery", "SeriesSave", "SlipAnswer"]

Each = Annotated[int, Field(ge=1, le=30)]
Letter = Annotated[str, Field(min_length=1, max_length=20)]


class SeriesPath(BaseModel):
    """Which series."""

    series_id: Number


class SeriesQuery(BaseModel):
    """A page of series: words in the name, and where the page before ended."""

    q: Query = ""
    cursor: Number | None = None
    limit: Limit = 50


class ClaimSave(Request):
    """One variant is better than another, by at least so much."""

    reading: Annotated[str, Field(min_length=1, max_length=60)]
    better: Letter
    than: Letter
    worth: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)] | None = None
    lower_is_better: bool = False


class SeriesSave(BathSave):
    """Two to six formulas held against each other in one bath."""

    name: PlainText
    formula_ids: Annotated[list[Number], Field(max_length=20)]
    claim: ClaimSave
    each: Each = 3
    key: RequestKey | None = None


class MoreSave(Request):
    """Further baths of each variant."""

    each: Each


class SlipAnswer(Response):
    """Codes and variants, for the hands that wrap the pieces."""

    places: list[SeriesPlace]


class SeriesAnswer(Response):
    """A series as it stands."""

    id: int
    name: str
    claim: Claim
    reading: TestReading
    readings: list[TestReading]
    """All that tests are compared by."""
    use: Use
    begun_at: datetime
    opened: int
    made: int
    tests: list[SeriesTest]
    variants: list[VariantSheet]
    judgement: SeriesJudgement | None


class SeriesList(Response):
    """Series, the newest first, and the readings claims are made in."""

    items: list[SeriesAnswer]
    next: int | None
    readings: list[TestReading]
