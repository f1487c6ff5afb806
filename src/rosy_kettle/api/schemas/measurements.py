"""Guided measurements."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Number, Request, RequestKey, Response
from rosy_kettle.core.records import Room

__all__ = ["DropsSave", "MeasurementAnswer", "MeasurementList", "MeasurementPath", "RopeSave"]

Grams = Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)]


class MeasurementPath(BaseModel):
    """Which measurement."""

    measurement_id: Number


class RopeSave(Request):
    """What a rope of a formula's powders did as its wetter was added."""

    formula_id: Number
    wetter: Annotated[str, Field(min_length=1, max_length=80)]
    temperature_c: Annotated[float, Field(ge=0, le=60, allow_inf_nan=False)] = Room().temperature_c
    rolls_at_g: Grams | None = None
    smears_at_g: Grams | None = None
    key: RequestKey | None = None


class DropsSave(Request):
    """How often dried pieces of a formula were dropped from 10 cm until a corner broke, on the mean."""

    formula_id: Number
    drops: Annotated[float, Field(ge=1, le=200, allow_inf_nan=False)]
    key: RequestKey | None = None


class MeasurementAnswer(Response):
    """One measurement."""

    id: int
    kind: str
    formula_id: int | None
    name: str
    facts: dict[str, Any]
    at: datetime


class MeasurementList(Response):
    """Measurements that count, the newest first."""

    items: list[MeasurementAnswer]
    next: int | None
