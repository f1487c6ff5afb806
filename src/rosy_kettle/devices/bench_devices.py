"""All devices of one bench, on one clock, and whoever listens to them."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Iterator
from dataclasses import asdict
from typing import Any

from rosy_kettle.core.errors import InputError
from rosy_kettle.devices.bowl import SimulatedBowl
from rosy_kettle.devices.reading import Scale
from rosy_kettle.devices.serial_scale import SerialScale
from rosy_kettle.devices.simulated import SimulatedHygrometer, SimulatedScale, SimulatedThermometer

__all__ = ["BenchClock", "BenchDevices", "Listening", "open_devices"]

READINGS_PER_S = 10
SAID_AGAIN_S = 1.5  # what has not changed is said again after so long, so that whoever listens knows that it is heard
STILL_AFTER_S, STILL_TICKS = 10.0, 5  # where nothing has moved for so long, every fifth tick is looked at
FLICKERS = {"scale": 0.25, "thermometer": 0.25, "hygrometer": 2.5}  # two and a half of the last digit [g, °C, % humidity]
SHARED_FOR = 0.5  # of a tick: who asks so soon after another hears the same readings [-]
FASTEST_DEVICE = 3.0  # a fast clock speeds the stand-ins up by no more: a browser must keep up with them
SETTLE_S = 0.35


class BenchClock:
    """The bench's time; a fast one lets a test live through an hour of cooling in a minute."""

    def __init__(self, rate: float = 1.0) -> None:
        self.rate = rate
        self._began = time.time()

    def now(self) -> float:
        """Return seconds since 1970 UTC, as the bench has them."""
        return self._began + (time.time() - self._began) * self.rate


class Listening:
    """The news one page hears; its place is free again once it is closed, whether it was ever heard or not."""

    def __init__(self, news: Iterator[dict[str, Any]], leave: Callable[[], None]) -> None:
        self._news, self._leave = news, leave
        self._closed = False

    def __iter__(self) -> Iterator[dict[str, Any]]:
        return self._news

    def close(self) -> None:
        """Give the place back, once."""
        if not self._closed:
            self._closed = True
            self._leave()


class BenchDevices:
    """A real scale where one is given; and stand-ins for what is missing, where the studio has them."""

    def __init__(
        self, clock: BenchClock | None = None, scale: Scale | None = None, stands_in: Callable[[], bool] | None = None
    ) -> None:
        self.clock = clock or BenchClock()
        self.stands_in = stands_in
        """Whether there are stand-ins now; None until somebody says who decides that."""
        self._real_scale = scale
        self.bowl = SimulatedBowl()
        self._speed = min(FASTEST_DEVICE, self.clock.rate)
        self.simulated_scale = SimulatedScale(settle_s=SETTLE_S / self._speed**2)
        self.thermometer = SimulatedThermometer(self.bowl)
        self.hygrometer = SimulatedHygrometer()
        self._news = threading.Condition()
        self._batch_seq: dict[int, int] = {}
        self.listeners = 0
        self._shared: tuple[float, list[dict[str, Any]]] = (0.0, [])

    def has_stand_ins(self) -> bool:
        """Whether stand-ins exist at this moment."""
        return self.stands_in is not None and self.stands_in()

    @property
    def scale(self) -> Scale | None:
        """The scale there is: a real one, else its stand-in where there are any."""
        return self._real_scale or (self.simulated_scale if self.has_stand_ins() else None)

    def zero(self) -> None:
        """Take what lies on the scale as nothing, where there is one."""
        if (scale := self.scale) is not None:
            scale.zero()

    def plug(self, name: str, *, plugged: bool) -> None:
        """Plug a simulated device in, or pull its plug."""
        for device in (self.simulated_scale, self.thermometer, self.hygrometer):
            if device.name == name:
                device.plugged = plugged

    def tell(self, batch_id: int, seq: int) -> None:
        """Tell everyone who listens that a batch has moved on."""
        with self._news:
            self._batch_seq[batch_id] = seq
            self._news.notify_all()

    def readings(self) -> list[dict[str, Any]]:
        """Return what every device there is says now. A scale settles in its own time, whatever the clock."""
        real, bench = time.time(), self.clock.now()
        scale = self.scale
        found = [] if scale is None else [scale.read(real)]
        if self.has_stand_ins():
            found += [self.thermometer.read(bench), self.hygrometer.read(bench)]
        return [asdict(reading) | {"at_ms": real * 1000} for reading in found]

    def listen(self, batch_id: int | None, most: int) -> Listening | None:
        """Return what a page hears: readings as they change, ten times a second at most, and the batch's number as it moves on.

        None where so many listen already; the place is taken at once, so that a burst of pages gets no more.
        """
        with self._news:
            if self.listeners >= most:
                return None
            self.listeners += 1
        return Listening(self._news_of(batch_id), self._leave)

    def _leave(self) -> None:
        with self._news:
            self.listeners -= 1

    def _readings_of_tick(self) -> list[dict[str, Any]]:
        """Return the readings of this tick, taken once for all who listen."""
        now = time.monotonic()
        with self._news:
            at, readings = self._shared
            if now - at >= SHARED_FOR / (READINGS_PER_S * self._speed):
                readings = self.readings()
                self._shared = (now, readings)
            return readings

    def _news_of(self, batch_id: int | None) -> Iterator[dict[str, Any]]:
        told: tuple[int | None, list[dict[str, Any]]] | None = None
        told_at, moved_at = 0.0, time.monotonic()
        while True:
            readings, now = self._readings_of_tick(), time.monotonic()
            seq = self._batch_seq.get(batch_id) if batch_id is not None else None
            still = now - moved_at >= STILL_AFTER_S
            if told is None or seq != told[0] or _moved(told[1], readings, still=True):
                moved_at, still = now, False
            if told is None or seq != told[0] or _moved(told[1], readings, still=still) or now - told_at >= SAID_AGAIN_S:
                told, told_at = (seq, readings), now
                yield {"readings": readings, "seq": seq}
            with self._news:
                self._news.wait((STILL_TICKS if still else 1) / (READINGS_PER_S * self._speed))


def _moved(before: list[dict[str, Any]], after: list[dict[str, Any]], *, still: bool) -> bool:
    """Whether a device says something else; a last digit that flickers waits, but that of a scale in use."""
    return len(before) != len(after) or any(
        one["fault"] != other["fault"] or one["device"] != other["device"] or _differs(one, other, still=still)
        for one, other in zip(before, after, strict=True)
    )


def _differs(one: dict[str, Any], other: dict[str, Any], *, still: bool) -> bool:
    if one["value"] is None or other["value"] is None:
        return one["value"] is not other["value"]
    if one["device"] == "scale" and not still:
        return bool(one["value"] != other["value"] or one["stable"] != other["stable"])
    return bool(abs(one["value"] - other["value"]) > FLICKERS[one["device"]])


def open_devices(clock: BenchClock, scale_port: str | None) -> BenchDevices:
    """Return the devices of a bench, with the scale on a serial port where one is named.

    Raises
    ------
    InputError
        If the port cannot be opened.
    """
    if scale_port is None:
        return BenchDevices(clock)
    try:
        return BenchDevices(clock, SerialScale(scale_port))
    except (OSError, ValueError) as error:
        raise InputError(f"No scale on {scale_port}: {error}.", quantity="scale-port") from error
