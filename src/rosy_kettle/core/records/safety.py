"""Rows of the safety tables: rules, colours, limits, allergens, tags."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

__all__ = ["AllergenShare", "ColourListing", "IngredientTags", "RestrictedName", "Rule", "SafetyTables"]


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
    """A substance of an essential oil at the upper end of its usual range [%]; older is one of the first 26."""

    substance: str
    older: bool
    high_pct: float


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
    colour_by_ci: Mapping[str, str]
    """Common name of a colour by its CI name."""
