"""What happened to a batch, told in sentences made of its own figures."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from datetime import datetime
from typing import Any

from rosy_kettle.core.making.bench import BatchEvent, BenchState
from rosy_kettle.core.records import Tables
from rosy_kettle.usecases.batches.run_batch import Bench

__all__ = ["tell_batch", "tell_events"]

Data = Mapping[str, Any]


def tell_batch(bench: Bench) -> list[str]:
    """Return the sentence of every event, in their order."""
    return tell_events(bench.state, bench.events, bench.tables)


def tell_events(state: BenchState, events: Sequence[BatchEvent], tables: Tables) -> list[str]:
    """Return the sentence of every event of a batch, in their order, from the state they add up to."""
    titles = {step.key: step.title for step in state.steps}
    weighed = {weighing.at: weighing for weighing in state.history}
    return [_sentence(event, titles.get(str(event.data.get("step")), ""), tables, weighed.get(event.at)) for event in events]


def _sentence(event: BatchEvent, title: str, tables: Tables, weighing: Any) -> str:
    data = event.data
    if event.kind == "corrected":
        item = tables.ingredients.get(str(data["ingredient"]))
        name = data["ingredient"] if item is None else item.short_name.lower()
        return f"Added {data['mass_g']:.1f} g {name}" + (f" ({data['why']})." if data.get("why") else ".")
    if event.kind == "weighed":
        aim = "" if weighing is None else f" for {weighing.target_g:.1f} g"
        off = ", outside its tolerance" if weighing is not None and not weighing.within else ""
        return f"{title}: {data['actual_g']:.1f} g{aim}, by {data.get('source', 'hand')}{off}."
    return SENTENCES[event.kind](data, title)


def _conditions(data: Data, _title: str) -> str:
    humidity = f"{data['humidity_pct']:.0f} % humidity" if "humidity_pct" in data else "humidity not read"
    return f"Room {data.get('room_c', 'not said')} °C, {humidity}, tap {data.get('tap') or 'not said'}."


def _pieces(data: Data, _title: str) -> str:
    return f"Shaped {data['count']}." if data["count"] > 0 else f"Took {-data['count']} back."


def _outcome(data: Data, _title: str) -> str:
    told = []
    if "dry_at" in data:
        told.append(f"dry on {datetime.fromisoformat(data['dry_at']):%d %b %Y, %H:%M} UTC")
    pieces = [f"{data[f'pieces_{kind}']} {kind}" for kind in ("good", "spoiled") if f"pieces_{kind}" in data]
    if pieces:
        told.append(f"pieces: {', '.join(pieces)}")
    tub = [f"{data[key]:g} {unit}" for key, unit in (("tub_dose_g", "g"), ("tub_l", "L")) if key in data]
    if tub:
        told.append(f"tried in a tub: {' in '.join(tub)}")
    if "foam_height_cm" in data:
        told.append(f"foam stood {data['foam_height_cm']:g} cm")
    if data.get("remarks"):
        told.append(str(data["remarks"]))
    return f"What became of it: {'; '.join(told) or 'nothing said'}."


SENTENCES: dict[str, Callable[[Data, str], str]] = {
    "conditions": _conditions,
    "pieces": _pieces,
    "skipped": lambda data, title: f"Left out: {title.removeprefix('Weigh ')} ({data['why']}).",
    "temperature": lambda data, title: f"{title}: {data['value_c']:.1f} °C, by {data.get('source', 'hand')}.",
    "timer": lambda data, title: f"{title}: clock started, {data['minutes']:g} min.",
    "felt": lambda data, _title: f"It felt like {data['state']}; the Desk had said {data.get('predicted') or 'nothing'}.",
    "rescued": lambda data, title: f"{title}: {data['actual_g']:.1f} g poured. {data.get('text', '')}",
    "sampled": lambda data, _title: f"A piece weighed {data['mass_g']:.1f} g.",
    "note": lambda data, _title: f"Note: {data['text']}",
    "amended": lambda data, _title: f"Amended: {data['text']}",
    "done": lambda _data, title: f"Done: {title}.",
    "back": lambda _data, title: f"Went back to: {title}.",
    "lot": lambda data, _title: f"Taken from lot {data['code']}.",
    "photo": lambda _data, _title: "A photo was taken.",
    "outcome": _outcome,
    "closed": lambda _data, _title: "The record was closed.",
}
