"""What stands in a recipe beside its ingredients: yields, totals, warnings, what not to take."""

from __future__ import annotations

import re

from rosy_kettle.reader.numbers import read_number, tokens_of

__all__ = ["cut_negation", "is_batch_size", "is_correction", "is_total", "is_warning", "wished_pieces"]

YIELD = re.compile(
    r"\b(?:makes?|making|yields?|yielding|serves|recipe for|enough for|batch of|ergibt|donne|rendement)\b[\s:]*"
    r"(?:(?:about|approx\w*|around|roughly|some|up to|ca|environ|etwa)\b\.? ?)?~? ?",
    re.IGNORECASE,
)
COUNTED = re.compile(
    r"^(?: ?(?:-|–|to) ?\d+)? ?(?:[^\W\d_]+ ){0,3}?"
    r"(?:bars?|scoops?|bombs?|balls?|pieces?|pcs|truffles?|melts?|slices?|cubes?|domes?|pucks?|discs?|baths?|portions?|servings?|"
    r"stück|pièces?|of them)\b",
    re.IGNORECASE,
)
BARE_COUNT = re.compile(
    r"^\W*(\d{1,4}) (?:bars?|scoops?|bombs?|balls?|pieces?|pcs|truffles?|melts?|slices?|cubes?|domes?)\W*$", re.IGNORECASE
)
TOTAL = re.compile(r"^\W*(?:sub-?total|total|grand total|sum|summe|gesamt|insgesamt|au total)\b", re.IGNORECASE)
WARNING = re.compile(
    r"\b(?:never|do not|don['’]?t|must not|no more than|not more than|not exceed|at most|maximum of|max\.? of|avoid|niemals|"
    r"nicht mehr|jamais|ne pas|at a time)\b|\b\d+ ?: ?\d+\b",
    re.IGNORECASE,
)
NEGATION = re.compile(
    r"\b(?:not|no|never|without|instead of|rather than|nicht|kein\w*|sans|pas de)\b(?! ?\.? ?\d).*$", re.IGNORECASE
)
BATCH_SIZE = re.compile(
    r"^\W*(?:for|für|pour|per|para|voor|na)?\s*(?:an?|one|eine?n?|une?|una?|um)?\s*"
    r"(?:batch|recipe|formula|total|whole|size|weight|of|makes|yields?|\W)*\s*\d[\d.,' ]*\s*"
    r"(?:g|kg|oz|lb|lbs|grams?|gramm|grammes?|kilos?)\b\W*"
    r"(?:batch|recipe|formula|of dough|dough|total|in total|altogether|teig)?\W*$",
    re.IGNORECASE,
)
FROM_HERE = re.compile(
    r"^\W*(?:if\b|when\b|wenn\b|falls\b|si\b|se\b|als\b|jeśli\b|in (?:hot|cold|warm|humid|damp|summer|winter)\b|reduce\b|"
    r"increase\b|decrease\b|swap\b|replace\b|(?:double|halve) (?:the|it|this|everything|all)\b)",
    re.IGNORECASE,
)
MORE = re.compile(
    r"(?<!plus )(?<!or )(?<!, )(?<!\()\b(?:more|less|extra(?!,? (?:virgin|fine|dark|light|strong|large|vergine|virgen))|"
    r"additional|mehr|weniger|plus de|moins de|más|menos|più|meno|meer|minder)\b",
    re.IGNORECASE,
)
OF_WHAT_IS_THERE = re.compile(r"^\W*\+|^\W*\d+(?:[.,]\d+)? ?%")
ONLY_IF = re.compile(
    r"\b(?:if|when|until|unless|as needed|wenn|falls|bis|nach bedarf|si|jusqu|se necess\w+|als|in (?:summer|winter))\b",
    re.IGNORECASE,
)
TOLD = re.compile(r"^\W*(?:add|use|try|put|take|mix in|stir in|spray|with)\b", re.IGNORECASE)
MOST_PIECES = 10_000
LONGEST_SIZE_LINE = 80  # characters


def wished_pieces(line: str) -> int | None:
    """Return how many pieces a line says the recipe makes, or None."""
    if alone := BARE_COUNT.match(line):
        return int(alone[1]) or None
    found = YIELD.search(line)
    if found is None:
        return None
    rest = line[found.end() :]
    tokens = tokens_of(rest[:80])
    number = read_number(tokens, 0)
    if number is None or number.asked or number.value.denominator != 1 or not 0 < number.value <= MOST_PIECES:
        return None
    behind = rest[tokens[number.end - 1].end :]
    bare = found[0].strip().lower().startswith(("yield", "makes", "serves", "rendement")) and not behind.strip(" .!)")
    return int(number.value) if bare or COUNTED.match(behind) else None


def is_total(line: str) -> bool:
    """Return whether a line sums up the others."""
    return TOTAL.match(line) is not None


def is_warning(line: str) -> bool:
    """Return whether a line says what not to do, how much is too much, how to add, or in which ratio."""
    return WARNING.search(line) is not None


def cut_negation(text: str) -> tuple[str, str]:
    """Return a text without its "not …" at the end, and that end."""
    found = NEGATION.search(text)
    if found is None or found.start() == 0:
        return text, ""
    return text[: found.start()].rstrip(" ,;(–—-"), found[0].strip(" ,;(–—-")


def is_batch_size(line: str) -> bool:
    """Return whether a line says for how much the recipe is written, and names nothing: "For a 1000 g batch:"."""
    return len(line) <= LONGEST_SIZE_LINE and BATCH_SIZE.match(line) is not None


def is_correction(line: str) -> bool:
    """Return whether a line says what to change where something is not right, so that it is no part of the list.

    Examples
    --------
    >>> is_correction("use 10 % more citric acid if it is too soft")
    True
    >>> is_correction("10 g cocoa butter, plus more for dusting")
    False
    """
    if FROM_HERE.match(line):
        return True
    told = ONLY_IF.search(line) or TOLD.match(line) or OF_WHAT_IS_THERE.match(line)
    return told is not None and MORE.search(line) is not None
