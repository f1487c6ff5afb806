"""Finds amounts in running text: "1 1/2 tsp", "½ cup", "10–20 drops", "a pinch", "1 lb 4 oz", "2 EL"."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cache, lru_cache

from rosy_kettle.core.amounts.units import VOLUME_ML, WEIGHT_G
from rosy_kettle.reader.numbers import AND_WORDS, ARTICLES, ReadNumber, Token, may_begin_number, read_number, tokens_of, written
from rosy_kettle.reference.loader import table_rows

__all__ = ["FoundAmount", "find_amounts", "mask_name_numbers"]

UNIT_RANK = (
    "g",
    "kg",
    "mg",
    "oz",
    "lb",
    "ml",
    "l",
    "floz",
    "cup",
    "tbsp",
    "tsp",
    "drop",
    "spray",
    "part",
    "pct",
    "container",
    "",
)
"""Which amount of several is taken: grams first, a bare number last."""
ASIDE_UNITS = frozenset({"time", "temperature", "length", "pieces", "money"})
"""What is counted beside the amounts; it never becomes a line."""
MOST_SMALL_WORDS = 2  # "of a" stands between number and unit at most
SHORT_CODE = 3  # letters
LONGEST_UNIT = 4  # words: "cuillère à soupe"
EACH_WORDS = frozenset({"each", "je", "jeweils", "chacun", "chaque"})
HEAPED = frozenset("heaping heaped gehäufte gehäufter gehäuften bombée bombées colmada colmadas colma colmo".split())
"""Sizes of a spoon or a cup that may hold twice as much."""
SIZES = HEAPED | frozenset(
    "level rounded scant generous big large small good packed full little tiny gestrichene gestrichener bonne".split()
)
HEAPED = frozenset(
    {"heaping", "heaped", "gehäufte", "gehäufter", "gehäuften", "bombée", "bombées", "colmada", "colmadas", "colma", "colmo"}
)
RANGE_WORDS = frozenset({"-", "–", "—", "to", "or", "bis", "oder", "ou", "à", "and", "und", "et"})
WIDEST_RANGE = 6  # "1 - 200 g" is a number in a list, not a range
CELSIUS_FROM, FAHRENHEIT_FROM = 20, 60  # "93 C" is a temperature, "3 C" are cups
TWIN_TOLERANCE = 0.08  # "5.3 oz / 150 g" say the same
LARGEST_PLAIN_DECIMAL_KG = 1000.0  # a line may not be heavier: "1.250 kg" is one and a quarter
_NAME_NUMBERS = (
    re.compile(r"\b(?:peg|ppg)[ -]?\d+", re.IGNORECASE),
    re.compile(r"\b(?:poly(?:sorbate)?|ps|p|tw)[ -]?(?:20|40|60|80)\b(?! ?(?:g|ml|drops?|oz)\b)", re.IGNORECASE),
    re.compile(r"\bcoconut(?: oil)?[ ,-]?\(?(?:76|92)\b ?(?:°|deg(?:rees?)?\.?)? ?f?\b\)?", re.IGNORECASE),
    re.compile(r"\b(?:76|92) ?(?:°|deg(?:rees?)?\.?)? ?f? (?=coconut)", re.IGNORECASE),
    re.compile(r"\bc ?1[24] ?-?c?1?6?\b(?= olefin)|\bc ?14 ?- ?16\b", re.IGNORECASE),
    re.compile(r"\b1, ?3[ -]?propanediol|\bpropanediol[ ,]?1, ?3\b", re.IGNORECASE),
    re.compile(r"\b(?:ci|c\.i\.) ?\d{5}\b", re.IGNORECASE),
    re.compile(r"\bt[ -]?50\b", re.IGNORECASE),
    re.compile(r"\b(?:e|fd&c|d&c)[ -]?(?:red |blue |yellow |green )?(?:no\.? ?)?\d{1,3}\b(?! ?(?:g|ml|drops?|oz)\b)", re.I),
    re.compile(r"\b(?:NaHCO3|KHCO3|Na2CO3|C6H8O7|H2O|TiO2|MgSO4|MgCl2)\b", re.IGNORECASE),
    re.compile(r"# ?\d+"),
)  # fmt: skip
_MONEY = re.compile(
    r"(?:[$€£¥] ?\d+(?:[.,]\d+)?|\b\d+(?:[.,]\d+)? ?(?:[$€£¥]|(?:usd|eur|gbp|dollars?|euros?)\b))"
    r"(?: ?(?:a|an|per|/|je|le|the) ?(?:\d+ ?)?(?:kilo|kg|g|lb|pound|oz|ounce|litre|liter|l|ml)\b)?",
    re.IGNORECASE,
)
_PH = re.compile(r"\bph ?(?:of |about |around |= ?)?\d+(?:[.,]\d+)?(?: ?(?:-|–|to) ?\d+(?:[.,]\d+)?)?", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class FoundAmount:
    """An amount in a text: where it stands, its value as it may stand in a formula file, its unit.

    ``unit`` is "" for a bare number, "container" for a box or a scoop of unknown size, or one of ``ASIDE_UNITS``.
    ``asked`` says why the amount cannot be taken as it stands.
    """

    start: int
    end: int
    value: Fraction
    unit: str
    notes: tuple[str, ...] = ()
    asked: str = ""
    amount: str = "0"
    each: bool = False
    """Holds for every name behind it: "10 g each of kaolin and mica"."""

    @property
    def is_aside(self) -> bool:
        """Whether it counts time, warmth, size, pieces or money instead of an ingredient."""
        return self.unit in ASIDE_UNITS


@dataclass(frozen=True, slots=True)
class _Unit:
    unit: str
    times: Fraction
    note: str


@cache
def _units() -> dict[str, _Unit]:
    return {row["word"]: _Unit(row["unit"].lstrip("!"), Fraction(row["times"]), row["note"]) for row in table_rows("unit_words")}


def mask_name_numbers(text: str) -> str:
    """Return the text with numbers that belong to a name blanked, same length."""
    for pattern in _NAME_NUMBERS:
        text = pattern.sub(lambda match: re.sub(r"[\d%,]", "·", match[0]), text)
    return text


def find_amounts(text: str) -> list[FoundAmount]:
    """Return every amount in a tidied line, in order; "1 lb 4 oz" and "1 tbsp + 1 tsp" as one each."""
    return list(_find_amounts(text))


@lru_cache(maxsize=256)  # a line is looked at from several sides
def _find_amounts(text: str) -> tuple[FoundAmount, ...]:
    masked = mask_name_numbers(text)
    found = [FoundAmount(match.start(), match.end(), Fraction(0), "money") for match in _MONEY.finditer(masked)]
    found += [FoundAmount(match.start(), match.end(), Fraction(0), "length") for match in _PH.finditer(masked)]
    taken = sorted((amount.start, amount.end) for amount in found)
    for start, end in taken:
        masked = masked[:start] + "·" * (end - start) + masked[end:]
    tokens = [token for token in tokens_of(masked) if token.text != "·"]
    read = _read_all(tokens)
    found += _summed(read, masked) or _bare_measures(tokens)
    return tuple(sorted(found, key=lambda amount: amount.start))


def _read_all(tokens: Sequence[Token]) -> list[FoundAmount]:
    found, at = [], 0
    while at < len(tokens):
        if not may_begin_number(tokens[at]):
            at += 1
            continue
        amount, behind = _amount(tokens, at)
        if amount is not None:
            found.append(amount)
        at = max(behind, at + 1)
    return found


def _amount(tokens: Sequence[Token], at: int) -> tuple[FoundAmount | None, int]:
    grown = at and tokens[at].is_number and tokens[at - 1].end == tokens[at].start and tokens[at - 1].text[-1].isalpha()
    if grown and len(tokens[at - 1].text) <= SHORT_CODE and tokens[at - 1].word not in _units():
        return None, at + 1  # a number grown onto a short word belongs to it: a code such as PS80
    times, start = _times(tokens, at)
    number = read_number(tokens, start)
    if number is None:
        return None, at + 1
    unit, size, behind = _unit_behind(tokens, number.end)
    high: ReadNumber | None = None
    if not number.asked:
        high, unit, size, behind = _range(tokens, number, unit, size, behind)
    if unit is None and (number.in_words or not number.counts):
        return None, at + 1
    if unit is None and start != at:
        return None, at + 1
    made = _made(number, high, unit, times)
    if size in HEAPED and unit is not None and unit.unit in VOLUME_ML and not made.asked:
        made = replace(made, asked=f"a {size} {unit.unit} holds up to twice a level one")
    elif size:
        made = replace(made, notes=(*made.notes, f'"{size}" not counted; weigh it for a true figure'))
    made, behind = _and_a_half(tokens, made, unit, behind)
    made, behind = _times_behind(tokens, made, behind)
    made = _per_something(tokens, made, behind)
    of_each = behind + 1 < len(tokens) and tokens[behind].word == "of" and tokens[behind + 1].word in EACH_WORDS
    each = of_each or (behind < len(tokens) and tokens[behind].word in EACH_WORDS)
    behind += each + of_each
    end = tokens[behind - 1].end
    if behind < len(tokens) and tokens[behind].text == "." and tokens[behind].start == end and unit is not None:
        end, behind = tokens[behind].end, behind + 1
    return replace(made, start=tokens[at].start, end=end, each=each, amount=_amount_text(made)), behind


def _per_something(tokens: Sequence[Token], amount: FoundAmount, at: int) -> FoundAmount:
    """Ask about "10 g/l": an amount of something else's amount."""
    if at + 1 < len(tokens) and tokens[at].text == "/" and not tokens[at + 1].is_number and tokens[at + 1].word in _units():
        return replace(amount, asked=f"{amount.amount} {amount.unit} per {tokens[at + 1].text}")
    return amount


def _amount_text(amount: FoundAmount) -> str:
    return "0" if amount.asked else amount.amount


def _times(tokens: Sequence[Token], at: int) -> tuple[int, int]:
    """Read "2 x" in front of a number."""
    if at + 2 < len(tokens) and tokens[at].text.isdecimal() and tokens[at + 1].word in {"x", "×"} and tokens[at + 2].is_number:
        return int(tokens[at].text[:6]), at + 2
    return 1, at


def _times_behind(tokens: Sequence[Token], amount: FoundAmount, at: int) -> tuple[FoundAmount, int]:
    """Read "x 2" behind an amount."""
    if at + 1 >= len(tokens) or tokens[at].word not in {"x", "×"} or not tokens[at + 1].text.isdecimal() or amount.asked:
        return amount, at
    if _unit_behind(tokens, at + 2)[0] is not None:
        return amount, at
    value = amount.value * int(tokens[at + 1].text[:6])
    return replace(amount, value=value, amount=written(value)), at + 2


def _unit_behind(tokens: Sequence[Token], at: int) -> tuple[_Unit | None, str, int]:
    """Return the unit behind a number, a size word that is not counted, and the index behind it."""
    start = at
    while at < min(len(tokens), start + MOST_SMALL_WORDS) and (tokens[at].word in {"of", "the"} or tokens[at].word in ARTICLES):
        at += 1
    if at < len(tokens) and tokens[at].text == "-" and at and tokens[at - 1].end == tokens[at].start:
        at += 1
    size = ""
    if at < len(tokens) and tokens[at].word in SIZES:
        size, at = tokens[at].word, at + 1
    found = _unit_at(tokens, at)
    return (None, "", start) if found is None else (found[0], size, found[1])


def _unit_at(tokens: Sequence[Token], at: int) -> tuple[_Unit, int] | None:
    if at >= len(tokens):
        return None
    if tokens[at].text in {"T", "t"}:
        return _Unit("tbsp" if tokens[at].text == "T" else "tsp", Fraction(1), ""), at + 1
    words: list[str] = []
    best: tuple[_Unit, int] | None = None
    index = at
    while index < len(tokens) and len(words) < LONGEST_UNIT:
        token = tokens[index]
        if token.text == "." and words and token.start == tokens[index - 1].end:
            index += 1
            continue
        words.append(token.word)
        index += 1
        unit = _units().get(" ".join(words)) or (_units().get("".join(words)) if len(words) > 1 else None)
        if unit is not None:
            best = (unit, index)
    return best


def _range(
    tokens: Sequence[Token], low: ReadNumber, unit: _Unit | None, size: str, behind: int
) -> tuple[ReadNumber | None, _Unit | None, str, int]:
    """Read "10–20 drops", "1 to 2 tsp", "10 g to 20 g"; the unit may stand behind either end."""
    between = tokens[behind].word if behind < len(tokens) else ""
    high = read_number(tokens, behind + 1) if between in RANGE_WORDS else None
    if high is None or high.asked or not high.counts or high.value == 0:
        return None, unit, size, behind
    high_unit, high_size, end = _unit_behind(tokens, high.end)
    joined_by_and = between in {"and", "und", "et"}
    if joined_by_and and not _between_before(tokens, low, behind):
        return None, unit, size, behind
    if unit is not None and (high_unit is None or high_unit.unit != unit.unit or high_unit.times != unit.times):
        return None, unit, size, behind
    tight = between in {"-", "–", "—"} and _evenly(tokens, behind)
    wide = high.value > WIDEST_RANGE * low.value
    if (wide and not ((tight and between != "-") or joined_by_and or between in {"to", "bis"})) or (
        high.value > 50 * low.value and low.value > 0
    ):
        return None, unit, size, behind
    return high, high_unit, high_size or size, end


def _between_before(tokens: Sequence[Token], low: ReadNumber, behind: int) -> bool:
    """Whether "between" or "zwischen" or "entre" opens the range."""
    return any(token.word in {"between", "zwischen", "entre"} for token in tokens[max(0, behind - 8) : low.end])


def _evenly(tokens: Sequence[Token], at: int) -> bool:
    return tokens[at].start == tokens[at - 1].end and tokens[at + 1].start == tokens[at].end


def _made(number: ReadNumber, high: ReadNumber | None, unit: _Unit | None, times: int) -> FoundAmount:
    notes = [*number.notes, *(high.notes if high else ())]
    value = number.value
    if high is not None:
        value = (number.value + high.value) / 2
        notes.append(f'range "{written(number.value)} to {written(high.value)}" read as its middle, {written(value)}')
    asked = number.asked
    if asked and unit is not None and (plain := _plain_decimal(asked, value, unit.unit)) is not None:
        asked, value = "", plain
    value *= times
    name = "" if unit is None else unit.unit
    if unit is not None:
        value *= unit.times
        notes += [unit.note] if unit.note else []
        name = _cup_or_celsius(name, value)
    amount = (
        _mixed(value) if number.fraction and high is None and times == 1 and (unit is None or unit.times == 1) else written(value)
    )
    return FoundAmount(0, 0, value, name, tuple(notes), asked, amount)


def _plain_decimal(asked: str, value: Fraction, unit: str) -> Fraction | None:
    """Take "1.250 kg" as a decimal where thousands of the unit would be more than a line may hold."""
    if " may be " not in asked:
        return None
    grams = WEIGHT_G.get(unit, 0.0) or (VOLUME_ML.get(unit, 0.0))
    thousand_is_absurd = grams * float(value) > 20 * LARGEST_PLAIN_DECIMAL_KG and unit not in {"g", "mg", "ml"}
    return value / 1000 if thousand_is_absurd else None


def _cup_or_celsius(unit: str, value: Fraction) -> str:
    return "temperature" if unit == "cup" and value >= CELSIUS_FROM else unit


def _mixed(value: Fraction) -> str:
    whole, rest = divmod(value, 1)
    if rest == 0:
        return str(whole)
    return f"{whole} {rest}" if whole else str(rest)


def _and_a_half(tokens: Sequence[Token], amount: FoundAmount, unit: _Unit | None, at: int) -> tuple[FoundAmount, int]:
    """Read "a cup and a half": the fraction is of the same unit unless it has one of its own."""
    if unit is None or amount.asked or at + 1 >= len(tokens) or tokens[at].word not in AND_WORDS:
        return amount, at
    part = read_number(tokens, at + 1)
    if part is None or part.asked or not 0 < part.value < 1 or _unit_behind(tokens, part.end)[0] is not None:
        return amount, at
    if not part.in_words and part.end < len(tokens) and tokens[part.end].word not in {"of", "de"}:
        return amount, at
    value = amount.value + part.value * unit.times
    return replace(amount, value=value, amount=written(value)), part.end


def _summed(found: list[FoundAmount], text: str) -> list[FoundAmount]:
    """Join measures of one thing: "1 lb 4 oz", "1 tbsp + 1 tsp"; the sum stands in the smaller unit."""
    result: list[FoundAmount] = []
    for amount in found:
        last = result[-1] if result else None
        between = text[last.end : amount.start].strip().lower() if last else "?"
        total = _sum(last, amount, between) if last and between in {"", ",", *AND_WORDS} else None
        if total is not None:
            result[-1] = total
        else:
            result.append(amount)
    return result


def _sum(first: FoundAmount, second: FoundAmount, between: str) -> FoundAmount | None:
    sizes = WEIGHT_G if first.unit in WEIGHT_G else VOLUME_ML
    if first.unit not in sizes or second.unit not in sizes or first.asked or second.asked:
        return None
    larger, smaller = float(first.value) * sizes[first.unit], float(second.value) * sizes[second.unit]
    if larger <= 0 or abs(larger - smaller) / larger < TWIN_TOLERANCE:
        return None
    loose = between in {"", ","}
    if loose and (smaller >= sizes[first.unit] or first.unit == second.unit):  # "1 oz 200 g" is no compound measure
        return None
    ratio = Fraction(sizes[first.unit] / sizes[second.unit]).limit_denominator(10**9)
    if sizes is VOLUME_ML:
        ratio = Fraction(sizes[first.unit] / sizes[second.unit]).limit_denominator(1000)
    value = first.value * ratio + second.value
    total = written(value)
    notes = (*first.notes, *second.notes, f"two measures added up to {total} {second.unit}")
    return FoundAmount(first.start, second.end, value, second.unit, notes, "", total, first.each or second.each)


def _bare_measures(tokens: Sequence[Token]) -> list[FoundAmount]:
    """Read a guessed measure without a number, "pinch of mica", as one of it."""
    found = []
    for at, token in enumerate(tokens):
        unit = _units().get(token.word)
        guessed = unit is not None and unit.note and unit.unit not in ASIDE_UNITS and len(token.word) > 3  # noqa: PLR2004 - not EL
        opens = at == 0 or (at + 1 < len(tokens) and tokens[at + 1].word in {"of", "de"})
        if unit is not None and guessed and opens:
            value = unit.times
            found.append(FoundAmount(token.start, token.end, value, unit.unit, (unit.note,), "", written(value)))
    return found
