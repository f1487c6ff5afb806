"""Troubles, their causes, and what they turned out to be."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Limit, Number, Query, Request, RequestKey, Response
from rosy_kettle.core.change.why.levers import Effect

__all__ = [
    "AnswersSave", "CauseAnswer", "ChangeSave", "EvidenceAnswer", "OutcomeSave", "QuestionAnswer", "SymptomAnswer", "SymptomList",
    "TakenChange", "TroubleAnswer", "TroubleGlance", "TroubleList", "TroublePath", "TroubleQuery", "TroubleSave",
]  # fmt: skip

Answers = Annotated[dict[str, str | float | int | None], Field(max_length=40)]
Word = Annotated[str, Field(max_length=40, pattern=r"^[a-z-]+$")]


class TroubleSave(Request):
    """What is seen, and of what; nothing named is a piece from elsewhere."""

    symptom: Word
    formula_id: Number | None = None
    batch_id: Number | None = None
    tray_id: Number | None = None
    test_id: Number | None = None
    answers: Answers = {}
    key: RequestKey | None = None


class AnswersSave(Request):
    """Answers to questions; null takes one back."""

    answers: Answers


class OutcomeSave(Request):
    """What it was: a cause, none-of-these, or null where nobody knows yet."""

    cause: Word | None
    remark: Annotated[str, Field(max_length=2000)] = ""


class ChangeSave(Request):
    """The cause whose change of the formula is taken."""

    cause: Word


class TakenChange(Response):
    """The formula that was changed, and its version now."""

    formula_id: int
    version: int


class TroublePath(BaseModel):
    """Which trouble."""

    trouble_id: Number


class TroubleQuery(BaseModel):
    """A page of troubles."""

    q: Query = ""
    batch_id: Number | None = None
    cursor: Number | None = None
    limit: Limit = 50


class SymptomAnswer(Response):
    """Something that can be seen."""

    id: str
    title: str
    words: str
    drawing: str


class SymptomList(Response):
    """All of them."""

    items: list[SymptomAnswer]
    next: None = None


class EvidenceAnswer(Response):
    """One thing that speaks for a cause, or against it."""

    supports: bool
    what: str
    source: str


class CauseAnswer(Response):
    """One cause."""

    id: str
    chance: float
    evidence: list[EvidenceAnswer]
    now: str
    next_time: str
    change: list[dict[str, Any]] | None
    """Lines of the formula before and after [g]."""
    effects: list[Effect]


class QuestionAnswer(Response):
    """One question; a unit as its only choice asks for a number."""

    id: str
    text: str
    choices: list[str]


class TroubleGlance(Response):
    """A trouble in a list."""

    id: int
    symptom: str
    title: str
    name: str
    batch_id: int | None
    outcome: str | None
    created_at: datetime


class TroubleList(Response):
    """Troubles, the newest first."""

    items: list[TroubleGlance]
    next: int | None


class TroubleAnswer(Response):
    """A trouble with all that is made of it."""

    id: int
    symptom: str
    title: str
    drawing: str
    name: str
    formula_id: int | None
    batch_id: int | None
    tray_id: int | None
    test_id: int | None
    answers: dict[str, Any]
    causes: list[CauseAnswer]
    questions: list[QuestionAnswer]
    caution: str | None
    outcome: str | None
    remark: str
    created_at: datetime
