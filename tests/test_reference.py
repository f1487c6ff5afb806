"""The reference tables: every row, every invariant."""

from __future__ import annotations

import re
import shutil
from dataclasses import replace
from decimal import Decimal
from pathlib import Path

import pytest

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.readings.registry import declared_besides
from rosy_kettle.core.records import Tables
from rosy_kettle.core.records.reading import Reading
from rosy_kettle.reference import load_synonyms, load_tables, tables_reader
from rosy_kettle.reference.loader import table_rows
from tests.conftest import make_formula

CONFIDENCE = {"high", "medium", "low"}
ROLES = {
    "base", "acid", "surfactant", "starch", "clay", "additive", "milk", "salt", "butter", "oil", "wax", "humectant", "emulsifier",
    "binder", "fragrance", "colorant", "decoration", "preservative",
}  # fmt: skip
FORMS = {"powder", "crystal", "granule", "liquid", "paste", "solid-fat", "wax"}
PHASES = {"dry", "acid-last", "liquid", "melt", "scent", "colour", "spray", "decoration"}


def test_all_201_ingredients_are_there_once(tables: Tables) -> None:
    ids = [row["id"] for row in table_rows("ingredients")]
    assert len(ids) == len(set(ids)) == len(tables.ingredients) == 201


def test_every_ingredient_keeps_every_invariant(tables: Tables) -> None:
    faults = []
    for item in tables.ingredients.values():
        checks = {
            "id": re.fullmatch(r"[a-z0-9]+(-[a-z0-9]+)*", item.id),
            "role": item.role in ROLES,
            "form": item.form in FORMS,
            "phase": item.phase_default in PHASES,
            "confidence": item.confidence in CONFIDENCE,
            "true density": item.true_density_g_ml and 0.7 < item.true_density_g_ml < 6,
            "cup": item.us_cup_g and 5 < item.us_cup_g < 400,
            "water": item.water_fraction is not None and 0 <= item.water_fraction <= 1,
            "active": (item.active_fraction is not None) == (item.role == "surfactant"),
            "water and active": (item.water_fraction or 0) + (item.active_fraction or 0) <= 1,
            "melting range": item.melt_low_c is None or item.melt_high_c is None or item.melt_low_c <= item.melt_high_c,
            "price band": item.price_band_usd_per_kg_lo is not None
            and item.price_band_usd_per_kg_hi is not None
            and Decimal(0) < item.price_band_usd_per_kg_lo <= item.price_band_usd_per_kg_hi,
            "powder drinks": not item.is_powder or item.role == "decoration" or item.liquid_demand_ml_100g is not None,
            "loose not over packed": item.bulk_density_packed_g_ml is None
            or item.bulk_density_loose_g_ml is None
            or item.bulk_density_loose_g_ml <= item.bulk_density_packed_g_ml,
            "solid fats have a curve": item.form not in {"solid-fat", "wax"} or item.is_fat,
            "acid": (item.acid is not None) == (item.role == "acid"),
            "base": (item.base is not None) == (item.role == "base"),
            "sources": len(item.sources) > 5 and all(s.source and s.confidence in CONFIDENCE for s in item.sources),
            "names": item.name and item.short_name and item.inci and len(item.short_name) <= 28,
        }
        faults += [f"{item.id}: {name}" for name, holds in checks.items() if not holds]
    assert faults == []


def test_spoons_are_shares_of_the_cup(tables: Tables) -> None:
    for item in tables.ingredients.values():
        assert item.us_cup_g is not None
        if item.us_tsp_g is not None:
            assert item.us_tsp_g * 48 == pytest.approx(item.us_cup_g, rel=0.06), item.id


def test_solid_fat_curves_fall_with_temperature(tables: Tables) -> None:
    for item in tables.ingredients.values():
        for curve in (item.tempered_fat, item.fresh_fat):
            if curve:
                assert list(curve.solid_fractions) == sorted(curve.solid_fractions, reverse=True), item.id
                assert all(0 <= share <= 1 for share in curve.solid_fractions), item.id
                assert curve.source
                assert curve.confidence in CONFIDENCE


def test_only_cocoa_butter_has_a_fresh_curve(tables: Tables) -> None:
    assert [item.id for item in tables.ingredients.values() if item.fresh_fat] == ["cocoa-butter"]


@pytest.mark.parametrize(
    "name",
    [
        "acids",
        "bases",
        "dough_traits",
        "fats_density",
        "fats_sfc",
        "reading_traits",
        "surfactant_traits",
        "tools",
        "tub",
        "units",
        "water",
    ],
)
def test_every_row_names_source_and_confidence(name: str) -> None:
    rows = table_rows(name)
    assert rows
    for row in rows:
        assert row["source"], row["id"]
        assert row["confidence"] in CONFIDENCE, row["id"]


@pytest.mark.parametrize("name", ["dough_traits", "fats_sfc", "fats_density", "reading_traits", "surfactant_traits", "bases"])
def test_trait_rows_belong_to_ingredients(tables: Tables, name: str) -> None:
    assert {row["id"] for row in table_rows(name)} <= set(tables.ingredients)


def test_one_more_nature_is_a_word_in_a_table(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    """What a reading asks for with item.has is found, and a studio's own keeps it, without a line of code."""
    shutil.copytree(str(tables_reader.TABLES), tmp_path / "tables")
    with (tmp_path / "tables/natures.csv").open("a", encoding="utf-8") as natures:
        natures.write("kaolin,milky-in-the-tub\n")
    monkeypatch.setattr(tables_reader, "TABLES", tmp_path / "tables")
    wider = load_tables.__wrapped__()
    milky = Reading(
        "dough.milky_g", "Milky", "g", "exact", "batch", "Powders that cloud the water.", page="dough", question="feel",
        compute=lambda look: sum(
            mass for item, mass in zip(look.mix.palette.ingredients, look.mix.mass_g, strict=True) if item.has("milky-in-the-tub")
        ),
    )  # fmt: skip
    own = replace(wider.ingredients["kaolin"], id="own-clay", name="Own clay", based_on="kaolin")
    asked = replace(wider, ingredients={**wider.ingredients, own.id: own})
    formula = make_formula(baking_soda=300, kaolin=20, own_clay=5, glycerin=30)
    with declared_besides(milky):
        assert evaluate(formula, asked).further == {milky.id: pytest.approx(25.0)}


def test_surfactant_traits_agree_with_the_ingredients(tables: Tables) -> None:
    for row in table_rows("surfactant_traits"):
        assert float(row["active_fraction"]) == tables.ingredients[row["id"]].active_fraction


def test_every_synonym_leads_to_an_ingredient_and_only_one(tables: Tables) -> None:
    synonyms = load_synonyms()
    assert {synonym.ingredient for synonym in synonyms} <= set(tables.ingredients)
    phrases = [synonym.phrase.lower() for synonym in synonyms]
    assert len(phrases) == len(set(phrases))


def test_all_eight_methods_are_there_with_their_defaults(tables: Tables) -> None:
    assert [method.place for method in tables.methods.values()] == list(range(1, 9))
    for method in tables.methods.values():
        assert method.steps
        assert set(method.phases) == PHASES
        assert 0.03 <= method.loss_fraction <= 0.05
        assert method.dose_g <= method.piece_mass_g
        assert all(len(step.text) <= 140 for step in method.steps), "short steps"


def test_carbon_dioxide_in_soda_is_what_its_note_says(tables: Tables) -> None:
    """44.009 / 84.007 = 0.524 g CO2 per g (IUPAC standard atomic weights)."""
    assert "0.524" in tables.ingredients["baking-soda"].note
    assert pytest.approx(0.524, abs=0.0005) == 44.009 / 84.007
