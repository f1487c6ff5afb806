"""Texts of a label: the one that is fixed by law, and cautions in our own words."""

from __future__ import annotations

__all__ = ["ADULTS_ONLY", "CAUTION_740_17", "CLAIMED", "DRAFT", "DRAFT_MM", "OWN_CAUTIONS", "TO_BE_CONFIRMED", "directions_words"]

DRAFT, DRAFT_MM = "Draft, not for sale", 2.2
"""What crosses a label that lacks something or is held back, and the size of its letters [mm]."""

CAUTION_740_17 = (
    "Caution\u2014Use only as directed. Excessive use or prolonged exposure may cause irritation to skin and urinary tract. "
    "Discontinue use if rash, redness, or itching occurs. Consult your physician if irritation persists. "
    "Keep out of reach of children."
)
"""21 CFR 740.17(b), word for word; a person confirms it once against the official text."""
CLAIMED = {
    "medical": '"{word}" makes a medicine of it; speak of scent and foam.',
    "condition": '"{word}" names an illness, and makes a medicine of it; speak of scent and foam.',
    "antibacterial": '"{word}" claims to act on germs, which is no cosmetic; leave it out.',
    "children": '"{word}" says it is for small children, which takes an assessment of its own; leave it out.',
    "safety": '"{word}" claims what only papers can show; leave it out, or ask your assessor for the words.',
}
"""What is wrong with a claim on a label, by its class."""
TO_BE_CONFIRMED = "The texts in {language} are from memory, to be confirmed by a native reader."
ADULTS_ONLY = "For adult use only."
OWN_CAUTIONS = {
    "eyes": "Keep out of eyes.",
    "children": "Store away from children.",
    "slip": "Tub may get slippery.",
    "patch": "Try a little first.",
    "stop": "Stop if skin is irritated.",
    "stain": "May stain.",
    "not_food": "Not food. Do not eat.",
    "adults": ADULTS_ONLY,
    "contains": "Contains {what}.",
    "health": "Pregnant or under treatment? Ask first.",
    "pets": "Keep away from pets.",
    "pour": "Pour close to the water.",
}
"""Short cautions in our own words; they do not replace the fixed text."""


def directions_words(dose_g: float, *, foams: bool) -> str:
    """Return directions by the dose.

    Parameters
    ----------
    dose_g : float
        What goes into one full tub [g]
    foams : bool
        Whether it is crumbled for foam, or left to melt

    Returns
    -------
    str
        One or two sentences
    """
    if foams:
        return f"Crumble about {dose_g:.0f} g under the running tap, then mix the water well. One portion for one full tub."
    return f"Put about {dose_g:.0f} g in warm water, wait until it has melted, then mix. For bath water only."
