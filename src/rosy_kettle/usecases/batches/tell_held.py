"""What a device that was away had done and what no longer follows, beside what the record has of the same."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.making.bench import BATCH_EVENTS, about_batch
from rosy_kettle.core.making.happening import Event, HeldEvent
from rosy_kettle.usecases.batches.run_batch import Bench

__all__ = ["ToldHeld", "tell_held"]


@dataclass(frozen=True, slots=True)
class ToldHeld:
    """One thing that is held, as it is shown."""

    id: str
    kind: str
    text: str
    made_at: str | None
    at: str
    beside: frozenset[int]
    """Numbers of the events it stands beside."""


def tell_held(bench: Bench) -> list[ToldHeld]:
    """Return what is held, in the order it was heard."""
    about = about_batch(bench.state, bench.events, lambda id_: bench.tables.ingredients[id_].short_name.lower())
    heard = {event.id: event.at for event in bench.events}
    return [
        ToldHeld(each.id, each.kind, about.held.get(each.id, ""), each.made_at, heard[each.id], _beside(bench.events, each))
        for each in bench.state.held
    ]  # fmt: skip


def _beside(events: tuple[Event, ...], held: HeldEvent) -> frozenset[int]:
    """Return what happened meanwhile: of the same step where there was something, else whatever does not stand by itself."""
    since = [each for each in events if held.after < each.seq < held.seq]
    same = {each.seq for each in since if "step" in held.data and each.data.get("step") == held.data["step"]}
    moved = {each.seq for each in since if each.kind in BATCH_EVENTS.kinds and not BATCH_EVENTS.kinds[each.kind].always}
    return frozenset(same or moved)
