"""What the events of a batch add up to, and what can happen next."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

from rosy_kettle.core.making.bench.record import BenchState, begun
from rosy_kettle.core.making.bench.steps import BenchStep
from rosy_kettle.core.making.happening import About, Event, Family

__all__ = ["BATCH_EVENTS", "about_batch", "check_event", "state_of"]

BATCH_EVENTS: Family[BenchState] = Family("batch", "rosy_kettle.core.making.bench.happenings")
CLOSED = "This batch is closed; write an amendment instead."


def state_of(steps: Sequence[BenchStep], events: Sequence[Event]) -> BenchState:
    """Return where a batch stands after its events.

    Parameters
    ----------
    steps : Sequence
        The steps as planned
    events : Sequence
        All events in their order

    Returns
    -------
    BenchState
        The same events give the same state, always: that is what survives a power cut. An event that this version does not
        know stands under ``unknown`` and changes nothing else
    """
    return BATCH_EVENTS.folded(begun(tuple(steps)), events)


def check_event(state: BenchState, kind: str, data: Mapping[str, Any]) -> None:
    """Refuse what cannot happen now.

    Parameters
    ----------
    state : BenchState
        Where the batch stands
    kind : str
        What is to happen
    data : Mapping
        Its figures

    Raises
    ------
    ConflictError
        If the batch is closed, or the step is not the one in hand.
    InputError
        If the kind is unknown or a figure cannot be meant.
    """
    BATCH_EVENTS.check(state, kind, data, closed=state.closed_at is not None, word=CLOSED)


def about_batch(state: BenchState, events: Sequence[Event], names: Callable[[str], str]) -> About:
    """Return what the sentences of a batch's events want to know beside the events.

    Parameters
    ----------
    state : BenchState
        What the events add up to
    events : Sequence
        All events
    names : Callable
        Name of an ingredient by its id

    Returns
    -------
    About
        Titles of steps, aims of weighings, what was held
    """
    about = About({step.key: step.title for step in state.steps}, names, {w.seq: (w.target_g, w.within) for w in state.history})
    held = {
        str(event.id): BATCH_EVENTS.told(Event(event.seq, event.at, str(what["kind"]), what["data"]), about)
        for event in events if event.kind == "held" and isinstance(what := event.data.get("what"), dict)
    }  # fmt: skip
    return About(about.titles, about.names, about.aims, held)
