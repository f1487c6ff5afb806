"""Readings worked by hand: each expected figure follows from the page of its model in a few lines of arithmetic.

Stoichiometry and optics rest on published laws named beside their checks; the trade's constants (hours of a stated piece, weights of
what rings) are common practice, no published source, and stand on docs/science/ with their ranges.
"""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.mixing.batch_loss import batch_loss
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.models.drying.drying_time import drying_time
from rosy_kettle.core.models.drying.shelf import acid_loss_pct_day
from rosy_kettle.core.models.fats.mix_temperature import bowl_heat_j_k
from rosy_kettle.core.models.feel.bath_feel import bath_feel
from rosy_kettle.core.models.firmness.piece_firmness import piece_firmness
from rosy_kettle.core.models.gas.gas_release import brisk_per_100_g
from rosy_kettle.core.models.lather.foam import foam
from rosy_kettle.core.models.pieces.rolls import roll_geometry
from rosy_kettle.core.models.release.release_time import release_minutes
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Piece, Room, Tables, Use
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula, make_lines

KIND_ROOM = Room(21, 40)  # the stated hours hold in it


def mix_of(formula: Formula, tables: Tables, *, sloped: bool = False) -> Mix:
    weighed, _ = weigh_formula(formula, tables)
    mass_g = np.array([line.mass_g for line in weighed])
    mix = setting_of(formula, tables, float(mass_g.sum())).mix(
        make_palette([line.ingredient for line in weighed], tables.parameters), mass_g
    )
    return replace(mix, sloped=True) if sloped else mix


def hours(tables: Tables, formula: Formula) -> tuple[float, float, float]:
    drying = evaluate(formula, tables).drying
    assert drying.hours is not None
    assert drying.low_hours is not None
    assert drying.high_hours is not None
    return drying.hours, drying.low_hours, drying.high_hours


@pytest.mark.parametrize(("humidity", "low", "high"), [(64.0, 0.75, 1.5), (66.0, 0.6, 2.0)])
def test_hours_scatter_wider_in_damp_air(tables: Tables, humidity: float, low: float, high: float) -> None:
    """Within half as much again in even air, up to twice as long above 65 % (common practice, no published source)."""
    formula = replace(make_formula(baking_soda=800, slsa_fine=100, distilled_water=60, corn_starch=40), room=Room(21, humidity))
    at, least, most = hours(tables, formula)
    assert (least / at, most / at) == (pytest.approx(low), pytest.approx(high))


@pytest.mark.parametrize(("butter_g", "humidity", "expected"), [
    (300, 40.0, 24.0), (200, 40.0, 24.0 * math.sqrt(0.2 / 0.3)), (300, 60.0, 24.0 * 1.2),
])  # fmt: skip
def test_a_powder_carried_butter_dough_sets_in_a_day(tables: Tables, butter_g: float, humidity: float, expected: float) -> None:
    """24 h for 30 % of fat, by its root; a fifth longer at 60 % than at 50 % of air (common practice, no published source)."""
    formula = make_formula("moulded-truffle", baking_soda=1000 - butter_g - 100, corn_starch=100, cocoa_butter=butter_g)
    mix = mix_of(formula, tables)
    assert mix.carried == 0, "carried by its powders"
    assert hours(tables, replace(formula, room=Room(21, humidity)))[0] == pytest.approx(expected, rel=1e-6)


@pytest.mark.parametrize(("s", "fat", "carried"), [
    (2.3, 0.5, 0.25), (2.15, 0.55, 0.1875), (2.6, 0.6, 1.0), (2.6, 0.5, 0.5), (2.3, 0.6, 0.5), (1.95, 0.6, 0.0), (2.6, 0.38, 0.0),
])  # fmt: skip
def test_fat_comes_to_carry_from_twice_what_powders_drink(tables: Tables, s: float, fat: float, carried: float) -> None:
    """From S 2.0 over 0.6, times from two fifths of fat among the liquids over a fifth (common practice); soft fat 0.90 g/mL (Bailey)."""
    starch, glycerin = (tables.ingredients[name] for name in ("corn-starch", "glycerin"))
    assert starch.liquid_demand_ml_100g is not None
    assert glycerin.true_density_g_ml is not None
    liquid_ml = s * starch.liquid_demand_ml_100g
    formula = make_formula(
        corn_starch=100, glycerin=(1 - fat) * liquid_ml * glycerin.true_density_g_ml,
        cocoa_butter=fat * liquid_ml * 0.90,
    )  # fmt: skip
    assert mix_of(formula, tables).carried == pytest.approx(carried, abs=0.01)


def test_gas_of_soda_and_citric_acid_by_stoichiometry(tables: Tables) -> None:
    """IUPAC atomic weights: 84.007 g of bicarbonate meet 192.12/3 g of citric acid for one mole of gas; ideal gas at 38 °C."""
    formula = replace(
        make_formula("damp-press", baking_soda=84.007, citric_acid_anhydrous=64.04),
        piece=Piece(mass_g=14.8047),
        use=Use(dose_g=50),
    )
    assert brisk_per_100_g(mix_of(formula, tables)) == pytest.approx(100 / 148.047, rel=2e-3)
    fizz = evaluate(formula, tables).fizz
    mole_l = 8.314462618 * (273.15 + 38) / 101325 * 1000
    assert fizz.co2_l == pytest.approx(mole_l, rel=5e-3)
    assert fizz.co2_piece_l == pytest.approx(mole_l / 10, rel=5e-3)


def test_a_wet_dough_that_is_crumbs_has_no_hardness(tables: Tables) -> None:
    """A kneaded piece is crumbs below S 0.10, bound from 0.55, and in between by the line (common practice, no published source)."""
    for oil_g in (6, 12, 24):
        mix = mix_of(make_formula("butter-dough", baking_soda=300, corn_starch=60, slsa_fine=150, sweet_almond_oil=oil_g), tables)
        wettest = mix.saturation(38.0)
        assert wettest is not None
        assert 0.0 < wettest < 0.55
        bound, kneaded = (piece_firmness(mix, 20.0, 21.0, "hand", kneaded=way) for way in (False, True))
        assert kneaded == pytest.approx(bound * max(0.0, (wettest - 0.10) / 0.45), rel=1e-9)


BAR = {"baking_soda": 60.0, "corn_starch": 20.0, "cream_of_tartar": 12.0, "glycerin": 6.0, "distilled_water": 2.0}


@pytest.mark.parametrize(
    ("more", "less", "harder"),
    [
        ({"glycerin": 4}, {}, False), ({"sweet_almond_oil": 4}, {}, False), ({"shea_butter": 5}, {}, False),
        ({"distilled_water": 6}, {}, False), ({"epsom_salt": 30}, {}, False), ({"cream_of_tartar": 6}, {"baking_soda": 6}, True),
        ({"distilled_water": 1}, {}, True),
    ],
    ids=["humectant", "oil", "molten butter", "much water", "coarse salt", "tartar", "water that binds"],
)  # fmt: skip
def test_what_hardens_a_piece_and_what_softens_it(
    tables: Tables, more: dict[str, float], less: dict[str, float], *, harder: bool
) -> None:
    """Each by itself, at 38 °C where a butter is molten (common practice, no published source)."""
    changed = {**BAR, **{name: BAR.get(name, 0.0) + grams for name, grams in more.items()}}
    changed |= {name: changed[name] - grams for name, grams in less.items()}
    was, now = (
        piece_firmness(mix_of(make_formula(**grams), tables), 38.0, 21.0, "hand", kneaded=False) for grams in (BAR, changed)
    )
    assert (now > was) if harder else (now < was)


def test_half_the_emulsifier_halves_what_a_piece_of_wax_and_pigment_leaves(tables: Tables) -> None:
    """Residue of the bath: pigment counts double, and an emulsifier takes half of it in the share it holds the oil."""
    plain = make_formula("damp-press", baking_soda=990, iron_oxide_red=10)
    emulsified = make_formula("damp-press", baking_soda=980, iron_oxide_red=10, polysorbate_80=10)
    rings = [bath_feel(mix_of(formula, tables), 100.0, 150.0, 38.0).ring for formula in (plain, emulsified)]
    loads = [2.0 * 1.0, 2.0 * 1.0 * (1 - 0.5)]  # 1 g of pigment in 100 g
    assert rings == [pytest.approx(100 * (1 - math.exp(-load / 8.0))) for load in loads]


def test_part_of_the_oil_held_takes_its_part_of_the_residue(tables: Tables) -> None:
    """A surfactant's active keeps a tenth of its mass of oil: 1 g of 10 g, so a twentieth of the pigment's residue is taken."""
    formula = make_formula("damp-press", baking_soda=880, iron_oxide_red=10, sweet_almond_oil=100, sls_needles=10)
    active = tables.ingredients["sls-needles"].active_fraction
    assert active is not None
    held = 0.1 * 10 * active
    load = (100 - held + 2.0 * 10 * (1 - 0.5 * held / 100)) / 10
    feel = bath_feel(mix_of(formula, tables), 100.0, 150.0, 38.0)
    assert feel.ring == pytest.approx(100 * (1 - math.exp(-load / 8.0)), rel=1e-6)


def test_colour_of_the_bath_by_beer_and_lambert(tables: Tables) -> None:
    """Absorbance is absorptivity times concentration times 20 cm of water looked through (IUPAC Gold Book, Beer-Lambert law)."""
    formula = make_formula("damp-press", baking_soda=999, ultramarine_blue=1)
    mix = mix_of(formula, tables)
    absorptivity = mix.palette.tint_l_g_cm[1]
    assert absorptivity > 0
    feel = bath_feel(mix, 150.0, 150.0, 38.0)
    assert feel.tint == pytest.approx(100 * (1 - 10 ** (-absorptivity * 0.001 * 20)), rel=1e-9)


def litres(tables: Tables, **grams: float) -> Evaluation:
    return evaluate(replace(make_formula("damp-press", **grams), use=Use(dose_g=100)), tables)


def test_emulsifier_takes_half_of_the_harm_of_the_oil_it_can_hold(tables: Tables) -> None:
    """Oil of six times the active halves the foam; 0.11 g of emulsifier a gram of oil eases half of that (common practice)."""
    clean = litres(tables, baking_soda=1000, sls_needles=20).lather
    oily = litres(tables, baking_soda=980, sls_needles=20, sweet_almond_oil=20).lather
    eased = litres(tables, baking_soda=978.9, sls_needles=20, sweet_almond_oil=20, polysorbate_80=1.1).lather
    assert clean.foam_l is not None
    assert clean.active_g is not None
    oil_g = 100 * 20 / 1020
    for made, harm_g in ((oily, oil_g), (eased, oil_g * (1 - 0.5 * 1.1 / (0.11 * 20)))):
        assert made.foam_l == pytest.approx(clean.foam_l / (1 + harm_g / (6 * clean.active_g)), rel=1e-6)


def test_a_surfactant_alone_is_as_strong_however_it_is_scooped(tables: Tables) -> None:
    """What is all of the batch cannot have another share of it: a cup too full changes no percentage."""
    alone = evaluate(make_lines(("slsa-fine", "1", "cup")), tables).lather
    assert alone.active_g is not None
    assert alone.active_band_g == (pytest.approx(alone.active_g), pytest.approx(alone.active_g))
    thinned = evaluate(make_lines(("slsa-fine", "1", "cup"), ("baking-soda", "100", "g")), tables).lather
    assert thinned.active_g is not None
    assert thinned.active_band_g is not None
    assert thinned.active_band_g[1] > thinned.active_g * 1.05


def test_trimmed_ends_are_two_short_cylinders() -> None:
    """The volume of a cylinder is a quarter of pi d² times its length (Euclid's geometry)."""
    roll = roll_geometry(1000.0, 200.0, 2, 6.0, 25.0, cut="thread", trim_mm=10.0)
    assert roll.trimmed_ml == pytest.approx(math.pi / 4 * roll.diameter_mm**2 * 20 / 1000)
    assert roll.slices == math.floor((200 - 20) / 25)


@pytest.mark.parametrize("wax_g", [2.0, 30.0])
def test_a_gelling_wax_carries_alike_with_and_without_slopes(tables: Tables, wax_g: float) -> None:
    """Below its least share a wax is only solid; above it a network carries the oil: one figure by both ways of reckoning."""
    formula = make_formula("melt", sweet_almond_oil=100 - wax_g, beeswax=wax_g)
    plain, sloped = (mix_of(formula, tables, sloped=way).firm_share(25.0) for way in (False, True))
    assert float(sloped) == pytest.approx(plain, abs=5e-3)


def test_wash_of_a_whole_piece_falls_with_its_oil(tables: Tables) -> None:
    """A quarter of a millimetre a minute, by e for each quarter of oil (common practice, no published source)."""
    mix = mix_of(make_formula("butter-dough", baking_soda=500, corn_starch=250, sweet_almond_oil=250), tables)
    minutes = release_minutes(mix, 10.0, "whole", 38.0, 21.0, "hand")
    assert mix.oily_share == pytest.approx(0.25)
    assert minutes == pytest.approx(10.0 / (0.25 * math.exp(-1.0)), rel=1e-6)


@pytest.mark.parametrize(("salt_g", "wet_salt"), [(55.0, False), (66.0, True)])
def test_mostly_coarse_salt_reads_as_wet_salt(tables: Tables, salt_g: float, wet_salt: bool) -> None:
    """Coarse crystals of more than six tenths of the powders (common practice, no published source)."""
    formula = make_formula("damp-press", baking_soda=100 - salt_g, epsom_salt=salt_g, distilled_water=2)
    judged = evaluate(formula, tables)
    assert judged.dough is not None
    assert judged.dough.state == "damp sand"
    assert ("wet_salt" in {each.code for each in judged.advice}) == wet_salt


def test_a_bowl_of_eight_times_the_batch_holds_eight_to_the_three_quarters_of_the_heat(tables: Tables) -> None:
    """A bowl grows faster than its surface and slower than what is in it (estimate); a small batch is made in the usual one."""
    for kilos, times in ((0.2, 1.0), (1.1, 1.0), (8.8, 8**0.75)):
        mix = mix_of(make_formula("butter-dough", baking_soda=800 * kilos, cocoa_butter=200 * kilos), tables)
        assert bowl_heat_j_k(mix, 500.0) == pytest.approx(500.0 * times)


def test_at_most_half_of_a_tiny_batch_sticks_to_the_bowl(tables: Tables) -> None:
    """Estimate; by the cube root of the mass alone it would be more than there is."""
    assert batch_loss(0.2, 2.0) == 0.5
    assert batch_loss(0.04, 1100.0 / 8) == pytest.approx(0.04 * (0.4 + 0.6 * 2))


def test_water_sprayed_on_hardens_a_piece_up_to_six_per_cent_and_softens_it_above(tables: Tables) -> None:
    """A crust first, a mud after (common practice, no published source)."""

    def firm(water_g: float) -> float:
        formula = make_formula(
            "damp-press", baking_soda=62 - water_g, citric_acid_anhydrous=28, corn_starch=10, distilled_water=water_g
        )
        return float(piece_firmness(mix_of(formula, tables), 20.0, 21.0, "hand", kneaded=False))

    assert firm(5.0) < firm(5.9)
    assert firm(6.1) > firm(7.5)


@pytest.mark.parametrize(
    ("wet", "low", "high"),
    [("sweet_almond_oil", 0.12, 0.25), ("isopropyl_alcohol_91", 0.08, 0.25), ("witch_hazel_distillate", 0.05, 0.12)],
)  # fmt: skip
def test_how_damp_a_mix_for_pressing_is_to_be_by_what_wets_it(tables: Tables, wet: str, low: float, high: float) -> None:
    """Alone: oil by S 0.12 to 0.25, alcohol by 0.08 to 0.25, water by 0.05 to 0.12 and at most 1.5 % of it (common practice)."""
    told, least, most = [], 1.0, 0.0
    for grams in np.arange(0.5, 20.0, 0.25):
        found = evaluate(
            make_formula("damp-press", baking_soda=700, citric_acid_anhydrous=250, corn_starch=50, **{wet: grams * 5}), tables
        )
        assert found.dough is not None
        assert found.dough.saturation is not None
        much_water = wet == "witch_hazel_distillate" and grams * 5 * 0.885 > 0.015 * (1000 + grams * 5)
        noted = any(each.code.startswith("damp_by_") for each in found.advice)
        told.append(noted == (much_water or not low <= found.dough.saturation <= high))
        least, most = min(least, found.dough.saturation), max(most, found.dough.saturation)
    assert all(told)
    assert least < low
    assert most > high


def test_what_would_take_a_day_does_not_go_at_all(tables: Tables) -> None:
    """Under a fiftieth of a millimetre a minute a melt is said to stay (estimate): the slowest of 25 mm takes some 1250 minutes."""
    mix = mix_of(make_formula("melt", beeswax=40, cocoa_butter=60), tables)
    told = [release_minutes(mix, 25.0, "whole", bath_c, 20.0, "poured") for bath_c in np.arange(36.0, 52.0, 0.01)]
    minutes = [each for each in told if each is not None]
    assert told[0] is None
    assert 1150 < max(minutes) <= 25 / 0.02


def test_alcohol_leaves_a_thicker_piece_in_proportion(tables: Tables) -> None:
    """Seven hours for 6 % in 16 mm at 21 °C, twice that in 32 mm, half of it when 12 °C warmer (common practice)."""
    pure = replace(tables.ingredients["isopropyl-alcohol-99"], water_fraction=0.0)
    own = replace(tables, ingredients={**tables.ingredients, pure.id: pure})
    mix = mix_of(make_formula("damp-press", baking_soda=94, isopropyl_alcohol_99=6), own)
    share = mix.alcohol_share / 0.06
    for half_mm, room_c, hours_wanted in ((16.0, 21.0, 7.0), (32.0, 21.0, 14.0), (16.0, 33.0, 3.5)):
        found = drying_time(mix, half_mm, room_c, 40.0, loose=False).hours
        assert found == pytest.approx(hours_wanted * share**0.5)


def test_no_more_than_all_the_acid_is_lost_in_a_day(tables: Tables) -> None:
    mix = mix_of(make_formula("damp-press", baking_soda=60, citric_acid_anhydrous=30, glycerin=10), tables)
    assert acid_loss_pct_day(mix, 1.0, 40.0, 99.0, "open") == 100.0
    assert acid_loss_pct_day(mix, 16.0, 21.0, 50.0, "open") == pytest.approx(0.5 * (1 + 5 * mix.humectant_share))


@pytest.mark.parametrize(("surfactant", "loss"), [("slsa-fine", 0.08), ("sls-powder", 0.2), ("sodium-cocoyl-glutamate", 0.4)])
def test_very_hard_water_takes_its_share_of_the_foam(tables: Tables, surfactant: str, loss: float) -> None:
    """A hardy surfactant loses a twelfth from 250 mg/L on, a middling one a fifth, a tender one two fifths (estimates)."""
    mix = mix_of(make_formula("damp-press", baking_soda=90, **{surfactant.replace("-", "_"): 10.0}), tables)
    soft, half, hard = (foam(mix, 50.0, 150.0, 10.0, 38.0, hardness, 0.0, 0.0, "crumbled").litres for hardness in (90, 170, 400))
    assert hard / soft == pytest.approx(1 - loss)
    assert half / soft == pytest.approx(1 - loss / 2)


def test_a_piece_dropped_in_whole_foams_a_third_unless_its_gas_stirs_it_up(tables: Tables) -> None:
    """35 % without gas, all of it from 0.1 mol of brisk gas in 100 g on (common practice, no published source)."""
    mix = mix_of(make_formula("damp-press", baking_soda=90, slsa_fine=10), tables)
    crumbled = foam(mix, 50.0, 150.0, 10.0, 38.0, 0.0, 0.0, 0.0, "crumbled").litres
    for brisk, share in ((0.0, 0.35), (0.05, 0.675), (0.1, 1.0), (0.4, 1.0)):
        assert foam(mix, 50.0, 150.0, 10.0, 38.0, 0.0, 0.0, brisk, "whole").litres == pytest.approx(share * crumbled)
