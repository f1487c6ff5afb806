"""From an everyday name to an ingredient: exact, then without words that change nothing, then by a slip of the pen."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from rapidfuzz import fuzz, process
from rapidfuzz.distance import OSA

from rosy_kettle.core.records import Ingredient
from rosy_kettle.reference.loader import Strength, Synonym

__all__ = ["NameIndex", "NameMatch", "plain"]

NOT_PLAIN = re.compile(r"[^a-z0-9]+")
LIKENESS_LOOKED_AT = 80.0  # likeness from which a name is looked at letter by letter [of 100]
SHORTEST_FUZZY = 5  # shorter words differ by one letter and mean another thing (SLS and SLSA, oat and goat)
LONG_WORD = 10  # letters from which two slips are forgiven
LONGEST_NAME = 80  # characters; nothing longer names an ingredient
STRENGTH_NEAR_PCT = 2.0  # a strength this near to one on file is that one
PURITY_FROM_PCT = 90.0  # "citric acid 99.5 %" says how pure it is
FILLERS = frozenset(
    """organic refined unrefined raw melted sifted pure natural deodorised deodorized cosmetic food usp bp grade quality
    good fine optional extra virgin cold pressed soft softened fresh white plain of the your
    favourite favorite choice any some and or to taste approx approximately about roughly around circa ca q s qs
    level heaped heaping rounded scant packed generous large small bag box carton jar bottle plus more for dusting sprinkle
    sprinkling scented unscented skin safe finely freshly very warm warmed cooled brand ordinary regular normal
    loose a an de du des d la le les l von vom bio gesiebt geschmolzen geschmolzene fondu fondue
    tamise tamisee pur reine di do da dos das del della dello degli van z ze en y el los las un una uma poudre polvo polvere
    poeder proszku po""".split()
)
"""Words that change nothing about what an ingredient is."""
SOLID_WORDS = frozenset(
    """chopped grated shavings wafers chips pellets flakes granular granulated granules crystals dry dried crushed ground beads
    pastilles""".split()
)
POWDER_WORDS = frozenset({"powder", "powdered", "pulver", "poudre"})
LIQUID_WORDS = frozenset({"liquid", "fluid", "flussig", "liquide"})
NOODLE_WORDS = frozenset({"noodles", "noodle", "needles", "needle"})
ALTERING_WORDS = frozenset(
    """anhydrous hydrogenated fractionated sulfated sulphated hydrolysed hydrolyzed ethoxylated soap milk juice extract syrup
    substitute alternative replacement imitation instant condensed evaporated gel paste wax butter water noodles needles
    powder powdered liquid""".split()
)
"""Words behind a comma or in brackets that make another thing of what stands before them, unless they fit it."""
FAMILIES = {
    "fragrance": "fragrance-oil-generic", "fragrance oil": "fragrance-oil-generic", "fo": "fragrance-oil-generic",
    "scent": "fragrance-oil-generic", "perfume": "fragrance-oil-generic", "mica": "mica-pigment", "mica powder": "mica-pigment",
    "bio glitter": "glitter-cellulose", "eco glitter": "glitter-cellulose", "sprinkles": "sugar-sprinkles",
    "petals": "botanical-petals", "bubble bath": "liquid-bubble-bath", "essential oil": "essential-oil-generic",
    "eo": "essential-oil-generic", "food colouring": "liquid-colour-water", "food coloring": "liquid-colour-water",
    "huile essentielle": "essential-oil-generic", "atherisches ol": "essential-oil-generic",
}  # fmt: skip
"""Names that stay what they are whatever stands before them: "heather smoke fragrance oil", "slate mica"."""
FAMILY_NOTE = "the studio's own kind is not in the Pantry yet; the generic one stands in"
SUGGESTIONS = 3
MIXED_UP = {
    "baking-powder": ("baking powder already holds its own acid and starch; was baking soda meant?", "baking-soda"),
}
"""What is written where another thing is meant, the question, and that other thing."""
MOST_UNKNOWN = 200  # unknown names of one text that are looked at for slips and suggestions; a text with more is no recipe
NEAR_BY_LETTERS = 40  # names looked at closely for a suggestion, beside those that share a word


@dataclass(frozen=True, slots=True)
class NameMatch:
    """What a name was taken for. ``ingredient`` is None when nothing fits; then three are suggested.

    With an ingredient, ``suggestions`` is what may have been meant instead.
    """

    ingredient: str | None
    note: str = ""
    suggestions: tuple[str, ...] = ()
    guessed: bool = False
    """Whether it took a slip of the pen or a family to find it."""


def plain(text: str) -> str:
    """Return a name in lower case, without accents, signs and doubled spaces."""
    if text.isascii():
        return " ".join(NOT_PLAIN.sub(" ", text.lower()).split())
    decomposed = unicodedata.normalize("NFKD", text.casefold())
    ascii_like = "".join(char for char in decomposed if not unicodedata.combining(char))
    return " ".join(NOT_PLAIN.sub(" ", ascii_like).split())


class NameIndex:
    """All names an ingredient goes by, ready to be searched."""

    def __init__(
        self,
        ingredients: Mapping[str, Ingredient],
        synonyms: Iterable[Synonym],
        look_alikes: Iterable[str] = (),
        learned: Iterable[Synonym] = (),
        strengths: Iterable[Strength] = (),
    ) -> None:
        self._ingredients = ingredients
        self._by_phrase: dict[str, Synonym] = {}
        for item in ingredients.values():
            for name in (
                item.id,
                item.inci,
                re.sub(r"\(.*?\)", "", item.inci),
                item.name,
                re.sub(r"\(.*?\)", "", item.name),
                item.short_name,
            ):
                self._by_phrase.setdefault(plain(name), Synonym(name, item.id))
        for synonym in (*synonyms, *learned):
            self._by_phrase[plain(synonym.phrase)] = synonym
        self._by_words = {_words(phrase): synonym for phrase, synonym in self._by_phrase.items()}
        self._strangers = frozenset(plain(phrase) for phrase in look_alikes) - frozenset(self._by_phrase)
        self._phrases = tuple(self._by_phrase)
        self._strengths = tuple(strengths)
        self._matched: dict[str, NameMatch] = {}
        self._near: dict[tuple[str, int], tuple[str, ...]] = {}
        self._by_word: dict[str, list[str]] = {}
        for phrase in self._phrases:
            for word in phrase.split():
                self._by_word.setdefault(word, []).append(phrase)

    def match(self, text: str) -> NameMatch:
        """Return the ingredient meant by a name, or suggestions."""
        found = self._matched.get(text)
        if found is None:
            found = self._matched[text] = self._match(text)
        return found

    def _match(self, text: str) -> NameMatch:
        phrase = plain(text[: 2 * LONGEST_NAME])
        if not phrase or len(phrase) > LONGEST_NAME:
            return NameMatch(None)
        if phrase in self._strangers:
            return NameMatch(None, suggestions=self.nearest(phrase))
        found = self._exactly(text, phrase)
        if found is not None:
            return found
        return self._by_likeness(text, phrase) or self._by_family(phrase) or NameMatch(None, suggestions=self.nearest(phrase))

    def exact(self, text: str) -> NameMatch | None:
        """Return the ingredient whose name holds just these words, words that change nothing aside; else None."""
        phrase = plain(text[: 2 * LONGEST_NAME])
        if not phrase or len(phrase) > LONGEST_NAME:
            return None
        found = self._exactly(text, phrase)
        return found if found is not None and found.ingredient else None

    def contradiction(self, ingredient: str, qualifier: str) -> str:
        """Return the word of a qualifier that does not fit an ingredient, or ""."""
        item = self._ingredients[ingredient]
        known = _words(plain(f"{item.name} {item.short_name} {item.inci}"))
        return next(
            (word for word in plain(qualifier).split() if word in ALTERING_WORDS and word not in known and not _fits(item, word)),
            "",
        )

    def at_strength(self, ingredient: str, strength_pct: float) -> NameMatch | None:
        """Return the kind of an ingredient that has a strength; None where its strength says nothing."""
        group = next((each.group for each in self._strengths if each.ingredient == ingredient), None)
        if group is None:
            return None
        members = [each for each in self._strengths if each.group == group]
        nearest = min(members, key=lambda each: abs(each.pct - strength_pct))
        if abs(nearest.pct - strength_pct) <= STRENGTH_NEAR_PCT:
            return NameMatch(nearest.ingredient)
        ids = tuple(dict.fromkeys([each.ingredient for each in members] + list(self.nearest(group))))[:SUGGESTIONS]
        return NameMatch(None, f"no {group} of {strength_pct:g} % is on file", ids)

    def nearest(self, text: str, count: int = SUGGESTIONS) -> tuple[str, ...]:
        """Return the ids of the ingredients whose names come nearest; none once too many unknown names were asked about."""
        asked = plain(text)[:LONGEST_NAME], count
        if asked not in self._near:
            self._near[asked] = () if len(self._near) > MOST_UNKNOWN else self._nearest(*asked)
        return self._near[asked]

    def _nearest(self, phrase: str, count: int) -> tuple[str, ...]:
        near = [hit[0] for hit in process.extract(phrase, self._phrases, scorer=fuzz.ratio, limit=NEAR_BY_LETTERS)]
        kin = [each for word in phrase.split() for each in self._by_word.get(word, ())[:NEAR_BY_LETTERS]]
        hits = process.extract(phrase, list(dict.fromkeys((*kin, *near))), scorer=fuzz.WRatio, limit=count * 6)
        ids = dict.fromkeys(self._by_phrase[phrase].ingredient for phrase, _score, _index in hits)
        return tuple(ids)[:count]

    def _exactly(self, text: str, phrase: str) -> NameMatch | None:
        if found := self._by_phrase.get(phrase):
            return self._accept(found, found.note)
        for reduced, dropped in _reductions(phrase):
            if reduced in self._strangers:
                return NameMatch(None, suggestions=self.nearest(phrase))
            found = self._by_phrase.get(reduced) or self._by_words.get(_words(reduced))
            if found is None:
                continue
            misfit = next((word for word in dropped if not _fits(self._ingredients[found.ingredient], word)), "")
            if misfit:
                name = self._label(found.ingredient)
                return NameMatch(None, f'"{misfit}" does not fit {name}', self._nearest_first(found.ingredient, phrase))
            return self._accept(found, found.note or f'"{text.strip()}" read as {self._label(found.ingredient)}')
        return None

    def _nearest_first(self, ingredient: str, phrase: str) -> tuple[str, ...]:
        return tuple(dict.fromkeys((ingredient, *self.nearest(phrase, SUGGESTIONS + 1))))[:SUGGESTIONS]

    def _accept(self, found: Synonym, note: str) -> NameMatch:
        if found.ingredient in MIXED_UP:
            note, meant = MIXED_UP[found.ingredient]
            return NameMatch(found.ingredient, note, (meant,))
        return NameMatch(found.ingredient, note)

    def _by_likeness(self, text: str, phrase: str) -> NameMatch | None:
        if len(phrase) < SHORTEST_FUZZY or len(self._near) > MOST_UNKNOWN:
            return None
        hits = process.extract(phrase, self._phrases, scorer=fuzz.ratio, score_cutoff=LIKENESS_LOOKED_AT, limit=8)
        hit = next((each[0] for each in hits if _is_slip(phrase, each[0])), None)
        if hit is None or any(_is_slip(phrase, stranger) for stranger in self._strangers):
            return None
        found = self._by_phrase[hit]
        accepted = self._accept(found, f'"{text.strip()}" read as {self._label(found.ingredient)}')
        return replace(accepted, guessed=True)

    def _by_family(self, phrase: str) -> NameMatch | None:
        for family, ingredient in FAMILIES.items():
            if phrase.endswith(f" {family}") or phrase.startswith(f"{family} "):
                return NameMatch(ingredient, FAMILY_NOTE, guessed=True)
        return None

    def _label(self, ingredient: str) -> str:
        return self._ingredients[ingredient].short_name.lower()


def _words(phrase: str) -> frozenset[str]:
    return frozenset(phrase.split())


def _reductions(phrase: str) -> Iterable[tuple[str, tuple[str, ...]]]:
    """Shorter forms of a name with the form words that were dropped: fillers go first, then words that say solid or liquid."""
    kept = [word for word in phrase.split() if word not in FILLERS]
    yield " ".join(kept), ()
    yield " ".join(_singular(word) for word in kept), ()
    start, words = 0, phrase.split()
    while start < len(words) - 1 and words[start] in FILLERS:
        start += 1
        yield " ".join(words[start:]), ()
    forms = SOLID_WORDS | POWDER_WORDS | LIQUID_WORDS | NOODLE_WORDS | {"anhydrous"}
    dropped = tuple(word for word in kept if word in forms)
    if dropped:
        bare = [word for word in kept if word not in forms]
        yield " ".join(bare), dropped
        yield " ".join(_singular(word) for word in bare), dropped


def _singular(word: str) -> str:
    return word.removesuffix("s") if len(word) > 3 else word  # noqa: PLR2004 - "oils", not "gas"


def _fits(item: Ingredient, word: str) -> bool:
    """Whether a word about its form can be said of an ingredient."""
    wet = item.form in {"liquid", "paste"}
    if word in POWDER_WORDS:
        return item.is_powder
    if word in SOLID_WORDS:
        return not wet
    if word in LIQUID_WORDS:
        return wet
    if word in NOODLE_WORDS:
        return "noodle" in item.name.lower() or "needle" in item.name.lower()
    if word == "anhydrous":
        return not wet and not (item.water_fraction or 0) > 0
    return False


def _is_slip(phrase: str, other: str) -> bool:
    """Whether two names differ by slips of the pen alone: word by word, first letters kept, short words and digits the same."""
    mine, theirs = sorted(phrase.split()), sorted(other.split())
    if len(mine) == len(theirs) and all(map(_is_slip_of_word, mine, theirs)):
        return True
    return _is_one_swapped(phrase.split(), other.split())


def _is_one_swapped(mine: list[str], theirs: list[str]) -> bool:
    """Whether all words are the same but for one of four letters with two neighbours swapped: "baking soad"."""
    if len(mine) != len(theirs) or not any(len(word) >= SHORTEST_FUZZY for word in theirs):
        return False
    odd = [(one, two) for one, two in zip(mine, theirs, strict=True) if one != two]
    if len(odd) != 1:
        return False
    one, two = odd[0]
    return len(one) == len(two) == SHORTEST_FUZZY - 1 and sorted(one) == sorted(two) and OSA.distance(one, two) == 1


def _is_slip_of_word(mine: str, theirs: str) -> bool:
    if mine == theirs:
        return True
    shortest = min(len(mine), len(theirs))
    if shortest < SHORTEST_FUZZY or mine[0] != theirs[0] or any(char.isdecimal() for char in mine + theirs):
        return False
    return OSA.distance(mine, theirs) <= (1 if shortest < LONG_WORD else 2)
