"""The watched window: what a temperature means, and how the bowl's own readings correct the model."""

from __future__ import annotations

import math
import re

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.making.bench.window_watch import bowl_mix, corrected_minutes, watch_window
from rosy_kettle.core.models.fats.cooling import minutes_to
from rosy_kettle.core.records import Tables
from rosy_kettle.reference import load_tables
from tests.conftest import make_formula

# Soda, acid, tartar, surfactant and two butters, in the proportions of a common butter scoop.
SCOOP = make_formula(
    "butter-dough", baking_soda=400, citric_acid_anhydrous=200, cream_of_tartar=60, slsa_fine=120, cocoa_butter=90,
    shea_butter=90, glycerin=30, polysorbate_20=20, fragrance_oil_generic=15,
)  # fmt: skip
LOW, HIGH, ROOM = 26.0, 37.0, 21.0
MIX, BOWL = bowl_mix(SCOOP, load_tables())


def readings(scale: float, *temperatures_c: float) -> list[tuple[float, float]]:
    """When a bowl that cools ``scale`` times as slowly as the model shows these temperatures [min, °C]."""
    first = temperatures_c[0]
    times = [minutes_to(MIX, first, each, ROOM, BOWL) for each in temperatures_c]
    return [(0.0 if time is None else scale * time[1], each) for time, each in zip(times, temperatures_c, strict=True)]


@pytest.mark.parametrize(("now_c", "verdict", "words"), [
    (45.0, "cool", "too hot, cool to 37 °C"), (37.5, "cool", "too hot"), (33.0, "work", "right; workable for about"),
    (26.5, "work", "right"), (24.0, "warm", "too cold, warm it gently to 26 °C"),
])  # fmt: skip
def test_a_temperature_says_what_to_do(tables: Tables, now_c: float, verdict: str, words: str) -> None:
    watch = watch_window(SCOOP, tables, [(0.0, now_c)], LOW, HIGH, ROOM)
    assert watch.verdict == verdict
    assert words in watch.sentence
    assert re.match(rf"{now_c:.1f} °C", watch.sentence)


def test_without_an_edge_there_is_nothing_to_wait_for(tables: Tables) -> None:
    watch = watch_window(SCOOP, tables, [(0.0, 60.0)], None, None, ROOM)
    assert (watch.verdict, watch.minutes) == ("work", None)


def test_a_room_as_warm_as_the_window_never_lets_it_cool(tables: Tables) -> None:
    watch = watch_window(SCOOP, tables, [(0.0, 45.0)], LOW, HIGH, 38.0)
    assert watch.minutes is None
    assert "never cools to it in this room" in watch.sentence


def test_two_readings_are_not_enough_to_correct() -> None:
    two = readings(1.5, 45.0, 43.0)
    assert corrected_minutes(MIX, two, HIGH, ROOM, BOWL)[1] is False
    three = readings(1.5, 45.0, 43.0, 41.0)
    assert corrected_minutes(MIX, three, HIGH, ROOM, BOWL)[1] is True


def test_a_fall_within_the_thermometers_noise_corrects_nothing() -> None:
    still = [(0.0, 45.0), (1.0, 44.9), (2.0, 44.7)]
    assert corrected_minutes(MIX, still, HIGH, ROOM, BOWL)[1] is False
    falling = [(0.0, 45.0), (1.0, 44.7), (2.0, 44.3)]
    assert corrected_minutes(MIX, falling, HIGH, ROOM, BOWL)[1] is True


@pytest.mark.parametrize(("scale", "believed"), [(8.0, 3.0), (0.05, 1 / 3)])
def test_a_bowl_is_believed_three_times_slower_or_quicker_and_no_more(scale: float, believed: float) -> None:
    """Beyond that the thermometer stands in the wrong place (common practice, no published source)."""
    minutes, _ = corrected_minutes(MIX, readings(scale, 46.0, 44.0, 42.0), HIGH, ROOM, BOWL)
    ahead = minutes_to(MIX, 42.0, HIGH, ROOM, BOWL)
    assert ahead is not None
    assert minutes == pytest.approx(believed * ahead[1], rel=1e-6)


@settings(max_examples=30, deadline=None)
@given(scale=st.floats(0.4, 2.5))
def test_a_bowl_that_is_so_much_slower_is_foretold_so_much_later(scale: float) -> None:
    """The correction must find a factor that was put in, wherever it lies."""
    seen = readings(scale, 46.0, 44.0, 42.0)
    minutes, corrected = corrected_minutes(MIX, seen, HIGH, ROOM, BOWL)
    ahead = minutes_to(MIX, 42.0, HIGH, ROOM, BOWL)
    assert corrected
    assert ahead is not None
    assert minutes == pytest.approx(scale * ahead[1], rel=0.02)


@settings(max_examples=30, deadline=None)
@given(from_c=st.floats(30, 60), fall=st.floats(1, 8))
def test_further_down_takes_longer_and_setting_fat_never_hurries(from_c: float, fall: float) -> None:
    to_c = max(ROOM + 1, from_c - fall)
    near, far = minutes_to(MIX, from_c, to_c, ROOM, BOWL), minutes_to(MIX, from_c, max(ROOM + 0.5, to_c - 1), ROOM, BOWL)
    assert near is not None
    assert far is not None
    assert far[0] >= near[0]
    assert far[1] >= near[1]
    assert near[1] >= near[0] * (1 - 1e-4), "latent heat only slows; it is integrated in steps of 0.1 °C"
    assert all(math.isfinite(each) for each in (*near, *far))
