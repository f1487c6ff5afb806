"""A real scale on a serial port that sends its reading all the time, one line each: ``ST,GS,+  123.4 g``."""

from __future__ import annotations

import re
import threading
import time

import serial

from rosy_kettle.core.amounts.units import WEIGHT_G
from rosy_kettle.devices.reading import DeviceReading

__all__ = ["SerialScale", "parse_scale_line"]

LINE = re.compile(r"^(ST|US|OL)\s*,\s*(?:GS|NT)\s*,\s*([+-]?)\s*(\d+(?:\.\d+)?)?\s*(g|kg|oz|lb)?\s*$")
SILENT_AFTER_S = 2.0
READ_TIMEOUT_S = 0.5


def parse_scale_line(text: str) -> tuple[float | None, bool, str]:
    """Return mass [g], whether it is still, and a fault.

    Parameters
    ----------
    text : str
        One line of the scale, without its end

    Returns
    -------
    tuple
        Mass or None, still or not, fault or an empty string

    Raises
    ------
    ValueError
        If the line is none of a scale.

    Examples
    --------
    >>> parse_scale_line("ST,GS,+  123.4 g")
    (123.4, True, '')
    """
    found = LINE.match(text.strip())
    if found is None:
        raise ValueError(f"not a line of a scale: {text[:40]!r}")
    state, sign, digits, unit = found.groups()
    if state == "OL":
        return None, False, "overload"
    if digits is None:
        raise ValueError(f"a line without a figure: {text[:40]!r}")
    mass_g = float(digits) * WEIGHT_G[unit or "g"] * (-1 if sign == "-" else 1)
    return mass_g, state == "ST", ""


class SerialScale:
    """Reads the port in a thread of its own; what was read last is what it says."""

    name = "scale"

    def __init__(self, port: str, baud: int = 9600) -> None:
        self._port = serial.Serial(port, baud, timeout=READ_TIMEOUT_S)
        self._lock = threading.Lock()
        self._mass_g: float | None = None
        self._stable, self._fault, self._heard_s = False, "nothing heard yet", 0.0
        self._tare_g = 0.0
        self._open = True
        self._thread = threading.Thread(target=self._listen, daemon=True)
        self._thread.start()

    def zero(self) -> None:
        """Take what lies on it as nothing."""
        with self._lock:
            if self._mass_g is not None:
                self._tare_g = self._mass_g

    def read(self, at_s: float) -> DeviceReading:
        """Return what was heard last, or that nothing is heard."""
        with self._lock:
            silent = at_s - self._heard_s > SILENT_AFTER_S
            fault = "silent" if silent and not self._fault else self._fault
            value = None if fault or self._mass_g is None else round(self._mass_g - self._tare_g, 3)
            return DeviceReading(self.name, value, "g", stable=self._stable and value is not None, fault=fault, at_ms=at_s * 1000)

    def close(self) -> None:
        """Let go of the port."""
        self._open = False
        self._thread.join(timeout=2 * READ_TIMEOUT_S)
        self._port.close()

    def _listen(self) -> None:
        while self._open:
            try:
                line = self._port.readline().decode("ascii", errors="replace")
            except (serial.SerialException, OSError):
                with self._lock:
                    self._mass_g, self._fault = None, "unplugged"
                return
            if not line.strip():
                continue
            try:
                mass_g, stable, fault = parse_scale_line(line)
            except ValueError:
                continue  # half a line at the start of listening is no reading
            with self._lock:
                self._mass_g, self._stable, self._fault, self._heard_s = mass_g, stable, fault, time.time()
