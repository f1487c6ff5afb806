"""A bowl that loses heat by rules of its own, hidden from whoever predicts it."""

from __future__ import annotations

import itertools
import math
import random
import threading
from dataclasses import dataclass

__all__ = ["BowlHeat", "SimulatedBowl"]

STEP_S = 1.0
LONGEST_GAP_S = 6 * 3600.0


@dataclass(frozen=True, slots=True)
class BowlHeat:
    """What a bowl of dough takes and gives, as the tables would have it."""

    heat_j_k: float = 1800.0
    """Dough and bowl together, without latent heat [J/K]."""
    loss_w_k: float = 0.81
    latent_j: tuple[tuple[float, float], ...] = ()
    """Heat still bound in molten fat by temperature, coldest first [°C, J]."""


class SimulatedBowl:
    """Integrates heat step by step, with loss, capacity and latent heat each up to a quarter off the tables."""

    def __init__(self, room_c: float = 21.0, seed: int = 4, off: float = 0.25) -> None:
        hidden = random.Random(seed)  # noqa: S311 - no secrets
        self._factors = tuple(1 + hidden.uniform(-off, off) for _ in range(3))
        self._lock = threading.Lock()
        self.room_c = room_c
        self._heat = BowlHeat()
        self._temperature_c = room_c
        self._at_s: float | None = None
        self._power_w = 0.0
        self._power_until_s = 0.0

    def fill(self, temperature_c: float, heat: BowlHeat, at_s: float) -> None:
        """Put a dough of some temperature into it."""
        with self._lock:
            self._heat, self._temperature_c, self._at_s = heat, temperature_c, at_s

    def warm(self, power_w: float, seconds: float, at_s: float) -> None:
        """Warm it for some seconds; a negative power is a cool bath."""
        self.temperature(at_s)
        with self._lock:
            self._power_w, self._power_until_s = power_w, at_s + seconds

    def set_temperature(self, temperature_c: float, at_s: float) -> None:
        """Bring it to a temperature at once, as a user of the drawer may."""
        with self._lock:
            self._temperature_c, self._at_s = temperature_c, at_s

    def temperature(self, at_s: float) -> float:
        """Return the temperature at a moment [°C]."""
        with self._lock:
            if self._at_s is None:
                self._at_s = at_s
            left = min(LONGEST_GAP_S, max(0.0, at_s - self._at_s))
            while left > 0:
                step = min(STEP_S, left)
                self._temperature_c += self._rate(self._at_s) * step
                self._at_s += step
                left -= step
            self._at_s = max(self._at_s, at_s)
            return self._temperature_c

    def _rate(self, at_s: float) -> float:
        loss, capacity, latent = self._factors
        power = self._power_w if at_s < self._power_until_s else 0.0
        flow_w = power - self._heat.loss_w_k * loss * (self._temperature_c - self.room_c)
        held = self._heat.heat_j_k * capacity + latent * self._latent_slope(self._temperature_c)
        return flow_w / held

    def _latent_slope(self, temperature_c: float) -> float:
        """Heat a degree takes for melting or setting fat [J/K]."""
        points = self._heat.latent_j
        for (low_c, low_j), (high_c, high_j) in itertools.pairwise(points):
            if low_c <= temperature_c < high_c and not math.isclose(low_c, high_c):
                return max(0.0, (high_j - low_j) / (high_c - low_c))
        return 0.0
