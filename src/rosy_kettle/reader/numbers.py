"""Numbers as people write them: "1 1/2", "1 000", "1,250.5", "two and a quarter"; read from the tokens of a line."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cache
from typing import NamedTuple

from rosy_kettle.reference.loader import table_rows

__all__ = ["ReadNumber", "Token", "read_number", "tokens_of", "written"]

TOKEN = re.compile(r"\d+(?:[.,·]\d+)*|(?<![^\s(\[~–—-])[.,]\d+|[^\W\d_]+(?:['’][^\W\d_]+)*|\S")
DASHES = frozenset("-–—")
LONGEST_NUMBER = 12  # digits; a longer run is no amount of anything
FINEST_FRACTION = 64  # no spoon or cup is divided finer
LARGEST_APART = 16  # of a fraction with spaces around its slash
GROUPS_COMMA, GROUPS_DOT = re.compile(r"[1-9]\d{0,2}(?:,\d{3})+"), re.compile(r"[1-9]\d{0,2}(?:\.\d{3})+")
ENGLISH_DECIMAL = re.compile(r"[1-9]\d{0,2}(?:,\d{3})+\.\d+")
CONTINENTAL_DECIMAL = re.compile(r"[1-9]\d{0,2}(?:\.\d{3})+,\d+")
FRACTION_OF_TEN = 10  # the hundreds of a number word hold what is below them
AND_WORDS = frozenset({"and", "&", "+", "plus", "und", "et"})
UNCERTAIN_WORDS = {"few": "3", "several": "5", "quelques": "3", "couple": "2"}
ARTICLES = frozenset({"a", "an", "ein", "eine", "einen", "einem", "einer", "un", "une"})


class Token(NamedTuple):
    """A number, a word or a single sign of a line, and where it stands."""

    text: str
    start: int
    end: int
    word: str
    """In lower case."""
    is_number: bool
    """Whether it begins with a digit, or with a decimal sign before one."""


@dataclass(frozen=True, slots=True)
class ReadNumber:
    """A number, the index of the token behind it, and what was guessed. ``asked`` says why it cannot be taken."""

    value: Fraction
    end: int
    notes: tuple[str, ...] = ()
    asked: str = ""
    in_words: bool = False
    counts: bool = True
    """False for a lone article, which counts only before a unit."""
    fraction: bool = False
    """Written with a slash."""


def tokens_of(text: str) -> list[Token]:
    """Return the numbers, words and signs of a line in order."""
    return [
        Token(text := match[0], match.start(), match.end(), text.lower(), text[-1] in "0123456789")
        for match in TOKEN.finditer(text)
    ]


def written(value: Fraction) -> str:
    """Return a number as a formula file may hold it: decimal, or "1 1/3" where decimals would not be exact."""
    if value.denominator in {3, 6, 7, 9}:
        whole, rest = divmod(value, 1)
        return f"{whole} {rest}" if whole else str(rest)
    return f"{float(value):.12g}"


def may_begin_number(token: Token) -> bool:
    """Whether a number can begin here; most words of a line are none."""
    return token.is_number or token.word in _words()


def read_number(tokens: Sequence[Token], at: int) -> ReadNumber | None:
    """Return the number that begins at a token, or None."""
    if at >= len(tokens):
        return None
    return _in_digits(tokens, at) if tokens[at].is_number else _in_words(tokens, at)


def _in_digits(tokens: Sequence[Token], at: int) -> ReadNumber:
    found = _fraction(tokens, at) or _grouped(tokens, at) or _plain(tokens[at].text, at + 1, tokens[at].start)
    if found.fraction or found.asked or found.value.denominator != 1:
        return found
    return _with_fraction(tokens, found)


def _with_fraction(tokens: Sequence[Token], whole: ReadNumber) -> ReadNumber:
    """Add the fraction behind a whole number: "1 1/2", "1-1/2", "1 and 1/2", "1 and a half"."""
    at = whole.end
    if at >= len(tokens):
        return whole
    joined = tokens[at].word in AND_WORDS or (tokens[at].text in DASHES and _touches(tokens, at))
    behind = at + 1 if joined else at
    if behind >= len(tokens):
        return whole
    if tokens[behind].is_number:
        part = _fraction(tokens, behind)
        if part and not part.asked and part.value < 1 and "." not in tokens[behind].text:
            return replace(part, value=whole.value + part.value, notes=whole.notes + part.notes)
    elif joined and tokens[at].word in AND_WORDS:
        part = _in_words(tokens, behind)
        if part and part.value < 1:
            return replace(part, value=whole.value + part.value, in_words=False)
    return whole


def _touches(tokens: Sequence[Token], at: int) -> bool:
    """Whether a sign stands tight, or evenly spaced, between its neighbours."""
    before = tokens[at].start - tokens[at - 1].end
    after = tokens[at + 1].start - tokens[at].end if at + 1 < len(tokens) else 9
    return before == after


def _fraction(tokens: Sequence[Token], at: int) -> ReadNumber | None:
    """Read "2/3"; None where no slash follows."""
    if at + 2 >= len(tokens) or tokens[at + 1].text != "/" or not tokens[at + 2].is_number:
        return None
    top, bottom = tokens[at].text, tokens[at + 2].text
    end = at + 3
    if not (top.isdecimal() and bottom.isdecimal()) or len(top) + len(bottom) > LONGEST_NUMBER:
        return None
    if end + 1 < len(tokens) and tokens[end].text == "/" and tokens[end + 1].is_number:
        return ReadNumber(Fraction(0), end + 2, asked=f"{top}/{bottom}/{tokens[end + 1].text} looks like a date")
    apart = tokens[at + 1].start > tokens[at].end
    if apart and max(int(top), int(bottom)) > LARGEST_APART:
        return None  # "300 / 150" are two numbers
    if int(bottom) > FINEST_FRACTION or len(top) > 2:  # noqa: PLR2004 - nobody writes 219/54 cup
        return ReadNumber(Fraction(0), end, asked=f"{top}/{bottom} is no measure")
    if len(top) > 1 and int(bottom) > 1 and 0 < int(top[-1]) < int(bottom):
        glued = f"{top[:-1]} {top[-1]}/{bottom}"
        return ReadNumber(
            Fraction(0), end, asked=f'"{top}/{bottom}" may be {glued} or {float(Fraction(int(top), int(bottom))):g}'
        )
    if int(bottom) == 0:
        return ReadNumber(Fraction(0), end, asked=f"{top}/{bottom} is no number")
    return ReadNumber(Fraction(int(top), int(bottom)), end, fraction=True)


def _grouped(tokens: Sequence[Token], at: int) -> ReadNumber | None:
    """Read thousands parted by a space or an apostrophe: "1 000", "1'000"."""
    first = tokens[at].text
    if not first.isdecimal() or len(first) > 3 or first.startswith("0"):  # noqa: PLR2004 - a group has three digits
        return None
    digits, end = first, at + 1
    while (step := _next_group(tokens, end)) is not None:
        digits += tokens[step - 1].text
        end = step
    if end == at + 1 or len(digits) > LONGEST_NUMBER:
        return None
    if end + 1 < len(tokens) and tokens[end].text == "/" and tokens[end + 1].is_number:
        return None
    return ReadNumber(Fraction(int(digits)), end, (f'"{first} {digits[len(first) :]}" read as {digits}',))


def _next_group(tokens: Sequence[Token], at: int) -> int | None:
    """Index behind the next group of three digits, or None."""
    apostrophe = at < len(tokens) and tokens[at].text in {"'", "’", "´", "`"}
    group = at + 1 if apostrophe else at
    if group >= len(tokens) or group == 0 or len(tokens[group].text) != 3 or not tokens[group].text.isdecimal():  # noqa: PLR2004
        return None
    gaps = [tokens[index].start - tokens[index - 1].end for index in range(at, group + 1)]
    return group + 1 if gaps == ([0, 0] if apostrophe else [1]) else None


def _plain(text: str, end: int, start: int) -> ReadNumber:
    """Read one run of digits with its decimal or thousands signs; a comma before digits inside a line is not sure."""
    if len(text) > LONGEST_NUMBER + 3:
        return ReadNumber(Fraction(0), end, asked=f"{text[:LONGEST_NUMBER]}… is no amount of anything")
    clean = text.replace("·", ".")
    if ENGLISH_DECIMAL.fullmatch(clean):
        return ReadNumber(Fraction(clean.replace(",", "")), end)
    if CONTINENTAL_DECIMAL.fullmatch(clean):
        return ReadNumber(Fraction(clean.replace(".", "").replace(",", ".")), end)
    if GROUPS_COMMA.fullmatch(clean):
        joined = clean.replace(",", "")
        return ReadNumber(Fraction(int(joined)), end, (f'"{text}" read as {joined}, the comma as a thousands sign',))
    if GROUPS_DOT.fullmatch(clean):
        joined = clean.replace(".", "")
        asked = f'"{text}" may be {joined} or {float(clean):g}' if clean.count(".") == 1 else ""
        return ReadNumber(Fraction(int(joined)), end, asked=asked)
    if clean[0] == "," and start:
        return ReadNumber(Fraction(0), end, asked=f'"{text}" may be {clean[1:]} or 0.{clean[1:]}')
    if clean.count(",") + clean.count(".") > 1:
        return ReadNumber(Fraction(0), end, asked=f'"{text}" is no number')
    return ReadNumber(Fraction(clean.replace(",", ".")), end)


@cache
def _words() -> dict[str, Fraction]:
    return {row["word"]: Fraction(row["value"]) for row in table_rows("number_words")}


def _in_words(tokens: Sequence[Token], at: int) -> ReadNumber | None:
    """Read "twenty five", "two and a quarter", "half a", "three quarters of a"."""
    if tokens[at].word not in _words():
        return None
    whole, end = _whole_words(tokens, at)
    counts = end > at + 1 or (end > at and tokens[at].word not in ARTICLES)
    unsure = [word.word for word in tokens[at:end] if word.word in UNCERTAIN_WORDS]
    notes = tuple(f'"{word}" read as {UNCERTAIN_WORDS[word]}' for word in unsure)
    part, behind = _part_words(tokens, end if whole is None else _past_and(tokens, end))
    if part is not None and (whole is None or behind > end + 1):  # "and" stands between
        whole, end, counts = (whole or Fraction(0)) + part, behind, True
    elif whole is not None and (share := _part(tokens, end)) is not None:  # "three quarters", "a half"
        whole, end, counts = whole * share[0], share[1], True
    elif whole is not None and end + 1 < len(tokens) and tokens[end].word in AND_WORDS and tokens[end + 1].is_number:
        digits = _fraction(tokens, end + 1)
        if digits and not digits.asked and digits.value < 1:
            whole, end, counts = whole + digits.value, digits.end, True
    if whole is None:
        return None
    return ReadNumber(whole, end, notes, in_words=True, counts=counts)


def _whole_words(tokens: Sequence[Token], at: int) -> tuple[Fraction | None, int]:
    words, total, end = _words(), None, at
    while end < len(tokens):
        value = words.get(tokens[end].word)
        if tokens[end].text == "-" and total is not None and end + 1 < len(tokens) and words.get(tokens[end + 1].word, 0) >= 1:
            end += 1
            continue
        if value is None or value.denominator != 1:
            if total is not None and total >= 100 and tokens[end].word == "and" and 1 < _value_at(tokens, end + 1) < 100:  # noqa: PLR2004
                end += 1
                continue
            break
        if total is None:
            total = value
        elif value in {100, 1000, 12} or (total == 1 and tokens[end].word in {"couple", "few"}):
            total *= value
        elif (total % 100 == 0 and value < 100) or (total % 100 >= 20 and total % 10 == 0 and value < FRACTION_OF_TEN):  # noqa: PLR2004
            total += value
        else:
            break
        end += 1
    return total, end


def _value_at(tokens: Sequence[Token], at: int) -> Fraction:
    return _words().get(tokens[at].word, Fraction(0)) if at < len(tokens) else Fraction(0)


def _past_and(tokens: Sequence[Token], at: int) -> int:
    return at + 1 if at < len(tokens) and tokens[at].word in AND_WORDS else at


def _part(tokens: Sequence[Token], at: int) -> tuple[Fraction, int] | None:
    at = at + 1 if at < len(tokens) and tokens[at].text == "-" else at
    value = _value_at(tokens, at)
    return (value, at + 1) if 0 < value < 1 else None


def _part_words(tokens: Sequence[Token], at: int) -> tuple[Fraction | None, int]:
    """Read a fraction in words: "half", "a quarter", "three quarters"."""
    many = _value_at(tokens, at)
    if 0 < many < 1:
        if many == Fraction(1, 2) and tokens[min(at + 1, len(tokens) - 1)].word == "dozen":
            return Fraction(6), at + 2
        if many == Fraction(1, 2) and at + 2 < len(tokens) and tokens[at + 1].word == "a" and tokens[at + 2].word == "dozen":
            return Fraction(6), at + 3
        return many, at + 1
    behind = at + 2 if at + 1 < len(tokens) and tokens[at + 1].text == "-" else at + 1
    part = _value_at(tokens, behind)
    if many >= 1 and many.denominator == 1 and 0 < part < 1:
        return many * part, behind + 1
    return None, at
