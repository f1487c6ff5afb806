"""What does not change: methods, tools, units, readings."""

from __future__ import annotations

from typing import Any

from rosy_kettle.api.schemas.common import Response
from rosy_kettle.files import FormulaFile

__all__ = [
    "BandAnswer",
    "FormatList",
    "Health",
    "MethodAnswer",
    "ReadingAnswer",
    "ReadingList",
    "ReferenceAnswer",
    "StateAnswer",
    "ToolAnswer",
    "UnitAnswer",
]


class FormatList(Response):
    """JSON Schema of every file format, by name."""

    formats: dict[str, dict[str, Any]]


class Health(Response):
    """The server is up."""

    status: str
    version: str


class BandAnswer(Response):
    """A band that belongs to a reading itself; None is open."""

    low: float | None
    high: float | None


class ReadingAnswer(Response):
    """A reading as it is declared; ``question`` is the maker's question it answers, ``curve`` what it is read off."""

    id: str
    label: str
    unit: str
    kind: str
    basis: str
    explained: str
    question: str
    scale_low: float | None
    scale_high: float | None
    decimals: int | None
    desk: int | None
    curve: str
    aim: bool
    has_why: bool
    half_width: float | None
    watched: int | None
    """Where it stands among the readings that are set side by side when something changes."""
    lane: BandAnswer | None
    always: BandAnswer | None


class MethodAnswer(Response):
    """A method, as far as the Desk needs it."""

    id: str
    name: str
    summary: str
    piece_mass_g: float
    dose_g: float
    judged_at_c: float | None
    wanted_states: list[str]
    saturation_low: float | None
    saturation_high: float | None
    set_time: str


class ToolAnswer(Response):
    """A tool that shapes pieces."""

    id: str
    name: str
    type: str
    volume_ml: float


class UnitAnswer(Response):
    """A unit an amount may carry."""

    id: str
    label: str


class StateAnswer(Response):
    """A state of the dough and where it begins."""

    state: str
    saturation_from: float


class ReferenceAnswer(Response):
    """Everything the pages need once."""

    methods: list[MethodAnswer]
    tools: list[ToolAnswer]
    units: list[UnitAnswer]
    states: list[StateAnswer]
    readings: list[ReadingAnswer]
    empty_formula: FormulaFile
    """A formula with nothing in it and everything as usual: room, bath, batch."""
    very_damp_pct: float
    """Air from which open drying hardly goes on [% RH]."""
    pan_steps: int
    """Steps of its scale a pan of pieces must weigh, to say when they are dry."""


class ReadingList(Response):
    """The registry of readings."""

    readings: list[ReadingAnswer]
