"""Materials by what they are called: a studio's own carries its own legal status, and every tag a rule asks for can be met.

Names and statuses: Reg (EC) 1223/2009 Annexes II and III, 21 CFR 700 to 740, IFRA categories; from memory, see each rule.
"""

from __future__ import annotations

import re
from dataclasses import replace
from pathlib import Path

import pytest

import rosy_kettle.core.safety.rules as rules_folder
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Certificate, Formula, Product, Substance, Tables
from tests.conftest import make_formula

BAR = {"baking_soda": 400.0, "citric_acid_anhydrous": 100.0, "slsa_fine": 60.0, "corn_starch": 80.0, "capb_liquid": 60.0}


def fired(tables: Tables, base: str, name: str, inci: str = "", grams: float = 10.0, stage: str = "batch") -> set[str]:
    """Rules that speak of a bar because of one own ingredient."""
    item = replace(tables.ingredients[base], id="own", based_on=base, name=name, short_name=name)
    item = replace(item, inci=inci or item.inci)
    own = replace(tables, ingredients={**tables.ingredients, "own": item})
    without = make_formula("betaine-dough", **BAR)
    portion = without.portions[0]
    line = replace(portion.lines[0], ingredient="own", amount=str(grams))
    with_it = replace(without, portions=(replace(portion, lines=(*portion.lines, line)),))
    return _rules(own, with_it, stage) - _rules(own, without, stage)


def _rules(tables: Tables, formula: Formula, stage: str = "formula", **product: object) -> set[str]:
    said = replace(formula, product=replace(Product(markets=("US", "EU", "UK")), **product))  # type: ignore[arg-type]
    return {entry.rule for entry in evaluate(said, tables, stage).skin.ledger}


@pytest.mark.parametrize(("base", "name", "inci", "rule", "speaks"), [
    ("mica-pigment", "CI 45170", "", "US-COL-01", True),
    ("mica-pigment", "Sunset red", "CI 45170", "EU-COL-01", True),
    ("mica-pigment", "Copper shine", "Mica, CI 77491", "US-COL-01", False),
    ("sweet-almond-oil", "Peanut oil", "", "EU-PROT-01", True),
    ("sweet-almond-oil", "Groundnut", "Arachis Hypogaea (Peanut) Oil", "EU-PROT-01", True),
    ("sweet-almond-oil", "Almond oil, cold pressed", "", "EU-PROT-01", False),
    ("corn-starch", "wheat peptides", "Hydrolyzed Wheat Protein", "EU-PROT-01", True),
    ("corn-starch", "buckwheat starch", "Polygonum Fagopyrum Starch", "WORK-ALLERGEN-01", False),
    ("corn-starch", "sodium borate", "", "EU-BAN-01", True),
    ("corn-starch", "White salt", "sodium borate", "EU-BAN-01", True),
    ("corn-starch", "Borax powder, fine", "", "EU-BAN-01", True),
    ("corn-starch", "Borax-free softener", "", "EU-BAN-01", False),
    ("sweet-almond-oil", "Hazelnut oil", "Corylus Avellana Seed Oil", "WORK-ALLERGEN-01", True),
    ("mct-oil", "Silky feel", "Cyclohexasiloxane", "EU-SILOX-01", True),
    ("corn-starch", "White salt", "Sodium Gluconate", "EU-BAN-01", False),
    ("corn-starch", "Scrub", "Polyethylene", "PLASTIC-01", True),
    ("polysorbate-80", "Softener", "Polyethylene Glycol", "PLASTIC-01", False),
    ("glitter-cellulose", "Holo sparkle", "Polyethylene Terephthalate", "EU-PLASTIC-02", True),
    ("glitter-cellulose", "Leaf sparkle", "Rayon, Glycerin", "EU-PLASTIC-02", False),
    ("lavender-oil", "Wintergreen", "Gaultheria Procumbens Leaf Oil", "SKIN-EO-03", True),
    ("lavender-oil", "Lavender 40/42", "", "SKIN-EO-03", False),
    ("botanical-petals", "Fresh rose petals", "", "MICRO-03", True),
    ("botanical-petals", "Dried rose petals", "", "MICRO-03", False),
    ("corn-starch", "Silk powder", "Talc", "TALC-01", True),
    ("mct-oil", "Silky feel", "Cyclopentasiloxane", "EU-SILOX-01", True),
    ("mct-oil", "Silky feel", "Dimethicone", "EU-SILOX-01", False),
    ("titanium-dioxide", "White", "Titanium Dioxide (nano)", "EU-NANO-01", True),
    ("capb-liquid", "Thick foam", "Cocamide DEA", "NITRO-01", True),
    ("beeswax", "Beeswax, white", "", "SKIN-BEE-01", True),
    ("fragrance-oil-generic", "Honey and oat", "", "SKIN-BEE-01", False),
    ("fragrance-oil-generic", "Almond milk", "", "WORK-ALLERGEN-01", False),
    ("lavender-oil", "Rosemary", "Rosmarinus Officinalis Leaf Oil", "SKIN-EPI-01", True),
    ("lavender-oil", "Tea tree", "Melaleuca Alternifolia Leaf Oil", "PET-01", True),
    ("corn-starch", "Preserver", "Bithionol", "US-BAN-01", True),
])  # fmt: skip
def test_a_name_makes_its_rule_speak(tables: Tables, base: str, name: str, inci: str, rule: str, speaks: bool) -> None:
    assert (rule in fired(tables, base, name, inci)) == speaks


def test_every_tag_a_rule_asks_for_stands_on_something(tables: Tables) -> None:
    """A rule whose tag is on no ingredient and in no table of words could never fire."""
    folder = Path(rules_folder.__file__).parent
    asked = set()
    for file in ("materials.py", "use.py"):
        text = (folder / file).read_text(encoding="utf-8")
        asked |= set(re.findall(r'"([a-z0-9_]+)" (?:not )?in f(?:acts)?\.tags', text))
        for group in re.findall(r"frozenset\(\{([^}]*)\}\)", text):
            asked |= set(re.findall(r'"([a-z0-9_]+)"', group))
        asked |= set(re.findall(r'needs = \{"(\w+)"', text))
    known = {tag for row in tables.safety.tags.values() for tag in row.tags}
    known |= {tag for rows in tables.safety.spoken.values() for row in rows for tag in row.tags}
    known |= {nature for item in tables.ingredients.values() for nature in item.natures}
    assert len(asked) > 25
    assert asked - known <= set()


@pytest.mark.parametrize(("line", "grams", "rule", "speaks"), [
    ("rose_otto_oil", 1.0, "EU-LIM-01", True),  # 3.3 % methyl eugenol at the most, 0.001 % allowed (Annex III entry 102)
    ("rose_otto_oil", 0.1, "EU-LIM-01", False),
    ("cinnamon_leaf_oil", 15.0, "EU-LIM-01", True),  # 1 % safrole at the most, 0.01 % allowed (Annex II entry 360)
    ("cinnamon_leaf_oil", 1.0, "EU-LIM-01", False),
])  # fmt: skip
def test_naturals_count_by_what_is_in_them(tables: Tables, line: str, grams: float, rule: str, speaks: bool) -> None:
    assert (rule in _rules(tables, make_formula("betaine-dough", **BAR, **{line: grams}))) == speaks


def test_one_substance_is_summed_over_all_lines(tables: Tables) -> None:
    """0.8 % benzyl alcohol neat and 0.5 % within a scent are more than the 1 % of Annex V entry 34."""
    restricted = tables.safety.restricted["isoeugenol"]
    assert restricted.rinse_off_max_pct == 0.02  # Annex III entry 73
    papers = {name: Certificate(limit_pct=9.0, substances=(Substance("isoeugenol", None, 1.0),)) for name in
              ("fragrance-oil-generic", "ylang-ylang-oil")}  # fmt: skip
    alone = make_formula("betaine-dough", **BAR, fragrance_oil_generic=10.0)
    both = make_formula("betaine-dough", **BAR, fragrance_oil_generic=10.0, ylang_ylang_oil=6.0)
    assert "EU-LIM-01" not in _rules(tables, alone, certificates=papers)
    assert "EU-LIM-01" in _rules(tables, both, certificates=papers)


@pytest.mark.parametrize(
    ("category", "rule", "speaks"), [("12", "IFRA-07", True), ("9", "IFRA-07", False), (None, "IFRA-07", False)]
)
def test_only_the_products_category_counts(tables: Tables, category: str | None, rule: str, speaks: bool) -> None:
    """Category 9 is rinsed-off bath, 12 candles and the like (IFRA Standards, 51st Amendment, from memory)."""
    papers = {"fragrance-oil-generic": Certificate(limit_pct=50.0, category=category)}
    formula = make_formula("betaine-dough", **BAR, fragrance_oil_generic=10.0)
    assert (rule in _rules(tables, formula, certificates=papers)) == speaks
    assert ("IFRA-03" in _rules(tables, formula, "sale", certificates=papers)) == speaks


@pytest.mark.parametrize(("name", "cas", "known"), [
    ("Lilial", None, "Butylphenyl Methylpropional"), ("LYRAL", None, "Hydroxyisohexyl 3-Cyclohexene Carboxaldehyde"),
    ("some trade name", "80-54-6", "Butylphenyl Methylpropional"), ("d-limonene", None, "Limonene"),
    ("linalool", None, "Linalool"), ("Limonenne", None, None),
])  # fmt: skip
def test_substances_are_known_by_number_name_or_synonym(tables: Tables, name: str, cas: str | None, known: str | None) -> None:
    found, asked = Certificate(substances=(Substance(name, cas, 2.0),)).shares(tables.safety.substances)
    assert found == ({known: 2.0} if known else {})
    assert asked == (() if known else (name,))


def test_scents_without_papers_share_what_is_usual(tables: Tables) -> None:
    half = {name: tables.ingredients[name.replace("_", "-")].max_percent_rinse_off for name in ("lavender_oil", "patchouli_oil")}
    grams = {name: 0.7 * (pct or 0.0) * 6.0 for name, pct in half.items()}
    assert "IFRA-06" in _rules(tables, make_formula("betaine-dough", **BAR, **grams))
    first = dict([next(iter(grams.items()))])
    assert "IFRA-06" not in _rules(tables, make_formula("betaine-dough", **BAR, **first))


def test_foam_too_harsh_for_toddlers_is_held_back(tables: Tables) -> None:
    formula = make_formula("betaine-dough", **BAR)

    def severity(months: float) -> str:
        young = replace(
            formula, product=replace(formula.product, youngest_user_months=months), use=replace(formula.use, dose_g=600.0)
        )
        told = {entry.rule: entry.severity for entry in evaluate(young, tables).skin.ledger}
        return told.get("SKIN.HARSHNESS_MG_L", "")

    assert (severity(24), severity(36)) == ("block", "note")


def test_a_dough_in_a_jar_keeps_its_water(tables: Tables) -> None:
    formula = make_formula("betaine-dough", **BAR)
    jar = replace(formula, product=replace(formula.product, pack="open_jar_scoop"))
    assert "MICRO-01" not in _rules(tables, formula)
    assert "MICRO-01" in {entry.rule for entry in evaluate(jar, tables).skin.ledger}
    assert not any("Aqua" in note and "dries off" in note for note in evaluate(jar, tables).label.notes)


def test_aloe_and_flower_water_are_no_alcohol(tables: Tables) -> None:
    watery = make_formula("damp-press", baking_soda=400, citric_acid_anhydrous=200, aloe_juice=6, hydrosol=6)
    assert "WORK-IPA-02" not in _rules(tables, watery, "batch")
    assert "WORK-IPA-02" in _rules(tables, make_formula("damp-press", baking_soda=400, witch_hazel_distillate=20), "batch")
