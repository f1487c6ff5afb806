"""Reads the safety tables: rules, colours, limits, allergens and tags."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Mapping

from rosy_kettle.core.records import (
    AllergenShare,
    ColourListing,
    IngredientTags,
    RestrictedName,
    Rule,
    SafetyTables,
    SpokenMaterial,
)
from rosy_kettle.core.words.in_names import words_of
from rosy_kettle.reference.tables_reader import number_or_none, table_rows

__all__ = ["load_safety"]


def load_safety() -> SafetyTables:
    """Return every safety table."""
    oils: dict[str, list[AllergenShare]] = defaultdict(list)
    own_entries = {}
    for row in table_rows("essential_oil_allergens"):
        if row["substance"]:
            oils[row["oil"]].append(AllergenShare(row["substance"], row["list"], float(row["typical_high_pct"])))
        if row["own_2023_1545_entry"]:
            own_entries[row["oil"]] = row["own_2023_1545_entry"]
    restricted = _by_every_name()
    return SafetyTables(
        rules=tuple(_rule(row) for row in table_rows("rules")),
        colours={row["name"]: _colour(row) for row in table_rows("colours")},
        tags={row["id"]: _tags(row) for row in table_rows("ingredient_tags")},
        restricted=restricted,
        oils={oil: tuple(shares) for oil, shares in oils.items()},
        own_entries=own_entries,
        newer_allergens=frozenset(row["name"] for row in table_rows("fragrance_allergens") if row["group"] != "26"),
        older_allergens=frozenset(row["name"] for row in table_rows("fragrance_allergens") if row["group"] == "26"),
        spoken=_spoken(),
        oil_by_words=_oil_by_words(),
        substances=_substances(restricted),
        colour_by_ci={
            f"CI {number.strip()}": row["name"]
            for row in table_rows("colours")
            for number in row["ci"].split("/")
            if number.strip()
        },
    )


def _rule(row: dict[str, str]) -> Rule:
    return Rule(
        row["id"], tuple(row["jurisdiction"].split(";")), row["severity"], row["stage"], row["topic"],
        row["message"], row["citation"], row["confidence"], row["basis"],
    )  # fmt: skip


def _colour(row: dict[str, str]) -> ColourListing:
    return ColourListing(
        row["name"], row["us_status"], row["us_certifiable"] == "yes", row["eu_annex_iv"], row["note"], row["us_label_name"]
    )


def _tags(row: dict[str, str]) -> IngredientTags:
    return IngredientTags(
        tags=frozenset(row["tags"].split("|")) - {""},
        colours=tuple(name for name in row["colour_names"].split("|") if name),
        essential_oil=row["essential_oil"] or None,
        preservative_factor=number_or_none(row["preservative_factor"]),
        preservative_eu_max_pct=number_or_none(row["preservative_eu_max_rinse_off_pct"]),
        preservative_ph_max=number_or_none(row["preservative_ph_max"]),
    )


def _by_every_name() -> dict[str, RestrictedName]:
    """Restricted substances under each of their names and CAS numbers, whatever its case."""
    rows = {row["name"]: _restricted(row) for row in table_rows("eu_limits")}
    also = {row["synonym"].casefold(): rows[row["name"]] for row in table_rows("restricted_synonyms")}
    return also | {name.casefold(): row for name, row in rows.items()}


def _restricted(row: dict[str, str]) -> RestrictedName:
    limits = number_or_none(row["rinse_off_max_pct"]), number_or_none(row["leave_on_max_pct"])
    return RestrictedName(row["name"], *(limits if row["status"] == "limit" else (None, None)), row["citation"])


def _spoken() -> dict[str, tuple[SpokenMaterial, ...]]:
    found: dict[str, list[SpokenMaterial]] = defaultdict(list)
    for row in table_rows("spoken_materials"):
        words = words_of(row["phrase"])
        found[words[0]].append(SpokenMaterial(words, tuple(tag for tag in row["tags"].split("|") if tag), row["not_role"]))
    return {first: tuple(rows) for first, rows in found.items()}


def _oil_by_words() -> dict[tuple[str, ...], str]:
    """Oils by their plant ("Citrus limon") and by their everyday name, with and without the part in brackets."""
    rows = {row["oil"]: row["botanical"] for row in table_rows("essential_oil_allergens")}
    found: dict[tuple[str, ...], str] = {}
    for oil, botanical in rows.items():
        whole = words_of(oil)
        found[whole] = oil
        for name in re.sub(r"\(.*?\)", "", oil).split("/"):
            found.setdefault(words_of(name), oil)
        for plant in re.split(r"[/,]", re.sub(r"\(.*?\)", "", botanical)):
            if len(words_of(plant)) > 1:
                found.setdefault(words_of(plant), oil)
    return found


def _substances(restricted: Mapping[str, RestrictedName]) -> dict[str, str]:
    """Every name and number of an allergen or a restricted substance, with the name it stands under."""
    found = {name: row.name for name, row in restricted.items()}
    for row in table_rows("fragrance_allergens"):
        found[row["name"].casefold()] = row["name"]
        if row["cas"]:
            found[row["cas"]] = row["name"]
    for row in table_rows("substance_synonyms"):
        found[row["synonym"].casefold()] = row["name"]
    return found
