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
    TypeAdapter(kind).validate_python(data)
