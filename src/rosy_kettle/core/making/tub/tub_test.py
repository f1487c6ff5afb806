"""A test in the tub: events in their order, and the state they add up to."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from rosy_kettle.core.errors import ConflictError, InputError

__all__ = ["ASKED_MINUTES", "SEEN", "FoamHeight", "TubEvent", "TubState", "baths_of_piece", "check_tub_event", "tub_state_of"]

ASKED_MINUTES = (1.0, 5.0, 10.0, 20.0)
"""When the foam is measured, since the tap was opened [min]; common practice, project default."""
SEEN = {
    "gone_after_min": "Gone after", "floats": "Floats", "spins": "Spins", "tint": "Tint", "cloud": "Cloud", "ring": "Ring",
    "film": "Film on the water", "slip": "Slippery floor", "skin": "Skin afterwards", "scent": "Scent",
}  # fmt: skip
"""What is looked at beside the foam, with its name."""
AFTER_CLOSING = frozenset({"note", "amended"})


@dataclass(frozen=True, slots=True)
class TubEvent:
    """One thing that happened; never changed, never taken away."""

    seq: int
    at: str
    """UTC, ISO 8601."""
    kind: str
    data: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class FoamHeight:
    """Foam as it stood, or as it has been amended since."""

    seq: int
    minutes: float
    """Since the tap was opened [min]."""
    height_cm: float
    left_out: bool = False


@dataclass(frozen=True, slots=True)
class TubState:
    """Where a test stands."""

    seq: int = 0
    opened_at: str | None = None
    """When the tap was opened [UTC, ISO 8601]."""
    heights: tuple[FoamHeight, ...] = ()
    seen: Mapping[str, Any] = field(default_factory=dict)
    left_g: float | None = None
    """What is left of the piece for the next bath [g]."""
    notes: tuple[str, ...] = ()
    photos: tuple[str, ...] = ()
    """Names of their files."""
    closed_at: str | None = None


def tub_state_of(events: Sequence[TubEvent]) -> TubState:
    """Return what the events of a test add up to.

    Parameters
    ----------
    events : sequence of TubEvent
        In their order

    Returns
    -------
    TubState
        The same events always give the same state
    """
    state = TubState()
    for event in events:
        state = replace(_FOLDS[event.kind](state, event), seq=event.seq)
    return state


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


def check_tub_event(state: TubState, kind: str, data: Mapping[str, Any], dose_g: float) -> None:
    """Refuse what cannot be meant of the test as it stands.

    Parameters
    ----------
    state : TubState
        Where it stands
    kind : str
        opened, foam, seen, left, amended, note, photo or closed
    data : Mapping
        What the event says
    dose_g : float
        What went into the bath [g]

    Raises
    ------
    ConflictError
        If the test is closed.
    InputError
        If it cannot be meant.
    """
    if state.closed_at is not None and kind not in AFTER_CLOSING:
        raise ConflictError("This test is closed; amend a figure or write a note.", noun="test", reason="closed")
    if kind == "opened" and state.opened_at is not None:
        raise InputError("The tap is open already; the watch runs.", quantity="kind")
    if kind == "amended" and data["of"] not in {each.seq for each in state.heights}:
        raise InputError("There is no such height to amend.", quantity="of", value=data["of"])
    if kind == "closed" and not state.heights and not state.seen:
        raise InputError("Nothing has been seen yet; measure the foam once, or say what was seen.", quantity="kind")
    if kind == "left" and float(data["mass_g"]) > MOST_LEFT * dose_g:
        raise InputError(f"More is left than {MOST_LEFT:g} times what went in; weigh it again.", quantity="mass_g")


MOST_LEFT = 20.0  # a piece is broken in few parts; more than this many doses left is a slip of the scale [-]; project default


def _opened(state: TubState, event: TubEvent) -> TubState:
    return replace(state, opened_at=event.at)


def _foam(state: TubState, event: TubEvent) -> TubState:
    made = FoamHeight(event.seq, float(event.data["minutes"]), float(event.data["height_cm"]))
    return replace(state, heights=tuple(sorted((*state.heights, made), key=lambda each: (each.minutes, each.seq))))


def _amended(state: TubState, event: TubEvent) -> TubState:
    def mended(each: FoamHeight) -> FoamHeight:
        if each.seq != event.data["of"]:
            return each
        height_cm = event.data.get("height_cm")
        left_out = event.data.get("left_out")
        return replace(
            each, height_cm=each.height_cm if height_cm is None else float(height_cm),
            left_out=each.left_out if left_out is None else bool(left_out),
        )  # fmt: skip

    return replace(state, heights=tuple(mended(each) for each in state.heights))


def _seen(state: TubState, event: TubEvent) -> TubState:
    return replace(state, seen={**state.seen, **event.data})


def _left(state: TubState, event: TubEvent) -> TubState:
    return replace(state, left_g=float(event.data["mass_g"]))


def _note(state: TubState, event: TubEvent) -> TubState:
    return replace(state, notes=(*state.notes, str(event.data["text"])))


def _photo(state: TubState, event: TubEvent) -> TubState:
    return replace(state, photos=(*state.photos, str(event.data["name"])))


def _closed(state: TubState, event: TubEvent) -> TubState:
    return replace(state, closed_at=event.at)


_FOLDS: dict[str, Callable[[TubState, TubEvent], TubState]] = {
    "opened": _opened, "foam": _foam, "amended": _amended, "seen": _seen, "left": _left, "note": _note, "photo": _photo,
    "closed": _closed,
}  # fmt: skip
