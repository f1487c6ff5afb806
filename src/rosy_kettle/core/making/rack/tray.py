"""What happened to a tray: events in their order, and the state they add up to."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from rosy_kettle.core.making.happening import Event, Family
from rosy_kettle.core.making.rack.record import TrayState, TrayWeighing, hours_between

__all__ = ["TRAY_EVENTS", "TrayState", "TrayWeighing", "check_tray_event", "hours_between", "tray_state_of"]

TRAY_EVENTS: Family[TrayState] = Family("tray", "rosy_kettle.core.making.rack.happenings")
WRAPPED = "These pieces are wrapped; open them again first."


def tray_state_of(set_out_at: str, place: str, events: Sequence[Event]) -> TrayState:
    """Return what the events of a tray add up to.

    Parameters
    ----------
    set_out_at : str
        When its pieces were set out [UTC, ISO 8601]
    place : str
        Where it stood first
    events : sequence of Event
        In their order

    Returns
    -------
    TrayState
        The same events always give the same state; one that this version does not know stands under ``unknown``
    """
    return TRAY_EVENTS.folded(TrayState(place=place, set_out_at=set_out_at), events)


def check_tray_event(state: TrayState, kind: str, data: Mapping[str, Any]) -> None:
    """Refuse what cannot be meant of the tray as it stands.

    Parameters
    ----------
    state : TrayState
        Where it stands
    kind : str
        Kind of event
    data : Mapping
        What the event says

    Raises
    ------
    ConflictError
        If the pieces are wrapped already.
    InputError
        If it names a weighing there is none of, or takes back what was not done.
    """
    TRAY_EVENTS.check(state, kind, data, closed=state.wrapped_at is not None, word=WRAPPED)
