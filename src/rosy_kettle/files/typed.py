"""Plain data held against the dataclass it should be."""

from __future__ import annotations

from typing import Any

from pydantic import TypeAdapter

__all__ = ["refuse_untyped"]


def refuse_untyped(kind: type[Any], data: Any) -> None:
    """Refuse data that is not of a dataclass's kinds.

    Raises
    ------
    ValueError
        If a value is of another kind.
    """
    _adapter(kind).validate_python(data)


_adapters: dict[type[Any], TypeAdapter[Any]] = {}


def _adapter(kind: type[Any]) -> TypeAdapter[Any]:
    """Return what holds data against a dataclass; made once, as that takes longer than a hundred looks."""
    if kind not in _adapters:
        _adapters[kind] = TypeAdapter(kind)
    return _adapters[kind]
