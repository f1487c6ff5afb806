"""Tasks of a tray are done, taken back or moved; questions to the hands are answered; it is put elsewhere."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Annotated

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.happening import About, Data, Event, EventKind, Length
from rosy_kettle.core.making.rack.record import TrayState

__all__ = ["CHECKED", "DONE", "MOVED", "NOTE", "OPENED", "PUT", "UNDONE", "WRAPPED"]

Word = Annotated[str, Length(1, 40)]
WRAP = "wrap"


@dataclass(frozen=True, slots=True)
class Checked:
    """The answer to a question to the hands."""

    check: Word
    passed: bool


@dataclass(frozen=True, slots=True)
class TaskDone:
    """A task is done."""

    task: Word


@dataclass(frozen=True, slots=True)
class TaskUndone:
    """A task was not done after all."""

    task: Word


@dataclass(frozen=True, slots=True)
class TaskMoved:
    """A task is put off, or brought forward."""

    task: Word
    to: datetime


@dataclass(frozen=True, slots=True)
class Put:
    """The tray stands in another place now."""

    place: Annotated[str, Length(1, 60, r"^[^\x00-\x1f\x7f/]*$")]


@dataclass(frozen=True, slots=True)
class Note:
    """Something worth remembering."""

    text: Annotated[str, Length(1, 2000)]


@dataclass(frozen=True, slots=True)
class Wrapped:
    """The pieces are wrapped."""


@dataclass(frozen=True, slots=True)
class Opened:
    """The pieces are opened again."""


def _words(key: str) -> str:
    return key.replace("-", " ").replace("_", " ")


def _moved_once(state: TrayState, task: str) -> dict[str, int]:
    return {**state.moves, task: state.moves.get(task, 0) + 1}


def _fold_checked(state: TrayState, event: Event) -> TrayState:
    return replace(state, checks={**state.checks, event.data["check"]: bool(event.data["passed"])})


def _done(state: TrayState, task: str, at: str) -> TrayState:
    return replace(state, done={**state.done, task: at}, moves=_moved_once(state, task))


def _undone(state: TrayState, task: str) -> TrayState:
    return replace(state, done={key: at for key, at in state.done.items() if key != task}, moves=_moved_once(state, task))


def _check_undone(state: TrayState, data: Data) -> None:
    if data["task"] not in state.done:
        raise InputError("This was not done, so it cannot be taken back.", quantity="task", value=data["task"])


def _fold_moved(state: TrayState, event: Event) -> TrayState:
    task = event.data["task"]
    return replace(state, due={**state.due, task: event.data["to"]}, moves=_moved_once(state, task))


def _check_opened(state: TrayState, _data: Data) -> None:
    if state.wrapped_at is None:
        raise InputError("These pieces are not wrapped.", quantity="kind")


def _tell_checked(event: Event, _about: About) -> str:
    return f"Looked at: {_words(event.data['check'])}, {'yes' if event.data['passed'] else 'not yet'}."


def _tell_moved(event: Event, _about: About) -> str:
    return f"Moved {_words(event.data['task'])} to {datetime.fromisoformat(event.data['to']):%d %b %Y, %H:%M} UTC."


CHECKED = EventKind("checked", Checked, _tell_checked, _fold_checked, journal="check", righted_by="checked")
DONE = EventKind(
    "done", TaskDone, lambda event, _about: f"Done: {_words(event.data['task'])}.",
    lambda state, event: _done(state, event.data["task"], event.at), journal="task", righted_by="undone",
)  # fmt: skip
UNDONE = EventKind(
    "undone", TaskUndone, lambda event, _about: f"Not done after all: {_words(event.data['task'])}.",
    lambda state, event: _undone(state, event.data["task"]), _check_undone, "task", righted_by="done",
)  # fmt: skip
MOVED = EventKind("moved", TaskMoved, _tell_moved, _fold_moved, journal="task", righted_by="moved")
PUT: EventKind[TrayState] = EventKind(
    "put", Put, lambda event, _about: f"Put to dry in: {event.data['place']}.",
    lambda state, event: replace(state, place=event.data["place"]), journal="tray", righted_by="put",
)  # fmt: skip
NOTE: EventKind[TrayState] = EventKind(
    "note", Note, lambda event, _about: f"Note: {event.data['text']}",
    lambda state, event: replace(state, notes=(*state.notes, event.data["text"])), journal="note", always=True, late="goes in",
    righted_by="note",
)  # fmt: skip
WRAPPED = EventKind(
    "wrapped", Wrapped, lambda _event, _about: "Wrapped.",
    lambda state, event: replace(_done(state, WRAP, event.at), wrapped_at=event.at), journal="tray", righted_by="opened",
)  # fmt: skip
OPENED = EventKind(
    "opened", Opened, lambda _event, _about: "Opened again.",
    lambda state, _event: replace(_undone(state, WRAP), wrapped_at=None), _check_opened, "tray", late="goes in",
    righted_by="wrapped",
)  # fmt: skip
