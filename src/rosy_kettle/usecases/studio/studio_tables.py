"""The reference tables with the studio's own ingredients and prices laid over them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields, replace
from pathlib import Path
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.learning.apply import with_factors
from rosy_kettle.core.records import Certificate, Ingredient, OwnTool, Tables, Tool, certificate_from_data
from rosy_kettle.reference import Synonym, load_tables
from rosy_kettle.store import Studio
from rosy_kettle.store.certificates import list_certificates
from rosy_kettle.store.ingredients import OwnIngredientRow, list_own_ingredients, list_synonyms
from rosy_kettle.store.learnt_factors import accepted_factors
from rosy_kettle.store.lots import LotRow, lots_with_sheets
from rosy_kettle.usecases.studio.studio_prices import studio_prices
from rosy_kettle.usecases.studio.studio_settings import studio_settings

__all__ = ["EDITABLE_PROPERTIES", "by_lots", "current_tables", "learned_synonyms", "studio_tables"]

EDITABLE_PROPERTIES = (
    "us_cup_g", "true_density_g_ml", "liquid_demand_ml_100g", "active_fraction", "water_fraction", "flash_point_c",
)  # fmt: skip
"""Numbers a studio may enter for an ingredient of its own."""
SHEET_PROPERTIES = {"active_fraction": "active part", "water_fraction": "water"}
"""What a lot's own sheet may say, with its name."""


def studio_tables(session: Session, factors: Mapping[str, float] | None = None) -> Tables:
    """Return the tables every reading of this studio is computed with.

    ``factors`` None takes those that are accepted now; a batch gives those it was planned with.
    """
    reference = load_tables()
    rows = list_own_ingredients(session)
    own = {row.id: _own_ingredient(row, reference) for row in rows if row.based_on in reference.ingredients}
    settings = studio_settings(session)
    tools = dict(reference.tools) | {each.id: _own_tool(each) for each in settings.tools}
    tables = replace(
        reference, ingredients=dict(reference.ingredients) | own, prices=studio_prices(session, settings),
        certificates=list_certificates(session), tools=tools,
        spray_ml=settings.spray_ml or reference.spray_ml, tolerance=settings.tolerance,
    )  # fmt: skip
    return with_factors(by_lots(tables, lots_with_sheets(session)), accepted_factors(session) if factors is None else factors)


def _own_tool(own: OwnTool) -> Tool:
    return Tool(own.id, own.name, own.type, own.volume_ml, None, None, "", "", "measured by the studio", "studio")


def by_lots(tables: Tables, lots: Mapping[str, LotRow]) -> Tables:
    """Let the papers of lots, by ingredient, speak in place of the reference: active part and water, certificate."""
    changed: dict[str, Ingredient] = {}
    papers: dict[str, Certificate] = {}
    said: dict[str, str] = {}
    for id_, lot in lots.items():
        if id_ in tables.ingredients:
            item = tables.ingredients[id_]
            paper = _paper(lot)
            if paper is not None:
                papers[id_] = paper
            figures: dict[str, Any] = {
                name: lot.properties[name] for name in SHEET_PROPERTIES if isinstance(lot.properties.get(name), int | float)
            }  # fmt: skip
            changed[id_] = replace(item, **figures)
            told = ", ".join(f"{SHEET_PROPERTIES[name]} {value:.0%}" for name, value in figures.items())
            papers_said = [told] if told else []
            papers_said += ["limit, flash point and allergens"] if paper is not None else []
            if papers_said:
                said[id_] = f"{item.short_name}: {', '.join(papers_said)} by the sheet of lot {lot.code}."
    certificates = dict(tables.certificates) | papers
    return replace(
        tables, ingredients=dict(tables.ingredients) | changed, certificates=certificates, sheets=dict(tables.sheets) | said
    )


def _paper(lot: LotRow) -> Certificate | None:
    """Return the certificate of a lot; None where it has none, or one of another version."""
    try:
        return certificate_from_data(lot.certificate) if lot.certificate else None
    except (AttributeError, KeyError, TypeError):
        return None


def current_tables(studio: Studio) -> Tables:
    """Return the same tables, read anew only when something in the studio was written since.

    The Desk asks for them at every keystroke.
    """
    stamp = studio.stamp()  # taken first: a commit between the two reads makes the tables newer than it says, never older
    kept = _last_read.get(studio.path)
    if kept is None or kept[0] != stamp:
        with studio.reading() as session:
            kept = _last_read[studio.path] = (stamp, studio_tables(session))
    return kept[1]


_last_read: dict[Path, tuple[int, Tables]] = {}


def learned_synonyms(session: Session) -> list[Synonym]:
    """Return the names this studio's reader has learned, own ingredients' names among them."""
    known = load_tables().ingredients
    own = [Synonym(row.name, row.id) for row in list_own_ingredients(session) if row.based_on in known]
    return own + [Synonym(row.phrase, row.ingredient_id) for row in list_synonyms(session)]


def _own_ingredient(row: OwnIngredientRow, reference: Tables) -> Ingredient:
    base = reference.ingredients[row.based_on]
    changed: dict[str, Any] = {name: row.properties[name] for name in EDITABLE_PROPERTIES if name in row.properties}
    known = {field.name for field in fields(Ingredient)}
    return replace(
        base,
        id=row.id, name=row.name, short_name=row.name, inci=row.inci or base.inci, note=row.note or base.note,
        based_on=base.id, confidence="studio", **{name: value for name, value in changed.items() if name in known},
    )  # fmt: skip
