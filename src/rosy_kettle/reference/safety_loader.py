"""Reads the safety tables: rules, colours, limits, allergens and tags."""

from __future__ import annotations

from collections import defaultdict

from rosy_kettle.core.records import AllergenShare, ColourListing, IngredientTags, RestrictedName, Rule, SafetyTables
from rosy_kettle.reference.tables_reader import number_or_none, table_rows

__all__ = ["load_safety"]


def load_safety() -> SafetyTables:
    """Return every safety table."""
    oils: dict[str, list[AllergenShare]] = defaultdict(list)
    own_entries = {}
    for row in table_rows("essential_oil_allergens"):
        if row["substance"]:
            oils[row["oil"]].append(AllergenShare(row["substance"], row["list"] == "26", float(row["typical_high_pct"])))
        if row["own_2023_1545_entry"]:
            own_entries[row["oil"]] = row["own_2023_1545_entry"]
    return SafetyTables(
        rules=tuple(_rule(row) for row in table_rows("rules")),
        colours={row["name"]: _colour(row) for row in table_rows("colours")},
        tags={row["id"]: _tags(row) for row in table_rows("ingredient_tags")},
        restricted=_by_every_name(),
        oils={oil: tuple(shares) for oil, shares in oils.items()},
        own_entries=own_entries,
        older_allergens=frozenset(row["name"] for row in table_rows("fragrance_allergens") if row["group"] == "26"),
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
    return ColourListing(row["name"], row["us_status"], row["us_certifiable"] == "yes", row["eu_annex_iv"], row["note"])


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
