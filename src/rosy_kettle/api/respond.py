"""Turning records into JSON answers."""

from __future__ import annotations

from functools import cache
from collections.abc import Hashable
from typing import Any

from flask import Response
from pydantic import TypeAdapter

__all__ = ["respond"]


@cache
def _adapter(kind: Hashable) -> TypeAdapter[Any]:
    return TypeAdapter[Any](kind)


def respond(value: Any, status: int = 200) -> Response:
    """Return a pydantic model or a dataclass as JSON."""
    return Response(_adapter(type(value)).dump_json(value), status=status, mimetype="application/json")
