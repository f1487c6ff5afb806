"""One part of a product record, as it is told and printed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

__all__ = ["RecordPart"]


@dataclass(frozen=True, slots=True)
class RecordPart:
    """A heading, sentences, and perhaps a table."""

    title: str
    sentences: Sequence[str] = ()
    rows: Sequence[Sequence[str]] = ()
    """The first is the heading; empty is no table."""
    widths_mm: Sequence[float] = ()
    figures: Sequence[int] = field(default_factory=tuple)
    """Columns that are set to the right."""
