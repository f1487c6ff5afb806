"""Rows of the safety tables: rules, colours, limits, allergens, tags."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

__all__ = ["AllergenShare", "ColourListing", "IngredientTags", "RestrictedName", "Rule", "SafetyTables", "SpokenMaterial"]


@dataclass(frozen=True, slots=True)
class Rule:
    """A rule as it reads; when it fires is code."""

    id: str
    jurisdiction: tuple[str, ...]
    severity: str
    stage: str
    topic: str
    message: str
    citation: str
    confidence: str
    basis: str


@dataclass(frozen=True, slots=True)
class ColourListing:
    """How a colour is listed: us general, external, not_listed or unknown; eu yes or check."""

    name: str
    us: str
    us_certifiable: bool
    eu: str
    note: str
    us_label_name: str = ""
    """What a US ingredient list calls it (21 CFR parts 73, 74 and 82); empty where that is its name."""


@dataclass(frozen=True, slots=True)
class IngredientTags:
    """What rules call an ingredient."""

    tags: frozenset[str] = frozenset()
    colours: tuple[str, ...] = ()
    essential_oil: str | None = None
    preservative_factor: float | None = None
    preservative_eu_max_pct: float | None = None
    preservative_ph_max: float | None = None


@dataclass(frozen=True, slots=True)
class RestrictedName:
    """A substance with a limit [%], or prohibited where both limits are None."""

    name: str
    rinse_off_max_pct: float | None
    leave_on_max_pct: float | None
    citation: str

    @property
    def prohibited(self) -> bool:
        """Whether it may not be used at all."""
        return self.rinse_off_max_pct is None


@dataclass(frozen=True, slots=True)
class AllergenShare:
    """A substance of an essential oil at the upper end of its usual range [%]."""

    substance: str
    list: str
    """26: one of the first to be named; ext: named since 2023; limit: restricted, and never named."""
    high_pct: float


@dataclass(frozen=True, slots=True)
class SpokenMaterial:
    """Words by which a material is known, and what the rules call it; a tag behind "!" is taken away again."""

    words: tuple[str, ...]
    tags: tuple[str, ...]
    not_role: str
    """Role of ingredients in whose names the words mean nothing of the kind: a scent called honey holds none."""


@dataclass(frozen=True, slots=True)
class SafetyTables:
    """Everything the rules look up."""

    rules: tuple[Rule, ...]
    colours: Mapping[str, ColourListing]
    tags: Mapping[str, IngredientTags]
    restricted: Mapping[str, RestrictedName]
    """By name, trade name and CAS number in small letters: see ``RestrictedName.name`` for the one that is told."""
    oils: Mapping[str, tuple[AllergenShare, ...]]
    own_entries: Mapping[str, str]
    """Essential oils that stand on the newer allergen list themselves, by oil."""
    older_allergens: frozenset[str]
    newer_allergens: frozenset[str]
    spoken: Mapping[str, tuple[SpokenMaterial, ...]]
    """Words of materials, by the first of them."""
    oil_by_words: Mapping[tuple[str, ...], str]
    """Essential oils by their plants and everyday names, in small letters."""
    substances: Mapping[str, str]
    """Names of allergens and restricted substances as the lists give them, by any name or CAS number in small letters."""
    colour_by_ci: Mapping[str, str]
    """Common name of a colour by its CI name."""
