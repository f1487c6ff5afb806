"""Pieces are counted, and one is weighed now and then."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Literal

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.bench.record import BenchState
from rosy_kettle.core.making.bench.said import Some
from rosy_kettle.core.making.happening import About, Between, Data, Event, EventKind

__all__ = ["PIECES", "SAMPLED"]


@dataclass(frozen=True, slots=True)
class PiecesCounted:
    """Pieces came off the tool; a negative count takes some back."""

    count: Annotated[int, Between(-1000, 1000)]


@dataclass(frozen=True, slots=True)
class Sampled:
    """One piece was weighed."""

    mass_g: Some
    source: Literal["scale", "hand", "stand-in"] = "hand"


def _check_pieces(state: BenchState, data: Data) -> None:
    if state.pieces_done + int(data["count"]) < 0:
        only = "no piece is" if state.pieces_done == 0 else f"only {state.pieces_done} pieces are"
        raise InputError(f"{-int(data['count'])} cannot be taken back: {only} counted.", quantity="count", value=data["count"])


def _fold_pieces(state: BenchState, event: Event) -> BenchState:
    return replace(state, pieces_done=max(0, state.pieces_done + int(event.data["count"])))


def _tell_pieces(event: Event, _about: About) -> str:
    count = event.data["count"]
    return f"Shaped {count}." if count > 0 else f"Took {-count} back."


def _fold_sampled(state: BenchState, event: Event) -> BenchState:
    return replace(state, samples_g=(*state.samples_g, float(event.data["mass_g"])))


def _tell_sampled(event: Event, _about: About) -> str:
    by = ", by a stand-in: nobody weighed it" if event.data.get("source") == "stand-in" else ""
    return f"A piece weighed {event.data['mass_g']:.1f} g{by}."


PIECES = EventKind(
    "pieces", PiecesCounted, _tell_pieces, _fold_pieces, _check_pieces, waits=True, always=True, late="amends",
    righted_by="pieces",
)  # fmt: skip
SAMPLED = EventKind(
    "sampled", Sampled, _tell_sampled, _fold_sampled, waits=True, always=True, late="amends", righted_by="sampled"
)
