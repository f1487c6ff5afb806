"""Practice bowls and runs."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.batches import BatchAnswer
from rosy_kettle.api.schemas.common import Limit, Number, Request, RequestKey, Response
from rosy_kettle.api.schemas.happenings import EventId

__all__ = [
    "ActSave", "BestHandAnswer", "CalledAnswer", "CardAnswer", "CardList", "CardQuery", "DebriefAnswer", "FeltAnswer",
    "JarAnswer", "MomentAnswer", "PracticeBowl", "PracticeBowlList", "RunAnswer", "RunGlance", "RunList", "RunPath",
    "RunQuery", "RunSave", "StepEffect",
]  # fmt: skip


class RunSave(Request):
    """Begin a run: seed 0 is the bowl as it stands, any other moves what is hidden a little."""

    scenario: Annotated[str, Field(max_length=40)]
    seed: Annotated[int, Field(ge=0, lt=2**31)] = 0
    key: RequestKey | None = None


class ActSave(Request):
    """One thing done: grams as the scale shows them, or minutes."""

    after: Annotated[int, Field(ge=0, le=1000)]
    """How many things were done before."""
    kind: Literal["add", "mix", "rest", "feel", "called", "hint", "shape"]
    ingredient: Annotated[str, Field(max_length=80)] = ""
    value: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)] = 0.0
    word: Annotated[str, Field(max_length=40)] = ""
    """What the dough is called."""
    id: EventId | None = None
    """Its own name, given where it is made; a repeat of it changes nothing."""


class RunPath(BaseModel):
    """Which run."""

    run_id: Number


class RunQuery(BaseModel):
    """A page of runs."""

    cursor: Number | None = None
    limit: Limit = 50


class CardQuery(BaseModel):
    """Which pack of cards."""

    seed: Annotated[int, Field(ge=0, lt=2**31)] = 0


class JarAnswer(Response):
    """A jar at the bowl."""

    ingredient: str
    name: str
    mass_g: float | None
    """By the recipe; null where it is not in it."""


class PracticeBowl(Response):
    """A bowl one can practise at."""

    id: str
    title: str
    story: str
    level: int
    method: str


class PracticeBowlList(Response):
    """All of them."""

    items: list[PracticeBowl]
    next: None = None


class FeltAnswer(Response):
    """What the hands said."""

    minutes: float
    state: str
    temperature_c: float


class CalledAnswer(Response):
    """What the dough was taken for, beside what it was; told only after the end."""

    minutes: float
    called: str
    was: str
    saturation: float


class MomentAnswer(Response):
    """The bowl at a moment; told only after the end."""

    minutes: float
    settles_at: float
    now: float
    temperature_c: float


class StepEffect(Response):
    """What one correction did."""

    minutes: float
    ingredient: str
    name: str
    mass_g: float
    before: float
    after: float


class BestHandAnswer(Response):
    """What the best hand would have done."""

    words: list[str]
    score: float
    settles_at: float


class DebriefAnswer(Response):
    """The truth, once the bowl is shaped."""

    truth: list[str]
    wanted_low: float
    wanted_high: float
    settles_at: float
    path: list[MomentAnswer]
    effects: list[StepEffect]
    called: list[CalledAnswer]
    score: dict[str, float]
    best: BestHandAnswer


class RunAnswer(Response):
    """A practice run as it stands; it touches neither stock nor journal nor learning."""

    practice: Literal[True] = True
    id: int
    scenario: str
    seed: int
    title: str
    story: str
    hint: str | None
    """Null until it is asked for; asking costs ``hint_costs`` points."""
    hint_costs: float
    level: int
    wanted: list[str]
    jars: list[JarAnswer]
    dry: str
    wet: str
    done: int
    minutes: float
    temperature_c: float
    humidity_pct: float
    room_c: float
    added: list[JarAnswer]
    felt: list[FeltAnswer]
    fresh: bool
    """Whether the last handful was squeezed after everything that was done."""
    ended: bool
    bench: BatchAnswer
    """The run as the bench shows a batch."""
    debrief: DebriefAnswer | None


class RunGlance(Response):
    """A run in a list."""

    id: int
    scenario: str
    title: str
    seed: int
    ended: bool
    score: float | None
    created_at: datetime


class RunList(Response):
    """Runs, the newest first."""

    items: list[RunGlance]
    next: int | None


class CardAnswer(Response):
    """A dough for the eye."""

    saturation: float
    state: str


class CardList(Response):
    """A pack of them, and what they can be called."""

    items: list[CardAnswer]
    states: list[str]
    next: None = None
