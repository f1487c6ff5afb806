"""Devices at the bench: one small interface, simulated stand-ins, and a scale on a serial port."""

from rosy_kettle.devices.bench_devices import BenchClock, BenchDevices, open_devices
from rosy_kettle.devices.bowl import BowlHeat, SimulatedBowl
from rosy_kettle.devices.reading import Device, DeviceReading, Scale
from rosy_kettle.devices.serial_scale import SerialScale, parse_scale_line
from rosy_kettle.devices.simulated import SimulatedHygrometer, SimulatedScale, SimulatedThermometer

__all__ = [
    "BenchClock", "BenchDevices", "BowlHeat", "Device", "DeviceReading", "Scale", "SerialScale", "SimulatedBowl",
    "SimulatedHygrometer", "SimulatedScale", "SimulatedThermometer", "open_devices", "parse_scale_line",
]  # fmt: skip
