"""Reads the reference tables into frozen records. The only code that opens them."""

from __future__ import annotations

import csv
import tomllib
from collections import defaultdict
from dataclasses import dataclass, fields
from decimal import Decimal
from functools import cache
from importlib.resources import files
from typing import Any

from rosy_kettle.core.records import (
    AcidTraits,
    BaseTraits,
    Ingredient,
    Method,
    MethodStep,
    PropertySource,
    SolidFatCurve,
    Tables,
    TapWater,
    Tool,
    WantedDough,
)

__all__ = ["Synonym", "load_synonyms", "load_tables", "table_rows"]

TABLES = files("rosy_kettle.reference") / "tables"
METHODS = files("rosy_kettle.reference") / "methods"
SOLID_FAT_COLUMNS = {
    "sfc_10c": 10.0, "sfc_15c": 15.0, "sfc_20c": 20.0, "sfc_25c": 25.0, "sfc_30c": 30.0,
    "sfc_32_5c": 32.5, "sfc_35c": 35.0, "sfc_37_5c": 37.5, "sfc_40c": 40.0,
}  # fmt: skip
METHOD_ORDER = (
    "glycerin-dough", "betaine-dough", "butter-dough", "moulded-truffle",
    "melt", "damp-press", "loose-dust", "pre-dried-surfactant",
)  # fmt: skip
PLAIN_ACIDS_FIRST_PROTONS = {"ascorbic-acid": 1}  # the second proton (pKa 11.7) never acts in a bath


@dataclass(frozen=True, slots=True)
class Synonym:
    """An everyday name of an ingredient."""

    phrase: str
    ingredient: str
    note: str = ""
    """What was taken for granted, where the everyday name leaves a choice."""


def table_rows(name: str) -> list[dict[str, str]]:
    """Return the rows of one CSV table as text."""
    text = (TABLES / f"{name}.csv").read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


@cache
def load_tables() -> Tables:
    """Return all reference tables, read once; no studio price stands in them."""
    return Tables(
        ingredients={item.id: item for item in _ingredients()},
        methods={id_: _method(id_) for id_ in METHOD_ORDER},
        tools={tool.id: tool for tool in map(_tool, table_rows("tools"))},
        waters={row["id"]: _water(row) for row in table_rows("water")},
        price_per_kg={},
    )


@cache
def load_synonyms() -> tuple[Synonym, ...]:
    """Return the everyday names the recipe reader knows from the start."""
    return tuple(Synonym(row["phrase"], row["ingredient"], row["note"]) for row in table_rows("synonyms"))


def _ingredients() -> list[Ingredient]:
    by_id = {name: {row["id"]: row for row in table_rows(name)} for name in ("acids", "bases", "dough_traits", "reading_traits")}
    sources: dict[str, list[PropertySource]] = defaultdict(list)
    for row in table_rows("ingredient_sources"):
        sources[row["id"]].append(PropertySource(row["property"], row["source"], row["confidence"]))
    curves = _solid_fat_curves()
    result = []
    for row in table_rows("ingredients"):
        id_ = row["id"]
        traits = by_id["reading_traits"].get(id_, {})
        dough = by_id["dough_traits"].get(id_, {})
        result.append(
            Ingredient(
                **_plain_columns(row),
                liquid_demand_ml_100g=_number(dough.get("liquid_demand_ml_100g")),
                wax_solubility_factor=_number(traits.get("wax_solubility_factor")),
                acid=_acid(by_id["acids"].get(id_), traits) if row["role"] == "acid" else None,
                base=_base(by_id["bases"].get(id_)),
                tempered_fat=curves.get((id_, False)),
                fresh_fat=curves.get((id_, True)),
                sources=tuple(sources[id_]),
            )
        )
    return result


def _plain_columns(row: dict[str, str]) -> dict[str, Any]:
    kinds = {field.name: str(field.type) for field in fields(Ingredient)}
    return {name: _typed(text, kinds[name]) for name, text in row.items() if name in kinds}


def _typed(text: str, kind: str) -> Any:
    if kind.startswith("float"):
        return _number(text)
    if kind.startswith("Decimal"):
        return Decimal(text) if text else None
    return text or (None if "None" in kind else "")


def _number(text: str | None) -> float | None:
    return float(text) if text else None


def _acid(row: dict[str, str] | None, traits: dict[str, str]) -> AcidTraits | None:
    if row is None:
        return None
    protons = PLAIN_ACIDS_FIRST_PROTONS.get(row["id"], int(row["protons"]))
    return AcidTraits(float(row["molar_mass_g_mol"]), protons, _number(traits.get("acid_speed")) or 1.0)


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
        diameter_mm=_number(row["diameter_mm"]), height_mm=_number(row["height_mm"]), geometry=row["geometry"],
        note=row["note"], source=row["source"], confidence=row["confidence"],
    )  # fmt: skip


def _water(row: dict[str, str]) -> TapWater:
    return TapWater(
        row["id"], row["name"], float(row["hardness_typ_mg_l_caco3"]),
        float(row["alkalinity_typ_mg_l_caco3"]), float(row["ph_typ"]),
    )  # fmt: skip


def _method(id_: str) -> Method:
    data = tomllib.loads((METHODS / f"{id_}.toml").read_text(encoding="utf-8"))
    wanted, steps = data.pop("wanted"), data.pop("steps")
    return Method(
        id=id_,
        judged_at_c=data.pop("judged_at_c", None),
        wet_c=data.pop("wet_c", None),
        phases=tuple(data.pop("phases")),
        wanted=WantedDough(
            states=tuple(wanted["states"]),
            saturation_low=wanted.get("saturation_low"),
            saturation_high=wanted.get("saturation_high"),
            states_with_acid=tuple(wanted.get("states_with_acid", ())),
            state_when_cold=wanted.get("state_when_cold"),
        ),
        steps=tuple(
            MethodStep(step["stage"], step["text"], step.get("caution", ""), tuple(step.get("only_with", ()))) for step in steps
        ),
        **data,
    )
