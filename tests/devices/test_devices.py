"""Stand-ins behave as the real devices do, and a real scale is read over a serial line."""

from __future__ import annotations

import os
import pty
import threading
import time

import pytest

from rosy_kettle.core.making.bench import in_grams
from rosy_kettle.core.making.bench.window_watch import bowl_mix, corrected_minutes, watch_window
from rosy_kettle.core.models.fats.cooling import bowl_heat
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.devices import (
    BenchDevices,
    BowlHeat,
    SerialScale,
    SimulatedBowl,
    SimulatedHygrometer,
    SimulatedScale,
    SimulatedThermometer,
    parse_scale_line,
)
from tests.conftest import make_formula

ROOM_C = 21.0


def settled(scale: SimulatedScale, from_s: float, seconds: float = 4.0) -> float:
    reading = None
    for step in range(int(seconds * 10) + 1):
        reading = scale.read(from_s + step / 10)
    assert reading is not None
    assert reading.stable
    assert reading.value is not None
    return reading.value


def test_the_scale_settles_rounds_and_zeroes() -> None:
    scale = SimulatedScale()
    settled(scale, 0.0)
    scale.pour(100.0)
    first = scale.read(4.2)
    assert first.value is not None
    assert 0 < first.value < 100
    assert not first.stable, "while it still moves it is not still"
    assert settled(scale, 4.3) == pytest.approx(100.0, abs=0.5)
    scale.zero()
    assert settled(scale, 9.0) == pytest.approx(0.0, abs=0.4)
    scale.pour(12.3, 2.0, 14.0)
    middle = scale.read(15.0).value
    assert middle is not None
    assert 1 < middle < 12
    shown = settled(scale, 15.1)
    assert shown == pytest.approx(12.3, abs=0.5)
    assert shown == pytest.approx(round(shown / 0.1) * 0.1)


def test_the_scale_says_overload_and_unplugged() -> None:
    scale = SimulatedScale(capacity_g=1000.0)
    scale.pour(1500.0)
    for step in range(40):
        reading = scale.read(step / 10)
    assert (reading.value, reading.fault) == (None, "overload")
    scale.plugged = False
    assert scale.read(5.0).fault == "unplugged"
    scale.plugged = True
    scale.clear()
    assert settled(scale, 6.0) == pytest.approx(0.0, abs=0.4)


def test_breath_on_the_hygrometer_fades() -> None:
    hygrometer = SimulatedHygrometer(46.0)
    hygrometer.breathe(0.0)
    breathed, later = hygrometer.read(1.0), hygrometer.read(180.0)
    assert breathed.value is not None
    assert later.value is not None
    assert breathed.value > 65
    assert not breathed.stable
    assert later.value == pytest.approx(46, abs=1)


@pytest.mark.parametrize(("text", "found"), [
    ("ST,GS,+  123.4 g", (123.4, True, "")), ("US,GS,-    0.2 g", (-0.2, False, "")), ("ST,NT,+   1.234 kg", (1234.0, True, "")),
    ("OL,GS,+", (None, False, "overload")), ("ST,GS,   2.00 oz\r\n", (56.69904625, True, "")),
])  # fmt: skip
def test_lines_of_a_scale_are_read(text: str, found: tuple[float | None, bool, str]) -> None:
    assert parse_scale_line(text) == (pytest.approx(found[0]) if found[0] is not None else None, found[1], found[2])


@pytest.mark.parametrize("text", ["", "hello", "ST,GS,+  12", "ST,GS,+ g", "ST;GS;+ 1 g", "ST,GS,+  1 stone"])
def test_what_is_no_line_is_refused(text: str) -> None:
    if text == "ST,GS,+  12":
        assert parse_scale_line(text)[0] == 12.0, "a scale that sends no unit sends grams"
        return
    with pytest.raises(ValueError, match="line"):
        parse_scale_line(text)


def test_a_scale_on_a_serial_line_is_read_zeroed_and_missed() -> None:
    """Over a pseudo-terminal: half a line first, as when one starts listening."""
    master, slave = pty.openpty()
    scale = SerialScale(os.ttyname(slave))
    try:
        assert scale.read(time.time()).fault == "nothing heard yet"
        os.write(master, b"23.4 g\r\nUS,GS,+  120.1 g\r\nST,GS,+  123.4 g\r\n")
        assert heard(scale, 123.4)
        scale.zero()
        os.write(master, b"ST,GS,+  160.9 g\r\n")
        assert heard(scale, 37.5)
        assert scale.read(time.time() + 10).fault == "silent"
        os.write(master, b"OL,GS,+\r\n")
        end = time.monotonic() + 15
        while scale.read(time.time()).fault != "overload":
            assert time.monotonic() < end
            time.sleep(0.02)
    finally:
        scale.close()
        os.close(slave)
        os.close(master)


def heard(scale: SerialScale, value: float) -> bool:
    end = time.monotonic() + 15
    while time.monotonic() < end:
        reading = scale.read(time.time())
        if reading.value is not None and reading.stable and abs(reading.value - value) < 1e-6:
            return True
        time.sleep(0.02)
    return False


def butter_scoop(tables: Tables) -> Formula:
    formula = make_formula(
        "butter-dough", baking_soda=420, slsa_fine=110, citric_acid_anhydrous=90, corn_starch=60, cocoa_butter=70, shea_butter=90,
        sweet_almond_oil=60, glycerin=20,
    )  # fmt: skip
    return in_grams(formula, tables, 1000.0)


def shown_minutes(bowl: SimulatedBowl, thermometer: SimulatedThermometer, edge_c: float, from_s: float) -> float:
    """When the thermometer's own scale meets the edge: that is what the maker sees [min]."""
    at_s = from_s
    while bowl.room_c + (bowl.temperature(at_s) - bowl.room_c) * thermometer.emissivity / thermometer.seen_as > edge_c:
        at_s += 2.0
        assert at_s < 30_000
    return at_s / 60


@pytest.mark.parametrize("seed", range(25))
def test_three_readings_foretell_the_windows_edge(tables: Tables, seed: int) -> None:
    """A bowl whose loss, heat and latent heat are each up to 25 % off the tables: within 15 % of the time it takes."""
    formula = butter_scoop(tables)
    mix, bowl_j_k = bowl_mix(formula, tables)
    heat_j_k, loss_w_k, latent = bowl_heat(mix, bowl_j_k)
    bowl = SimulatedBowl(ROOM_C, seed)
    bowl.fill(47.0, BowlHeat(heat_j_k, loss_w_k, latent), 0.0)
    thermometer = SimulatedThermometer(bowl, 1000 + seed)
    readings = []
    for minute in (0.0, 3.0, 6.0):
        shown = thermometer.read(minute * 60).value
        assert shown is not None
        readings.append((minute, shown))
    ahead, corrected = corrected_minutes(mix, readings, 36.0, ROOM_C, bowl_j_k)
    assert corrected
    assert ahead is not None
    true = shown_minutes(bowl, thermometer, 36.0, 360.0)
    assert 6.0 + ahead == pytest.approx(true, rel=0.15)


def test_too_hot_says_cool_right_says_go_on_too_cold_says_warm(tables: Tables) -> None:
    formula = butter_scoop(tables)
    verdicts = {
        celsius: watch_window(formula, tables, [(0.0, celsius)], 28.0, 37.0, ROOM_C).verdict for celsius in (45.0, 33.0, 24.0)
    }
    assert verdicts == {45.0: "cool", 33.0: "work", 24.0: "warm"}
    hot = watch_window(formula, tables, [(0.0, 45.0)], 28.0, 37.0, ROOM_C)
    assert hot.minutes is not None
    assert hot.minutes > 1
    assert "by the model" in hot.sentence
    assert "never cools" in watch_window(formula, tables, [(0.0, 45.0)], 28.0, 37.0, 38.0).sentence


def test_a_warmed_bowl_warms_and_cools_again() -> None:
    bowl = SimulatedBowl(ROOM_C)
    bowl.fill(ROOM_C, BowlHeat(400.0, 0.2), 0.0)
    bowl.warm(600.0, 60.0, 0.0)
    warm = bowl.temperature(60.0)
    assert warm > 60
    assert ROOM_C < bowl.temperature(4 * 3600.0) < warm


def test_a_still_bench_says_little_and_what_moves_is_heard_at_once() -> None:
    """A listener of a quiet bench costs hardly anything; a batch that moves on wakes it."""
    devices = BenchDevices(stands_in=lambda: True)
    listening = devices.listen(7, 10)
    assert listening is not None
    heard = iter(listening)
    next(heard)
    began, news = time.monotonic(), 0
    while time.monotonic() - began < 14:
        next(heard)
        news += time.monotonic() - began > 11
    assert news < 10, "in three still seconds"
    threading.Timer(0.1, devices.tell, (7, 42)).start()
    asked = time.monotonic()
    assert next(each["seq"] for each in heard if each["seq"] == 42) == 42
    assert time.monotonic() - asked < 1.0
    devices.simulated_scale.pour(100.0, 0.0, time.time())
    poured = time.monotonic()
    assert next(each for each in heard if (each["readings"][0]["value"] or 0) > 50)
    assert time.monotonic() - poured < 2.0
    listening.close()
