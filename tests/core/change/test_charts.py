"""Curves say what the readings say, at every point where both speak."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.readings.charts import charts_of
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Heat, Line, Portion, Room, Tables
from tests.conftest import make_formula

BRICK = make_formula(
    "butter-dough", baking_soda=380, citric_acid_anhydrous=160, slsa_fine=100, cocoa_butter=80, shea_butter=90, glycerin=25,
    polysorbate_80=20,
)  # fmt: skip
DUST = make_formula("loose-dust", baking_soda=300, citric_acid_anhydrous=150, sweet_almond_oil=12)


def test_the_texture_curve_is_the_readings_own(tables: Tables) -> None:
    charts, dough = charts_of(BRICK, tables), evaluate(BRICK, tables).dough
    assert dough is not None
    assert charts.texture == dough.by_temperature
    assert charts.working_window_c == dough.working_window_c
    assert [point.temperature_c for point in charts.texture] == [float(t) for t in range(10, 61)]


@pytest.mark.parametrize(("wet_c", "room_c", "says"), [
    (None, 21.0, "Ready at about minute"), (45.0, 21.0, "Ready at once"), (20.0, 16.0, "already stiffer"), (None, 36.0, "never cools"),
])  # fmt: skip
def test_the_clock_says_when_it_is_ready(tables: Tables, wet_c: float | None, room_c: float, says: str) -> None:
    clock = charts_of(replace(BRICK, heat=Heat(wet_c), room=Room(room_c, 40.0)), tables).cooling
    assert clock is not None
    assert says in clock.sentence
    low, high = clock.window_c
    where = (
        "already stiffer"
        if clock.from_c < low
        else "at once"
        if clock.from_c <= high
        else "at about"
        if clock.ready_min
        else "never"
    )
    assert where in clock.sentence
    assert (clock.stiff_min is None) == (room_c >= low), "in a room warmer than its window nothing gets too stiff"


def test_each_portion_has_curves_of_its_own_lines(tables: Tables) -> None:
    two = Formula("two", (BRICK.portions[0], replace(DUST.portions[0], name="topping")), method=BRICK.method)
    body, topping = (charts_of(two, tables, portion) for portion in (0, 1))
    assert [fat.name for fat in body.fats] == [fat.name for fat in charts_of(BRICK, tables).fats]
    assert len(body.fats) == 2
    assert topping.fats == ()


def test_the_window_lies_where_the_curve_is_wanted(tables: Tables) -> None:
    charts = charts_of(BRICK, tables)
    assert charts.working_window_c is not None
    low, high = charts.working_window_c
    inside = [point.state for point in charts.texture if low <= point.temperature_c <= high]
    assert set(inside) <= set(charts.wanted_states)


def test_fresh_cocoa_butter_is_never_harder_than_the_settled_one(tables: Tables) -> None:
    charts = charts_of(BRICK, tables)
    pairs = zip(charts.texture, charts.texture_fresh, strict=True)
    assert all((fresh.saturation or 0) >= (settled.saturation or 0) - 1e-9 for settled, fresh in pairs)
    assert charts_of(DUST, tables).texture_fresh == ()


def test_the_bath_runs_through_the_four_readings(tables: Tables) -> None:
    charts, bath = charts_of(BRICK, tables), evaluate(BRICK, tables).bath
    assert [(stage.stage, stage.ph) for stage in charts.bath] == [
        ("fresh", bath.ph_fresh), ("step-in", bath.ph_stepin), ("after 20 min", bath.ph_soak), ("aired", bath.ph_aired),
    ]  # fmt: skip
    assert all(stage.low < stage.ph < stage.high for stage in charts.bath)  # type: ignore[operator]


def test_foam_is_full_when_the_tap_closes_and_halves_by_its_half_life(tables: Tables) -> None:
    charts, lather = charts_of(BRICK, tables), evaluate(BRICK, tables).lather
    assert lather.foam_l is not None
    assert lather.half_life_min is not None
    at = {point.minutes: point.litres for point in charts.foam}
    assert at[0.0] == 0
    assert max(at.values()) == pytest.approx(lather.foam_l)
    later = 8.0 + 2 * round(lather.half_life_min / 2)
    assert at[later] == pytest.approx(lather.foam_l * 2 ** (-(later - 8.0) / lather.half_life_min))
    assert charts_of(DUST, tables).foam == ()


def test_solid_fat_only_falls_and_the_blend_lies_between_its_fats(tables: Tables) -> None:
    charts = charts_of(BRICK, tables)
    shares = [point.solid_pct for point in charts.solid]
    assert shares == sorted(shares, reverse=True)
    assert {fat.name for fat in charts.fats} == {"Cocoa butter", "Shea butter"}
    for at, blend in enumerate(shares):
        single = [fat.points[at].solid_pct for fat in charts.fats]
        assert min(single) - 1e-9 <= blend <= max(single) + 1e-9


def test_a_dough_that_is_not_warmed_has_no_cooling(tables: Tables) -> None:
    assert charts_of(BRICK, tables).cooling is not None
    assert charts_of(replace(BRICK, method="betaine-dough"), tables).cooling is None
    assert charts_of(DUST, tables).cooling is None


def test_each_portion_has_its_own_curves(tables: Tables) -> None:
    wet = Portion("wet", (Line("baking-soda", "100", "g"), Line("glycerin", "40", "g")))
    dry = Portion("dry", (Line("baking-soda", "100", "g"), Line("glycerin", "10", "g")))
    two = Formula("two", (wet, dry), method="glycerin-dough")
    first, second = charts_of(two, tables, 0), charts_of(two, tables, 1)
    assert first.texture[0].saturation == pytest.approx(4 * (second.texture[0].saturation or 0))
    assert first.bath == second.bath, "the bath is that of the whole"


def test_nothing_is_drawn_of_nothing(tables: Tables) -> None:
    with pytest.raises(InputError, match="nothing to draw"):
        charts_of(make_formula(), tables)
