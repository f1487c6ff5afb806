"""Constants of what a bath asks of the skin."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import parameter

__all__ = ["SkinParameters"]


@dataclass(frozen=True, slots=True)
class SkinParameters:
    """Constants of harshness. No safety claim is made."""

    milded_by_mixing: float = parameter(0.4, "most that mixed classes take off", "-", "after published mixed-micelle studies, estimate", "low", (0.2, 0.6))
    water_evaporates: float = parameter(0.9, "share of the free water that leaves a piece", "-", "common practice, no published source", "medium", (0.8, 1.0))
