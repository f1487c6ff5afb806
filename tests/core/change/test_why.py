"""Levers come true, contributions are honest, constants have sources; cooling, rolls, puff and spin."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.substitute import substitutes, swap_in
from rosy_kettle.core.change.why import constants_of, contributions, levers
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import Setting, setting_of
from rosy_kettle.core.models.dough.readings import fresh_texture
from rosy_kettle.core.models.fats.cooling import cooling_clock, minutes_to
from rosy_kettle.core.models.lather.foam import Foam
from rosy_kettle.core.models.lather.over_time import foam_after
from rosy_kettle.core.models.pieces.floating import spin
from rosy_kettle.core.models.pieces.rolls import roll_geometry
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.readings.registry import declared
from rosy_kettle.core.records import Formula, Line, Piece, Portion, Room, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula
from tests.core.models.test_dough import BETAINE_SCOOP
from tests.core.models.test_tub_readings import SCOOPED_TRUFFLE

Judge = Callable[[Formula], Evaluation]
STICKY = make_formula(
    baking_soda=218, slsa_fine=82, corn_starch=113, cream_of_tartar=28, kaolin=11, capb_liquid=90, avocado_oil=28, glycerin=95
)


def with_line(formula: Formula, ingredient: str, grams: float) -> Formula:
    body = formula.portions[0]
    there = any(line.ingredient == ingredient for line in body.lines)
    lines = [replace(line, amount=str(grams)) if line.ingredient == ingredient else line for line in body.lines]
    return replace(formula, portions=(replace(body, lines=(*lines, *(() if there else (Line(ingredient, str(grams), "g"),)))),))


def value_of(result: Evaluation, path: str) -> float | None:
    found: object = result
    for name in path.split("."):
        found = getattr(found, name)
    return None if found is None else float(str(found))


def mixed(formula: Formula, tables: Tables, total_g: float | None = None) -> tuple[Mix, Setting]:
    weighed, _ = weigh_formula(formula, tables)
    mass_g = np.array([item.mass_g for item in weighed])
    mass_g *= total_g / mass_g.sum() if total_g else 1.0
    setting = setting_of(formula, tables, float(mass_g.sum()))
    return setting.mix(make_palette([item.ingredient for item in weighed]), mass_g), setting


@pytest.mark.parametrize(
    ("formula", "reading", "low", "high"),
    [
        (STICKY, "dough.saturation", 0.65, 0.95),
        (BETAINE_SCOOP, "lather.score", 68.0, None),
        (BETAINE_SCOOP, "drying.hours", None, 26.0),
        (BETAINE_SCOOP, "firmness.at_20_c", 82.0, 90.0),
    ],
)
def test_what_a_lever_promises_comes_true(
    tables: Tables, formula: Formula, reading: str, low: float | None, high: float | None
) -> None:
    offered = levers(formula, tables, reading, low, high)
    assert len(offered) >= 3
    for lever in offered[:3]:
        result = evaluate(with_line(formula, lever.ingredient, lever.after_g), tables)
        assert value_of(result, reading) == pytest.approx(lever.value, rel=1e-6)
        for effect in lever.effects:
            came = value_of(result, effect.reading)
            if effect.reading == "cost.piece":
                assert came == pytest.approx(effect.after, abs=0.006), "shown in cents"
            else:
                assert came == pytest.approx(effect.after, rel=1e-6)
    first = [lever for lever in offered if not lever.why_not]
    assert [lever.effort for lever in first if lever.reaches] == sorted(lever.effort for lever in first if lever.reaches)
    assert offered[: len(first)] == tuple(first), "what speaks against one comes last"


def test_water_is_never_more_than_a_small_step(tables: Tables) -> None:
    dry = make_formula("damp-press", baking_soda=660, citric_acid_anhydrous=330, corn_starch=10)
    water = next(lever for lever in levers(dry, tables, "dough.saturation", 0.08, 0.28) if lever.ingredient == "distilled-water")
    assert 0 < water.after_g <= 0.003 * 1000 + 0.05


def test_locked_lines_are_no_levers(tables: Tables) -> None:
    body = STICKY.portions[0]
    locked = replace(STICKY, portions=(replace(body, lines=tuple(replace(line, locked=True) for line in body.lines)),))
    assert all(lever.position is None for lever in levers(locked, tables, "dough.saturation", 0.65, 0.95))


def test_levers_refuse_what_cannot_be_meant(tables: Tables) -> None:
    with pytest.raises(InputError, match="wanted band"):
        levers(STICKY, tables, "lather.score", None, None)
    with pytest.raises(InputError, match="above the high end"):
        levers(STICKY, tables, "lather.score", 80, 60)
    with pytest.raises(InputError, match="cannot be said"):
        levers(BETAINE_SCOOP, tables, "skin.scent_share", None, 1)


def test_a_contribution_is_the_reading_with_the_line_less_the_reading_without(tables: Tables, judge: Judge) -> None:
    found = {each.ingredient: each for each in contributions(BETAINE_SCOOP, tables, "lather.score")}
    whole = value_of(judge(BETAINE_SCOOP), "lather.score")
    without = value_of(judge(with_line(BETAINE_SCOOP, "avocado-oil", 0)), "lather.score")
    assert whole is not None
    assert without is not None
    assert found["avocado-oil"].adds == pytest.approx(whole - without, rel=1e-9)
    assert found["avocado-oil"].adds < 0 < found["slsa-fine"].adds  # type: ignore[operator]


def test_every_reading_has_a_page_and_constants_with_sources() -> None:
    for reading in declared().values():
        assert reading.page
        assert all(each.source and each.confidence in {"high", "medium", "low"} for each in constants_of(reading.id))


def test_a_butter_scoop_cools_within_the_bracket(tables: Tables) -> None:
    """1 kg from 38.5 to 29 °C in 33 to 50 min: the model's check value, from common practice."""
    mix, setting = mixed(SCOOPED_TRUFFLE, tables, 1000)
    found = minutes_to(mix, 38.5, 29.0, 21.0, setting.bowl_j_k)
    assert found is not None
    assert found == (pytest.approx(33, rel=0.1), pytest.approx(50, rel=0.1))
    clock = cooling_clock(mix, 40.0, (29.0, 38.0), 21.0, setting.bowl_j_k)
    assert clock.ready_min is not None
    assert clock.ready_min[0] == pytest.approx(4, abs=2)
    assert "too stiff at about minute" in clock.sentence
    assert [p.setting_c for p in clock.path] == sorted((p.setting_c for p in clock.path), reverse=True)
    assert all(p.undercooled_c <= p.setting_c + 1e-6 for p in clock.path)


def test_a_hot_room_never_lets_it_stiffen_and_a_cold_bowl_says_warm_it(tables: Tables) -> None:
    mix, setting = mixed(SCOOPED_TRUFFLE, tables)
    assert minutes_to(mix, 38.0, 29.0, 32.0, setting.bowl_j_k) is None
    assert "does not get too stiff" in cooling_clock(mix, 40.0, (29.0, 38.0), 32.0, setting.bowl_j_k).sentence
    assert "warm it" in cooling_clock(mix, 25.0, (29.0, 38.0), 21.0, setting.bowl_j_k).sentence


def test_newton_cooling_by_its_own_differential_equation(tables: Tables) -> None:
    """Without fat the bracket closes: dT/dt = -hA (T - Tr)/C, solved in small steps."""
    mix, setting = mixed(make_formula(baking_soda=900, glycerin=200), tables)
    found = minutes_to(mix, 60.0, 30.0, 21.0, setting.bowl_j_k)
    assert found is not None
    assert found[0] == pytest.approx(found[1], rel=1e-3)
    capacity = 900 * 1.04 + 200 * 2.3 + 500
    at_c, seconds = 60.0, 0.0
    while at_c > 30.0:
        at_c -= 9.0 * 0.09 * (at_c - 21.0) / capacity * 1.0
        seconds += 1.0
    assert found[0] == pytest.approx(seconds / 60, rel=0.01)


def test_the_fresh_cocoa_curve_is_softer(tables: Tables) -> None:
    formula = make_formula("moulded-truffle", baking_soda=200, citric_acid_anhydrous=100, cocoa_butter=135)
    fresh = {point.temperature_c: point.saturation for point in fresh_texture(mixed(formula, tables)[0])}
    settled = {point.temperature_c: point.saturation for point in evaluate(formula, tables).dough.by_temperature}  # type: ignore[union-attr]
    assert fresh[28.0] > settled[28.0]  # type: ignore[operator]
    assert fresh_texture(mixed(BETAINE_SCOOP, tables)[0]) == ()


@pytest.mark.parametrize(("acid_pct", "standing", "stirred"), [(1, 14, 5), (2, 22, 8), (5, 32, 11)])
def test_puff_of_a_scoop_with_a_little_acid(
    tables: Tables, judge: Judge, acid_pct: float, standing: float, stirred: float
) -> None:
    """Common practice, no published source; within a factor of 2, held here to 10 %."""
    acid = 587 * acid_pct / (100 - acid_pct)
    dough = judge(with_line(BETAINE_SCOOP, "citric-acid-anhydrous", acid)).dough
    assert dough is not None
    assert dough.puff_pct == pytest.approx(standing, rel=0.1)
    assert dough.puff_stirred_pct == pytest.approx(stirred, rel=0.1)


def test_acid_spent_in_the_bowl(judge: Judge) -> None:
    """1 % sprayed water about 3 %; 5 % citric in a betaine scoop about 70 % (common practice, no published source)."""
    ball = make_formula("damp-press", baking_soda=660, citric_acid_anhydrous=330, distilled_water=10)
    assert judge(ball).fizz.prereaction_share == pytest.approx(0.03, abs=0.005)
    scoop = judge(with_line(BETAINE_SCOOP, "citric-acid-anhydrous", 31))
    assert scoop.fizz.prereaction_share == pytest.approx(0.70, abs=0.03)
    assert any(item.code == "acid_spent" and item.severity == "warn" for item in scoop.advice)
    assert judge(BETAINE_SCOOP).fizz.prereaction_share is None
    dried = replace(with_line(ball, "liquid-bubble-bath", 60), method="pre-dried-surfactant")
    assert judge(dried).fizz.prereaction_share == pytest.approx(0.03, abs=0.005), "the bottle's water is gone, the sprayed is not"


def test_a_half_coconut_truffle_may_be_far_softer_than_its_mean(judge: Judge) -> None:
    """The low edge of the band is 42 at 20 °C and 3 at 30 °C; a test piece comes first."""
    truffle = make_formula(
        "moulded-truffle", baking_soda=200, citric_acid_anhydrous=100, cocoa_butter=68, coconut_oil_76=67,
        fragrance_oil_generic=3, polysorbate_80=6,
    )  # fmt: skip
    result = judge(truffle)
    assert result.firmness.at_20_c_band is not None
    assert result.firmness.at_30_c_band is not None
    assert result.firmness.at_20_c_band[0] == pytest.approx(42, abs=10)
    assert result.firmness.at_30_c_band[0] == pytest.approx(3, abs=10)
    assert "fats_soften_each_other" in {item.code for item in result.advice}


def test_acid_one_to_five_floating_spins_sixty_seven(judge: Judge) -> None:
    assert spin(0.1, 0.5, "floats") == pytest.approx(67, abs=0.5)
    halves = tuple(
        Portion(
            name,
            (Line("baking-soda", "300", "g"), Line("citric-acid-anhydrous", str(acid), "g"), Line("sweet-almond-oil", "8", "g")),
        )
        for name, acid in (("first", 30), ("second", 150))
    )
    ball = judge(Formula("spinner", halves, method="damp-press", piece=Piece(packing="loose")))
    assert ball.piece.spin == 0, "loose dust has no verdict"
    hand = judge(Formula("spinner", halves, method="damp-press"))
    assert hand.piece.spin is not None
    assert hand.piece.spin > 0
    assert judge(make_formula("damp-press", baking_soda=660, citric_acid_anhydrous=330)).piece.spin == 0


def test_shelf_loss_grows_with_damp_and_shrinks_with_wrapping(judge: Judge) -> None:
    ball = make_formula("damp-press", baking_soda=660, citric_acid_anhydrous=330, sweet_almond_oil=10)
    dry, damp = judge(ball).shelf, judge(replace(ball, room=Room(21, 58))).shelf
    assert dry.acid_loss_pct_day is not None
    assert damp.acid_loss_pct_day is not None
    assert damp.acid_loss_pct_day / dry.acid_loss_pct_day == pytest.approx(math.e ** (18 / 8), rel=1e-6)
    assert dry.in_film_pct_day == pytest.approx(0.05 * dry.acid_loss_pct_day)
    assert judge(BETAINE_SCOOP).shelf.acid_loss_pct_day is None


def test_alcohol_leaves_the_bowl(judge: Judge) -> None:
    wet = make_formula("damp-press", baking_soda=660, citric_acid_anhydrous=330, isopropyl_alcohol_99=40)
    dough = judge(wet).dough
    assert dough is not None
    left = [point.saturation for point in dough.alcohol_leaving]
    assert left == sorted(left, reverse=True)
    # 0.4 kg/(m2 h) over 0.05 m2 is 3.3 g in ten minutes.
    assert (left[0] - left[1]) / left[0] == pytest.approx(3.33 / 40 * 0.99, rel=0.05)


def test_chances_of_the_scoop_sum_to_one(judge: Judge) -> None:
    """About three in four play dough, one in four crumbly: the model's own band at its edge."""
    dough = judge(BETAINE_SCOOP).dough
    assert dough is not None
    chances = {each.state: each.chance for each in dough.state_chances}
    assert sum(chances.values()) == pytest.approx(1, abs=0.02)
    assert chances["play dough"] == pytest.approx(0.76, abs=0.05)
    assert chances["crumbly dough"] == pytest.approx(0.24, abs=0.05)


@given(volume=st.floats(200, 5000), width=st.floats(120, 600), layers=st.integers(1, 5), sheet=st.floats(3, 12))
def test_a_roll_keeps_its_volume(volume: float, width: float, layers: int, sheet: float) -> None:
    """The cylinder holds what the sheet held: pi/4 D2 W = l W t = V."""
    roll = roll_geometry(volume, width, layers, sheet, 25)
    assert math.pi / 4 * roll.diameter_mm**2 * width / 1000 == pytest.approx(volume, rel=1e-9)
    assert roll.length_mm * width * roll.thickness_mm / 1000 == pytest.approx(volume, rel=1e-9)
    assert roll.slices * 26 <= max(0.0, width - 16) + 1e-6


def test_a_usual_two_colour_roll() -> None:
    """6 mm sheets, two colours, 25 mm slices by knife from a 300 mm roll: 10 slices after 8 mm of trim at each end."""
    roll = roll_geometry(900, 300, 2, 6, 25)
    assert roll.slices == (300 - 16) // 26
    assert roll.rolls
    assert 2 <= roll.turns <= 4
    assert not roll_geometry(100, 300, 4, 12, 25).rolls
    with pytest.raises(InputError, match="cut must be"):
        roll_geometry(900, 300, 2, 6, 25, cut="wire")


def test_foam_rises_over_the_fill_and_halves_by_its_half_life() -> None:
    made = Foam(48.0, 55.0, 6.0, 40.0, 20.0, over_the_rim=False)
    assert [foam_after(made, t) for t in (0, 4, 8, 28, 48)] == pytest.approx([0, 24, 48, 24, 12])


def test_oil_for_oil_moves_least_and_says_who_may_react(tables: Tables) -> None:
    position = next(i for i, line in enumerate(BETAINE_SCOOP.lines) if line.ingredient == "avocado-oil")
    found = substitutes(BETAINE_SCOOP, tables, position)
    assert all(each.role == "oil" for each in found)
    assert found[0].disturbance < 0.5
    assert "tree_nut" in next(each for each in found if each.ingredient == "sweet-almond-oil").allergen_tags
    assert [each.disturbance for each in found if each.holds and not each.why_not] == sorted(
        each.disturbance for each in found if each.holds and not each.why_not
    )


def test_starch_takes_the_place_of_tartar_at_equal_firmness(tables: Tables, judge: Judge) -> None:
    position = next(i for i, line in enumerate(BETAINE_SCOOP.lines) if line.ingredient == "cream-of-tartar")
    before = judge(BETAINE_SCOOP)
    result = swap_in(BETAINE_SCOOP, tables, position, "corn-starch")
    assert result.status == "solved"
    assert not any(line.ingredient == "cream-of-tartar" for line in result.lines)
    assert result.readings_after.firmness.at_20_c == pytest.approx(before.firmness.at_20_c, abs=3.01)
    assert float(result.readings_after.cost.batch or 0) < float(before.cost.batch or 0)
    with pytest.raises(InputError, match="no candidate"):
        swap_in(BETAINE_SCOOP, tables, position, "beeswax")
