"""Scents of a formula: their share of the finished mass, their papers, their allergens."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.records import Certificate, Ingredient, IngredientTags
from rosy_kettle.core.safety.rules.facts import Fragrance
from rosy_kettle.core.safety.rules.materials import THRESHOLD_PCT

__all__ = [
    "AllergenShares",
    "allergen_mode",
    "allergen_shares",
    "dried_share",
    "kind_of",
    "scents_of",
    "tags_of",
    "threshold_pct",
]

NO_TAGS = IngredientTags()
NO_CERTIFICATE = Certificate()


@dataclass(frozen=True, slots=True)
class AllergenShares:
    """Allergens of the finished mass [%], the first 26 and the later ones, and scents nobody has taken apart."""

    scents: tuple[Fragrance, ...]
    older: dict[str, float]
    newer: dict[str, float]
    unknown: tuple[str, ...]


def tags_of(item: Ingredient, setting: Setting) -> IngredientTags:
    """Return what the rules call an ingredient; a studio's own is called what it stands on.

    Parameters
    ----------
    item : Ingredient
        One of the table, or a studio's own
    setting : Setting
        For the table of tags

    Returns
    -------
    IngredientTags
        No tags where there is no row
    """
    return setting.tables.safety.tags.get(item.reference_id, NO_TAGS)


def kind_of(setting: Setting) -> str:
    """Return the kind of product the rules speak of.

    Parameters
    ----------
    setting : Setting
        Method and pack

    Returns
    -------
    str
        bubble_bar, bubble_dough, truffle, melt, fizz_ball or dust
    """
    kind = setting.method.product_kind
    return "bubble_dough" if kind == "bubble_bar" and setting.formula.product.pack == "open_jar_scoop" else kind


def threshold_pct(setting: Setting) -> float:
    """Return the share from which an allergen is named.

    Parameters
    ----------
    setting : Setting
        Mode, or the kind where the maker left it open

    Returns
    -------
    float
        Threshold [%]
    """
    return THRESHOLD_PCT[allergen_mode(setting)]


def allergen_mode(setting: Setting) -> str:
    """Return rinse_off or leave_on; truffles and melts begin as leave_on, for the assessor to change.

    Parameters
    ----------
    setting : Setting
        Mode and kind

    Returns
    -------
    str
        rinse_off or leave_on
    """
    chosen = setting.formula.product.allergen_mode
    return chosen or ("leave_on" if kind_of(setting) in {"truffle", "melt"} else "rinse_off")


def dried_share(mix: Mix) -> float:
    """Return the share of the batch that is left after drying.

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    float
        Share [-]
    """
    return 1 - mix.parameters.skin.water_evaporates * mix.water_share - mix.alcohol_share


def scents_of(mix: Mix, setting: Setting) -> tuple[Fragrance, ...]:
    """Return every scent with its papers; none is taken to be lost in drying.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Certificates

    Returns
    -------
    tuple
        Scents; a limit or flash point that is on no paper is None
    """
    finished_g = mix.total_g * dried_share(mix)
    scents = []
    papers = setting.certificates
    for item, mass_g in mix.kinds:
        if item.role != "fragrance" or mass_g <= 0:
            continue
        paper = papers.get(item.id, NO_CERTIFICATE)
        kind = "eo" if tags_of(item, setting).essential_oil else "fo"
        flash_c = item.flash_point_c if paper.flash_c is None else paper.flash_c
        scents.append(
            Fragrance(
                item.id, kind, 100 * mass_g / finished_g, paper.limit_pct, paper.category, flash_c, item.max_percent_rinse_off
            )
        )
    return tuple(scents)


def allergen_shares(mix: Mix, setting: Setting) -> AllergenShares:
    """Return the allergens of the scents, by the supplier's sheet or the upper end of an oil's usual range.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Certificates and the table of oils

    Returns
    -------
    AllergenShares
        Shares of the finished mass [%]
    """
    safety = setting.tables.safety
    older: dict[str, float] = {}
    newer: dict[str, float] = {}
    unknown = []
    names = {item.id: item for item, _ in mix.items()}
    scents = scents_of(mix, setting)
    papers = setting.certificates
    for scent in scents:
        sheet = papers.get(scent.id, NO_CERTIFICATE).allergens
        oil = tags_of(names[scent.id], setting).essential_oil
        if sheet:
            shares = [(name, name in safety.older_allergens, pct) for name, pct in sheet.items()]
        elif oil:
            shares = [(each.substance, each.older, each.high_pct) for each in safety.oils.get(oil, ())]
            shares += [(safety.own_entries[oil], False, 100.0)] if oil in safety.own_entries else []
        else:
            unknown.append(scent.id)
            continue
        for name, is_older, pct in shares:
            found = older if is_older else newer
            found[name] = found.get(name, 0.0) + scent.pct * pct / 100
    return AllergenShares(scents, older, newer, tuple(unknown))
