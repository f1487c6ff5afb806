"""The ledger and the declaration of whole formulas."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import pytest

from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Certificate, ColourFile, Formula, Product, Tables, Use
from rosy_kettle.core.records.evaluation import Evaluation, LedgerEntry
from rosy_kettle.core.safety.facts_of_formula import facts_of
from rosy_kettle.core.safety.label.composition import composition
from rosy_kettle.core.safety.ledger import _ph_once as ph_once
from rosy_kettle.core.safety.measures import bench_dust_g, felt_ph, lines_of_harshness
from rosy_kettle.core.safety.rules import Facts
from rosy_kettle.core.safety.rules.use import _bath_ph as bath_ph_rule
from rosy_kettle.core.safety.scents import AllergenShares, allergen_shares, kind_of, scents_of
from tests.conftest import make_formula
from tests.core.models.test_dough import BETAINE_SCOOP
from tests.core.models.test_worked_by_hand import mix_of

Judge = Callable[[Formula], Evaluation]
SCOOP = replace(BETAINE_SCOOP, use=Use(dose_g=24.5))
CERTIFIED = Product(certificates={"fragrance-oil-generic": Certificate(limit_pct=5, category="9", flash_c=93)})


def entries(result: Evaluation) -> dict[str, LedgerEntry]:
    return {entry.rule: entry for entry in result.skin.ledger}


def test_a_formula_is_asked_at_its_stage_only(tables: Tables) -> None:
    formula = replace(SCOOP, product=CERTIFIED)
    early = entries(evaluate(formula, tables))
    late = entries(evaluate(formula, tables, "sale"))
    assert {entry.stage for entry in early.values()} == {"formula"}
    assert {"US-SAFE-01", "WORK-DUST-01", "US-FOAM-01"} <= set(late) - set(early)
    assert list(late.values()) == sorted(late.values(), key=lambda e: ["block", "warn", "note"].index(e.severity))


def test_nothing_in_the_ledger_calls_a_product_safe(tables: Tables) -> None:
    for rule in tables.safety.rules:
        assert "is safe" not in rule.message.lower()
        assert "you may" not in rule.message.lower()


def test_profiles_move_the_line_of_harshness(judge: Judge) -> None:
    for profile, expected in (("adult", None), ("family", None), ("sensitive", "note"), ("children", "note")):
        formula = replace(SCOOP, use=Use(dose_g=10, tub_l=12), product=Product(profile=profile))
        found = entries(judge(formula)).get("SKIN.HARSHNESS_MG_L")
        assert (found.severity if found else None) == expected, profile
    warned = replace(SCOOP, use=Use(dose_g=20, tub_l=12), product=Product(profile="children"))
    assert entries(judge(warned))["SKIN.HARSHNESS_MG_L"].severity == "warn"


def test_a_small_tub_asks_for_a_small_dose(judge: Judge) -> None:
    found = entries(judge(replace(SCOOP, use=Use(dose_g=25, tub_l=12))))["DOSE"]
    assert found.limit == pytest.approx(2.0)
    assert "DOSE" not in entries(judge(replace(SCOOP, use=Use(dose_g=25, tub_l=60))))


def test_bath_ph_is_judged_at_step_in_and_after_the_soak_never_aired(judge: Judge) -> None:
    """Hard water airs to 8.8 by itself, so only what the bather meets counts."""
    soda = judge(make_formula("loose-dust", baking_soda=100))
    assert soda.bath.ph_aired is not None
    assert soda.bath.ph_aired > 8.5
    assert not {"BATH.PH_STEPIN", "BATH.PH_SOAK"} & set(entries(soda))
    ash = entries(judge(make_formula("loose-dust", sodium_carbonate=100)))
    assert ash["BATH.PH_STEPIN"].severity == "warn"
    assert "SKIN-PH-01" not in ash, "judged once"


def test_an_unlisted_colour_blocks_and_a_lot_number_frees_a_dye(judge: Judge) -> None:
    dyed = make_formula(baking_soda=100, glycerin=30, dye_blue_ws=0.05)
    assert entries(judge(dyed))["US-COL-02"].severity == "block"
    lot = Product(colours={"dye-blue-ws": ColourFile(us_lot="AB1234")})
    assert "US-COL-02" not in entries(judge(replace(dyed, product=lot)))
    assert entries(judge(make_formula(baking_soda=100, glycerin=30, charcoal_powder=1)))["US-COL-01"].severity == "block"
    unlisted = entries(judge(make_formula(baking_soda=100, glycerin=30, cocoa_powder=1)))["US-COL-01"]
    assert unlisted.unknown, "a colorant nobody has looked up is unknown, not allowed"


def test_scents_add_up_over_their_certificates(judge: Judge) -> None:
    papers = {"lavender-oil": Certificate(limit_pct=1.0), "peppermint-oil": Certificate(limit_pct=1.0)}
    blend = make_formula(baking_soda=980, lavender_oil=6, peppermint_oil=6, glycerin=8)
    found = entries(judge(replace(blend, product=Product(certificates=papers))))
    assert "IFRA-01" not in found
    assert found["IFRA-02"].value == pytest.approx(1.2, rel=0.01)


def test_allergens_come_from_the_oils_unless_the_supplier_says(tables: Tables) -> None:
    """True lavender holds up to 45 % linalool (typical range, from memory): 0.5 % of it is 0.22 % of the piece."""
    formula = make_formula(baking_soda=995, lavender_oil=5)
    typical = evaluate(replace(formula, product=Product(markets=("EU",))), tables, "label")
    assert "Linalool" in typical.label.allergens
    assert entries(typical)["EU-ALL-01"].value == pytest.approx(0.5 * 0.45, rel=0.01)
    sheet = Certificate(limit_pct=5, allergens={"Linalool": 0.001})
    poor = evaluate(replace(formula, product=Product(markets=("EU",), certificates={"lavender-oil": sheet})), tables, "label")
    assert "EU-ALL-01" not in entries(poor)


def test_scent_without_composition_is_said_to_be_unknown(judge: Judge) -> None:
    notes = judge(SCOOP).label.notes
    assert any("fragrance-oil-generic" in note and "not known" in note for note in notes)


def test_measures_give_the_room_that_is_left(judge: Judge) -> None:
    measures = {measure.id: measure for measure in judge(SCOOP).skin.measures}
    hard = measures["skin.harshness_mg_l"]
    assert hard.value is not None
    assert hard.headroom == pytest.approx(1 - hard.value / 200)
    assert measures["skin.scent_share"].value is None
    assert measures["skin.scent_share"].headroom is None, "unknown is never room"
    # Dust: SLSA and kaolin by their hazard class, 82 g at full weight among them.
    assert measures["bench.dust_g"].value is not None
    assert measures["bench.dust_g"].value > 82


def test_the_declaration_of_the_scoop_in_the_us(judge: Judge) -> None:
    """21 CFR 701.3(a), (f): finished product, heaviest first, at most 1 % after, colours last."""
    label = judge(SCOOP).label
    assert label.market == "US"
    assert label.declaration[:3] == ("Sodium Bicarbonate", "Zea Mays (Corn) Starch", "Sodium Lauryl Sulfoacetate")
    assert "Fragrance" in label.declaration
    assert "Parfum" not in label.declaration
    plain = [name for name in label.names if not name.colour]
    assert [name.share_pct for name in plain if not name.below_one_percent] == sorted(
        (name.share_pct for name in plain if not name.below_one_percent), reverse=True
    )
    assert [name.colour for name in label.names] == sorted(name.colour for name in label.names), "colours stand last"
    water = next(name for name in label.names if name.name == "Water")
    assert water.below_one_percent, "nine tenths of the betaine's water have dried off"


def test_the_same_list_in_the_eu_keeps_the_water_as_added(judge: Judge) -> None:
    """Reg (EC) 1223/2009 Art 19(1)(g): weight at the time of adding, below 1 % after, CI numbers last."""
    label = judge(replace(SCOOP, product=Product(markets=("EU",)))).label
    water = next(name for name in label.names if name.name == "Aqua")
    assert water.share_pct == pytest.approx(100 * 57 * 0.64 / 587, rel=0.03)
    assert not water.below_one_percent
    assert label.declaration[-1].startswith("CI ")


def test_alcohol_that_has_left_is_no_ingredient(judge: Judge) -> None:
    formula = make_formula("damp-press", baking_soda=600, citric_acid_anhydrous=300, isopropyl_alcohol_91=30)
    for market in ("US", "EU"):
        assert not any(
            "Isopropyl" in name for name in judge(replace(formula, product=Product(markets=(market,)))).label.declaration
        )


def test_exactly_one_percent_is_minor_in_the_us_and_not_in_the_eu(judge: Judge) -> None:
    formula = make_formula("loose-dust", baking_soda=980, corn_starch=10, kaolin=10)
    by_market = {
        market: {
            name.name: name.below_one_percent for name in judge(replace(formula, product=Product(markets=(market,)))).label.names
        }
        for market in ("US", "EU")
    }
    assert by_market["US"]["Kaolin"]
    assert not by_market["EU"]["Kaolin"]


def test_a_supplied_mixture_is_taken_apart_as_far_as_it_is_known(judge: Judge) -> None:
    label = judge(make_formula(baking_soda=500, corn_starch=300, liquid_bubble_bath=200)).label
    assert any("estimated, ask the supplier" in note for note in label.notes)
    assert {"Sodium Laureth Sulfate", "Water"} <= set(label.declaration)


@pytest.mark.parametrize(("grams", "limit"), [
    ({"citric_acid_anhydrous": 300, "baking_soda": 10}, 5.0), ({"sodium_carbonate": 300, "baking_soda": 100}, 9.0),
])  # fmt: skip
def test_a_bath_that_is_out_names_the_end_it_is_out_at(tables: Tables, grams: dict[str, float], limit: float) -> None:
    """Sour baths are held against the lower end, soapy ones against the upper (project default around the skin's own pH)."""
    skin = evaluate(replace(make_formula("damp-press", **grams), use=Use(dose_g=200)), tables).skin
    entry = next(each for each in skin.ledger if each.rule == "BATH.PH_STEPIN")
    assert (entry.severity, entry.limit) == ("warn", limit)


@pytest.mark.parametrize(
    ("profile", "months", "lines"),
    [
        ("adult", None, (60, 200)), ("family", None, (40, 120)), ("sensitive", None, (20, 60)), ("children", None, (12, 40)),
        ("adult", 144, (60, 200)), ("adult", 143, (40, 120)), ("adult", 36, (40, 120)), ("adult", 35, (12, 40)),
        ("sensitive", 143, (20, 60)), ("children", 400, (12, 40)),
    ],
)  # fmt: skip
def test_the_youngest_bather_makes_the_lines_of_harshness_stricter_and_never_looser(
    profile: str, months: float | None, lines: tuple[float, float]
) -> None:
    """Project defaults, no safety claim (docs/science/skin.md)."""
    assert lines_of_harshness(Product(profile=profile, youngest_user_months=months)) == lines


def test_dust_counts_by_how_fine_a_powder_is(tables: Tables) -> None:
    """All of a fine surfactant powder, three tenths of a middling one, a twentieth of a coarse one (estimate)."""
    shares = {"high": 1.0, "medium": 0.3, "low": 0.05}
    for hazard, share in shares.items():
        name = next(id_ for id_, item in tables.ingredients.items() if item.dust_hazard == hazard and item.is_powder)
        mix = mix_of(make_formula(**{name.replace("-", "_"): 100}), tables)
        assert bench_dust_g(mix) == pytest.approx(100 * share)


@pytest.mark.parametrize(
    ("stepin", "soak", "met"), [(5.6, 8.9, 8.9), (5.0, 8.5, 5.0), (None, 8.0, 8.0), (6.0, None, 6.0), (None, None, None)]
)
def test_the_ph_a_bather_meets_is_the_one_further_from_neutral(
    judge: Judge, stepin: float | None, soak: float | None, met: float | None
) -> None:
    bath = replace(judge(SCOOP).bath, ph_stepin=stepin, ph_soak=soak)
    assert felt_ph(bath) == met


def test_a_dye_spots_above_a_tenth_of_a_per_cent(judge: Judge) -> None:
    """Undissolved grains of dye colour skin and grout (common practice, no published source)."""
    for dye_g, spots in ((0.99, False), (1.2, True)):
        found = entries(judge(make_formula(baking_soda=1000 - dye_g, dye_blue_ws=dye_g)))
        assert ("SPOTS" in found) is spots


def test_shares_of_the_ledger_are_of_what_is_left_when_it_has_dried(judge: Judge) -> None:
    """Of 10 g of water in 100 g nine leave: salt and oil are shares of 91 g; of 60 g of water six stay in 46."""
    wet = entries(
        judge(make_formula("damp-press", baking_soda=60, sea_salt_fine=21, sweet_almond_oil=5, shea_butter=4, distilled_water=10))
    )
    assert wet["SKIN-SALT-01"].value == pytest.approx(100 * 21 / 91, rel=2e-4)
    assert wet["SKIN-SLIP-01"].value == pytest.approx(100 * 9 / 91, rel=2e-4)
    soaked = entries(judge(make_formula("damp-press", baking_soda=40, distilled_water=60)))
    assert soaked["MICRO-01"].value == pytest.approx(100 * 6 / 46, rel=2e-3)


def test_free_water_is_what_the_drying_leaves_beside_alcohol_too(tables: Tables) -> None:
    """A tenth of the water stays, the alcohol goes: of 60 g water and 20 g of 91 % alcohol (12.6 % water by mass) 6.25 g in 26.25 g."""
    formula = make_formula("damp-press", baking_soda=20, distilled_water=60, isopropyl_alcohol_91=20)
    facts = facts_of(
        mix_of(formula, tables), setting_of(formula, tables, 100.0), [], AllergenShares((), {}, {}, {}, ()), None, 0.0
    )
    assert facts.free_water_pct == pytest.approx(100 * 6.25 / 26.25, rel=2e-3)
    assert facts.flammable_solvent_g == pytest.approx(17.48, rel=2e-3)
    assert facts.volatile_loss_pct == pytest.approx(73.75, rel=2e-3)


def test_the_active_part_is_a_share_of_what_is_left(tables: Tables) -> None:
    """10 g of a powder of which 95 % wash, and nine of ten grams of water gone: 9.5 in 91."""
    powder = replace(tables.ingredients["slsa-fine"], active_fraction=0.95)
    own = replace(tables, ingredients={**tables.ingredients, "slsa-fine": powder})
    formula = make_formula("damp-press", baking_soda=80, slsa_fine=10, distilled_water=10)
    mix = mix_of(formula, own)
    facts = facts_of(mix, setting_of(formula, own, 100.0), [], AllergenShares((), {}, {}, {}, ()), None, 0.0)
    assert facts.surfactant_active_pct == pytest.approx(100 * 9.5 / 91)


def test_names_that_come_with_several_lines_add_up(tables: Tables) -> None:
    """40 g of a blend of 55 % water and 10 g of water: 32 g, of which a tenth stays in the 71.2 g that are left."""
    formula = make_formula("damp-press", baking_soda=50, sodium_cocoamphoacetate=40, distilled_water=10)
    mix = mix_of(formula, tables)
    parts = composition(mix.items(), {})
    facts = facts_of(mix, setting_of(formula, tables, 100.0), parts, AllergenShares((), {}, {}, {}, ()), None, 0.0)
    assert facts.inci_pct["Aqua"] == pytest.approx(100 * 3.2 / 71.2)
    assert facts.inci_pct["Sodium Cocoamphoacetate"] == pytest.approx(100 * 0.36 * 40 / 71.2)


def test_what_a_bath_gets_is_the_doses_share(judge: Judge) -> None:
    """A tenth of a kilo in 150 L: 1 g of scent, 3 g of glycerin, 5 g of salt, and 0.1 g of a dye that shows from 2 mg/L."""
    formula = make_formula(
        "damp-press", baking_soda=909, lavender_oil=10, glycerin=30, sea_salt_fine=50, dye_blue_ws=1
    )  # fmt: skip
    measures = {each.id: each.value for each in judge(replace(formula, use=Use(tub_l=150.0, dose_g=100.0))).skin.measures}
    assert measures["skin.scent_g"] == pytest.approx(1.0)
    assert measures["skin.humectant_g"] == pytest.approx(3.0)
    assert measures["skin.salt_g"] == pytest.approx(5.0)
    assert measures["feel.stain_note"] == pytest.approx(100 / 150 / 2)


def test_an_oil_that_is_listed_itself_is_an_allergen_wholly(tables: Tables) -> None:
    """Regulation (EU) 2023/1545, Annex, lists Lavandula Oil/Extract beside the substances in it."""
    formula = make_formula("damp-press", baking_soda=90, lavender_oil=10)
    shares = allergen_shares(mix_of(formula, tables), setting_of(formula, tables, 100.0))
    assert shares.newer["Lavandula Oil/Extract"] == pytest.approx(10.0)
    assert shares.older["Linalool"] == pytest.approx(4.5)  # 45 % of a true lavender oil at the most


@pytest.mark.parametrize(("ph", "limit"), [(4.2, 5.0), (9.6, 9.0)])
def test_a_rule_of_ph_names_the_end_it_passed(ph: float, limit: float) -> None:
    fired = bath_ph_rule(Facts(bath_ph_est=ph))
    assert fired is not None
    assert (fired.value, fired.limit) == (ph, limit)


def test_a_scent_is_a_share_of_what_is_left_when_it_has_dried(tables: Tables) -> None:
    """1 g in 100 g of which nine dry off: 1 of 91."""
    formula = make_formula("damp-press", baking_soda=89, distilled_water=10, lavender_oil=1)
    (scent,) = scents_of(mix_of(formula, tables), setting_of(formula, tables, 100.0))
    assert scent.pct == pytest.approx(100 / 91)


@pytest.mark.parametrize(("water_g", "told"), [(0.052, False), (0.06, True)])
def test_what_rounds_to_no_tenth_of_a_gram_is_not_said_to_dry_off(judge: Judge, water_g: float, *, told: bool) -> None:
    """Nine tenths of the water leave: 0.047 g would be told as 0.0 g, 0.054 g as 0.1 g."""
    notes = judge(make_formula("damp-press", baking_soda=100, distilled_water=water_g)).label.notes
    assert any("dries off" in note for note in notes) is told


def test_a_blend_is_taken_apart_by_its_water_and_its_active_part(tables: Tables) -> None:
    """21 CFR 701.3: each name by its own weight; what the sheet tells of water and active is known, the rest is shared out."""
    blend = tables.ingredients["sodium-cocoamphoacetate"]  # 55 % water, 36 % active, and salt
    shares = {part.name: part.mass_g for part in composition([(blend, 100.0)], {})}
    assert shares == {
        "Aqua": pytest.approx(55.0), "Sodium Cocoamphoacetate": pytest.approx(36.0), "Sodium Chloride": pytest.approx(9.0),
    }  # fmt: skip
    plain = tables.ingredients["sorbitol-70"]  # no surfactant: nothing is its active part
    assert {part.name: part.mass_g for part in composition([(plain, 100.0)], {})} == {
        "Sorbitol": pytest.approx(70.0), "Aqua": pytest.approx(30.0),
    }  # fmt: skip


def test_a_dough_in_an_open_jar_is_a_kind_of_its_own(tables: Tables) -> None:
    """Wet hands go into it bath after bath."""
    for pack, kind in (("open_jar_scoop", "bubble_dough"), ("single_wrap", "bubble_bar")):
        assert kind_of(setting_of(replace(SCOOP, product=Product(pack=pack)), tables, 100.0)) == kind
    truffle = make_formula("moulded-truffle", baking_soda=70, cocoa_butter=30)
    assert kind_of(setting_of(replace(truffle, product=Product(pack="open_jar_scoop")), tables, 100.0)) == "truffle"


def test_of_two_baths_out_of_band_the_one_further_from_neutral_is_told(judge: Judge) -> None:
    measures = {each.id: each for each in judge(SCOOP).skin.measures}
    sour, soapy = replace(measures["bath.ph_stepin"], value=4.9), replace(measures["bath.ph_soak"], value=9.6)
    assert ph_once([sour, soapy]) == [soapy]
    assert ph_once([replace(sour, value=4.2), soapy]) == [replace(sour, value=4.2)]
