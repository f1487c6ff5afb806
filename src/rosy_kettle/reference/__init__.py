"""Reference data that ship with the product, and the one loader."""

from rosy_kettle.reference.loader import (
    Strength,
    Synonym,
    load_letter_widths,
    load_practice,
    load_strengths,
    load_symptoms,
    load_synonyms,
    load_tables,
    load_troubles,
)

__all__ = [
    "Strength",
    "Synonym",
    "load_letter_widths",
    "load_practice",
    "load_strengths",
    "load_symptoms",
    "load_synonyms",
    "load_tables",
    "load_troubles",
]
