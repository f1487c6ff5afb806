"""Reads the reference tables into frozen records. The only code that opens them."""

from __future__ import annotations

import tomllib
from collections import defaultdict
from dataclasses import dataclass, fields
from decimal import Decimal
from functools import cache
from importlib.resources import files
from typing import Any

from rosy_kettle.core.making.label.letters import LetterWidths
from rosy_kettle.core.practice.scenario import Hidden, Scenario
from rosy_kettle.core.records import (
    AcidSystem,
    AcidTraits,
    BaseTraits,
    CarbonateTable,
    Ingredient,
    Method,
    MethodGuess,
    MethodStep,
    PropertySource,
    RackCheck,
    RackTask,
    ReadingTraits,
    School,
    SchoolOption,
    SolidFatCurve,
    SurfactantTraits,
    Tables,
    TapWater,
    Tool,
    WantedDough,
)
from rosy_kettle.core.records.trouble import Advice, CausePrior, FactChance, Symptom, TroubleTables
from rosy_kettle.reference.safety_loader import load_safety
from rosy_kettle.reference.tables_reader import number_or_none, table_rows

__all__ = [
    "Strength",
    "Synonym",
    "load_letter_widths",
    "load_practice",
    "load_strengths",
    "load_synonyms",
    "load_tables",
    "method_from",
    "table_rows",
]

METHODS = files("rosy_kettle.reference") / "methods"
SCHOOLS = files("rosy_kettle.reference") / "schools.toml"
PRACTICE = files("rosy_kettle.reference") / "practice.toml"
SOLID_FAT_COLUMNS = {
    "sfc_10c": 10.0, "sfc_15c": 15.0, "sfc_20c": 20.0, "sfc_25c": 25.0, "sfc_30c": 30.0,
    "sfc_32_5c": 32.5, "sfc_35c": 35.0, "sfc_37_5c": 37.5, "sfc_40c": 40.0,
}  # fmt: skip
PLAIN_ACIDS_FIRST_PROTONS = {"ascorbic-acid": 1}  # the second proton (pKa 11.7) never acts in a bath
ACID_SYSTEM_ROW = {
    "citric": ("citric-acid-anhydrous", 0),
    "tartaric": ("tartaric-acid", 0),
    "malic": ("malic-acid", 0),
    "fumaric": ("fumaric-acid", 0),
    "ascorbic": ("ascorbic-acid", 0),
    "bisulfate": ("sodium-bisulfate", -1),
}
"""The row that holds the constants of a system, and the charge of its first form."""
ACID_SYSTEM_OF = {
    "citric-acid-anhydrous": ("citric", 0),
    "citric-acid-monohydrate": ("citric", 0),
    "tartaric-acid": ("tartaric", 0),
    "cream-of-tartar": ("tartaric", 1),
    "malic-acid": ("malic", 0),
    "fumaric-acid": ("fumaric", 0),
    "ascorbic-acid": ("ascorbic", 0),
    "sodium-bisulfate": ("bisulfate", 1),
}
"""System of each acid on the shelf, and the strong cations it brings per mole."""


@dataclass(frozen=True, slots=True)
class Synonym:
    """An everyday name of an ingredient."""

    phrase: str
    ingredient: str
    note: str = ""
    """What was taken for granted, where the everyday name leaves a choice."""


@dataclass(frozen=True, slots=True)
class Strength:
    """One of the strengths a liquid is sold in."""

    group: str
    pct: float
    ingredient: str


@cache
def load_tables() -> Tables:
    """Return all reference tables, read once; no studio price stands in them."""
    return Tables(
        ingredients={item.id: item for item in _ingredients()},
        methods={method.id: method for method in _methods()},
        tools={tool.id: tool for tool in map(_tool, table_rows("tools"))},
        waters={row["id"]: _water(row) for row in table_rows("water")},
        acid_systems=_acid_systems(),
        carbonate=_carbonate(),
        safety=load_safety(),
    )


@cache
def load_synonyms() -> tuple[Synonym, ...]:
    """Return the everyday names the recipe reader knows from the start."""
    rows = [*table_rows("synonyms"), *table_rows("synonyms_other_languages")]
    return tuple(Synonym(row["phrase"], row["ingredient"], row["note"]) for row in rows)


@cache
def load_strengths() -> tuple[Strength, ...]:
    """Return the strengths that alcohols and liquid surfactants are sold in."""
    return tuple(Strength(row["group"], float(row["pct"]), row["ingredient"]) for row in table_rows("strengths"))


def _ingredients() -> list[Ingredient]:
    tables = ("acids", "bases", "dough_traits", "reading_traits", "surfactant_traits")
    by_id = {name: {row["id"]: row for row in table_rows(name)} for name in tables}
    sources: dict[str, list[PropertySource]] = defaultdict(list)
    for row in table_rows("ingredient_sources"):
        sources[row["id"]].append(PropertySource(row["property"], row["source"], row["confidence"]))
    natures = {row["id"]: frozenset(row["natures"].split("|")) for row in table_rows("natures")}
    splits: dict[str, list[tuple[str, float]]] = defaultdict(list)
    for row in table_rows("inci_splits"):
        splits[row["id"]].append((row["name"], float(row["share"])))
    curves = _solid_fat_curves()
    result = []
    for row in table_rows("ingredients"):
        id_ = row["id"]
        traits = by_id["reading_traits"].get(id_, {})
        dough = by_id["dough_traits"].get(id_, {})
        result.append(
            Ingredient(
                **_plain_columns(row),
                liquid_demand_ml_100g=number_or_none(dough.get("liquid_demand_ml_100g")),
                wax_solubility_factor=number_or_none(traits.get("wax_solubility_factor")),
                firmness_weight=number_or_none(dough.get("firmness_weight")) or 0.0,
                traits=_reading_traits(traits),
                surfactant=_surfactant(by_id["surfactant_traits"].get(id_), traits),
                acid=_acid(by_id["acids"].get(id_), traits) if row["role"] == "acid" else None,
                base=_base(by_id["bases"].get(id_)),
                tempered_fat=curves.get((id_, False)),
                fresh_fat=curves.get((id_, True)),
                sources=tuple(sources[id_]),
                natures=natures.get(id_, frozenset()),
                inci_shares=tuple(splits[id_]),
            )
        )
    return result


def _plain_columns(row: dict[str, str]) -> dict[str, Any]:
    kinds = {field.name: str(field.type) for field in fields(Ingredient)}
    return {name: _typed(text, kinds[name]) for name, text in row.items() if name in kinds}


def _typed(text: str, kind: str) -> Any:
    if kind.startswith("float"):
        return number_or_none(text)
    if kind.startswith("Decimal"):
        return Decimal(text) if text else None
    return text or (None if "None" in kind else "")


def _acid(row: dict[str, str] | None, traits: dict[str, str]) -> AcidTraits | None:
    if row is None:
        return None
    protons = PLAIN_ACIDS_FIRST_PROTONS.get(row["id"], int(row["protons"]))
    system, cations = ACID_SYSTEM_OF[row["id"]]
    return AcidTraits(float(row["molar_mass_g_mol"]), protons, number_or_none(traits.get("acid_speed")) or 1.0, system, cations)


def _reading_traits(row: dict[str, str]) -> ReadingTraits:
    return ReadingTraits(
        hidden_fat_share=number_or_none(row.get("hidden_fat_share")) or 0.0,
        tack=number_or_none(row.get("tack_0_1")),
        deliquescence_share=number_or_none(row.get("drh_share")),
        hlb_effective=number_or_none(row.get("hlb_effective")),
        oil_capacity_g_g=number_or_none(row.get("oil_capacity_g_g")),
        tint_l_g_cm=number_or_none(row.get("tint_eps_l_g_cm")) or 0.0,
        cloud_l_g_cm=number_or_none(row.get("cloud_eps_l_g_cm")) or 0.0,
        stain_note_mg_l=number_or_none(row.get("stain_note_mg_l")),
        stain_warn_mg_l=number_or_none(row.get("stain_warn_mg_l")),
        coarse=row.get("coarse") == "yes",
        humectant_strength=number_or_none(row.get("humectant_strength")) or 0.0,
        gels_from_share=number_or_none(row.get("gels_from_share")),
        citrate_mmol_g=number_or_none(row.get("citrate_mmol_g")) or 0.0,
        hardness_mmol_g=number_or_none(row.get("hardness_mmol_g")) or 0.0,
    )


def _surfactant(row: dict[str, str] | None, traits: dict[str, str]) -> SurfactantTraits | None:
    if row is None:
        return None
    return SurfactantTraits(
        float(row["foam_rel_sds_100"]),
        float(row["irritation_rel_sds_100"]),
        row["hard_water_sensitivity"],
        float(traits["fluff_0_100"]),
    )


def _acid_systems() -> dict[str, AcidSystem]:
    rows = {row["id"]: row for row in table_rows("acids")}
    systems = {}
    for system, (id_, first_charge) in ACID_SYSTEM_ROW.items():
        row = rows[id_]
        steps = [number for number in ("1", "2", "3") if row[f"pKa{number}"]]
        systems[system] = AcidSystem(
            system,
            tuple(float(row[f"pKa{number}"]) for number in steps),
            tuple(number_or_none(row[f"dH{number}_kj_mol"]) or 0.0 for number in steps),
            first_charge,
        )
    return systems


def _carbonate() -> CarbonateTable:
    rows = table_rows("carbonate_constants_t")
    columns = ("temp_c", "pKw", "pK1", "pK2", "log_kh")
    return CarbonateTable(*(tuple(float(row[column]) for row in rows) for column in columns))


def _base(row: dict[str, str] | None) -> BaseTraits | None:
    if row is None:
        return None
    return BaseTraits(
        float(row["molar_mass_g_mol"]),
        float(row["base_equivalents_per_mol"]),
        float(row["carbons_per_mol"]),
        float(row["own_acid_equivalents_per_mol"]),
    )


def _solid_fat_curves() -> dict[tuple[str, bool], SolidFatCurve]:
    curves = {}
    for row in table_rows("fats_sfc"):
        fresh = row["state"].startswith("untempered")
        curves[row["id"], fresh] = SolidFatCurve(
            state=row["state"],
            temperatures_c=tuple(SOLID_FAT_COLUMNS.values()),
            solid_fractions=tuple(float(row[column]) / 100 for column in SOLID_FAT_COLUMNS),
            uncertainty_points=float(row["uncertainty_points"]),
            source=row["source"],
            confidence=row["confidence"],
        )
    return curves


def _tool(row: dict[str, str]) -> Tool:
    return Tool(
        id=row["id"], name=row["name"], type=row["type"], volume_ml=float(row["volume_ml"]),
        diameter_mm=number_or_none(row["diameter_mm"]), height_mm=number_or_none(row["height_mm"]), geometry=row["geometry"],
        note=row["note"], source=row["source"], confidence=row["confidence"],
    )  # fmt: skip


def _water(row: dict[str, str]) -> TapWater:
    return TapWater(
        row["id"], row["name"], float(row["hardness_typ_mg_l_caco3"]),
        float(row["alkalinity_typ_mg_l_caco3"]), float(row["ph_typ"]),
    )  # fmt: skip


def _methods() -> list[Method]:
    """Every file of the folder is a method; its name is the id."""
    found = [method_from(path.name.removesuffix(".toml"), path.read_text(encoding="utf-8")) for path in METHODS.iterdir()]
    return sorted(found, key=lambda method: method.place)


def method_from(id_: str, text: str) -> Method:
    """Return the method of a TOML file."""
    data = tomllib.loads(text)
    wanted, steps, schools, guess = data.pop("wanted"), data.pop("steps"), data.pop("schools"), data.pop("guess", None)
    return Method(
        id=id_,
        judged_at_c=data.pop("judged_at_c", None),
        wet_c=data.pop("wet_c", None),
        phases=tuple(data.pop("phases")),
        guess=None if guess is None else MethodGuess(**guess | {"holds": tuple(guess.get("holds", ()))}),
        wanted=WantedDough(
            states=tuple(wanted["states"]),
            saturation_low=wanted.get("saturation_low"),
            saturation_high=wanted.get("saturation_high"),
            states_with_acid=tuple(wanted.get("states_with_acid", ())),
            state_when_cold=wanted.get("state_when_cold"),
        ),
        rack_tasks=tuple(RackTask(**task | {"only_with": tuple(task.get("only_with", ()))}) for task in data.pop("rack", ())),
        rack_checks=tuple(RackCheck(**check) for check in data.pop("rack_checks", ())),
        schools=tuple(_school(school, usual) for school, usual in schools.items()),
        steps=tuple(
            MethodStep(
                step["stage"], step["text"], step.get("caution", ""), tuple(step.get("only_with", ())),
                tuple(step.get("taken", {}).items()), step.get("kind", "do"),
            )
            for step in steps
        ),
        **data,
    )  # fmt: skip


def _school(id_: str, usual: str) -> School:
    data = _schools()[id_]
    options = tuple(SchoolOption(option["id"], option["name"]) for option in data["options"])
    return School(id_, data["question"], options, usual, tuple(data["only_with"]))


@cache
def _schools() -> dict[str, Any]:
    return tomllib.loads(SCHOOLS.read_text(encoding="utf-8"))


@cache
def load_letter_widths() -> LetterWidths:
    """Return the advances of the letters papers are set in, read from their font files."""
    rows = [(chr(int(row["code_point"], 16)), row) for row in table_rows("letter_widths")]
    return LetterWidths(
        {letter: float(row["regular"]) for letter, row in rows}, {letter: float(row["bold"]) for letter, row in rows}
    )  # fmt: skip


@cache
def load_troubles() -> TroubleTables:
    """Return what is known of troubles and their causes."""
    priors: dict[str, list[CausePrior]] = {}
    for row in table_rows("trouble_priors"):
        priors.setdefault(row["symptom"], []).append(CausePrior(row["cause"], float(row["weight"]), row["reason"], row["source"]))
    chances = tuple(
        FactChance(row["cause"], row["fact"], float(row["chance"]), float(row["usual"]), row["source"])
        for row in table_rows("trouble_evidence")
    )
    advice = {row["cause"]: Advice(row["now"], row["next_time"]) for row in table_rows("trouble_advice")}
    return TroubleTables({symptom: tuple(rows) for symptom, rows in priors.items()}, chances, advice)


@cache
def load_symptoms() -> tuple[Symptom, ...]:
    """Return what can be seen of a piece, in the words makers use."""
    return tuple(Symptom(row["symptom"], row["title"], row["words"], row["drawing"]) for row in table_rows("symptoms"))


@cache
def load_practice() -> dict[str, Scenario]:
    """Return the practice bowls by id, in their order."""
    found: dict[str, Scenario] = {}
    for row in tomllib.loads(PRACTICE.read_text(encoding="utf-8"))["scenario"]:
        hidden = tuple(Hidden(**each) for each in row.pop("hidden", []))
        factors = {f"demand.{each.ingredient}": each.value for each in hidden if each.kind == "thirsty"}
        found[row["id"]] = Scenario(**row, hidden=hidden, factors=factors)
    return found
