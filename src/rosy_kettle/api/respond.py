"""Turning records into JSON answers."""

from __future__ import annotations

from typing import Any

from flask import Response
from pydantic import TypeAdapter

__all__ = ["respond"]

_adapters: dict[type[Any], TypeAdapter[Any]] = {}


def respond(value: Any, status: int = 200) -> Response:
    """Return a pydantic model or a dataclass as JSON."""
    kind = type(value)
    adapter = _adapters.get(kind) or _adapters.setdefault(kind, TypeAdapter(kind))
    return Response(adapter.dump_json(value), status=status, mimetype="application/json")
