"""A test in the tub: events in their order, and the state they add up to."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from rosy_kettle.core.making.happening import Event, Family
from rosy_kettle.core.making.tub.record import SEEN, FoamHeight, TubState

__all__ = [
    "ASKED_MINUTES", "SEEN", "TUB_EVENTS", "FoamHeight", "TubState", "baths_of_piece", "check_tub_event", "tub_state_of",
]  # fmt: skip

ASKED_MINUTES = (1.0, 5.0, 10.0, 20.0)
"""When the foam is measured, since the tap was opened [min]; common practice, project default."""
TUB_EVENTS: Family[TubState] = Family("test", "rosy_kettle.core.making.tub.happenings")
CLOSED = "This test is closed; amend a figure or write a note."


def tub_state_of(events: Sequence[Event], dose_g: float = 0.0) -> TubState:
    """Return what the events of a test add up to.

    Parameters
    ----------
    events : sequence of Event
        In their order
    dose_g : float
        What went into the bath [g]

    Returns
    -------
    TubState
        The same events always give the same state; one that this version does not know stands under ``unknown``
    """
    return TUB_EVENTS.folded(TubState(dose_g=dose_g), events)


def baths_of_piece(dose_g: float, left_g: float | None) -> float | None:
    """Return how many baths a piece is good for, by what was left of it after one.

    Parameters
    ----------
    dose_g : float
        What went into the bath [g]
    left_g : float or None
        What was left of the piece [g]

    Returns
    -------
    float or None
        The bath that was taken and those of the same dose that are left [-]; None where nothing was weighed
    """
    return None if left_g is None or dose_g <= 0 else 1.0 + left_g / dose_g


def check_tub_event(state: TubState, kind: str, data: Mapping[str, Any]) -> None:
    """Refuse what cannot be meant of the test as it stands.

    Parameters
    ----------
    state : TubState
        Where it stands
    kind : str
        Kind of event
    data : Mapping
        What the event says

    Raises
    ------
    ConflictError
        If the test is closed.
    InputError
        If it cannot be meant.
    """
    TUB_EVENTS.check(state, kind, data, closed=state.closed_at is not None, word=CLOSED)
