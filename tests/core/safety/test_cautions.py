"""Cautions that must speak, with their nearest misses; and a studio's own ingredient keeps its nature."""

from __future__ import annotations

import ast
from dataclasses import replace
from pathlib import Path

import pytest

import rosy_kettle.core
from rosy_kettle.core.change.balance.substitute import Substitute, substitutes
from rosy_kettle.core.making.plan import make_run_sheet
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Certificate, Formula, Line, Portion, Product, Tables
from tests.conftest import make_formula
from tests.core.models.test_dough import BETAINE_SCOOP


def rules(tables: Tables, formula: Formula, stage: str = "formula") -> set[str]:
    return {entry.rule for entry in evaluate(formula, tables, stage).skin.ledger}


@pytest.mark.parametrize(
    ("method", "grams", "rule", "speaks"),
    [
        ("damp-press", {"baking_soda": 400, "sodium_bisulfate": 100}, "MAT-ACID-01", True),
        ("damp-press", {"baking_soda": 400, "citric_acid_anhydrous": 100}, "MAT-ACID-01", False),
        ("damp-press", {"baking_powder": 400, "citric_acid_anhydrous": 100}, "MAT-SODA-01", True),
        ("damp-press", {"baking_soda": 400, "ultramarine_blue": 2, "citric_acid_anhydrous": 100}, "MAT-COL-01", True),
        ("glycerin-dough", {"baking_soda": 400, "ultramarine_blue": 2, "glycerin": 100}, "MAT-COL-01", False),
        ("damp-press", {"baking_soda": 400, "iron_oxide_red": 2, "citric_acid_anhydrous": 100}, "MAT-COL-01", False),
        ("betaine-dough", {"baking_soda": 400, "sci_noodles": 50, "capb_liquid": 60}, "MAT-MELT-01", True),
        ("betaine-dough", {"baking_soda": 400, "sci_powder": 50, "capb_liquid": 60}, "MAT-MELT-01", False),
        ("melt", {"cocoa_butter": 80, "sci_noodles": 20}, "MAT-MELT-01", False),
        ("glycerin-dough", {"baking_soda": 400, "glycerin": 100, "distilled_water": 5}, "MAT-WATER-01", True),
        ("butter-dough", {"baking_soda": 400, "cocoa_butter": 100, "hydrosol": 5}, "MAT-WATER-01", True),
        ("betaine-dough", {"baking_soda": 400, "capb_liquid": 60, "witch_hazel_distillate": 5}, "MAT-WATER-01", True),
        ("melt", {"cocoa_butter": 80, "coconut_milk_liquid": 10}, "MAT-WATER-01", True),
        ("betaine-dough", {"baking_soda": 400, "capb_liquid": 60}, "MAT-WATER-01", False),
        ("damp-press", {"baking_soda": 400, "citric_acid_anhydrous": 200, "distilled_water": 5}, "MAT-WATER-01", False),
        ("melt", {"cocoa_butter": 80, "behentrimonium_methosulfate": 10, "slsa_fine": 5}, "MAT-CAT-01", True),
        ("melt", {"cocoa_butter": 80, "behentrimonium_methosulfate": 10}, "MAT-CAT-01", False),
        ("betaine-dough", {"baking_soda": 400, "capb_liquid": 60, "fragrance_oil_generic": 50}, "IFRA-06", True),
        ("betaine-dough", {"baking_soda": 400, "capb_liquid": 60, "fragrance_oil_generic": 5}, "IFRA-06", False),
        ("betaine-dough", {"baking_soda": 400, "capb_liquid": 60, "peppermint_oil": 15}, "IFRA-06", True),
    ],
)
def test_a_caution_speaks_and_its_nearest_miss_is_silent(
    tables: Tables, method: str, grams: dict[str, float], rule: str, speaks: bool
) -> None:
    assert (rule in rules(tables, make_formula(method, **grams))) == speaks


def test_a_certificate_stands_over_the_usual_most(tables: Tables) -> None:
    body = make_formula(baking_soda=400, capb_liquid=60, fragrance_oil_generic=30)
    papers = Product(certificates={"fragrance-oil-generic": Certificate(limit_pct=12.0)})
    assert "IFRA-06" in rules(tables, body)
    assert "IFRA-06" not in rules(tables, replace(body, product=papers))


def test_scent_meets_the_hot_butters_not_the_dough(tables: Tables) -> None:
    """The wet phase goes in at 93 °C; a flash point of 80 °C is below it though the dough comes to about 40 °C."""
    truffle = make_formula(
        "butter-dough", baking_soda=400, slsa_fine=100, cocoa_butter=90, shea_butter=80, fragrance_oil_generic=10
    )
    found = {entry.rule: entry for entry in evaluate(truffle, tables, "batch").skin.ledger}
    assert found["WORK-FLASH-01"].value == pytest.approx(93)
    cold = make_formula(baking_soda=400, slsa_fine=100, capb_liquid=60, fragrance_oil_generic=10)
    assert "WORK-FLASH-01" not in rules(tables, cold, "batch")


def test_children_bring_their_own_lines(tables: Tables) -> None:
    strong = replace(BETAINE_SCOOP, use=replace(BETAINE_SCOOP.use, dose_g=60, tub_l=100))
    assert "SKIN.HARSHNESS_MG_L" not in rules(tables, strong)
    assert "SKIN.HARSHNESS_MG_L" in rules(tables, replace(strong, product=Product(youngest_user_months=24)))
    assert "SKIN.HARSHNESS_MG_L" not in rules(tables, replace(strong, product=Product(youngest_user_months=400)))


def test_the_bath_ph_is_judged_once(tables: Tables) -> None:
    ash = make_formula("loose-dust", sodium_carbonate=300)
    assert len(rules(tables, ash) & {"SKIN-PH-01", "BATH.PH_STEPIN", "BATH.PH_SOAK"}) == 1


def test_advice_fits_the_method(tables: Tables) -> None:
    ball = evaluate(make_formula("damp-press", baking_soda=600, citric_acid_anhydrous=300, distilled_water=12), tables)
    codes = {advice.code for advice in ball.advice}
    assert codes & {"lifts_filled", "lifts_little_filled"}
    assert not codes & {"lifts_kneaded", "lifts_little_kneaded"}


def own(tables: Tables, base: str, id_: str) -> Tables:
    """The tables with a studio's own ingredient beside the one it was made from."""
    item = replace(tables.ingredients[base], id=id_, short_name="Ours", based_on=base, confidence="studio")
    return replace(tables, ingredients={**tables.ingredients, id_: item})


def test_a_studios_own_alcohol_still_burns_and_its_own_acid_still_goes_last(tables: Tables) -> None:
    mine = own(own(tables, "isopropyl-alcohol-91", "our-spirit"), "citric-acid-anhydrous", "our-acid")
    lines = tuple(Line(name, amount, "g") for name, amount in (("baking-soda", "400"), ("our-acid", "200"), ("our-spirit", "10")))
    sheet = make_run_sheet(Formula("x", (Portion("body", lines),), method="damp-press"), mine, 4)
    assert any("flame" in caution.lower() for caution in sheet.cautions)
    assert {line.ingredient: group.phase for group in sheet.groups for line in group.lines}["our-acid"] == "acid-last"


@pytest.mark.parametrize("folder", ["rules", "plan", "judge", "fats", "firmness"])
def test_rules_and_plans_ask_the_nature_not_the_id(tables: Tables, folder: str) -> None:
    ids = set(tables.ingredients)
    begun = {"-".join(id_.split("-")[:2]) for id_ in ids if id_.count("-") > 1}
    found = [
        f"{path.name}:{node.lineno} {node.value}"
        for path in (Path(rosy_kettle.core.__file__).parent / folder).glob("*.py")
        for node in ast.walk(ast.parse(path.read_text("utf-8")))
        if isinstance(node, ast.Constant) and node.value in (ids | begun)
    ]
    assert found == []


def swaps(tables: Tables, formula: Formula, ingredient: str) -> list[Substitute]:
    position = next(at for at, line in enumerate(formula.lines) if line.ingredient == ingredient)
    return list(substitutes(formula, tables, position))


def test_baking_powder_and_washing_soda_stand_last_with_their_reason(tables: Tables) -> None:
    ball = make_formula("damp-press", baking_soda=240, citric_acid_anhydrous=120, corn_starch=30, sweet_almond_oil=8)
    found = swaps(tables, ball, "baking-soda")
    against = {each.ingredient: each.why_not for each in found}
    assert against["baking-powder"]
    assert against["sodium-carbonate"]
    assert against["sodium-sesquicarbonate"]
    clean = [bool(each.why_not) for each in found]
    assert clean == sorted(clean), "what has something against it comes last"


def test_starch_stands_in_for_a_surfactant_powder_where_children_help(tables: Tables) -> None:
    for name in ("slsa-fine", "scs-powder"):
        body = make_formula(baking_soda=220, corn_starch=100, capb_liquid=57, glycerin=30, **{name.replace("-", "_"): 80})
        starch = next(each for each in swaps(tables, body, name) if each.ingredient == "corn-starch")
        assert "children" in starch.note
        assert any(effect.reading == "lather.score" for effect in starch.effects), "less foam is said"
