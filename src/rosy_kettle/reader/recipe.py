"""Reads a whole recipe: items, headings, comments, and what had to be guessed."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from rosy_kettle.reader.amounts import UNIT_RANK, FoundAmount, find_amounts, mask_name_numbers
from rosy_kettle.reader.names import NameIndex, NameMatch, plain

__all__ = ["ReadLine", "ReadRecipe", "read_recipe"]

HEADING_WORDS = frozenset(
    """dry wet phase powder powders liquid liquids topping drizzle embed body base main colour colours color colors scent
    melt melted fats butters oils decoration decorations ingredients part step stage core shell frosting icing dough mix
    mixture extras optional binder binders surfactants for the a b c d i ii iii 1 2 3 4 and to finish top second first
    half outer inner bomb bar scoop truffle""".split()
)
METHOD_HEADING = re.compile(
    r"^\W*(?:method|instructions?|directions?|how to(?: make)?|steps|procedure|to make)\W*$", re.IGNORECASE
)
LIST_HEADING = re.compile(r"^\W*(?:ingredients?|recipe|you(?:'|’)?ll need|you will need|what you need)\W*$", re.IGNORECASE)
BULLET = re.compile(r"^\s*(?:[-–—*•·▪◦‣☐☑✓+>]\s*(?!\d*/)|\[[ xX]?\]\s*|\d{1,2}[.)]\s+(?=\S))")
PROSE_VERB = re.compile(
    r"^(?:mix|add|stir|melt|pour|combine|sift|sieve|knead|roll|leave|let|press|scoop|shape|dry|wear|use|then|blend|place|"
    r"put|wait|rest|work|spray|pack|makes?|yields?|note|enjoy)\b",
    re.IGNORECASE,
)
LEADERS = re.compile(r"\.{3,}|…|_{3,}")  # dots that lead the eye from name to amount
TWIN_AMOUNTS = re.compile(r"(?<=[A-Za-z.])\s*[/=]\s*(?=\d)")  # 250 g / 8.8 oz
AFTERTHOUGHT = re.compile(r"\s+(?:in|for|to|into|from|if|until)\s+.*$", re.IGNORECASE)  # "witch hazel in a spray bottle"
PROSE_WORDS = 7  # a line without amount and with at least this many words is a sentence, not an ingredient
LIQUID_FORMS = frozenset({"liquid", "paste"})
NO_AMOUNT = "no amount given; enter one"
TRIM = " \t:;,.-–—=•*·…"


@dataclass(frozen=True, slots=True)
class ReadLine:
    """One line as it was read, and everything that was guessed about it."""

    text: str
    ingredient: str | None
    amount: str
    unit: str
    phase: str
    notes: tuple[str, ...]
    suggestions: tuple[str, ...] = ()
    portion: str = ""  # only a table of lines names it


@dataclass(frozen=True, slots=True)
class ReadRecipe:
    """A recipe as it was read. ``aside`` are lines taken for title, headings or instructions."""

    name: str
    lines: tuple[ReadLine, ...]
    aside: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Item:
    text: str
    name: str
    comment: str
    amounts: tuple[FoundAmount, ...]


def read_recipe(text: str, index: NameIndex, forms: dict[str, str]) -> ReadRecipe:
    """Read recipe text.

    Parameters
    ----------
    text : str
        What was pasted
    index : NameIndex
        All names known
    forms : dict
        Form of each ingredient by id, to tell liquid ounces

    Returns
    -------
    ReadRecipe
        Lines in order; unknown names kept with ``ingredient`` None
    """
    reader = _Reader(index, forms)
    for raw in text.replace("\r", "\n").replace("\u00a0", " ").split("\n"):
        reader.take(raw)
    return reader.finish()


class _Reader:
    def __init__(self, index: NameIndex, forms: dict[str, str]) -> None:
        self._index = index
        self._forms = forms
        self._name = ""
        self._phase = ""
        self._lines: list[ReadLine] = []
        self._aside: list[str] = []
        self._in_method = False

    def take(self, raw: str) -> None:
        line = LEADERS.sub(" ", BULLET.sub("", raw)).strip()
        line = TWIN_AMOUNTS.sub(" ", line)
        if not line.strip(TRIM):
            return
        if METHOD_HEADING.match(line):
            self._in_method = True
            return
        if LIST_HEADING.match(line):
            self._in_method = False
            return
        if self._in_method and not self._looks_like_item(line):
            self._aside.append(line)
            return
        line = self._strip_heading(line)
        if not line:
            return
        if not find_amounts(_without_brackets(line)) and self._set_aside(line):
            return
        for item in _items(line, self._index):
            self._lines.append(self._line(item))

    def finish(self) -> ReadRecipe:
        lines = _settle_bare_numbers(self._lines)
        return ReadRecipe(self._name or "Pasted recipe", tuple(lines), tuple(self._aside))

    def _looks_like_item(self, line: str) -> bool:
        return (
            any(amount.unit for amount in find_amounts(line)) and len(line.split()) < PROSE_WORDS and not PROSE_VERB.match(line)
        )

    def _strip_heading(self, line: str) -> str:
        """Take a heading off the front of a line; '' when the line was nothing else."""
        head, colon, rest = line.partition(":")
        if colon and not rest.strip():
            if find_amounts(head) and _name_of(head):
                return head
            self._phase = head.strip(TRIM)
            return ""
        if colon and not find_amounts(head) and self._is_heading(head) and _name_of(rest):
            self._phase = head.strip(TRIM)
            return rest.strip()
        if not find_amounts(line) and self._is_heading(line):
            self._phase = line.strip(TRIM)
            return ""
        return line

    def _is_heading(self, text: str) -> bool:
        words = plain(text).split()
        if not words or self._index.match(text).ingredient:
            return False
        return all(word in HEADING_WORDS for word in words)

    def _set_aside(self, line: str) -> bool:
        """Whether a line without amount is title or prose rather than an ingredient."""
        bare = re.sub(r"\(.*?\)", "", line)
        if self._index.match(bare).ingredient or self._index.match(bare.split(",")[0]).ingredient:
            return False
        words = line.split()
        if not self._lines and not self._name and not self._phase and len(words) <= PROSE_WORDS and ";" not in line:
            self._name = line.strip(TRIM + "#")
            return True
        if PROSE_VERB.match(line) or len(words) >= PROSE_WORDS or line.rstrip().endswith((".", "!", "?")):
            self._aside.append(line)
            return True
        return False

    def _line(self, item: _Item) -> ReadLine:
        match = self._match(item)
        chosen, notes = _choose(item.amounts)
        notes = [*([match.note] if match.note else []), *notes]
        if chosen is None:
            amount, unit = "0", "g"
            notes.append(NO_AMOUNT)
        else:
            amount, unit = chosen.amount, chosen.unit
            notes += chosen.notes
        if unit == "oz" and match.ingredient and self._forms.get(match.ingredient) in LIQUID_FORMS:
            notes.append("oz of a liquid read as weight; write fl oz for volume")
        if item.comment and plain(item.comment) and not match.note.startswith('"'):
            notes.append(f"left aside: ({item.comment})")
        if match.ingredient is None:
            notes.append(f'"{item.name}" is not known')
        return ReadLine(item.text, match.ingredient, amount, unit, self._phase, tuple(notes), match.suggestions)

    def _match(self, item: _Item) -> NameMatch:
        if item.comment:
            with_comment = self._index.match(f"{item.name} {item.comment}")
            if with_comment.ingredient and not with_comment.note.startswith('"'):
                return with_comment
        match = self._index.match(item.name)
        if match.ingredient is None and "," in item.name:
            shorter = self._index.match(item.name.split(",")[0])
            return shorter if shorter.ingredient else match
        if match.ingredient is None and AFTERTHOUGHT.search(item.name):
            shorter = self._index.match(AFTERTHOUGHT.sub("", item.name))
            return shorter if shorter.ingredient else match
        if match.ingredient is None and item.comment:
            from_comment = self._index.match(item.comment)
            return from_comment if from_comment.ingredient else match
        return match


def _choose(amounts: tuple[FoundAmount, ...]) -> tuple[FoundAmount | None, list[str]]:
    if not amounts:
        return None, []
    chosen = min(amounts, key=lambda amount: UNIT_RANK.index(amount.unit))
    others = [amount for amount in amounts if amount is not chosen and amount.unit]
    notes = [f"{chosen.amount} {chosen.unit} taken, {other.amount} {other.unit} left aside" for other in others]
    return chosen, notes


def _items(line: str, index: NameIndex) -> list[_Item]:
    items: list[_Item] = []
    for part in line.split(";"):
        items += [_item(text) for text in _split_commas(part, index) if text.strip(TRIM)]
    return items


def _split_commas(text: str, index: NameIndex) -> list[str]:
    """Split at commas between items: before an amount, or between two items that each hold name and amount."""
    masked = mask_name_numbers(text)
    cuts = [m.start() for m in re.finditer(r",(?!\d)|(?<!\d),", masked) if _depth(masked, m.start()) == 0]
    pieces = [text[start:end] for start, end in zip([0, *(cut + 1 for cut in cuts)], [*cuts, len(text)], strict=True)]
    kinds = [(bool(_name_of(piece)), bool(find_amounts(piece))) for piece in pieces]
    groups: list[str] = []
    complete = (False, False)
    for piece, kind in zip(pieces, kinds, strict=True):
        adds_amount_only, adds_name_only = kind == (False, True), kind == (True, False)
        fits = (
            not groups
            or (adds_amount_only and not complete[1])
            or (adds_name_only and (not complete[0] or not _stands_alone(piece, index)))
        )
        if groups and (fits or kind == (False, False)):
            groups[-1] = f"{groups[-1]},{piece}"
            complete = (complete[0] or kind[0], complete[1] or kind[1])
        else:
            groups.append(piece)
            complete = kind
    return groups


def _stands_alone(piece: str, index: NameIndex) -> bool:
    """Whether a comma piece without amount names an ingredient of its own."""
    match = index.match(piece)
    return match.ingredient is not None and not match.note.startswith('"')


def _depth(text: str, position: int) -> int:
    return text.count("(", 0, position) - text.count(")", 0, position)


def _without_brackets(text: str) -> str:
    """Blank what stands in brackets, same length."""
    return re.sub(r"\(.*?\)|\[.*?\]", lambda match: " " * len(match[0]), text)


def _name_of(text: str) -> str:
    name = _without_brackets(text)
    for amount in find_amounts(name):
        name = name[: amount.start] + " " * (amount.end - amount.start) + name[amount.end :]
    return re.sub(r"^(?:of|the)\b\s*", "", " ".join(name.split()).strip(TRIM), flags=re.IGNORECASE)


def _item(text: str) -> _Item:
    brackets = re.findall(r"\((.*?)\)|\[(.*?)\]", text)
    comments, bracket_amounts = [], []
    for round_, square in brackets:
        inner = round_ or square
        amounts = [amount for amount in find_amounts(inner) if amount.unit]
        if amounts and not _name_of(inner):
            bracket_amounts += amounts
        elif inner.strip():
            comments.append(inner.strip())
    amounts = find_amounts(_without_brackets(text))
    return _Item(text.strip(), _name_of(text), ", ".join(comments), (*amounts, *bracket_amounts))


def _settle_bare_numbers(lines: list[ReadLine]) -> list[ReadLine]:
    """Give numbers without unit one: grams where other lines are weighed, else parts."""
    weighed = any(line.unit in {"g", "kg", "oz", "lb"} and line.amount != "0" for line in lines)
    unit, word = ("g", "grams") if weighed else ("part", "parts")
    return [
        replace(line, unit=unit, notes=(*line.notes, f"no unit given, {word} taken")) if line.unit == "" else line
        for line in lines
    ]
