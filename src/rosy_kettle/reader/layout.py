"""How a pasted text is laid out: numbered lines, names and amounts on lines of their own, several recipes below each other."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from itertools import pairwise

from rosy_kettle.reader.amounts import find_amounts
from rosy_kettle.reader.items import name_of
from rosy_kettle.reader.names import plain

__all__ = ["apart", "joined", "says_which_recipe", "without_numbering"]

COUNTED_LINE = re.compile(r"^\s*(\d{1,3})\s+(?=\d)")
FEWEST_COUNTED = 3  # lines that begin 1, 2, 3 are numbered
FEWEST_ITEMS = 2  # lines with an amount that make a recipe
LONGEST_TITLE = 7  # words
LONGEST_ALONE, LONGEST_ITEM = 60, 300  # characters of an amount that stands alone, of a line with an item
NUMBERED_RECIPE = re.compile(
    r"^\W*(?:(?:recipe|formula|rezept|recette|receta|ricetta|recept|receita|przepis)\s*(?:number|no\.?|nr\.?|n[o°]|#)?\s*\d{1,2}\b|"
    r"\d{1,2}(?:st|nd|rd|th) recipe\b)",
    re.IGNORECASE,
)
PRODUCT_WORDS = frozenset(
    """bar bars scoop scoops bomb bombs ball balls truffle truffles melt melts dust fizz fizzer fizzers fizzies bath recipe
    badekugel badekugeln badepralinen bombe bombes boule boules""".split()
)


def without_numbering(lines: list[str]) -> list[str]:
    """Drop the numbers of lines that are counted 1, 2, 3 without a dot: "1 200 g soda", "2 100 g acid"."""
    counted = [(at, int(found[1])) for at, line in enumerate(lines) if (found := COUNTED_LINE.match(line))]
    numbers = [number for _at, number in counted]
    if len(numbers) < FEWEST_COUNTED or numbers[0] != 1 or any(after != before + 1 for before, after in pairwise(numbers)):
        return lines
    numbered = {at for at, _number in counted}
    return [COUNTED_LINE.sub("", line) if at in numbered else line for at, line in enumerate(lines)]


def joined(lines: Sequence[str], known: Callable[[str], bool]) -> list[str]:
    """Return lines with an amount that stands alone put beside its name, which stands on the line before it or behind it.

    Parameters
    ----------
    lines : sequence of str
        As pasted
    known : Callable
        Whether a text names an ingredient

    Returns
    -------
    list of str
        Unchanged where no amount stands alone
    """
    kept = [at for at, line in enumerate(lines) if line.strip()]
    alone = [place for place, at in enumerate(kept) if _only_amount(lines[at])]
    if not alone:
        return list(lines)

    def named(place: int) -> bool:
        if not 0 <= place < len(kept):
            return False
        line = lines[kept[place]]
        return len(line) <= LONGEST_ITEM and not find_amounts(line) and known(line.strip(" :\t"))

    before = sum(named(place - 1) for place in alone)
    step = -1 if before >= sum(named(place + 1) for place in alone) else 1
    result: list[str | None] = list(lines)
    for place in alone:
        if named(place + step):
            name_at, amount_at = kept[place + step], kept[place]
            result[name_at] = f"{lines[name_at].strip(' :')} {lines[amount_at].strip()}"
            result[amount_at] = None
    return [line for line in result if line is not None]


def _only_amount(line: str) -> bool:
    if len(line) > LONGEST_ALONE:
        return False
    amounts = find_amounts(line.strip())
    return bool(amounts) and not any(each.is_aside for each in amounts) and not name_of(line.strip())


def says_which_recipe(line: str) -> bool:
    """Return whether a line says of itself which recipe it heads: "Recipe number 2"."""
    return len(line) <= LONGEST_ITEM and NUMBERED_RECIPE.match(line) is not None


def apart(lines: Sequence[str], known: Callable[[str], bool], heading: Callable[[str], bool]) -> list[tuple[int, int]]:
    """Return where each recipe of a text begins and ends, where several stand below each other.

    A recipe begins with a title: a line that says which recipe it is ("Recipe 2"), or a few words without amount behind a blank
    line that name no ingredient and no part of one, with two lines that have amounts before the next title. A title that names no
    product begins another recipe only where an ingredient of the one before comes again.

    Parameters
    ----------
    lines : sequence of str
        As pasted
    known : Callable
        Whether a text names an ingredient
    heading : Callable
        Whether a text heads a part of a recipe

    Returns
    -------
    list of tuple
        First line and the line behind the last, one for each recipe; one for all where there is only one
    """
    titles = [at for at in range(len(lines)) if _is_title(lines, at, known, heading)]
    begins = [0]
    for at, after in pairwise([*titles, len(lines)]):
        earlier = _items(lines[begins[-1] : at])
        if len(earlier) < FEWEST_ITEMS or len(_items(lines[at:after])) < FEWEST_ITEMS:
            continue
        told = says_which_recipe(lines[at]) or PRODUCT_WORDS & set(plain(lines[at]).split())
        if told or earlier & _items(lines[at:after]):
            begins.append(at)
    return list(pairwise([*begins, len(lines)]))


def _is_title(lines: Sequence[str], at: int, known: Callable[[str], bool], heading: Callable[[str], bool]) -> bool:
    if len(lines[at]) > LONGEST_ITEM:
        return False
    line = lines[at].strip(" #*_-=:")
    if says_which_recipe(line):
        return True
    behind_blank = at == 0 or not lines[at - 1].strip()
    wordy = 0 < len(line.split()) <= LONGEST_TITLE and any(char.isalpha() for char in line)
    if not behind_blank or not wordy or find_amounts(line) or line.endswith((".", "!", "?")):
        return False
    return not known(line) and not heading(line)


def _items(lines: Sequence[str]) -> set[str]:
    """Names on lines with an amount, as they stand there."""
    short = (line for line in lines if len(line) <= LONGEST_ITEM)
    measured = (line for line in short if any(each.unit and not each.is_aside for each in find_amounts(line)))
    return {plain(name_of(line)) for line in measured} - {""}
