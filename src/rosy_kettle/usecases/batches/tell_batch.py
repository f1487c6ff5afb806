"""What happened to a batch, told in sentences made of its own figures."""

from __future__ import annotations

from collections.abc import Sequence

from rosy_kettle.core.making.bench import BATCH_EVENTS, BenchState, about_batch
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.records import Tables
from rosy_kettle.usecases.batches.run_batch import Bench

__all__ = ["tell_batch", "tell_events"]


def tell_batch(bench: Bench) -> list[str]:
    """Return the sentence of every event, in their order."""
    return tell_events(bench.state, bench.events, bench.tables)


def tell_events(state: BenchState, events: Sequence[Event], tables: Tables) -> list[str]:
    """Return the sentence of every event of a batch, in their order, from the state they add up to."""

    def name(ingredient_id: str) -> str:
        item = tables.ingredients.get(ingredient_id)
        return ingredient_id if item is None else item.short_name.lower()

    about = about_batch(state, events, name)
    return [BATCH_EVENTS.told(event, about) for event in events]
