"""What all parts of a file share: strict types, bounded numbers."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

__all__ = ["Celsius", "Name", "NotNegative", "Percent", "Positive", "Shape"]

Positive = Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)]
NotNegative = Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
Celsius = Annotated[float, Field(ge=-20, le=150, allow_inf_nan=False)]
Name = Annotated[str, Field(max_length=120)]


class Shape(BaseModel):
    """Base of every part: no silent conversion, unknown keys are left aside."""

    model_config = ConfigDict(strict=True, extra="ignore", json_schema_serialization_defaults_required=True)
