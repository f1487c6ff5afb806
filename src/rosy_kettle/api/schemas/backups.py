"""Backups, and the studio as a zip."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Response
from rosy_kettle.usecases.studio.studio_warnings import StudioWarning

__all__ = [
    "BackupAnswer",
    "BackupList",
    "BackupPath",
    "DifferenceAnswer",
    "ImportQuery",
    "ImportedAnswer",
    "RestoredAnswer",
    "TransferAnswer",
    "WarningList",
]


class BackupPath(BaseModel):
    """Which backup."""

    name: Annotated[str, Field(pattern=r"^studio-[a-z0-9TZ-]{1,80}\.sqlite3$")]


class BackupAnswer(Response):
    """One backup, verified when it was made."""

    name: str
    made_at: datetime
    size_bytes: int
    by_hand: bool


class WarningList(Response):
    """What is to be said of the studio, quietly."""

    items: list[StudioWarning]


class BackupList(Response):
    """Backups, the newest first."""

    items: list[BackupAnswer]
    next: None = None


class RestoredAnswer(Response):
    """A backup is in place; what was there is kept under that name."""

    kept: str


class ImportQuery(BaseModel):
    """Whether the zip is taken into a studio that is not empty."""

    merge: bool = False


class DifferenceAnswer(Response):
    """Something that is not the same in both studios: both sides, and what was done about it."""

    noun: str
    name: str
    here: dict[str, Any]
    there: dict[str, Any]
    done: str


class ImportedAnswer(Response):
    """What was taken in: new rows by table, photos, and what differed."""

    made_at: str
    taken: dict[str, int]
    photos: int
    differences: list[DifferenceAnswer]


class TransferAnswer(Response):
    """How far an export or import is."""

    running: bool
    kind: str
    done: int
    whole: int
