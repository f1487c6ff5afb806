"""Planning: pieces, bowls, rolls, needs, times."""

from __future__ import annotations

import math
from dataclasses import replace
from datetime import UTC, datetime, timedelta, timezone
from decimal import Decimal

import pytest

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.plan import Order, Wish, make_schedule, plan_order
from rosy_kettle.core.records import Formula, Prices, Room, Tables
from tests.conftest import make_formula

NOON = datetime(2026, 11, 26, 12, tzinfo=UTC)
MARKET = datetime(2026, 11, 28, 9, tzinfo=UTC)  # a Saturday
ROOM = Room(21.0, 40.0)


def scoop() -> Formula:
    return make_formula(baking_soda=300, slsa_fine=90, corn_starch=90, capb_liquid=60, glycerin=30, sweet_almond_oil=20)


def sand() -> Formula:
    return make_formula("damp-press", baking_soda=1000, citric_acid_anhydrous=500, corn_starch=160, sweet_almond_oil=40)


def planned(formula: Formula, tables: Tables, *wishes: Wish, mass_g: float | None = None, bowl_g: float | None = None) -> Order:
    return plan_order(formula, tables, wishes, mass_g, bowl_g, {})


def test_eleven_balls_from_seventeen_hundred_grams(tables: Tables) -> None:
    """1.7 kg of damp sand, hand or light press, gives 11 balls of 2.5 in; makers say 11 to 12 (common practice, no published
    source)."""
    assert planned(sand(), tables, Wish(tool="ball-2-5in"), mass_g=1700).pieces[0].pieces == 11


@pytest.mark.parametrize(("tool", "volume_ml"), [
    ("ball-2in", math.pi / 6 * 5.08**3), ("ball-2-5in", math.pi / 6 * 6.35**3), ("slice-50x25", math.pi / 4 * 5.0**2 * 2.5),
    ("disher-24", 32 / 24 * 29.5735295625),
])  # fmt: skip
def test_a_tool_holds_what_geometry_says(tables: Tables, tool: str, volume_ml: float) -> None:
    """Sphere and cylinder; a disher's number is scoops a US quart (NSF/ANSI and US trade convention, from memory)."""
    assert tables.tools[tool].volume_ml == pytest.approx(volume_ml, rel=1e-3)
    light, tight = (
        planned(replace(sand(), piece=replace(sand().piece, packing=packing)), tables, Wish(1, tool, scoop_fill="level"))
        .pieces[0].piece_mass_g
        for packing in ("hand", "press")
    )  # fmt: skip
    assert tight > light > 0.55 * volume_ml * 1.8


def test_the_batch_gives_its_pieces_after_loss(tables: Tables) -> None:
    order = planned(scoop(), tables, Wish(12, piece_mass_g=57.0))
    assert order.batch_g - order.loss_g == pytest.approx(12 * 57.0)
    assert order.leftover_g == pytest.approx(0.0, abs=1e-6)
    assert sum(need.needed_g for need in order.needs) == pytest.approx(order.batch_g)


def test_several_tools_share_a_batch_and_bowls_are_equal(tables: Tables) -> None:
    order = planned(scoop(), tables, Wish(12, "disher-24"), Wish(8, "round-cutter-50x25"), bowl_g=500)
    assert [item.pieces for item in order.pieces] == [12, 8]
    assert len(order.bowls_g) == math.ceil(order.batch_g / 500)
    assert sum(order.bowls_g) == pytest.approx(order.batch_g)
    assert max(order.bowls_g) <= 500
    assert any("bowls" in note for note in order.notes)


def test_a_given_mass_is_filled_up_by_the_first_tool(tables: Tables) -> None:
    order = planned(scoop(), tables, Wish(tool="disher-24"), Wish(5, piece_mass_g=60.0), mass_g=1200)
    used = sum(item.pieces * item.piece_mass_g for item in order.pieces)
    assert order.batch_g == 1200
    assert order.leftover_g == pytest.approx(1200 - order.loss_g - used)
    assert order.leftover_g < order.pieces[0].piece_mass_g
    with pytest.raises(InputError, match="larger mass"):
        planned(scoop(), tables, Wish(tool="ball-3in"), mass_g=50)


def test_rolls_are_no_longer_than_the_paper_and_pay_for_their_ends(tables: Tables) -> None:
    item = planned(scoop(), tables, Wish(24, "slice-60x25", sheet_mm=6, layers=2)).pieces[0]
    assert item.roll is not None
    assert item.rolls == math.ceil(24 / math.floor((300 - 16) / 25))
    assert item.roll.width_mm <= 300
    assert item.roll.slices * item.rolls >= 24
    assert item.roll.length_mm * item.roll.thickness_mm == pytest.approx(math.pi / 4 * 60**2, rel=1e-6), "the sheet is the log"
    assert item.trimmed_g > 0


def test_ends_of_a_dough_of_unknown_density_weigh_as_its_slices(tables: Tables) -> None:
    """A slice of 25 mm off a log of 60 mm holds pi/4 x 6^2 x 2.5 = 70.69 mL: at 60 g it weighs 0.849 g a millilitre."""
    unknown = replace(tables.ingredients["kaolin"], id="own-clay", true_density_g_ml=None)
    studio = replace(tables, ingredients={**tables.ingredients, "own-clay": unknown})
    dough = make_formula(baking_soda=300, slsa_fine=90, corn_starch=90, capb_liquid=60, glycerin=30, own_clay=20)
    item = planned(dough, studio, Wish(24, "slice-60x25", piece_mass_g=60.0)).pieces[0]
    assert item.roll is not None
    assert item.trimmed_g == pytest.approx(item.rolls * item.roll.trimmed_ml * 60 / (math.pi / 4 * 6**2 * 2.5), rel=1e-3)
    with pytest.raises(InputError, match="true_density"):
        planned(dough, studio, Wish(24, "slice-60x25"))


@pytest.mark.parametrize("mass_g", [900.0, 1300.0, 2150.0])
def test_slices_of_a_given_mass_leave_room_for_their_ends(tables: Tables, mass_g: float) -> None:
    order = planned(scoop(), tables, Wish(tool="slice-60x25", sheet_mm=6, layers=2), mass_g=mass_g)
    (item,) = order.pieces
    assert item.pieces > 1
    used_g = item.pieces * item.piece_mass_g + item.trimmed_g
    assert used_g <= mass_g - order.loss_g + 1e-6
    assert order.leftover_g == pytest.approx(mass_g - order.loss_g - used_g)
    assert order.leftover_g < item.piece_mass_g + item.trimmed_g


def test_what_is_short_is_said_and_what_is_not_counted_is_not_known(tables: Tables) -> None:
    order = plan_order(scoop(), tables, [Wish(10)], None, None, {"baking-soda": 100.0, "glycerin": 5000.0})
    needs = {need.ingredient: need for need in order.needs}
    assert needs["baking-soda"].short_g == pytest.approx(needs["baking-soda"].needed_g - 100)
    assert needs["glycerin"].short_g == 0
    assert needs["slsa-fine"].on_hand_g is None
    assert needs["slsa-fine"].short_g is None
    assert isinstance(order.cost, Decimal)
    soda = replace(tables, prices=Prices(own={"baking-soda": Decimal("2.40")}))
    bought = next(n for n in plan_order(scoop(), soda, [Wish(10)], None, None, {}).needs if n.ingredient == "baking-soda")
    assert bought.cost is not None
    assert float(bought.cost) == pytest.approx(2.40 * bought.needed_g / 1000), "2.40 a kilo, by the kilo needed"


@pytest.mark.parametrize(("wish", "mass_g", "bowl_g", "word"), [
    (Wish(), None, None, "Pieces"), (Wish(0), None, None, "Pieces"), (Wish(5, "spoon"), None, None, "not known"),
    (Wish(5, piece_mass_g=0.0), None, None, "mass of a piece"), (Wish(5), 0.0, None, "batch mass"), (Wish(5), None, -1.0, "bowl"),
    (Wish(5, "slice-60x25", cut="saw"), None, None, "cut"), (Wish(5, "disher-24", scoop_fill="full"), None, None, "fill"),
])  # fmt: skip
def test_a_wish_that_cannot_be_meant_is_refused(
    tables: Tables, wish: Wish, mass_g: float | None, bowl_g: float | None, word: str
) -> None:
    with pytest.raises(InputError, match=word):
        planned(scoop(), tables, wish, mass_g=mass_g, bowl_g=bowl_g)


def test_stages_follow_each_other_without_a_gap(tables: Tables) -> None:
    order = planned(scoop(), tables, Wish(12))
    plan = make_schedule(scoop(), tables, order, ROOM, NOON)
    assert plan.starts_at == NOON
    assert [stage.id for stage in plan.stages][:3] == ["prepare", "weigh", "mix"]
    for before, after in zip(plan.stages, plan.stages[1:], strict=False):
        assert before.ends_at == after.starts_at
    assert plan.stages[-1].ends_at == plan.ready_at <= plan.latest_ready_at


def test_a_bowl_of_butter_is_melted_in_twelve_minutes_and_a_kneaded_dough_rests_for_ten(tables: Tables) -> None:
    """Butters of a kilo in a water bath, and powders that drink before shaping (common practice, no published source)."""
    buttery = make_formula("moulded-truffle", baking_soda=300, citric_acid_anhydrous=150, cocoa_butter=80, shea_butter=60)
    stages = {stage.id: stage for stage in make_schedule(
        buttery, tables, planned(buttery, tables, Wish(6, piece_mass_g=50.0)), ROOM, NOON).stages}  # fmt: skip
    assert stages["melt"].minutes == pytest.approx(12.0)
    kneaded = make_schedule(scoop(), tables, planned(scoop(), tables, Wish(12)), ROOM, NOON).stages
    assert {stage.id: stage.minutes for stage in kneaded}["rest"] == pytest.approx(10.0)


def test_back_from_the_market_respects_damp_drying(tables: Tables) -> None:
    """At 65 % humidity the same scoop has to be begun earlier than at 40 %, and drying is given its longest."""
    order = planned(scoop(), tables, Wish(12))
    early = datetime(2026, 11, 20, 9, tzinfo=UTC)
    dry, damp = (make_schedule(scoop(), tables, order, Room(21.0, humidity), early, ready_by=MARKET) for humidity in (40.0, 65.0))
    assert damp.starts_at < dry.starts_at
    assert damp.ready_at == pytest.approx(MARKET, abs=timedelta(seconds=1))
    assert not any("Too late" in sentence for sentence in damp.conflicts)
    hours = next(stage.minutes for stage in damp.stages if stage.id == "dry") / 60
    assert hours > 24


def test_too_late_is_said_plainly(tables: Tables) -> None:
    order = planned(scoop(), tables, Wish(12))
    plan = make_schedule(scoop(), tables, order, Room(21.0, 65.0), MARKET - timedelta(hours=10), ready_by=MARKET)
    assert any(sentence.startswith("Too late") for sentence in plan.conflicts)


def test_air_that_dries_nothing_promises_nothing(tables: Tables) -> None:
    plan = make_schedule(scoop(), tables, planned(scoop(), tables, Wish(12)), Room(21.0, 88.0), NOON)
    assert any("does not dry" in sentence and "too damp" in sentence for sentence in plan.conflicts)
    assert plan.promised is False
    assert make_schedule(scoop(), tables, planned(scoop(), tables, Wish(12)), ROOM, NOON).promised is True


def test_hands_at_night_are_named_by_the_makers_own_clock(tables: Tables) -> None:
    order = planned(scoop(), tables, Wish(12))
    late = datetime(2026, 11, 26, 21, 30, tzinfo=UTC)
    assert any("At night" in sentence for sentence in make_schedule(scoop(), tables, order, ROOM, late).conflicts)
    there = make_schedule(scoop(), tables, order, ROOM, late, zone=timezone(timedelta(hours=-10)))
    assert not any("prepare" in sentence for sentence in there.conflicts)


def test_a_warm_dough_waits_for_its_window_and_a_large_one_is_too_slow(tables: Tables) -> None:
    butter = make_formula(
        "butter-dough", baking_soda=500, citric_acid_anhydrous=200, corn_starch=60, cocoa_butter=90, shea_butter=90,
        sweet_almond_oil=30,
    )  # fmt: skip
    few = make_schedule(butter, tables, planned(butter, tables, Wish(10)), ROOM, NOON)
    ids = [stage.id for stage in few.stages]
    assert "melt" in ids
    assert "rest" not in ids
    many = make_schedule(butter, tables, planned(butter, tables, Wish(400, piece_mass_g=10.0)), Room(12.0, 40.0), NOON)
    assert any("too stiff" in sentence for sentence in many.conflicts)


def test_a_dried_in_surfactant_waits_and_stays_in_the_mould(tables: Tables) -> None:
    """Several hours until it is powder again, then 24 h in the mould; common practice, no published source."""
    tablet = make_formula("pre-dried-surfactant", baking_soda=600, corn_starch=100, capb_liquid=60, citric_acid_anhydrous=250)
    plan = make_schedule(tablet, tables, planned(tablet, tables, Wish(12, "press-50x25")), ROOM, NOON)
    minutes = {stage.id: stage.minutes for stage in plan.stages}
    assert minutes["pre-dry"] >= 240
    assert minutes["dry"] >= 24 * 60


def test_fewer_moulds_than_pieces_are_filled_again(tables: Tables) -> None:
    ball = make_formula("damp-press", baking_soda=660, citric_acid_anhydrous=330, distilled_water=10)
    wishes = [Wish(25, "ball-2in")]
    said = "25 pieces, 12 of Ball mould 2 in (two halves): they are filled 3 times, the next once the last are out."
    assert said in plan_order(ball, tables, wishes, None, None, {}, {"ball-2in": 12}).notes
    assert plan_order(ball, tables, wishes, None, None, {}, {"ball-2in": 25}).notes == ()
    assert plan_order(ball, tables, wishes, None, None, {}, {}).notes == ()
