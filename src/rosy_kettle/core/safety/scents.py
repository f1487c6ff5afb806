"""Scents of a formula: their share of the finished mass, their papers, their allergens."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.skin.finished import dried_share, stays_wet
from rosy_kettle.core.records import Certificate, SafetyTables
from rosy_kettle.core.safety.called import tags_of
from rosy_kettle.core.safety.rules.facts import Fragrance
from rosy_kettle.core.safety.rules.materials import THRESHOLD_PCT

__all__ = [
    "AllergenShares",
    "allergen_mode",
    "allergen_shares",
    "kind_of",
    "scents_of",
    "threshold_pct",
]

NO_CERTIFICATE = Certificate()
OLDER, NEWER, UNNAMED = "26", "ext", "limit"
"""Lists of substances: the first to be named on a label, those since 2023, and those that have a limit only."""


@dataclass(frozen=True, slots=True)
class AllergenShares:
    """Substances of the scents in the finished mass [%]: allergens, the first 26 and the later ones, and what is restricted.

    Scents nobody has taken apart are unknown.
    """

    scents: tuple[Fragrance, ...]
    older: dict[str, float]
    newer: dict[str, float]
    unnamed: dict[str, float]
    """Restricted substances that no list of allergens names."""
    unknown: tuple[str, ...]
    asked: tuple[str, ...] = ()
    """Names on a scent's paper that nobody knows."""


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
    return "bubble_dough" if stays_wet(setting) else kind


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
    finished_g = mix.total_g * dried_share(mix, setting)
    scents = []
    papers = setting.certificates
    for item, mass_g in mix.kinds:
        if item.role != "fragrance" or mass_g <= 0:
            continue
        paper = papers.get(item.id, NO_CERTIFICATE)
        kind = "eo" if tags_of(item, setting).essential_oil else "fo"
        flash_c = item.flash_point_c if paper.flash_c is None else paper.flash_c
        scents.append(Fragrance(
            item.id, kind, 100 * mass_g / finished_g, paper.limit_pct, paper.category, flash_c, paper.other_category,
            item.max_percent_rinse_off,
        ))  # fmt: skip
    return tuple(scents)


def allergen_shares(mix: Mix, setting: Setting) -> AllergenShares:
    """Return what is known to be in the scents, by the supplier's sheet or the upper end of an oil's usual range.

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
    found: dict[str, dict[str, float]] = {OLDER: {}, NEWER: {}, UNNAMED: {}}
    unknown = []
    names = {item.id: item for item, _ in mix.items()}
    scents = scents_of(mix, setting)
    papers = setting.certificates
    for scent in scents:
        sheet = papers.get(scent.id, NO_CERTIFICATE).allergens
        oil = tags_of(names[scent.id], setting).essential_oil
        if sheet:
            shares = [(name, _list_of(name, safety), pct) for name, pct in sheet.items()]
        elif oil:
            shares = [(each.substance, each.list, each.high_pct) for each in safety.oils.get(oil, ())]
            shares += [(safety.own_entries[oil], NEWER, 100.0)] if oil in safety.own_entries else []
        else:
            unknown.append(scent.id)
            continue
        for name, of_list, pct in shares:
            found[of_list][name] = found[of_list].get(name, 0.0) + scent.pct * pct / 100
    asked = tuple(dict.fromkeys(name for scent in scents for name in papers.get(scent.id, NO_CERTIFICATE).asked))
    return AllergenShares(scents, found[OLDER], found[NEWER], found[UNNAMED], tuple(unknown), asked)


def _list_of(name: str, safety: SafetyTables) -> str:
    """Return which list a substance of a supplier's sheet stands on."""
    if name in safety.older_allergens:
        return OLDER
    return NEWER if name in safety.newer_allergens else UNNAMED
