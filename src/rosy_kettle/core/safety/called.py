"""What the rules call an ingredient: by the reference table, and by its own name, INCI name and CAS number."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from functools import lru_cache

from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.records import Ingredient, IngredientTags, SafetyTables
from rosy_kettle.core.records.safety import SpokenMaterial
from rosy_kettle.core.words.in_names import words_of

__all__ = ["UNNAMED_OIL", "spoken_tags", "tags_of"]

NO_TAGS = IngredientTags()
UNNAMED_OIL = "unnamed_essential_oil"
"""An essential oil nobody has named yet: it counts in the dose."""
OF_THE_MATERIAL = frozenset({"acid", "bicarbonate", "fine_dust", "unsaturated", "antioxidant", UNNAMED_OIL})
"""Tags that a studio's own ingredient keeps from what it was made from; its legal status is its own."""
CI_NUMBER = re.compile(r"\bci\s*(\d{5}(?::\d)?)\b", re.IGNORECASE)
TAKEN_AWAY = "!"
NANO = "nano"
PLASTIC_GLITTER = "Plastic glitter"
"""As the table of colours calls it."""


def tags_of(item: Ingredient, setting: Setting) -> IngredientTags:
    """Return what the rules call an ingredient.

    Parameters
    ----------
    item : Ingredient
        One of the table, or a studio's own
    setting : Setting
        For the tables

    Returns
    -------
    IngredientTags
        Those of its row, and what its own names say; a studio's own that has an INCI name of its own keeps of the row it was
        made from only what follows from the material
    """
    safety = setting.tables.safety
    row = safety.tags.get(item.reference_id, NO_TAGS)
    spoken = _spoken(item, safety)
    if item.based_on is None:
        return _joined(row, spoken, row.colours, row.essential_oil)
    base = setting.tables.ingredients.get(item.based_on)
    named = _colours(item, safety)
    if base is None or base.inci == item.inci:
        return _joined(row, spoken, (*row.colours, *(each for each in named if each not in row.colours)), row.essential_oil)
    is_oil = bool(row.essential_oil) or UNNAMED_OIL in row.tags
    oil = _oil(item, safety) if is_oil else None
    kept = (row.tags & OF_THE_MATERIAL) | ({UNNAMED_OIL} if is_oil and oil is None else frozenset())
    return _joined(IngredientTags(tags=kept), spoken, named, oil)


def spoken_tags(item: Ingredient, safety: SafetyTables) -> frozenset[str]:
    """Return what an ingredient's own names say of it.

    Parameters
    ----------
    item : Ingredient
        One of the table, or a studio's own
    safety : SafetyTables
        For the table of words

    Returns
    -------
    frozenset
        Tags without those that are taken away
    """
    spoken = _spoken(item, safety)
    return frozenset(tag for tag in spoken if not tag.startswith(TAKEN_AWAY) and f"{TAKEN_AWAY}{tag}" not in spoken)


def _joined(row: IngredientTags, spoken: frozenset[str], colours: tuple[str, ...], oil: str | None) -> IngredientTags:
    gone = {tag.removeprefix(TAKEN_AWAY) for tag in spoken if tag.startswith(TAKEN_AWAY)}
    said = {tag for tag in spoken if not tag.startswith(TAKEN_AWAY)}
    return IngredientTags(
        frozenset((row.tags | said) - gone), colours, oil,
        row.preservative_factor, row.preservative_eu_max_pct, row.preservative_ph_max,
    )  # fmt: skip


def _spoken(item: Ingredient, safety: SafetyTables) -> frozenset[str]:
    return _tags_in((item.name, item.inci, item.cas), item.role, _Phrases(safety.spoken))


class _Phrases:
    """The table of words, looked up by itself: it is the same as long as the tables are."""

    __slots__ = ("by_first",)

    def __init__(self, by_first: Mapping[str, tuple[SpokenMaterial, ...]]) -> None:
        self.by_first = by_first

    def __hash__(self) -> int:
        return id(self.by_first)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Phrases) and other.by_first is self.by_first


@lru_cache(maxsize=4096)
def _tags_in(names: tuple[str, ...], role: str, phrases: _Phrases) -> frozenset[str]:
    """Return the tags of the words in some names; the longest words that stand at a place speak for it."""
    found: set[str] = set()
    for name in names:
        words = words_of(name)
        at = 0
        while at < len(words):
            best = max(_at(words, at, role, phrases), key=lambda each: len(each.words), default=None)
            found.update(best.tags if best else ())
            at += len(best.words) if best else 1
    return frozenset(found)


def _at(words: tuple[str, ...], at: int, role: str, phrases: _Phrases) -> Iterator[SpokenMaterial]:
    for each in phrases.by_first.get(words[at], ()):
        if words[at : at + len(each.words)] == each.words and each.not_role != role:
            yield each


def _colours(item: Ingredient, safety: SafetyTables) -> tuple[str, ...]:
    """Return the colours that an ingredient's own names give; a CI number nobody has listed stands as it is."""
    numbers = [f"CI {number}" for text in (item.name, item.inci) for number in CI_NUMBER.findall(text)]
    found = [safety.colour_by_ci.get(number, number) for number in numbers]
    said = {tuple(word for word in words_of(text) if word != NANO) for text in (item.name, *item.inci.split(","))}
    found += [name for name in safety.colours if words_of(name) in said]
    found += [PLASTIC_GLITTER] if "plastic_glitter" in _spoken(item, safety) else []
    return tuple(dict.fromkeys(found))


def _oil(item: Ingredient, safety: SafetyTables) -> str | None:
    """Return the essential oil that an ingredient's own names give, by the longest words that fit."""
    texts = [words_of(item.name), words_of(item.inci)]
    fits = [
        (len(words), oil)
        for words, oil in safety.oil_by_words.items()
        if any(text[at : at + len(words)] == words for text in texts for at in range(len(text)))
    ]
    return max(fits, default=(0, None))[1]
