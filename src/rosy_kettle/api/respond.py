"""Turning records into JSON answers."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import fields
from typing import Any, TypeVar

from flask import Response, request
from pydantic import BaseModel, TypeAdapter

from rosy_kettle.files.not_understood import keys_left

__all__ = ["keys_not_understood", "respond", "respond_file", "told_with"]

Told = TypeVar("Told")
_adapters: dict[type[Any], TypeAdapter[Any]] = {}


def respond(value: Any, status: int = 200) -> Response:
    """Return a pydantic model or a dataclass as JSON."""
    kind = type(value)
    adapter = _adapters.get(kind) or _adapters.setdefault(kind, TypeAdapter(kind))
    return Response(adapter.dump_json(value), status=status, mimetype="application/json")


def respond_file(data: bytes, mimetype: str, name: str) -> Response:
    """Return a file to be kept under a name."""
    return Response(data, mimetype=mimetype, headers={"Content-Disposition": f'attachment; filename="{name}"'})


def keys_not_understood(asked: BaseModel) -> list[str]:
    """Return the paths of the keys of the request that its shape does not name, and of papers no line of its formula asks for.

    Parameters
    ----------
    asked : BaseModel
        The body as it was read

    Returns
    -------
    list of str
        Dotted paths within the body, such as ``formula.use.tub_litres``
    """
    return keys_left(type(asked), request.get_json())


def told_with(kind: Callable[..., Told], record: Any, asked: BaseModel) -> Told:
    """Return a record told together with what was not understood of the request.

    Parameters
    ----------
    kind : Callable
        Makes the record's own kind with ``not_understood`` beside it
    record : Any
        What was worked out
    asked : BaseModel
        The body as it was read

    Returns
    -------
    Told
        One answer
    """
    told = {field.name: getattr(record, field.name) for field in fields(record)}
    return kind(**told, not_understood=tuple(keys_not_understood(asked)))
