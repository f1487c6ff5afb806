"""Stand-ins for scale, thermometer and hygrometer: they settle, drift, round and fail as the real ones do."""

from __future__ import annotations

import math
import random
import threading
from collections import deque

from rosy_kettle.devices.bowl import SimulatedBowl
from rosy_kettle.devices.reading import STAND_IN, DeviceReading

__all__ = ["SimulatedHygrometer", "SimulatedScale", "SimulatedThermometer"]

UNPLUGGED = "unplugged"
STABLE_READINGS = 5
SAMPLES = 10  # a reading of the thermometer is the mean of so many


class SimulatedScale:
    """A bench scale: 0.1 g steps, 5 kg, 0.35 s to settle, slow drift."""

    name = "scale"

    def __init__(self, seed: int = 1, resolution_g: float = 0.1, capacity_g: float = 5000.0, settle_s: float = 0.35) -> None:
        self._random = random.Random(seed)  # noqa: S311 - noise, not secrets
        self._lock = threading.Lock()
        self.resolution_g, self.capacity_g, self.settle_s = resolution_g, capacity_g, settle_s
        self.plugged = True
        self._load_g = 0.0
        self._shown_g = 0.0
        self._tare_g = 0.0
        self._drift_g = 0.0
        self._pouring: tuple[float, float, float, float] | None = None
        self._at_s: float | None = None
        self._last: deque[float] = deque(maxlen=STABLE_READINGS)

    def pour(self, mass_g: float, seconds: float = 0.0, at_s: float = 0.0) -> None:
        """Add mass to the pan, at once or over some seconds; negative takes it off."""
        with self._lock:
            self._settle_pour(at_s)
            if seconds > 0:
                self._pouring = (at_s, seconds, self._load_g, mass_g)
            else:
                self._load_g = max(0.0, self._load_g + mass_g)

    def clear(self) -> None:
        """Take everything off the pan and forget the tare."""
        with self._lock:
            self._pouring, self._load_g, self._tare_g = None, 0.0, 0.0

    def zero(self) -> None:
        """Take what lies on it as nothing."""
        with self._lock:
            self._tare_g = self._shown_g + self._drift_g

    def read(self, at_s: float) -> DeviceReading:
        """Return the settled, noisy, rounded reading."""
        with self._lock:
            if not self.plugged:
                return DeviceReading(self.name, None, "g", stable=False, fault=UNPLUGGED, at_ms=at_s * 1000, source=STAND_IN)
            self._settle_pour(at_s)
            passed = 0.0 if self._at_s is None else max(0.0, at_s - self._at_s)
            self._at_s = at_s
            self._shown_g += (self._load_g - self._shown_g) * (1 - math.exp(-passed / self.settle_s))
            self._drift_g = max(-0.15, min(0.15, self._drift_g + self._random.gauss(0.0, 0.002)))
            if self._shown_g > self.capacity_g:
                return DeviceReading(self.name, None, "g", stable=False, fault="overload", at_ms=at_s * 1000, source=STAND_IN)
            raw = self._shown_g + self._drift_g - self._tare_g + self._random.gauss(0.0, 0.2 * self.resolution_g)
            shown = round(raw / self.resolution_g) * self.resolution_g
            self._last.append(shown)
            still = len(self._last) == STABLE_READINGS and max(self._last) - min(self._last) <= self.resolution_g * 1.01
            return DeviceReading(self.name, round(shown, 3), "g", stable=still, fault="", at_ms=at_s * 1000, source=STAND_IN)

    def _settle_pour(self, at_s: float) -> None:
        if self._pouring is None:
            return
        began, seconds, start, mass_g = self._pouring
        share = min(1.0, max(0.0, (at_s - began) / seconds))
        self._load_g = max(0.0, start + mass_g * share)
        if share >= 1:
            self._pouring = None


class SimulatedThermometer:
    """An infrared thermometer: it reads a shiny or pale surface a little towards the room."""

    name = "thermometer"

    def __init__(self, bowl: SimulatedBowl, seed: int = 2, emissivity: float = 0.95, seen_as: float = 0.97) -> None:
        self._random = random.Random(seed)  # noqa: S311 - noise, not secrets
        self.bowl = bowl
        self.plugged = True
        self.emissivity, self.seen_as = emissivity, seen_as

    def read(self, at_s: float) -> DeviceReading:
        """Return what the sensor shows of the bowl."""
        if not self.plugged:
            return DeviceReading(self.name, None, "°C", stable=False, fault=UNPLUGGED, at_ms=at_s * 1000, source=STAND_IN)
        true_c = self.bowl.temperature(at_s)
        seen_c = self.bowl.room_c + (true_c - self.bowl.room_c) * self.emissivity / self.seen_as
        noise_c = sum(self._random.gauss(0.0, 0.1) for _ in range(SAMPLES)) / SAMPLES
        shown = round(seen_c + noise_c, 1)
        return DeviceReading(self.name, shown, "°C", stable=True, fault="", at_ms=at_s * 1000, source=STAND_IN)


class SimulatedHygrometer:
    """A hygrometer in the room; breath on it fades in a minute."""

    name = "hygrometer"

    def __init__(self, humidity_pct: float = 46.0, seed: int = 3, lag_s: float = 20.0) -> None:
        self._random = random.Random(seed)  # noqa: S311 - noise, not secrets
        self.room_pct, self.lag_s = humidity_pct, lag_s
        self.plugged = True
        self._breath_pct, self._breath_at_s = 0.0, 0.0

    def breathe(self, at_s: float) -> None:
        """Breathe humid air on it."""
        self._breath_pct, self._breath_at_s = 30.0, at_s

    def read(self, at_s: float) -> DeviceReading:
        """Return the relative humidity."""
        if not self.plugged:
            return DeviceReading(self.name, None, "% RH", stable=False, fault=UNPLUGGED, at_ms=at_s * 1000, source=STAND_IN)
        breath = self._breath_pct * math.exp(-max(0.0, at_s - self._breath_at_s) / self.lag_s)
        shown = round(min(99.0, self.room_pct + breath + self._random.gauss(0.0, 0.15)))
        return DeviceReading(self.name, float(shown), "% RH", stable=breath < 1, fault="", at_ms=at_s * 1000, source=STAND_IN)
