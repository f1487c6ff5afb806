"""Finds amounts in running text: "1 1/2 tsp", "½ cup", "10–20 drops", "a pinch", "5.3oz (150g)"."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

from rosy_kettle.core.amounts.entry import VULGAR_FRACTIONS
from rosy_kettle.core.amounts.units import VOLUME_ML

__all__ = ["FoundAmount", "find_amounts", "mask_name_numbers"]

NUMBER_WORDS: dict[str, int | Fraction] = {
    "a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8,
    "nine": 9, "ten": 10, "twelve": 12, "half": Fraction(1, 2), "half a": Fraction(1, 2), "half an": Fraction(1, 2),
    "a half": Fraction(1, 2), "quarter": Fraction(1, 4), "a quarter": Fraction(1, 4), "quarter of a": Fraction(1, 4),
    "a third": Fraction(1, 3), "a third of a": Fraction(1, 3), "a quarter of a": Fraction(1, 4),
    "three quarters of a": Fraction(3, 4), "three quarter": Fraction(3, 4), "a couple": 2, "a couple of": 2,
    "one and a half": Fraction(3, 2), "two and a half": Fraction(5, 2), "one half": Fraction(1, 2),
}  # fmt: skip
FEW = {"a few": 3, "several": 5, "few": 3}
UNIT_WORDS = {
    "g": ("g", "gr", "gm", "gms", "gram", "grams", "gramme", "grammes", "grms"),
    "kg": ("kg", "kgs", "kilo", "kilos", "kilogram", "kilograms"),
    "mg": ("mg", "milligram", "milligrams"),
    "floz": ("fl oz", "fl. oz", "fl. oz.", "floz", "fl.oz", "fl.oz.", "fluid oz", "fluid ounce", "fluid ounces"),
    "oz": ("oz", "oz.", "ounce", "ounces", "ozs"),
    "lb": ("lb", "lbs", "lb.", "pound", "pounds"),
    "ml": ("ml", "mls", "millilitre", "millilitres", "milliliter", "milliliters", "cc"),
    "l": ("l", "litre", "litres", "liter", "liters", "ltr"),
    "cup": ("cup", "cups", "c", "c."),
    "tbsp": ("tbsp", "tbsps", "tbsp.", "tbs", "tbs.", "tblsp", "tblsps", "tablespoon", "tablespoons", "tbl", "T", "Tb"),
    "tsp": ("tsp", "tsps", "tsp.", "teaspoon", "teaspoons", "t"),
    "drop": ("drop", "drops"),
    "spray": ("spray", "sprays", "spritz", "spritzes", "squirt", "squirts", "mist", "mists", "pump of the sprayer"),
    "part": ("part", "parts", "pt.", "pts."),
    "pct": ("%", "percent", "per cent", "pct"),
}
ODD_UNITS = {
    "pinch": ("tsp", Fraction(1, 16), "a pinch read as 1/16 tsp"),
    "dash": ("tsp", Fraction(1, 8), "a dash read as 1/8 tsp"),
    "smidgen": ("tsp", Fraction(1, 32), "a smidgen read as 1/32 tsp"),
    "splash": ("tsp", Fraction(1), "a splash read as 1 tsp; weigh it next time"),
    "drizzle": ("tsp", Fraction(1), "a drizzle read as 1 tsp; weigh it next time"),
    "dollop": ("tbsp", Fraction(1), "a dollop read as 1 tbsp; weigh it next time"),
    "glug": ("tbsp", Fraction(1), "a glug read as 1 tbsp; weigh it next time"),
    "stick": ("g", Fraction(1134, 10), "a stick read as 113.4 g"),
    "dl": ("ml", Fraction(100), "a decilitre read as 100 mL"),
    "decilitre": ("ml", Fraction(100), "a decilitre read as 100 mL"),
    "cl": ("ml", Fraction(10), "a centilitre read as 10 mL"),
    "dessertspoon": ("ml", Fraction(10), "a dessertspoon read as 10 mL"),
    "pint": ("cup", Fraction(2), "a US pint read as 2 cups"),
    "quart": ("cup", Fraction(4), "a US quart read as 4 cups"),
    "gallon": ("cup", Fraction(16), "a US gallon read as 16 cups"),
}
"""Units that become tsp, tbsp, mL, cups or grams; sizes as in the units table, splash and the like are guesses."""
UNIT_RANK = ("g", "kg", "mg", "oz", "lb", "ml", "l", "floz", "cup", "tbsp", "tsp", "drop", "spray", "part", "pct", "")
"""Which amount of several is taken: grams first, a bare number last."""

_UNIT_OF = {word: unit for unit, words in UNIT_WORDS.items() for word in words if word not in {"T", "t", "Tb"}}
_UNIT_OF |= {f"{word}{suffix}": word for word in ODD_UNITS for suffix in ("", "s", "es")}
_vulgar = "".join(VULGAR_FRACTIONS)
_NUMBER = (
    rf"(?:\d+\s*[-\s]\s*\d+\s*[/⁄]\s*\d+|\d+\s*[/⁄]\s*\d+|\d+\s*[{_vulgar}]|[{_vulgar}]"
    r"|\d{1,3}(?:,\d{3})+(?:\.\d+)?(?!\d)|\d+(?:[.,]\d+)?|[.,]\d+)"
)
_WORD_NUMBER = "|".join(sorted((*NUMBER_WORDS, *FEW), key=len, reverse=True))
_UNIT = "|".join(sorted((re.escape(word) for word in _UNIT_OF), key=len, reverse=True))
_SIZE = r"(?:heaping|heaped|level|rounded|scant|generous|big|large|small|good|packed|full)"
_AMOUNT = re.compile(
    rf"(?<![\w.,/-])(?:(?P<times>\d+)\s*[x×]\s*)?(?:(?P<low>{_NUMBER})(?:\s*(?:-|–|—|to|or|bis)\s*(?P<high>{_NUMBER}))?"
    rf"|(?P<word>\b(?:{_WORD_NUMBER})\b))"
    rf"(?:[\s-]*(?:(?P<size>{_SIZE})\s+)?(?P<unit>(?:(?i:{_UNIT})|T|t|Tb)(?![\w])))?",
    re.IGNORECASE,
)
_BARE_ODD = re.compile(rf"^\s*(?P<unit>{'|'.join(ODD_UNITS)})\b|\b(?P<inner>{'|'.join(ODD_UNITS)})(?=\s+of\b)", re.IGNORECASE)
_NAME_NUMBERS = (
    re.compile(r"\b(?:peg|ppg)[\s-]*\d+", re.IGNORECASE),
    re.compile(r"\b(?:poly(?:sorbate)?|ps|p|tw)[\s-]*(?:20|40|60|80)\b(?!\s*(?:g|ml|drops?|oz)\b)", re.IGNORECASE),
    re.compile(r"\bcoconut(?:\s+oil)?[\s,-]*\(?(?:76|92)\b\s*(?:°|deg(?:rees?)?\.?)?\s*f?\b\)?", re.IGNORECASE),
    re.compile(r"\b(?:76|92)\s*(?:°|deg(?:rees?)?\.?)?\s*f?\s+(?=coconut)", re.IGNORECASE),
    re.compile(r"\b\d{2,3}(?:[.,]\d+)?\s*(?:%|percent|per cent)?\s*(?:v/v\s*)?(?=(?:isopropyl|isopropanol|ipa|rubbing|alcohol|ethanol)\b)", re.IGNORECASE),  # noqa: E501
    re.compile(r"\b(?:isopropyl(?:\s+alcohol)?|isopropanol|ipa|(?:rubbing\s+)?alcohol)[\s,(-]*(?:70|90|91|95|96|99(?:[.,]\d)?)\b\s*(?:%|percent|per cent)?\)?(?!\s*(?:g|ml|oz|drops?|sprays?)\b)", re.IGNORECASE),  # noqa: E501
    re.compile(r"\b(?:sorbitol|sles)[\s,(-]*70\b\s*%?\)?(?!\s*(?:g|ml|oz)\b)", re.IGNORECASE),
    re.compile(r"\bc\s?14\s?-\s?16\b", re.IGNORECASE),
    re.compile(r"\b1,\s?3[\s-]+propanediol|\bpropanediol[\s,]*1,\s?3\b", re.IGNORECASE),
    re.compile(r"\b(?:ci|c\.i\.)\s*\d{5}\b", re.IGNORECASE),
    re.compile(r"\bt[\s-]?50\b", re.IGNORECASE),
    re.compile(r"#\s?\d+"),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class FoundAmount:
    """An amount in a text: where it stands, its value as it may stand in a formula file, its unit."""

    start: int
    end: int
    amount: str
    unit: str
    notes: tuple[str, ...] = ()

    @property
    def value(self) -> Fraction:
        """The number itself."""
        return _fraction(self.amount)


def mask_name_numbers(text: str) -> str:
    """Return the text with numbers that belong to a name blanked, same length."""
    for pattern in _NAME_NUMBERS:
        text = pattern.sub(lambda match: re.sub(r"[\d%,]", "·", match[0]), text)
    return text


def find_amounts(text: str) -> list[FoundAmount]:
    """Return every amount in a text, in order; sums such as "1 tbsp + 1 tsp" as one."""
    masked = mask_name_numbers(text)
    found = [amount for match in _AMOUNT.finditer(masked) if (amount := _read(match, masked))]
    if not found:
        found = [
            FoundAmount(match.start(), match.end(), *_odd((match["unit"] or match["inner"]).lower(), Fraction(1)))
            for match in _BARE_ODD.finditer(masked)
        ]
    return _sum_joined(found, masked)


def _read(match: re.Match[str], text: str) -> FoundAmount | None:
    word, unit_text = match["word"], match["unit"]
    if word and not unit_text:
        return None  # "a" or "half" alone counts nothing
    notes: list[str] = []
    times = int(match["times"] or 1)
    if word:
        low: Fraction = Fraction(NUMBER_WORDS.get(word.lower(), FEW.get(word.lower(), 1)))
        written = _written(low)
        if word.lower() in FEW:
            notes.append(f'"{word}" read as {low}')
    else:
        low, written = _fraction(match["low"]), _clean(match["low"])
        if re.fullmatch(r"\d{1,3}(?:,\d{3})+(?:\.\d+)?", match["low"]) and not match["low"].startswith("0"):
            notes.append(f'"{match["low"]}" read as {written}, the comma as a thousands sign')
    if match["high"]:
        high = _fraction(match["high"])
        written = _written((low + high) / 2)
        low = (low + high) / 2
        notes.append(f'range "{match["low"]} to {match["high"]}" read as its middle, {written}')
    if times > 1:
        low *= times
        written = _written(low)
    if match["size"]:
        notes.append(f'"{match["size"]}" not counted; weigh it for a true figure')
    unit = _unit(unit_text)
    if unit in ODD_UNITS:
        written, unit, odd_notes = _odd(unit, low)
        notes += odd_notes
    return FoundAmount(match.start(), _end(match, text), written, unit, tuple(notes))


def _end(match: re.Match[str], text: str) -> int:
    tail = re.match(r"\.(?=\s|$)", text[match.end() :])
    return match.end() + (tail.end() if tail and match["unit"] else 0)


def _unit(text: str | None) -> str:
    if not text:
        return ""
    if text in {"T", "Tb"}:
        return "tbsp"
    if text == "t":
        return "tsp"
    return _UNIT_OF[" ".join(text.lower().split())] if " ".join(text.lower().split()) in _UNIT_OF else _UNIT_OF[text.lower()]


def _odd(unit: str, count: Fraction) -> tuple[str, str, tuple[str, ...]]:
    base, size, note = ODD_UNITS[unit]
    return _written(count * size), base, (note,)


def _fraction(text: str) -> Fraction:
    clean = text.replace("⁄", "/")
    for sign, value in VULGAR_FRACTIONS.items():
        clean = clean.replace(sign, f" {value.numerator}/{value.denominator}")
    clean = re.sub(r"\s*/\s*", "/", clean.strip())
    if re.fullmatch(r"\d{1,3}(?:,\d{3})+(?:\.\d+)?", clean) and not clean.startswith("0"):
        clean = clean.replace(",", "")
    parts = re.split(r"[\s-]+", clean)
    try:
        return sum((Fraction(part.replace(",", ".")) for part in parts), Fraction(0))
    except ZeroDivisionError:
        return Fraction(0)


def _clean(text: str) -> str:
    value = _fraction(text)
    return _written(value) if not re.search(rf"[/⁄{_vulgar}]", text) else _mixed(value)


def _mixed(value: Fraction) -> str:
    whole, rest = divmod(value, 1)
    if rest == 0:
        return str(whole)
    return f"{whole} {rest}" if whole else str(rest)


def _written(value: Fraction) -> str:
    if value.denominator in {3, 6, 7, 9}:
        return _mixed(value)
    return f"{float(value):.10g}"


def _sum_joined(found: list[FoundAmount], text: str) -> list[FoundAmount]:
    result: list[FoundAmount] = []
    for amount in found:
        last = result[-1] if result else None
        joined = last is not None and re.fullmatch(r"\s*(?:\+|plus|and|&)\s*", text[last.end : amount.start], re.IGNORECASE)
        if last and joined and last.unit in VOLUME_ML and amount.unit in VOLUME_ML:
            ratio = Fraction(VOLUME_ML[last.unit] / VOLUME_ML[amount.unit]).limit_denominator(1000)
            total = _written(last.value * ratio + amount.value)
            notes = (*last.notes, *amount.notes, f"two measures added up to {total} {amount.unit}")
            result[-1] = FoundAmount(last.start, amount.end, total, amount.unit, notes)
        else:
            result.append(amount)
    return result
