"""The Pantry: ingredients with their sources, the studio's prices and the names its reader knows."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from itertools import pairwise

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import ConflictError, InputError, MissingDataError, NotFoundError
from rosy_kettle.core.models.cost.formula_cost import price_per_kg
from rosy_kettle.core.records import Certificate, Ingredient, PriceBreak, Prices, Tables, certificate_to_data
from rosy_kettle.files.product_file import CertificateFile
from rosy_kettle.reader.names import plain
from rosy_kettle.reference import load_synonyms, load_tables
from rosy_kettle.store.certificates import put_certificate
from rosy_kettle.store.formulas import formulas_with
from rosy_kettle.store.ingredients import (
    OwnIngredientRow,
    delete_own_ingredient,
    learn_synonym,
    list_synonyms,
    set_price,
)
from rosy_kettle.store.lots import list_stock
from rosy_kettle.usecases.pantry.keep_lots import count_ingredient
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.studio.studio_tables import EDITABLE_PROPERTIES, studio_tables

__all__ = [
    "Pantry", "PropertyView", "band_of", "certificate_file", "enter_certificate", "enter_price", "enter_stock",
    "forget_own_ingredient",
    "learn_name", "price_of", "property_views", "read_pantry", "save_own_ingredient",
]  # fmt: skip

HIGHEST_PRICE = Decimal(100_000)  # per kg; more is a slip
LABELS = {
    "inci": ("INCI name", ""), "cas": ("CAS number", ""), "role": ("Role", ""), "form": ("Form", ""),
    "phase_default": ("Weighed with", ""), "us_cup_g": ("US cup", "g"), "us_tbsp_g": ("US tablespoon", "g"),
    "us_tsp_g": ("US teaspoon", "g"), "true_density_g_ml": ("True density", "g/mL"),
    "bulk_density_loose_g_ml": ("Loose density", "g/mL"), "bulk_density_packed_g_ml": ("Packed density", "g/mL"),
    "liquid_demand_ml_100g": ("Liquid it drinks", "mL/100 g"), "water_fraction": ("Water", "share"),
    "active_fraction": ("Active surfactant", "share"), "surfactant_class": ("Surfactant class", ""),
    "molar_mass_g_mol": ("Molar mass", "g/mol"), "melt_low_c": ("Melts from", "°C"), "melt_high_c": ("Melts up to", "°C"),
    "flash_point_c": ("Flash point", "°C"), "cp_j_gk": ("Heat capacity", "J/(g K)"),
    "latent_heat_j_g": ("Heat of melting", "J/g"),
    "hlb": ("HLB", ""), "required_hlb": ("Required HLB", ""), "hygroscopic": ("Draws damp", ""),
    "dust_hazard": ("Dust hazard", ""), "eye_hazard": ("Eye hazard", ""), "vegan": ("Vegan", ""),
}  # fmt: skip
LIQUID_DEMAND_SOURCE = "default chosen so that common doughs fall in the texture makers report; no published source"


@dataclass(frozen=True, slots=True)
class Pantry:
    """All tables and all names."""

    tables: Tables
    synonyms: Mapping[str, list[str]]
    learned: Mapping[str, list[str]]
    on_hand_g: Mapping[str, float]
    """What is there by ingredient; one that is not in it is not known [g]."""


@dataclass(frozen=True, slots=True)
class PropertyView:
    """One property as the Pantry shows it."""

    property: str
    label: str
    value: str | None
    unit: str
    source: str
    confidence: str
    editable: bool


def read_pantry(session: Session) -> Pantry:
    """Return ingredients, prices and names."""
    synonyms: dict[str, list[str]] = defaultdict(list)
    for synonym in load_synonyms():
        synonyms[synonym.ingredient].append(synonym.phrase)
    learned: dict[str, list[str]] = defaultdict(list)
    for row in list_synonyms(session):
        learned[row.ingredient_id].append(row.phrase)
    return Pantry(studio_tables(session), synonyms, learned, list_stock(session))


def price_of(ingredient: Ingredient, tables: Tables) -> tuple[str | None, str | None]:
    """Return the price used and whose it is; (None, None) when there is none."""
    try:
        price, basis = price_per_kg(ingredient, tables.prices)
    except MissingDataError:
        return None, None
    return f"{price:.2f}", basis


def band_of(ingredient: Ingredient, prices: Prices) -> tuple[Decimal, Decimal] | None:
    """Return the reference band in the studio's currency; None without a band, or without a rate to tell it in."""
    low, high = ingredient.price_band_usd_per_kg_lo, ingredient.price_band_usd_per_kg_hi
    rate = prices.reference_rate
    return None if low is None or high is None or rate is None else (low * rate, high * rate)


def property_views(ingredient: Ingredient) -> list[PropertyView]:
    """Return the properties worth showing, each with its source and confidence."""
    sources = {item.property: item for item in ingredient.sources}
    own = ingredient.based_on is not None
    views = []
    for name, (label, unit) in LABELS.items():
        value = getattr(ingredient, name)
        if value in (None, "") and not (own and name in EDITABLE_PROPERTIES):
            continue
        source = sources.get(name)
        text = source.source if source else (LIQUID_DEMAND_SOURCE if name == "liquid_demand_ml_100g" else "")
        confidence = source.confidence if source else ("medium" if text else "")
        shown = None if value is None else (f"{value:g}" if isinstance(value, float) else str(value))
        views.append(PropertyView(name, label, shown, unit, text, confidence, own and name in EDITABLE_PROPERTIES))
    return views


def enter_price(session: Session, ingredient_id: str, text: str, breaks: Sequence[tuple[str, str]] = ()) -> None:
    """Store the studio's price, and what larger amounts cost: pairs of "from kg" and price as typed.

    Raises
    ------
    InputError
        If a text is no price or no amount, or two breaks begin at the same amount.
    """
    _known(session, ingredient_id)
    price = _money(text)
    typed = sorted((PriceBreak(_kilos(from_kg), _money(money)) for from_kg, money in breaks), key=lambda each: each.from_kg)
    for earlier, later in pairwise(typed):
        if earlier.from_kg == later.from_kg:
            raise InputError(f"Two prices begin at {earlier.from_kg} kg; keep one of them.", quantity="breaks")
    set_price(session, ingredient_id, price, studio_settings(session).currency, typed)


def _money(text: str) -> Decimal:
    price = _decimal(text, f'Price per kg must be a number such as 21.50, got "{text[:20]}".')
    if not price.is_finite() or price < 0 or price > HIGHEST_PRICE:
        raise InputError(f"Price per kg must lie between 0 and {HIGHEST_PRICE}, got {text[:20]}.", quantity="price_per_kg")
    return price


def _kilos(text: str) -> Decimal:
    sentence = f'A larger amount must be a number of kg above 0, such as 5, got "{text[:20]}".'
    kilos = _decimal(text, sentence)
    if not kilos.is_finite() or kilos <= 0:
        raise InputError(sentence, quantity="breaks")
    return kilos


def _decimal(text: str, sentence: str) -> Decimal:
    try:
        return Decimal(text.strip().replace(",", "."))
    except InvalidOperation as error:
        raise InputError(sentence, quantity="price_per_kg") from error


def certificate_file(tables: Tables, ingredient_id: str) -> CertificateFile | None:
    """Return the studio's certificate of a scent, None where there is none."""
    paper = tables.certificates.get(ingredient_id)
    if paper is None:
        return None
    told = certificate_to_data(paper)
    try:
        return CertificateFile.model_validate(told)
    except ValueError:  # a category from before there was a list: it is asked anew
        return CertificateFile.model_validate(told | {"category": None})


def enter_certificate(session: Session, ingredient_id: str, paper: Certificate) -> None:
    """Store the certificate of a scent.

    Raises
    ------
    InputError
        If the ingredient is no scent.
    NotFoundError
        If it is not in the Pantry.
    """
    _known(session, ingredient_id)
    if studio_tables(session).ingredients[ingredient_id].role != "fragrance":
        raise InputError("Only a scent has a certificate; choose a scent.", quantity="ingredient")
    put_certificate(session, ingredient_id, paper)


def enter_stock(session: Session, ingredient_id: str, on_hand_g: float | None) -> None:
    """Store what is on hand; None is not known.

    Raises
    ------
    NotFoundError
        If it is not in the Pantry.
    """
    _known(session, ingredient_id)
    count_ingredient(session, ingredient_id, on_hand_g)


def learn_name(session: Session, ingredient_id: str, phrase: str) -> None:
    """Teach the reader a name.

    Raises
    ------
    InputError
        If the name holds no letter.
    """
    _known(session, ingredient_id)
    words = plain(phrase)
    if not re.search(r"[a-z]", words):
        raise InputError(f'A name needs at least one letter, got "{phrase[:40]}".', quantity="phrase")
    learn_synonym(session, words, ingredient_id)


def save_own_ingredient(
    session: Session, ingredient_id: str | None, based_on: str, name: str, inci: str, note: str,
    properties: Mapping[str, float | None],
) -> str:  # fmt: skip
    """Store an ingredient of the studio's own, new when there is no id yet, and return its id.

    Raises
    ------
    InputError
        If it is based on nothing known, or a property cannot be entered.
    NotFoundError
        If an id is given that is no own ingredient.
    """
    if based_on not in load_tables().ingredients:
        raise InputError(f'An own ingredient starts from one of the table; "{based_on[:60]}" is not in it.', quantity="based_on")
    unknown = set(properties) - set(EDITABLE_PROPERTIES)
    if unknown:
        raise InputError(f'Property "{min(unknown)[:40]}" cannot be entered; choose from {", ".join(EDITABLE_PROPERTIES)}.')
    for share in ("active_fraction", "water_fraction"):
        if (value := properties.get(share)) is not None and value > 1:
            raise InputError(f"{LABELS[share][0]} is a share from 0 to 1, got {value:g}.", quantity=share, value=value)
    if ingredient_id is None:
        row = OwnIngredientRow(id=_fresh_id(session, name), based_on=based_on)
        session.add(row)
    else:
        found = session.get(OwnIngredientRow, ingredient_id)
        if found is None:
            raise NotFoundError(f'There is no own ingredient "{ingredient_id[:60]}".', noun="ingredient", id=ingredient_id)
        row = found
    row.based_on, row.name, row.inci, row.note, row.properties = based_on, name.strip(), inci, note, dict(properties)
    session.flush()
    return row.id


def forget_own_ingredient(session: Session, ingredient_id: str) -> None:
    """Remove an own ingredient.

    Raises
    ------
    ConflictError
        If a formula still uses it.
    """
    users = formulas_with(session, ingredient_id)
    if users:
        raise ConflictError(
            f'"{users[0]}" uses this ingredient; take it out there first.', noun="ingredient", reason="in use", formulas=users
        )
    delete_own_ingredient(session, ingredient_id)


def _known(session: Session, ingredient_id: str) -> None:
    if ingredient_id not in studio_tables(session).ingredients:
        raise NotFoundError(f'There is no ingredient "{ingredient_id[:60]}".', noun="ingredient", id=ingredient_id)


def _fresh_id(session: Session, name: str) -> str:
    stem = f"own-{plain(name).replace(' ', '-')[:40] or 'ingredient'}"
    taken = studio_tables(session).ingredients
    number, candidate = 1, stem
    while candidate in taken:
        number += 1
        candidate = f"{stem}-{number}"
    return candidate
