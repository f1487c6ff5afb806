"""The product record of a batch as data."""

from __future__ import annotations

from datetime import datetime

from rosy_kettle.api.schemas.common import Response
from rosy_kettle.core.making.label.texts import LabelText
from rosy_kettle.usecases.labels.product_record import RecordLine

__all__ = ["RecordAnswer", "RecordPartAnswer"]


class RecordPartAnswer(Response):
    """One part of the record: sentences, and a table whose first row is its heading."""

    title: str
    sentences: list[str]
    rows: list[list[str]]


class RecordAnswer(Response):
    """All that is on file; nothing in it claims that the product is safe."""

    batch_id: int
    name: str
    version: int | None
    lead: str
    made_at: datetime
    lines: list[RecordLine]
    unknown: list[str]
    labels: dict[str, list[LabelText]]
    parts: list[RecordPartAnswer]
