"""Where a tray stands: the state its events add up to."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from rosy_kettle.core.making.happening import NotUnderstood

__all__ = ["TrayState", "TrayWeighing", "hours_between"]

SECONDS_PER_HOUR = 3600.0


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
    unknown: tuple[NotUnderstood, ...] = ()
    """Events this version does not know, kept as they are."""
    set_out_at: str = ""
    """When its pieces were set out [UTC, ISO 8601]."""


def hours_between(begin: str, end: str) -> float:
    """Return the hours from one moment to another; both carry their offset, so clocks may change between them.

    Parameters
    ----------
    begin : str
        The earlier moment, ISO 8601 with its offset
    end : str
        The later one

    Returns
    -------
    float
        Time between them [h]
    """
    return (datetime.fromisoformat(end) - datetime.fromisoformat(begin)).total_seconds() / SECONDS_PER_HOUR
