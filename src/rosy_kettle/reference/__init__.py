"""Reference data that ship with the product, and the one loader."""

from rosy_kettle.reference.loader import Synonym, load_synonyms, load_tables

__all__ = ["Synonym", "load_synonyms", "load_tables"]
