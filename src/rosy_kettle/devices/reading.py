"""What a device says, and what every device can do."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

__all__ = ["STAND_IN", "Device", "DeviceReading", "Scale"]


@dataclass(frozen=True, slots=True)
class DeviceReading:
    """One reading. ``value`` is None while nothing can be read; ``fault`` then says why."""

    device: str
    """scale, thermometer or hygrometer."""
    value: float | None
    unit: str
    stable: bool
    fault: str
    at_ms: float
    """Time of the reading, ms since 1970 UTC."""
    source: str = "device"
    """device, or stand-in: then nobody measured it."""


STAND_IN = "stand-in"
"""Source of a reading that nobody measured."""


class Device(Protocol):
    """A source of readings; a real one and a simulated one look the same."""

    name: str

    def read(self, at_s: float) -> DeviceReading:
        """Return the reading at a moment [s since 1970 UTC]."""
        ...


class Scale(Device, Protocol):
    """A scale can be zeroed."""

    def zero(self) -> None:
        """Take what lies on it as nothing."""
        ...
