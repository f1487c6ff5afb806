"""How a reading is declared: once, beside its model, with all that any screen or command needs to know of it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

__all__ = ["Reading", "Watched"]


@dataclass(frozen=True, slots=True)
class Watched:
    """A reading that is looked after when something changes."""

    place: int
    """Where it stands among the side effects."""
    notable: float
    """A change a maker would notice [the reading's unit]; about the band of its model."""


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading. Kind is exact (arithmetic, law), physical (published theory) or practice (fitted to common practice)."""

    id: str
    """Dotted path in the evaluation result."""
    label: str
    unit: str
    kind: str
    basis: str
    """What it is of: batch, piece or dose."""
    explained: str
    """How it is worked out, in one sentence."""
    page: str
    """Page of docs/science that derives it."""
    question: str
    """Which of the maker's questions it answers: hold, set, foam, fizz, feel, kind, cost."""
    place: int = 1_000
    """Where it stands in lists, smallest first."""
    rests_on: tuple[str, ...] = ()
    """Parameter records whose constants it rests on."""
    compute: Callable[[Any], float | None] | None = None
    """From a look at a mix in its setting to the value, with slopes where the mix has them; None: no single number."""
    aim: bool = False
    """Whether a wanted band on it is a wish that lines can follow."""
    watched: Watched | None = None
    scale: tuple[float, float] | None = None
    """Ends of the paper it is drawn on [its unit]; None makes the paper as long as it takes."""
    decimals: int | None = None
    """Decimals it is shown with; None shows three figures."""
    desk: int | None = None
    """Place of its strip under its question at the Desk; None: it stands there only when asked for."""
    curve: str = ""
    """The curve it can be read off: texture, cooling, bath, foam, solid-fat, frontier; empty where there is none."""
    half_width: float | None = None
    """Half of its 90 % band, where the band is the same everywhere [its unit]."""
    lane: tuple[float | None, float | None] | None = None
    """Band that is drawn as a matter of course but not wished for: its end is part of the unit."""
    always: tuple[float | None, float | None] | None = None
    """Band wanted whatever the profile [its unit]; project default, no safety claim."""
