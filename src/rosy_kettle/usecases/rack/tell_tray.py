"""What happened to a tray, told in sentences made of its own figures."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from datetime import datetime
from typing import Any

__all__ = ["tell_tray_event"]

Data = Mapping[str, Any]


def tell_tray_event(kind: str, data: Data) -> str:
    """Return one event of a tray as a sentence."""
    return SENTENCES[kind](data)


def _weighed(data: Data) -> str:
    air = f", at {data['humidity_pct']:.0f} % humidity" if "humidity_pct" in data else ""
    return f"Weighed {data['pieces']} pieces: {data['mass_g']:g} g, by {data.get('source', 'hand')}{air}."


def _amended(data: Data) -> str:
    said = [f"{data[key]:g} {unit}" for key, unit in (("mass_g", "g"), ("pieces", "pieces")) if key in data]
    said += ["left out"] if data.get("left_out") else []
    why = f" ({data['why']})" if data.get("why") else ""
    return f"Amended a weigh-in: {', '.join(said) or 'counted again'}{why}."


def _words(key: str) -> str:
    return key.replace("-", " ").replace("_", " ")


SENTENCES: dict[str, Callable[[Data], str]] = {
    "weighed": _weighed,
    "amended": _amended,
    "checked": lambda data: f"Looked at: {_words(data['check'])}, {'yes' if data['passed'] else 'not yet'}.",
    "done": lambda data: f"Done: {_words(data['task'])}.",
    "undone": lambda data: f"Not done after all: {_words(data['task'])}.",
    "moved": lambda data: f"Moved {_words(data['task'])} to {datetime.fromisoformat(data['to']):%d %b %Y, %H:%M} UTC.",
    "put": lambda data: f"Put to dry in: {data['place']}.",
    "note": lambda data: f"Note: {data['text']}",
    "wrapped": lambda _data: "Wrapped.",
    "opened": lambda _data: "Opened again.",
}
