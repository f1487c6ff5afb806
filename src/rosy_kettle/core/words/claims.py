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
    "safety": ("hypoallerg", "hipoalerg", "hypoalerg", "nontoxic", "non-toxic", "ungiftig", "harmless", "allergy-free"),
}  # fmt: skip
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
        The word as typed, by class: medical, condition, antibacterial or safety; empty where there is none
    """
    words = [word.strip(".,;:!?()\"'") for word in text.split()]
    found: dict[str, str] = {}
    for word in words:
        plain = word.casefold()
        claimed = next((kind for kind, stems in STEMS.items() if plain.startswith(stems)), None)
        if claimed is not None and not plain.startswith(NOT_MEANT):
            found.setdefault(claimed, word)
    return found
