"""Cuts a line of a recipe into its items: each a name with its amounts and the comment in its brackets."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import pairwise

from rosy_kettle.core.amounts.units import VOLUME_ML, WEIGHT_G
from rosy_kettle.reader.amounts import TWIN_TOLERANCE, UNIT_RANK, FoundAmount, find_amounts, mask_name_numbers
from rosy_kettle.reader.asides import cut_negation
from rosy_kettle.reader.numbers import written

__all__ = ["Item", "choose", "items_of", "name_of", "without_brackets"]

TRIM = " \t:;,.-–—=•*·…/&+|?!~"
CUT = re.compile(r",|;|\||\s/\s|(?<=[a-z)])\s*/\s*(?=\d)|\b(?:and|plus|with|then|und|et|avec|mit|puis)\b|[&+]", re.IGNORECASE)
HARD_CUTS = frozenset(";|")
MOST_RUN_ON = 20  # more items than this on a line are parted by something
SENTENCE_END = re.compile(r"(?<=[a-z)])[.!]\s+(?=[A-Z0-9])")
OPENERS = re.compile(
    r"^(?:of|between|zwischen|entre|about|the|de|du|des|d['’]|l['’]|von|vom|le|la|les)\b ?|^(?:d|l)['’]", re.IGNORECASE
)


@dataclass(frozen=True, slots=True)
class Item:
    """One ingredient as written. ``comments`` stood in brackets or behind a "not"."""

    text: str
    name: str
    comments: tuple[str, ...]
    amounts: tuple[FoundAmount, ...]


def items_of(line: str, stands_alone: Callable[[str], bool]) -> list[Item]:
    """Return the items of a tidied line.

    Parameters
    ----------
    line : str
        A line without bullet and heading
    stands_alone : Callable
        Whether a text without amount names an ingredient of its own

    Returns
    -------
    list of Item
        In order; "10 g each of kaolin, mica" gives two
    """
    items: list[Item] = []
    for sentence in _sentences(line):
        for piece in _pieces(sentence, stands_alone):
            item = _item(piece)
            shared = any(amount.each for amount in item.amounts)
            items += _for_each(item) if shared else _run_on(piece, stands_alone) or [item]
    return [item for item in items if item.name or item.amounts]


def name_of(text: str) -> str:
    """Return what is left of a text without brackets and amounts."""
    bare, _inside = without_brackets(text)
    return _name(bare, find_amounts(bare))


def without_brackets(text: str) -> tuple[str, list[str]]:
    """Return a text with what stands in brackets blanked, same length, and what stood in each."""
    if "(" not in text and "[" not in text:
        return text, []
    kept, inside, depth, start = list(text), [], 0, 0
    for at, char in enumerate(text):
        if char in "([":
            start = at if depth == 0 else start
            depth += 1
        if depth:
            kept[at] = " "
        if char in ")]" and depth:
            depth -= 1
            if depth == 0:
                inside.append(text[start + 1 : at].strip())
    if depth:  # never closed: nothing was in brackets from there on
        kept[start:] = " " + text[start + 1 :]
    return "".join(kept), inside


def _name(bare: str, amounts: list[FoundAmount]) -> str:
    parts, at = [], 0
    for amount in amounts:
        parts.append(bare[at : amount.start])
        at = max(at, amount.end)
    name = " ".join(" ".join([*parts, bare[at:]]).split()).strip(TRIM)
    while (shorter := OPENERS.sub("", name, count=1).strip(TRIM)) != name:
        name = shorter
    return name


def _sentences(line: str) -> list[str]:
    """Cut behind a full stop once an amount has been named."""
    amounts = find_amounts(line)
    first = min((amount.start for amount in amounts), default=len(line))
    abbreviated = {amount.end - 1 for amount in amounts}  # "½ c. SLSA"
    ends = [match for match in SENTENCE_END.finditer(line) if match.start() > first and match.start() not in abbreviated]
    cuts = [0, *(match.end() for match in ends), len(line)]
    return [line[start:end] for start, end in pairwise(cuts)]


def _pieces(line: str, stands_alone: Callable[[str], bool]) -> list[str]:
    """Cut a sentence where one item ends and the next begins."""
    bare, _inside = without_brackets(line)
    amounts = find_amounts(bare)
    taken = bytearray(len(line) + 1)
    for each in amounts:
        taken[each.start : each.end] = b"\x01" * (each.end - each.start)
    cuts = [match for match in CUT.finditer(mask_name_numbers(bare)) if not taken[match.start() + match[0].startswith(" ")]]
    starts = [0, *(match.end() for match in cuts)]
    ends = [*(match.start() for match in cuts), len(line)]
    signs = ["", *(match[0].strip().lower() for match in cuts)]
    groups: list[tuple[int, int]] = []
    whole, shared, waiting = (False, False), False, iter(amounts)
    amount: FoundAmount | None = next(waiting, None)
    for start, end, sign in zip(starts, ends, signs, strict=True):
        held = []
        while amount is not None and amount.start < end:
            held.append(replace(amount, start=amount.start - start, end=amount.end - start))
            amount = next(waiting, None)
        kind = (bool(_name(bare[start:end], held)), any(not each.is_aside for each in held))
        shares = shared and kind == (True, False)  # "10 g each of kaolin, mica" stays together
        if groups and (shares or not _begins(sign, whole, kind, line[start:end], stands_alone)):
            groups[-1] = (groups[-1][0], end)
            whole = (whole[0] or kind[0], whole[1] or kind[1])
        else:
            groups.append((start, end))
            whole, shared = kind, False
        shared = shared or any(each.each for each in held)
    return [line[start:end] for start, end in groups]


def _begins(
    sign: str, whole: tuple[bool, bool], kind: tuple[bool, bool], piece: str, stands_alone: Callable[[str], bool]
) -> bool:
    """Whether a piece begins a new item, given what the item before it holds already."""
    if kind == (False, False):
        return False
    if sign in HARD_CUTS:
        return True
    if sign != ",":
        return whole == (True, True) and kind == (True, True)
    if kind == (False, True):
        return False
    if kind == (True, False):
        return whole[0] and stands_alone(piece)
    return True


def _item(text: str) -> Item:
    head, negation = cut_negation(text)
    bare, inside = without_brackets(head)
    comments, bracketed = [], []
    for inner in inside:
        amounts = [amount for amount in find_amounts(inner) if amount.unit and not amount.is_aside]
        if amounts and not _name(inner, find_amounts(inner)):
            bracketed += amounts
        elif inner:
            comments.append(inner)
    if negation:
        comments.append(negation.strip(")] "))
    found = find_amounts(bare)
    return Item(text.strip(TRIM), _name(bare, found), tuple(comments), _in_containers(found, bracketed))


def _in_containers(found: list[FoundAmount], bracketed: list[FoundAmount]) -> tuple[FoundAmount, ...]:
    """Put "2 boxes (16 oz each)" together; how much two boxes hold without "each" is asked."""
    boxes = next((amount for amount in found if amount.unit == "container"), None)
    weighed = next((amount for amount in bracketed if amount.unit in WEIGHT_G or amount.unit in VOLUME_ML), None)
    if boxes is None or weighed is None or weighed.asked or boxes.asked:
        return (*found, *bracketed)
    rest = [amount for amount in (*found, *bracketed) if amount is not boxes and amount is not weighed]
    value = boxes.value * weighed.value
    if boxes.value != 1 and not weighed.each:
        return (
            replace(weighed, asked=f"{written(boxes.value)} of them, or {weighed.amount} {weighed.unit} in all", amount="0"),
            *rest,
        )
    return (replace(weighed, value=value, amount=written(value), each=False), *rest)


def _run_on(text: str, stands_alone: Callable[[str], bool]) -> list[Item]:
    """Cut "200 g soda 100 g acid" where nothing parts the items; [] where that does not give known names throughout."""
    bare, _inside = without_brackets(text)
    amounts = [amount for amount in find_amounts(bare) if not amount.is_aside]
    if len(amounts) < 2 or len(amounts) > MOST_RUN_ON:  # noqa: PLR2004 - one amount runs into nothing
        return []
    amount_first = not bare[: amounts[0].start].strip(TRIM)
    edges = [each.start for each in amounts[1:]] if amount_first else [each.end for each in amounts[:-1]]
    pieces = [text[start:end] for start, end in pairwise([0, *edges, len(text)])]
    return [_item(piece) for piece in pieces] if all(stands_alone(name_of(piece)) for piece in pieces) else []


def _for_each(item: Item) -> list[Item]:
    """Give "10 g each of kaolin, mica" as two items."""
    names = [name.strip(TRIM) for name in re.split(r",|&|\+|\b(?:and|und|et)\b", item.name) if name.strip(TRIM)]
    amounts = tuple(replace(amount, each=False) for amount in item.amounts)
    return [Item(item.text, name, item.comments, amounts) for name in names] or [item]


def choose(amounts: tuple[FoundAmount, ...]) -> tuple[FoundAmount | None, list[str]]:
    """Return the amount that is taken of several, and what is to be said of the others.

    Parameters
    ----------
    amounts : tuple
        All amounts of an item

    Returns
    -------
    tuple
        Grams before other units, a bare number last; two weights that differ are asked about
    """
    usable = [amount for amount in amounts if not amount.is_aside]
    counted = [amount for amount in usable if amount.unit != "container"]
    usable = counted if counted and all(amount.value == 1 for amount in usable if amount.unit == "container") else usable
    notes = [f"{_said(amount)} left aside" for amount in amounts if amount.is_aside and amount.value]
    if not usable:
        return None, notes
    chosen = min(usable, key=lambda amount: UNIT_RANK.index(amount.unit))
    for other in usable:
        if other is chosen:
            continue
        if _clash(chosen, other):
            chosen = replace(chosen, asked=f"{_said(chosen)} and {_said(other)} both stand here", amount="0")
        elif other.unit == "" and other.end <= chosen.start and chosen.unit != "" and chosen.start - other.end <= 1:
            chosen = replace(chosen, asked=f"{_said(other)} and {_said(chosen)} stand side by side", amount="0")
        else:
            notes.append(f"{_said(chosen)} taken, {_said(other)} left aside")
    return chosen, notes


def _said(amount: FoundAmount) -> str:
    if amount.is_aside:
        return f"{written(amount.value)} ({amount.unit})"
    return f"{written(amount.value)} {'' if amount.unit == 'container' else amount.unit}".strip()


def _clash(first: FoundAmount, second: FoundAmount) -> bool:
    """Whether two weights, or two volumes, say different things."""
    for sizes in (WEIGHT_G, VOLUME_ML):
        if first.unit in sizes and second.unit in sizes:
            one, two = float(first.value) * sizes[first.unit], float(second.value) * sizes[second.unit]
            return abs(one - two) > TWIN_TOLERANCE * max(one, two, 1e-12)
    return False
