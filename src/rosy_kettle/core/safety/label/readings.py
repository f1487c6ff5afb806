"""The declaration of a formula for its first market."""

from __future__ import annotations

from collections.abc import Mapping

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.skin.finished import stays_wet
from rosy_kettle.core.records import SafetyTables
from rosy_kettle.core.records.evaluation import Label
from rosy_kettle.core.safety.label import NamedPart, composition, declare
from rosy_kettle.core.safety.scents import AllergenShares, threshold_pct

__all__ = ["parts_of", "read_label"]

DRIES_OFF_G = 0.05  # less than this is not worth a line [g]


def parts_of(mix: Mix, setting: Setting) -> list[NamedPart]:
    """Return the named parts of a formula.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        For the listed colours

    Returns
    -------
    list
        Parts with their masses [g]
    """
    return composition(mix.items(), setting.tables.safety.colours, stays_wet=stays_wet(setting))


def read_label(setting: Setting, parts: list[NamedPart], found: AllergenShares) -> Label:
    """Return the ingredient list of the first market.

    Parameters
    ----------
    setting : Setting
        Market
    parts : list
        Named parts of the formula [g]
    found : AllergenShares
        Allergens of the scents

    Returns
    -------
    Label
        Names in order, allergens to be named, and what was estimated or dries off
    """
    market = next(iter(setting.formula.product.markets), "US")
    allergens = tuple(sorted(name for name, pct in {**found.older, **found.newer}.items() if pct > threshold_pct(setting)))
    names = declare(parts, market, _colour_names(parts, market, setting.tables.safety), allergens)
    notes = [f"{each.name}: {each.note}." for each in names if each.note and each.note != "in the scent"]
    leaving: dict[str, float] = {}
    for part in parts:
        leaving[part.name] = leaving.get(part.name, 0.0) + part.leaves_g
    notes += [f"{name}: {grams:.1f} g of the batch dries off." for name, grams in leaving.items() if grams > DRIES_OFF_G]
    notes += [f"The composition of {name} is not known; ask its supplier for the allergens." for name in found.unknown]
    return Label(
        market=market,
        declaration=tuple(each.name for each in names),
        names=names,
        allergens=allergens,
        notes=tuple(notes),
    )


def _colour_names(parts: list[NamedPart], market: str, safety: SafetyTables) -> Mapping[str, str]:
    """Return what a list calls a colour by its CI name: in the US by its label name there, a lake as a lake."""
    if market != "US":
        return safety.colour_by_ci
    dyes = {part.name for part in parts if part.colour and not part.lake}
    lakes = {part.name for part in parts if part.colour and part.lake} - dyes
    found = {}
    for number, common in safety.colour_by_ci.items():
        row = safety.colours[common]
        label = row.us_label_name or common
        found[number] = f"{label} Lake" if number in lakes and row.us_certifiable else label
    return found
