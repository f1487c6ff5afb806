"""Models that every blueprint uses."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel, ConfigDict

__all__ = ["ErrorAnswer", "Request", "Response"]


class Request(BaseModel):
    """A request body: types as sent, nothing coerced, unknown keys ignored."""

    model_config = ConfigDict(strict=True, extra="ignore")


class Response(BaseModel):
    """A response body: every field is present."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)


class ErrorAnswer(Response):
    """What every refused request gets."""

    code: str
    message: str
    details: dict[str, Any]
