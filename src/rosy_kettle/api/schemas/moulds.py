"""How many of each mould the studio has."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from rosy_kettle.api.schemas.common import Request, Response

__all__ = ["MouldList", "MouldSave"]


class MouldList(Response):
    """Counts by tool; what is not in it has not been counted."""

    counts: dict[str, int]


class MouldSave(Request):
    """How many there are; null is not counted."""

    count: Annotated[int, Field(ge=1, le=10_000)] | None
