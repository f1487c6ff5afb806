"""A practice bowl: the recipe as it is told, and what is hidden in it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from types import MappingProxyType

import numpy as np

from rosy_kettle.core.errors import InputError

__all__ = ["HIDDEN_KINDS", "Hidden", "Scenario", "drawn_again"]

HIDDEN_KINDS = ("thirsty", "damp", "watery", "scale", "left_out", "mislabelled", "hot_room", "cold_bowl", "humid")
SHAKE = 0.08  # how far a seed moves what is hidden [-]
NOISE = (0.02, 0.035, 0.06)  # of S as the hands judge it, by difficulty [-]; project default


@dataclass(frozen=True, slots=True)
class Hidden:
    """One thing the learner is not told."""

    kind: str
    ingredient: str = ""
    value: float = 0.0
    """Factor on what powders drink; water in the ingredient as a share of its mass; factor of the scale; °C; % RH."""
    other: str = ""
    """What a mislabelled jar really holds."""


@dataclass(frozen=True, slots=True)
class Scenario:
    """One practice bowl."""

    id: str
    title: str
    story: str
    method: str
    lines: Mapping[str, float]
    """Recipe by ingredient [g]."""
    dry: str
    """What a dough that is too wet is given."""
    wet: str
    """What a dough that is too dry is given."""
    hidden: tuple[Hidden, ...] = ()
    room_c: float = 20.0
    humidity_pct: float = 50.0
    level: int = 1
    """1 to 3: how far the hands may be wrong."""
    hint: str = ""
    seed: int = 0
    factors: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    """What powders really drink, as factors by role."""

    @property
    def noise(self) -> float:
        """Spread of S as the hands judge it [-]."""
        return NOISE[self.level - 1]


def drawn_again(scenario: Scenario, seed: int) -> Scenario:
    """Return the same bowl with what is hidden moved a little; seed 0 is the bowl as it stands.

    Parameters
    ----------
    scenario : Scenario
        A bowl
    seed : int
        Which of the endless others [-]

    Raises
    ------
    InputError
        If the seed is below 0.
    """
    if seed < 0:
        raise InputError("A seed is a number from 0 on.", quantity="seed", value=seed)
    if seed == 0:
        return replace(scenario, seed=0)
    chance = np.random.default_rng(seed)
    moved = tuple(
        replace(each, value=each.value * (1 + SHAKE * float(chance.uniform(-1, 1))) if each.value else 0.0)
        for each in scenario.hidden
    )
    room = float(np.clip(scenario.room_c + chance.uniform(-2, 2), 8, 40))
    humidity = float(np.clip(scenario.humidity_pct + chance.uniform(-6, 6), 20, 95))
    factors = {f"demand.{each.ingredient}": each.value for each in moved if each.kind == "thirsty"}
    return replace(
        scenario, hidden=moved, factors=factors, room_c=round(room, 1), humidity_pct=float(round(humidity)), seed=seed
    )  # fmt: skip
