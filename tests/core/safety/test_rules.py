"""Every rule fires where it should and is silent where it should, just below, at and above its lines.

The cases state the rules' own wording (21 CFR 700-740, Reg (EC) 1223/2009, IFRA Standards, NIOSH, OSHA; from memory,
see the citation of each rule) as facts and the answer they must give.
"""

from __future__ import annotations

import json
from dataclasses import fields, replace
from pathlib import Path
from typing import Any

import pytest

from rosy_kettle.core.records import Product, Tables
from rosy_kettle.core.safety.rules import ColourFacts, Facts, Fragrance, Preservative, run_rules
from rosy_kettle.core.safety.rules.engine import PREDICATES

DATA: dict[str, Any] = json.loads((Path(__file__).parent / "rule_cases.json").read_text(encoding="utf-8"))
CASES = [(rule, case) for rule, cases in DATA["cases"].items() for case in cases]
PRODUCT_FIELDS = {item.name for item in fields(Product)} - {"certificates", "colours", "allergen_mode", "ingredient_order_ok"}
FACT_FIELDS = {item.name for item in fields(Facts)} - {"product", "fragrance", "colours", "preservatives"}


def facts_from(given: dict[str, Any]) -> Facts:
    """The usual silent product, with some facts changed."""
    plain: dict[str, Any] = dict(DATA["usual"])
    for name, value in given.items():
        if isinstance(value, dict) and ({"only", "without"} & set(value)):
            kept = [part for part in plain[name] if part not in value.get("without", ())]
            plain[name] = value.get("only", kept + value.get("with", []))
        else:
            plain[name] = value
    product = {name: tuple(v) if isinstance(v, list) else v for name, v in plain.items() if name in PRODUCT_FIELDS}
    facts = {name: v for name, v in plain.items() if name in FACT_FIELDS and name not in PRODUCT_FIELDS - FACT_FIELDS}
    facts["tags"], facts["declared_allergens"] = frozenset(plain["tags"]), frozenset(plain["declared_allergens"])
    facts["max_melt_temp_c"], facts["fragrance_add_temp_c"] = plain["max_melt_temp_c"], plain["fragrance_add_temp_c"]
    scents = [{"kind": "fo", "ifra_category": "9", "flash_c": 93.0} | scent for scent in plain["fragrance"]]
    return Facts(
        product=Product(**product),
        fragrance=tuple(Fragrance(**scent) for scent in scents),
        colours=tuple(ColourFacts(**colour) for colour in plain["colours"]),
        preservatives=tuple(Preservative(**item) for item in plain["preservatives"]),
        **facts,
    )


@pytest.mark.parametrize(("rule", "case"), CASES, ids=[f"{rule}-{n}" for n, (rule, _) in enumerate(CASES)])
def test_a_rule_answers_as_it_must(tables: Tables, rule: str, case: dict[str, Any]) -> None:
    fired = PREDICATES[rule](replace(facts_from(case["given"]), restricted=tables.safety.restricted))
    assert (fired is not None) == case["fires"]


def test_every_rule_has_a_case_that_fires_and_one_that_is_silent(tables: Tables) -> None:
    assert set(DATA["cases"]) == {rule.id for rule in tables.safety.rules} == set(PREDICATES)
    for rule, cases in DATA["cases"].items():
        assert {case["fires"] for case in cases} == {True, False}, rule


def test_the_usual_product_is_silent_everywhere(tables: Tables) -> None:
    assert run_rules(facts_from({}), tables.safety, "sale", ("US", "EU", "UK")) == ()


def test_rules_follow_market_and_stage(tables: Tables) -> None:
    facts = facts_from({"label": {"only": []}, "records": {"only": []}, "tags": ["fine_dust"]})
    at = {stage: {f.rule.id for f in run_rules(facts, tables.safety, stage, ("US",))} for stage in ("formula", "batch", "sale")}
    assert "WORK-DUST-01" not in at["formula"]
    assert "WORK-DUST-01" in at["batch"]
    assert {"US-SAFE-01", "US-LABEL-01", "NAME-01"} <= at["sale"]
    assert not any(name.startswith("EU-") for name in at["sale"])
    abroad = {f.rule.id for f in run_rules(facts, tables.safety, "sale", ("EU",))}
    assert {"EU-DOC-01", "EU-LABEL-01"} <= abroad
    assert not any(name.startswith("US-") for name in abroad)


def test_what_is_unknown_is_said(tables: Tables) -> None:
    facts = facts_from({"fragrance": [{"id": "heather", "pct": 0.5, "limit_pct": None}], "flammable_solvent_g": 5})
    found = {f.rule.id: f.fired for f in run_rules(facts, tables.safety, "sale", ("US",))}
    assert found["IFRA-03"].unknown == ("category limit of heather",)
    assert found["WORK-IPA-02"].unknown == ("room_m3",)


def test_isopropyl_vapour_by_the_ideal_gas_law() -> None:
    """R = 8.314462618 J/(mol K) (CODATA 2018), 60.096 g/mol (IUPAC): 1 g in 1 m3 at 25 °C and 1 atm is 406.8 ppm."""
    from rosy_kettle.core.safety.rules.use import PPM_M3_PER_G

    ppm = 1e6 * (1 / 60.096) * 8.314462618 * 298.15 / 101325
    assert pytest.approx(ppm, rel=0.001) == PPM_M3_PER_G


def test_a_serious_event_is_reported_within_fifteen_business_days() -> None:
    """FD&C Act s. 605(b)(1)."""
    fired = PREDICATES["US-MOCRA-03"](facts_from({"serious_event_open_business_days": 3}))
    assert fired is not None
    assert (fired.value, fired.limit) == (3, 15)


@pytest.mark.parametrize(
    "name", ["Sodium Borate", "sodium borate", "BORAX", "Lilial", "lyral", "80-54-6", "Butylphenyl methylpropional"]
)
def test_what_is_prohibited_is_found_by_every_name(tables: Tables, name: str) -> None:
    """Reg. (EU) 2019/831, 2021/1902 and 2017/1410; trade names from memory."""
    fired = PREDICATES["EU-BAN-01"](Facts(inci_pct={name: 0.01}, restricted=tables.safety.restricted))
    assert fired is not None
    near = PREDICATES["EU-BAN-01"](Facts(inci_pct={"Sodium Bicarbonate": 50.0}, restricted=tables.safety.restricted))
    assert near is None
