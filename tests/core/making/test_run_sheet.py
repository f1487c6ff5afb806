"""The run sheet: order, amounts, cautions."""

from __future__ import annotations

from dataclasses import replace

import pytest

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.plan import RunSheet, make_run_sheet, sheet_of
from rosy_kettle.core.making.plan.run_sheet import HEADINGS
from rosy_kettle.core.records import Formula, Line, Portion, Room, Tables
from tests.conftest import make_formula

PRESS = make_formula(
    "damp-press", baking_soda=620, citric_acid_anhydrous=310, corn_starch=50, cream_of_tartar=20, slsa_fine=20,
    sweet_almond_oil=20, isopropyl_alcohol_91=10, fragrance_oil_generic=8,
)  # fmt: skip


def test_the_weigh_out_adds_up_to_the_batch(tables: Tables) -> None:
    sheet = make_run_sheet(PRESS, tables, 12, piece_mass_g=80)
    assert sum(line.mass_g for group in sheet.groups for line in group.lines) == pytest.approx(sheet.batch_g)
    assert sheet.batch_g * (1 - sheet.loss_fraction) == pytest.approx(12 * 80)
    assert sheet.batch_oz == pytest.approx(sheet.batch_g / 28.349523125)


def test_acid_is_weighed_last_before_the_spray_when_liquids_hold_water(tables: Tables) -> None:
    phases = [group.phase for group in make_run_sheet(PRESS, tables, 10).groups]
    assert phases == ["dry", "liquid", "scent", "acid-last", "spray"]


def test_tartar_is_weighed_with_the_powders(tables: Tables) -> None:
    dry = make_run_sheet(PRESS, tables, 10).groups[0]
    assert "cream-of-tartar" in {line.ingredient for line in dry.lines}


def test_acid_goes_with_the_powders_when_all_is_fat(tables: Tables) -> None:
    truffle = make_formula("moulded-truffle", baking_soda=200, citric_acid_anhydrous=100, cocoa_butter=135)
    assert [group.phase for group in make_run_sheet(truffle, tables, 5).groups] == ["dry", "acid-last", "melt"]


@pytest.mark.parametrize("method", ["glycerin-dough", "betaine-dough", "butter-dough", "damp-press", "loose-dust"])
def test_surfactant_dust_is_cautioned_where_it_flies(tables: Tables, method: str) -> None:
    with_powder = make_run_sheet(make_formula(method, baking_soda=300, slsa_fine=50, glycerin=20), tables, 5)
    without = make_run_sheet(make_formula(method, baking_soda=300, capb_liquid=50), tables, 5)
    assert any("mask" in step.caution for step in with_powder.steps)
    assert not any("surfactant powder" in step.text for step in without.steps)


@pytest.mark.parametrize(("method", "humidity", "gate"), [
    # Air for pressing about 40 %, for work by hand up to about 50 %: common practice, no published source.
    ("damp-press", 45.0, True), ("damp-press", 38.0, False), ("betaine-dough", 45.0, False), ("betaine-dough", 55.0, True),
])  # fmt: skip
def test_the_humidity_gate_stands_before_the_work(tables: Tables, method: str, humidity: float, gate: bool) -> None:
    formula = replace(make_formula(method, baking_soda=300, slsa_fine=50, glycerin=20), room=Room(20, humidity))
    first = make_run_sheet(formula, tables, 5).steps[0]
    assert (first.stage, "dehumidifier" in first.caution) == ("Prepare", gate)


def test_the_oven_is_switched_off_and_never_sees_alcohol(tables: Tables) -> None:
    """A cure in an oven that is warmed and switched off is common practice; vapour of alcohol in it would catch fire."""
    damp = Room(20, 65)
    dry = make_formula("damp-press", baking_soda=600, citric_acid_anhydrous=300, distilled_water=8)
    last = {
        "plain": make_run_sheet(replace(dry, room=damp), tables, 5).steps[-1].caution,
        "alcohol": make_run_sheet(replace(PRESS, room=damp), tables, 5).steps[-1].caution,
        "dry air": make_run_sheet(replace(dry, room=Room(20, 40)), tables, 5).steps[-1].caution,
        "butter": make_run_sheet(replace(make_formula("butter-dough", baking_soda=300, cocoa_butter=60), room=damp), tables, 5).steps[-1].caution,
    }  # fmt: skip
    assert "switched off first" in last["plain"]
    assert "never in a warm oven" in last["alcohol"]
    assert "switched off" not in last["alcohol"]
    assert "oven" not in last["dry air"]
    assert "No oven" in last["butter"]


def test_alcohol_is_cautioned(tables: Tables) -> None:
    assert make_run_sheet(PRESS, tables, 5).cautions[0].startswith("Alcohol in the mix: no flame")


def test_every_sheet_defers_to_local_rules(tables: Tables) -> None:
    for method in tables.methods:
        sheet = make_run_sheet(make_formula(method, baking_soda=100, cocoa_butter=50), tables, 5)
        assert any("licensed assessor" in caution for caution in sheet.cautions)
        assert [step.number for step in sheet.steps] == list(range(1, len(sheet.steps) + 1))
        assert len(sheet.steps) >= 4


def test_a_tool_gives_the_piece_mass(tables: Tables) -> None:
    """A 2 in ball, hand-packed, holds 78 to 80 g (common practice, no published source)."""
    plain = make_formula("damp-press", baking_soda=660, citric_acid_anhydrous=330, distilled_water=10)
    sheet = make_run_sheet(plain, tables, 10, tool="ball-2in")
    assert 78 <= sheet.piece_mass_g <= 80
    assert sheet.piece_basis == "Ball mould 2 in (two halves), 68.64 mL"


def test_a_domed_scoop_holds_half_as_much_again(tables: Tables) -> None:
    scoop = make_formula(baking_soda=218, slsa_fine=82, capb_liquid=57, glycerin=37)
    level = make_run_sheet(scoop, tables, 10, tool="disher-24", scoop_fill="level").piece_mass_g
    domed = make_run_sheet(scoop, tables, 10, tool="disher-24", scoop_fill="domed").piece_mass_g
    assert domed == pytest.approx(1.5 * level)


def test_a_press_packs_harder_than_a_hand(tables: Tables) -> None:
    pressed = make_run_sheet(PRESS, tables, 1, tool="press-50x25").piece_mass_g
    by_hand = make_run_sheet(PRESS, tables, 1, tool="round-cutter-50x25").piece_mass_g
    assert pressed > by_hand


def test_portions_are_weighed_apart(tables: Tables) -> None:
    body = Portion("body", (Line("baking-soda", "300", "g"), Line("glycerin", "80", "g")))
    second = Portion("second colour", (Line("baking-soda", "100", "g"), Line("mica-pigment", "2", "g")))
    sheet = make_run_sheet(Formula("x", (body, second)), tables, 5)
    assert [(group.portion, group.phase) for group in sheet.groups] == [
        ("body", "dry"), ("body", "liquid"), ("second colour", "dry"), ("second colour", "colour"),
    ]  # fmt: skip


def test_a_line_is_weighed_where_the_maker_put_it(tables: Tables) -> None:
    lines = (Line("baking-soda", "300", "g"), Line("slsa-fine", "40", "g", phase="Liquids"), Line("citric-acid-anhydrous", "9", "g", phase="Powders"),
             Line("glycerin", "40", "g"))  # fmt: skip
    for method in tables.methods:
        sheet = make_run_sheet(Formula("x", (Portion("body", lines),), method=method), tables, 5)
        phases = {line.ingredient: group.phase for group in sheet.groups for line in group.lines}
        assert phases == {"baking-soda": "dry", "slsa-fine": "liquid", "citric-acid-anhydrous": "acid-last", "glycerin": "liquid"}
    assert all(
        {phase for phases in HEADINGS.values() for phase in phases} <= set(each.phases) for each in tables.methods.values()
    )


def test_what_is_not_understood_is_named_on_the_sheet(tables: Tables) -> None:
    body = Portion("body", (Line("baking-soda", "300", "g"), Line(None, "5", "g", text="moon dust")))
    assert make_run_sheet(Formula("x", (body,)), tables, 5).left_out == ('"moon dust" is not understood',)


SCOOP = make_formula(
    "betaine-dough", baking_soda=218, slsa_fine=82, corn_starch=113, citric_acid_anhydrous=9, capb_liquid=57, glycerin=37,
    cocoa_butter=20, mica_pigment=3, iron_oxide_red=1,
)  # fmt: skip


def told(sheet: RunSheet, words: str) -> int:
    """Return the number of the one step that says the words, 0 if none does."""
    return max((step.number for step in sheet.steps if words in step.text), default=0)


@pytest.mark.parametrize(
    ("school", "usual", "other", "words"),
    [
        # The schools and which of them is usual: common practice, no published source.
        ("surfactant", "powders", "after", "Fold the surfactant powder into the wet dough"),
        ("acid", "last", "powders", "Sieve the acid in with the other powders"),
        ("gel", "jug", "gel", "until they thicken, then stir in the betaine"),
        ("split", "late", "early", "Split the dry blend by weight"),
    ],
)
def test_each_school_has_its_own_step(tables: Tables, school: str, usual: str, other: str, words: str) -> None:
    plain = sheet_of(SCOOP, tables, 600, 10, 57, "")
    assert {each.id: each.taken for each in plain.schools}[school] == usual
    assert told(plain, words) == 0
    asked = sheet_of(SCOOP, tables, 600, 10, 57, "", {school: other})
    assert told(asked, words) > 0
    assert len(asked.steps) - len(plain.steps) in {-1, 0, 1}, "one way replaces the other"


def test_less_dust_means_after_the_wet_and_a_mask_all_the_same(tables: Tables) -> None:
    sheet = sheet_of(SCOOP, tables, 600, 10, 57, "", {"surfactant": "after"})
    folded = told(sheet, "Fold the surfactant powder")
    assert folded > told(sheet, "Pour wet into dry")
    assert told(sheet, "Spoon the surfactant powder in last") == 0
    assert "mask" in sheet.steps[folded - 1].caution


def test_schools_are_asked_only_where_they_matter(tables: Tables) -> None:
    plain = make_formula("betaine-dough", baking_soda=300, capb_liquid=60)
    assert sheet_of(plain, tables, 500, 9, 50, "").schools == ()


def test_portions_that_are_split_dry_are_split_dry(tables: Tables) -> None:
    body = replace(SCOOP.portions[0], split="dry")
    two = replace(SCOOP, portions=(body, Portion("second colour", (Line("baking-soda", "100", "g"),), split="dry")))
    assert {each.id: each.taken for each in sheet_of(two, tables, 600, 10, 57, "").schools}["split"] == "early"


@pytest.mark.parametrize("schools", [{"astrology": "late"}, {"acid": "never"}])
def test_a_school_nobody_knows_is_refused(tables: Tables, schools: dict[str, str]) -> None:
    with pytest.raises(InputError, match=r"knows no choice|is no way of"):
        sheet_of(SCOOP, tables, 600, 10, 57, "", schools)


@pytest.mark.parametrize(
    ("changes", "sentence"),
    [
        ({"tool": "anvil"}, 'Tool "anvil" is not known'),
        ({"tool": "disher-24", "scoop_fill": "heroic"}, "Scoop fill must be"),
        ({"pieces": 0}, "pieces must be 1 or more"),
    ],
)
def test_bad_wishes_are_refused_in_words(tables: Tables, changes: dict[str, object], sentence: str) -> None:
    with pytest.raises(InputError, match=sentence):
        make_run_sheet(PRESS, tables, **({"pieces": 5} | changes))  # type: ignore[arg-type]


def test_nothing_to_weigh_is_refused(tables: Tables) -> None:
    with pytest.raises(InputError, match="no weighed line yet"):
        make_run_sheet(replace(PRESS, portions=()), tables, 5)
