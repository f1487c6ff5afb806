"""From an everyday name to an ingredient: exact, then without filler words, then by likeness."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from rapidfuzz import fuzz, process

from rosy_kettle.core.records import Ingredient
from rosy_kettle.reference.loader import Synonym

__all__ = ["NameIndex", "NameMatch", "plain"]

LIKENESS_ACCEPTED = 90.0  # token-sort ratio from which a slip of the pen is read as the name [of 100]
LIKENESS_OF_LONG_WORDS = 86.0  # enough where the word is long and begins with the same letter [of 100]
LONG_WORD = 8  # letters
SHORTEST_FUZZY = 5  # shorter words differ by one letter and mean another thing (SLS, SLSA)
FILLERS = frozenset(
    """organic refined unrefined raw melted sifted pure natural deodorised deodorized cosmetic food usp grade quality
    good fine optional extra virgin cold pressed powder powdered liquid soft softened fresh white ground plain of the your
    favourite favorite choice any some and or to taste approx approximately about roughly q s qs
    level heaped heaping rounded scant packed
    generous large small bag box plus more for dusting sprinkle sprinkling colour color scented unscented soap skin safe
    chopped grated shavings wafers chips pellets flakes granular granulated anhydrous dry dried crushed loose a an""".split()
)
FAMILIES = {
    "fragrance": "fragrance-oil-generic", "fragrance oil": "fragrance-oil-generic", "fo": "fragrance-oil-generic",
    "scent": "fragrance-oil-generic", "perfume": "fragrance-oil-generic", "mica": "mica-pigment",
    "mica powder": "mica-pigment", "glitter": "glitter-cellulose", "sprinkles": "sugar-sprinkles",
    "petals": "botanical-petals", "bubble bath": "liquid-bubble-bath",
}  # fmt: skip
"""Names that stay what they are whatever stands before them: "heather smoke fragrance oil", "slate mica"."""
FAMILY_NOTE = "the studio's own kind is not in the Pantry yet; the generic one stands in"
SUGGESTIONS = 3


@dataclass(frozen=True, slots=True)
class NameMatch:
    """What a name was taken for. ``ingredient`` is None when nothing fits; then three are suggested."""

    ingredient: str | None
    note: str = ""
    suggestions: tuple[str, ...] = ()


def plain(text: str) -> str:
    """Return a name in lower case, without accents, signs and doubled spaces."""
    decomposed = unicodedata.normalize("NFKD", text.casefold())
    ascii_like = "".join(char for char in decomposed if not unicodedata.combining(char))
    return " ".join(re.sub(r"[^a-z0-9]+", " ", ascii_like).split())


class NameIndex:
    """All names an ingredient goes by, ready to be searched."""

    def __init__(
        self,
        ingredients: Mapping[str, Ingredient],
        synonyms: Iterable[Synonym],
        look_alikes: Iterable[str] = (),
        learned: Iterable[Synonym] = (),
    ) -> None:
        self._ingredients = ingredients
        self._by_phrase: dict[str, Synonym] = {}
        for item in ingredients.values():
            for name in (item.id, item.inci, item.name, re.sub(r"\(.*?\)", "", item.name), item.short_name):
                self._by_phrase.setdefault(plain(name), Synonym(name, item.id))
        for synonym in (*synonyms, *learned):
            self._by_phrase[plain(synonym.phrase)] = synonym
        self._strangers = frozenset(plain(phrase) for phrase in look_alikes)
        self._phrases = tuple(self._by_phrase)

    def match(self, text: str) -> NameMatch:
        """Return the ingredient meant by a name, or suggestions."""
        phrase = plain(text)
        if not phrase:
            return NameMatch(None)
        if found := self._by_phrase.get(phrase):
            return self._accept(found, found.note)
        if phrase in self._strangers:
            return NameMatch(None, suggestions=self.nearest(phrase))
        for reduced in self._without_fillers(phrase):
            if found := self._by_phrase.get(reduced):
                return self._accept(found, found.note or f'"{text.strip()}" read as {self._label(found.ingredient)}')
            if reduced in self._strangers:
                return NameMatch(None, suggestions=self.nearest(phrase))
        return self._by_likeness(text, phrase) or self._by_family(phrase) or NameMatch(None, suggestions=self.nearest(phrase))

    def nearest(self, text: str, count: int = SUGGESTIONS) -> tuple[str, ...]:
        """Return the ids of the ingredients whose names come nearest."""
        hits = process.extract(plain(text), self._phrases, scorer=fuzz.WRatio, limit=count * 6)
        ids = dict.fromkeys(self._by_phrase[phrase].ingredient for phrase, _score, _index in hits)
        return tuple(ids)[:count]

    def _accept(self, found: Synonym, note: str) -> NameMatch:
        if found.ingredient == "baking-powder":
            note = "baking powder already holds its own acid and starch; was baking soda meant?"
        return NameMatch(found.ingredient, note)

    @staticmethod
    def _without_fillers(phrase: str) -> Iterable[str]:
        words = phrase.split()
        kept = [word for word in words if word not in FILLERS]
        yield " ".join(kept)
        yield " ".join(word.removesuffix("s") if len(word) > 3 else word for word in kept)  # noqa: PLR2004 - "oils", not "gas"
        start = 0
        while start < len(words) - 1 and words[start] in FILLERS:
            start += 1
            yield " ".join(words[start:])

    def _by_likeness(self, text: str, phrase: str) -> NameMatch | None:
        if len(phrase) < SHORTEST_FUZZY:
            return None
        hit = process.extractOne(phrase, self._phrases, scorer=fuzz.token_sort_ratio, score_cutoff=LIKENESS_OF_LONG_WORDS)
        if hit is None or re.findall(r"\d+", hit[0]) != re.findall(r"\d+", phrase):
            return None
        if hit[1] < LIKENESS_ACCEPTED and (len(phrase) < LONG_WORD or " " in phrase or hit[0][0] != phrase[0]):
            return None
        if any(fuzz.ratio(stranger, phrase) >= hit[1] for stranger in self._strangers):
            return None
        found = self._by_phrase[hit[0]]
        return self._accept(found, f'"{text.strip()}" read as {self._label(found.ingredient)}')

    def _by_family(self, phrase: str) -> NameMatch | None:
        for family, ingredient in FAMILIES.items():
            if phrase.endswith(f" {family}") or phrase.startswith(f"{family} "):
                return NameMatch(ingredient, FAMILY_NOTE)
        return None

    def _label(self, ingredient: str) -> str:
        return self._ingredients[ingredient].short_name.lower()
