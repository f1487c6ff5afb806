"""What is known of troubles: how likely each cause is, what speaks for it, and what to do."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

__all__ = ["Advice", "CausePrior", "FactChance", "Symptom", "TroubleTables"]


@dataclass(frozen=True, slots=True)
class CausePrior:
    """Weight of a cause of one symptom before anything is known."""

    cause: str
    weight: float
    reason: str
    source: str


@dataclass(frozen=True, slots=True)
class FactChance:
    """How often a fact is found where a cause is at work, and how often where it is not."""

    cause: str
    fact: str
    chance: float
    usual: float
    source: str


@dataclass(frozen=True, slots=True)
class Advice:
    """What to do with these pieces, and what next time."""

    now: str
    next_time: str


@dataclass(frozen=True, slots=True)
class Symptom:
    """Something that can be seen."""

    id: str
    title: str
    words: str
    """What makers search for."""
    drawing: str
    """Which drawing shows it."""


@dataclass(frozen=True, slots=True)
class TroubleTables:
    """All of it."""

    priors: Mapping[str, tuple[CausePrior, ...]]
    """By symptom."""
    chances: tuple[FactChance, ...]
    advice: Mapping[str, Advice]
    """By cause."""
