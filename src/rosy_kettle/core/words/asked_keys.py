"""How the keys that rules ask for are said to a maker."""

from __future__ import annotations

__all__ = ["spoken"]

WORDS = {
    "identity": "what it is",
    "net_inch_pound": "net weight in oz",
    "net_metric": "net weight in g",
    "ingredients": "ingredient list",
    "name_place": "name and place",
    "ae_contact": "contact for bad reactions",
    "directions": "directions",
    "caution_740_17": "the US foaming-bath caution",
    "rp": "responsible person",
    "batch": "batch number",
    "function": "function",
    "precautions": "precautions",
    "best_before": "best before",
    "pao": "period after opening",
    "safety_substantiation": "safety support",
    "cpsr": "signed safety report",
    "pif": "product information file",
    "notification": "notification",
    "us_registration": "facility registration",
    "us_listing": "product listing",
    "surfactant_impurity_spec": "surfactant impurities",
    "dioxane_statement": "dioxane statement",
    "capb": "cocamidopropyl betaine",
    "aos": "olefin sulfonate",
}


def spoken(key: str) -> str:
    """Return the words for a key; names that are words already stay.

    Parameters
    ----------
    key : str
        Part of a label, a paper, a tag or a name

    Returns
    -------
    str
        As a maker would say it
    """
    return WORDS.get(key, key.replace("_", " "))
