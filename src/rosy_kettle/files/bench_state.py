"""The state of a batch as other programs read it."""

from __future__ import annotations

from functools import cache
from typing import Any

from pydantic import TypeAdapter

from rosy_kettle.core.making.bench import BenchState

__all__ = ["bench_state_to_data"]


def bench_state_to_data(state: BenchState) -> dict[str, Any]:
    """Return a state as plain data, without its steps: they stand in the plan, and are most of it."""
    told: dict[str, Any] = _writer().dump_python(state, exclude={"steps"})
    return told


@cache
def _writer() -> TypeAdapter[BenchState]:
    """Return what walks a state; several times as quick as walking its dataclasses, which counts in a large studio."""
    return TypeAdapter(BenchState)
