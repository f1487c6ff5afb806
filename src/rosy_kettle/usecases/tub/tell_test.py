"""What happened in a test, told in sentences made of its own figures."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from rosy_kettle.core.making.tub.tub_test import SEEN

__all__ = ["tell_test_event"]

Data = Mapping[str, Any]


def tell_test_event(kind: str, data: Data) -> str:
    """Return one event of a test as a sentence."""
    return SENTENCES[kind](data)


def _seen(data: Data) -> str:
    told = [f"{SEEN[key].lower()}: {f'{value:g} min' if key == 'gone_after_min' else value}" for key, value in data.items()]
    return f"Seen: {', '.join(told)}."


def _amended(data: Data) -> str:
    return "A height does not count." if data.get("left_out") else f"A height amended to {data.get('height_cm', 0):g} cm."


SENTENCES: dict[str, Callable[[Data], str]] = {
    "opened": lambda _data: "The tap was opened.",
    "foam": lambda data: f"Foam stood {data['height_cm']:g} cm after {data['minutes']:g} min.",
    "seen": _seen,
    "left": lambda data: f"{data['mass_g']:g} g left for the next bath.",
    "amended": _amended,
    "note": lambda data: f"Note: {data['text']}",
    "photo": lambda _data: "A photo was taken.",
    "closed": lambda _data: "The test was closed.",
}
