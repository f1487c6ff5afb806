"""Words of a label that claim more than a bath product may, by class and as stems, in the markets' languages; from memory."""

from __future__ import annotations

__all__ = ["claims_in"]

STEMS: dict[str, tuple[str, ...]] = {
    "medical": (
        "heal", "curing", "cure", "aching", "aches", "therap", "thérap", "terap", "detox", "entgift",
        "relief", "reliev", "treats",
        "treating",
        "arthrit", "rheuma", "pain", "schmerz", "dolor", "douleur", "heilt", "heilen", "heilend", "linder",
        "guéri", "soulag",
        "geneest",
        "genez", "leczy", "leczni", "läker", "medicin", "medizin", "médic",
    ),
    "condition": ("eczema", "ekzem", "eczéma", "egzem", "psoria", "dermatitis", "neurodermi", "atopic", "atopi", "acne", "akne"),
    "antibacterial": (
        "bacteri", "bakteri", "germs", "sanitiz", "sanitis", "antibacter", "antibakter", "antimicrob",
        "antimikrob", "antisept", "disinfect", "desinf", "désinf", "germicid",
        "antifung", "antiviral",
    ),
    "children": ("babysafe", "kidsafe", "kidproof", "childsafe", "babyproof"),
    "safety": ("hypoallerg", "hipoalerg", "hypoalerg", "nontoxic", "non-toxic", "ungiftig", "harmless", "allergy-free"),
}  # fmt: skip
PHRASES: dict[str, tuple[str, ...]] = {
    "children": (
        "safe for kids", "safe for children", "safe for babies", "gentle enough for babies", "good for babies",
        "für babys geeignet", "convient aux bébés", "apto para bebés", "adatto ai neonati",
    ),
    "medical": (
        "soothes muscles", "soothes aching", "soothes sore", "soothes tired muscles", "sore muscles", "tired muscles",
        "helps you sleep", "boosts immunity", "anti inflammatory", "anti-inflammatory",
    ),
    "safety": (
        "100 % safe", "100% safe", "completely safe", "dermatologist approved", "chemical free",
        "no side effects", "safe for all",
    ),
}  # fmt: skip
"""Claims of several words."""
NOT_MEANT = ("health", "healthy", "paint", "painted", "painting")
"""Words that begin like a claim and are none."""


def claims_in(text: str) -> dict[str, str]:
    """Return the first word of each class of claim in a text.

    Parameters
    ----------
    text : str
        What stands on a label

    Returns
    -------
    dict
        The word as typed, by class: medical, condition, antibacterial, children or safety; empty where there is none
    """
    words = [word.strip(".,;:!?()\"'") for word in text.split()]
    found: dict[str, str] = {}
    for word in words:
        plain = word.casefold()
        claimed = next((kind for kind, stems in STEMS.items() if plain.startswith(stems)), None)
        if claimed is not None and not plain.startswith(NOT_MEANT):
            found.setdefault(claimed, word)
    whole = " ".join(text.casefold().split())
    for kind, phrases in PHRASES.items():
        phrase = next((each for each in phrases if each in whole), None)
        if phrase is not None:
            found.setdefault(kind, phrase)
    return found
