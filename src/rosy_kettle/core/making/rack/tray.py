"""What happened to a tray: events in their order, and the state they add up to."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from typing import Any

from rosy_kettle.core.errors import ConflictError, InputError

__all__ = ["TRAY_EVENT_KINDS", "TrayEvent", "TrayState", "TrayWeighing", "check_tray_event", "tray_state_of"]

TRAY_EVENT_KINDS = ("weighed", "amended", "checked", "done", "undone", "moved", "put", "note", "wrapped", "opened")
SECONDS_PER_HOUR = 3600.0


@dataclass(frozen=True, slots=True)
class TrayEvent:
    """One thing that happened; never changed, never taken away."""

    seq: int
    at: str
    """UTC, ISO 8601."""
    kind: str
    data: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class TrayWeighing:
    """The pan with some pieces, as it was weighed or has been amended since."""

    seq: int
    at: str
    hours: float
    """Since the tray was set out [h]."""
    mass_g: float
    """All pieces together, less the pan [g]."""
    pieces: int
    step_g: float
    source: str
    temperature_c: float | None = None
    humidity_pct: float | None = None
    left_out: bool = False
    """Whether somebody has said that it does not count."""


@dataclass(frozen=True, slots=True)
class TrayState:
    """Where a tray stands."""

    seq: int = 0
    place: str = ""
    weighings: tuple[TrayWeighing, ...] = ()
    checks: Mapping[str, bool] = field(default_factory=dict)
    """Answer by check; the last one counts."""
    done: Mapping[str, str] = field(default_factory=dict)
    """Moment by kind of task [UTC, ISO 8601]."""
    due: Mapping[str, str] = field(default_factory=dict)
    """Moment a task was moved to, by its kind [UTC, ISO 8601]."""
    moves: Mapping[str, int] = field(default_factory=dict)
    """How often each task was moved, done or taken back; a calendar asks for it."""
    wrapped_at: str | None = None
    notes: tuple[str, ...] = ()


def hours_between(begin: str, end: str) -> float:
    """Return the hours from one moment to another; both carry their offset, so clocks may change between them."""
    return (datetime.fromisoformat(end) - datetime.fromisoformat(begin)).total_seconds() / SECONDS_PER_HOUR


def tray_state_of(set_out_at: str, place: str, events: Sequence[TrayEvent]) -> TrayState:
    """Return what the events of a tray add up to.

    Parameters
    ----------
    set_out_at : str
        When its pieces were set out [UTC, ISO 8601]
    place : str
        Where it stood first
    events : sequence of TrayEvent
        In their order

    Returns
    -------
    TrayState
        The same events always give the same state
    """
    state = TrayState(place=place)
    for event in events:
        state = replace(_FOLDS[event.kind](state, event, set_out_at), seq=event.seq)
    return state


def check_tray_event(state: TrayState, kind: str, data: Mapping[str, Any]) -> None:
    """Refuse what cannot be meant of the tray as it stands.

    Parameters
    ----------
    state : TrayState
        Where it stands
    kind : str
        One of ``TRAY_EVENT_KINDS``
    data : Mapping
        What the event says

    Raises
    ------
    ConflictError
        If the pieces are wrapped already.
    InputError
        If it names a weighing there is none of, or takes back what was not done.
    """
    if state.wrapped_at is not None and kind not in {"note", "amended", "opened"}:
        raise ConflictError("These pieces are wrapped; open them again first.", noun="tray", reason="wrapped")
    if kind == "amended" and data["of"] not in {each.seq for each in state.weighings}:
        raise InputError(f"There is no weigh-in {data['of']} on this tray.", quantity="of", value=data["of"])
    if kind == "undone" and data["task"] not in state.done:
        raise InputError("This was not done, so it cannot be taken back.", quantity="task", value=data["task"])
    if kind == "opened" and state.wrapped_at is None:
        raise InputError("These pieces are not wrapped.", quantity="kind")


def _weighed(state: TrayState, event: TrayEvent, set_out_at: str) -> TrayState:
    data = event.data
    at = str(data.get("at") or event.at)
    weighing = TrayWeighing(
        event.seq, at, hours_between(set_out_at, at), float(data["mass_g"]), int(data["pieces"]), float(data["step_g"]),
        str(data["source"]), data.get("temperature_c"), data.get("humidity_pct"),
    )  # fmt: skip
    # One that is written down late stands where it belongs in time.
    return replace(state, weighings=tuple(sorted((*state.weighings, weighing), key=lambda each: (each.hours, each.seq))))


def _amended(state: TrayState, event: TrayEvent, _set_out_at: str) -> TrayState:
    said = {key: event.data[key] for key in ("mass_g", "pieces", "left_out") if event.data.get(key) is not None}
    return replace(
        state, weighings=tuple(replace(each, **said) if each.seq == event.data["of"] else each for each in state.weighings)
    )


def _checked(state: TrayState, event: TrayEvent, _set_out_at: str) -> TrayState:
    return replace(state, checks={**state.checks, event.data["check"]: bool(event.data["passed"])})


def _moved_once(state: TrayState, task: str) -> dict[str, int]:
    return {**state.moves, task: state.moves.get(task, 0) + 1}


def _done(state: TrayState, event: TrayEvent, _set_out_at: str) -> TrayState:
    task = event.data["task"]
    return replace(state, done={**state.done, task: event.at}, moves=_moved_once(state, task))


def _undone(state: TrayState, event: TrayEvent, _set_out_at: str) -> TrayState:
    task = event.data["task"]
    return replace(
        state, done={key: at for key, at in state.done.items() if key != task}, moves=_moved_once(state, task)
    )  # fmt: skip


def _moved(state: TrayState, event: TrayEvent, _set_out_at: str) -> TrayState:
    task = event.data["task"]
    return replace(state, due={**state.due, task: event.data["to"]}, moves=_moved_once(state, task))


def _put(state: TrayState, event: TrayEvent, _set_out_at: str) -> TrayState:
    return replace(state, place=event.data["place"])


def _noted(state: TrayState, event: TrayEvent, _set_out_at: str) -> TrayState:
    return replace(state, notes=(*state.notes, event.data["text"]))


def _wrapped(state: TrayState, event: TrayEvent, set_out_at: str) -> TrayState:
    done = _done(state, replace(event, data={"task": "wrap"}), set_out_at)
    return replace(done, wrapped_at=event.at)


def _opened(state: TrayState, event: TrayEvent, set_out_at: str) -> TrayState:
    return replace(_undone(state, replace(event, data={"task": "wrap"}), set_out_at), wrapped_at=None)


_FOLDS: dict[str, Callable[[TrayState, TrayEvent, str], TrayState]] = {
    "weighed": _weighed, "amended": _amended, "checked": _checked, "done": _done, "undone": _undone, "moved": _moved,
    "put": _put, "note": _noted, "wrapped": _wrapped, "opened": _opened,
}  # fmt: skip
