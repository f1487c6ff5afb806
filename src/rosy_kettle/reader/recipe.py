"""Reads a whole recipe: items, headings, comments, and what had to be guessed."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from fractions import Fraction

from rosy_kettle.core.deadline import check_time
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import MOST_LINES
from rosy_kettle.reader.amounts import FoundAmount, find_amounts
from rosy_kettle.reader.asides import is_batch_size, is_correction, is_total, is_warning, wished_pieces
from rosy_kettle.reader.items import Item, choose, items_of, name_of, without_brackets
from rosy_kettle.reader.layout import apart, joined, says_which_recipe, without_numbering
from rosy_kettle.reader.names import NameIndex, NameMatch, plain
from rosy_kettle.reader.rates import MARK, with_rates_marked
from rosy_kettle.reader.tidy import plain_text, tidy_line

__all__ = ["ReadLine", "ReadRecipe", "read_recipe"]

HEADING_WORDS = frozenset(
    """dry wet phase powder powders liquid liquids topping drizzle embed body base main colour colours color colors scent
    melt melted fats butters oils decoration decorations ingredients part step stage core shell frosting icing dough mix
    mixture extras optional binder binders surfactants for the a b c d i ii iii 1 2 3 4 and to finish top second first
    half outer inner bomb bar scoop truffle wets dries oil fat acid cooled trocken nass flüssig
    fett sèche humide grasse""".split()
)
PART_WORDS = frozenset("topping drizzle embed embeds frosting icing glaze phase layer layers swirl filling".split())
"""Words that say of a few others that they head a part: "rose topping"."""
METHOD_HEADING = re.compile(
    r"^\W*(?:method|instructions?|directions?|how to(?: make)?|steps|procedure|to make|zubereitung|anleitung|préparation)\W*$",
    re.IGNORECASE,
)
LIST_HEADING = re.compile(
    r"^\W*(?:ingredients?|recipe|you(?:'|’)?ll need|you will need|what you need|zutaten|ingrédients)\W*$", re.IGNORECASE
)
PART = re.compile(
    r"^\W*(?:phase|part|teil|partie|parte|step|layer|stage|schicht)\s*(?:[a-z]|\d{1,2}|[ivx]{1,4})\b\s*[:.–—-]?", re.IGNORECASE
)
LETTERED = r"(?:\([a-h0-9]{1,2}\)|(?:[a-h]|i{1,3}|iv|vi{0,3})[.)])\s+(?=\S)(?!à\b)"
BULLET = re.compile(
    r"^\s*(?:"
    + LETTERED
    + r"|[-–—*•·▪◦‣☐☑✓+>#]+\s*(?!\d*/)|\[[ xX]?\]\s*|\d{1,2}[.)]\s+(?=\S)|(?:step|schritt|étape)\s*\d{1,2}\s*[:.)-]?\s+)+",
    re.IGNORECASE,
)
PROSE_VERB = re.compile(
    r"^(?:(?:in|into|to) (?:a|an|the|another|your) (?:\w+ ){0,2}(?:bowl|jug|pan|jar|bag|pot),? )?"
    r"(?:then |next |now |finally |first |and |slowly |gently |carefully |you(?:['’]ll| will)? )*"
    r"(?:need|mix(?: in)?|add(?: in)?|stir(?: in)?|melt|pour(?: in)?|combine|sift(?: in)?|sieve|knead|roll|leave|let|press|"
    r"scoop|shape|dry|wear|use|then|blend(?: in)?|place|put|wait|rest|work|spray|pack|makes?|yields?|note|enjoy|whisk(?: in)?|"
    r"fold(?: in)?|drizzle|heat|warm|preheat|cool|weigh|measure|drop|dissolve|rub(?: in)?|oven|bake|store|wrap|cut|slice|this|it|"
    r"you|if|when|once|take|tip|set|keep|dust|finish|repeat|divide|split|colou?r)\b[: ]*",
    re.IGNORECASE,
)
LEADERS = re.compile(r"\.{3,}|…|_{3,}")  # dots that lead the eye from name to amount
AFTERTHOUGHT = re.compile(
    r" (?:in|for|to|into|from|if|until|till|over|onto|through|together|slowly|gently|well|at|as|by|per|while|so|on|off|the|all|"
    r"again|first|thoroughly|evenly|each)\b.*$",
    re.IGNORECASE,
)  # "witch hazel in a spray bottle"
LONGEST_LINE = 3_000  # characters; nothing longer is a line of a recipe
SHOWN_OF_LONG_LINE = 200  # characters
MOST_NAMES = 4  # of one thing on a line
PROSE_WORDS = 7  # a line without amount and with at least this many words is a sentence, not an ingredient
LIQUID_FORMS = frozenset({"liquid", "paste"})
DECIMAL_COMMA = re.compile(r"(?<![\d.,])\d+,(?:\d{1,2}|\d{4,})(?![\d,])")
THOUSANDS = "the comma as a thousands sign"
NO_AMOUNT = "no amount given; enter one"
TRIM = " \t:;,.-–—=•*·…#"
LARGEST_PART = 20  # bare numbers up to this are parts, larger ones have lost their unit


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
    unknown_name: str | None = None
    """The name nobody knows, to be learnt with whatever is chosen for it."""


@dataclass(frozen=True, slots=True)
class ReadRecipe:
    """A recipe as it was read.

    ``aside`` are lines taken for title, headings or instructions; ``pieces`` is how many it says it makes.
    """

    name: str
    lines: tuple[ReadLine, ...]
    aside: tuple[str, ...]
    pieces: int | None = None
    others: tuple[ReadRecipe, ...] = ()
    """Further recipes of the same text, each by itself."""


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
        The first recipe of the text, with the others beside it; lines in order; unknown names kept with ``ingredient`` None, an
        amount that cannot be taken as it stands is 0 and asked for in the notes
    """
    lines = without_numbering(plain_text(text).split("\n"))

    def known(words: str) -> bool:
        found = index.exact(words)
        return found is not None and found.ingredient is not None

    parts = apart(lines, known, lambda words: is_heading(words, index))
    read = [_read_one(joined(lines[first:last], known), index, forms) for first, last in parts]
    return replace(read[0], others=tuple(read[1:]))


def _read_one(lines: list[str], index: NameIndex, forms: dict[str, str]) -> ReadRecipe:
    reader = _Reader(index, forms)
    first = next((at for at, line in enumerate(lines) if line.strip()), 0)
    titled = bool(lines) and says_which_recipe(lines[first])
    for raw in lines[first + titled :]:
        reader.take(raw)
    read = reader.finish()
    return replace(read, name=tidy_line(lines[first]).strip(TRIM)) if titled else read


def is_heading(text: str, index: NameIndex) -> bool:
    """Return whether a text heads a part of a recipe: "Phase B (oil)", "Part 1: dry", "For the drizzle"."""
    words = plain(without_brackets(PART.sub(" ", text))[0]).split()
    if index.match(text).ingredient:
        return False
    if not words:
        return PART.match(text) is not None
    return all(word in HEADING_WORDS for word in words) or (words[-1] in PART_WORDS and len(words) < PROSE_WORDS)


class _Reader:
    def __init__(self, index: NameIndex, forms: dict[str, str]) -> None:
        self._index = index
        self._forms = forms
        self._name = ""
        self._phase = ""
        self._lines: list[ReadLine] = []
        self._aside: list[str] = []
        self._pieces: int | None = None
        self._in_method = False
        self._rate = ""
        self._seen: set[tuple[str, Fraction, str]] = set()

    def take(self, raw: str) -> None:
        check_time()
        if len(raw) > LONGEST_LINE:
            self._aside.append(f"{raw[:SHOWN_OF_LONG_LINE].strip()} … ({len(raw)} characters on one line)")
            return
        line = tidy_line(LEADERS.sub(" ", BULLET.sub("", tidy_line(raw)))).replace("\t", " ")
        if not line.strip(TRIM):
            return
        if METHOD_HEADING.match(line):
            self._in_method = True
            return
        if LIST_HEADING.match(line):
            self._in_method = False
            return
        if is_batch_size(line) or is_correction(line):
            self._aside.append(line)
            return
        pieces = wished_pieces(line)
        self._pieces = pieces if self._pieces is None else self._pieces
        if self._is_aside(line, pieces) or (self._in_method and not self._looks_like_item(line)):
            self._aside.append(line)
            return
        line = self._strip_heading(line)
        if not line:
            return
        line, self._rate = with_rates_marked(line)
        if not self._holds_amount(line) and self._set_aside(line):
            return
        self._take_items(line)

    def finish(self) -> ReadRecipe:
        lines = _settle_bare_numbers(_settle_commas(self._lines))
        return ReadRecipe(self._name or "Pasted recipe", tuple(lines), tuple(self._aside), self._pieces)

    def _take_items(self, line: str) -> None:
        told = PROSE_VERB.match(line)
        prose = told is not None and not self._index.exact(name_of(line) or "?")
        for item in items_of(line[told.end() :] if told and prose else line, self._stands_alone):
            verb = PROSE_VERB.match(item.name)
            told_first = (
                verb is not None and item.name[verb.end() :] and (prose or self._index.match(item.name).ingredient is None)
            )
            bare = replace(item, name=item.name[verb.end() :]) if verb and told_first else item
            read, value = self._line(bare)
            known = (read.ingredient or "", value, read.unit)
            if prose and (read.ingredient is None or known in self._seen or not any(not a.is_aside for a in item.amounts)):
                self._aside.append(item.text if known not in self._seen else f"{item.text} (stands in the list already)")
                continue
            self._seen.add(known)
            self._lines.append(read)
            if len(self._lines) > MOST_LINES:
                raise InputError("The text names more than 2 000 things; paste one recipe at a time.", quantity="text")

    def _is_aside(self, line: str, pieces: int | None) -> bool:
        """Whether a line is a yield, a sum or a warning; a title may say how many it makes."""
        bare, _inside = without_brackets(line)
        if is_total(line):
            return True
        if pieces is not None and wished_pieces(bare) is not None:
            return True
        warned = is_warning(bare)
        return warned and (PROSE_VERB.match(bare) is not None or not self._head_is_item(bare))

    def _head_is_item(self, line: str) -> bool:
        """Whether what stands before a "do not" is an item with name and amount."""
        head = re.split(r"\b(?:never|do not|don|must|no more|not|avoid|at most|max)\b", line, maxsplit=1, flags=re.IGNORECASE)[0]
        return self._holds_amount(head) and self._index.match(name_of(head)).ingredient is not None

    def _holds_amount(self, line: str) -> bool:
        return any(not amount.is_aside for amount in find_amounts(without_brackets(line)[0]))

    def _looks_like_item(self, line: str) -> bool:
        measured = any(amount.unit and not amount.is_aside for amount in find_amounts(line))
        return measured and len(line.split()) < PROSE_WORDS and not PROSE_VERB.match(line)

    def _strip_heading(self, line: str) -> str:
        """Take a heading off the front of a line; '' when the line was nothing else."""
        if PART.match(line) and self._is_heading(line):
            self._phase = line.strip(TRIM)
            return ""
        head, colon, rest = line.partition(":")
        if colon and not rest.strip():
            if find_amounts(head) and name_of(head):
                return head
            self._phase = head.strip(TRIM)
            return ""
        if colon and not find_amounts(head) and self._is_heading(head) and name_of(rest):
            self._phase = head.strip(TRIM)
            return rest.strip()
        if not find_amounts(line) and self._is_heading(line):
            self._phase = line.strip(TRIM)
            return ""
        return line

    def _is_heading(self, text: str) -> bool:
        return is_heading(text, self._index)

    def _set_aside(self, line: str) -> bool:
        """Whether a line without amount is title or prose rather than an ingredient."""
        bare = without_brackets(line)[0]
        words = line.split()
        if re.match(r"^\W*(?:no|not|never|ohne|sans)\b", line, re.IGNORECASE):
            self._aside.append(line)
            return True
        if self._index.match(bare).ingredient or self._index.match(bare.split(",")[0]).ingredient:
            return False
        if not self._lines and not self._name and not self._phase and len(words) <= PROSE_WORDS and ";" not in line:
            if find_amounts(bare):
                self._aside.append(line)
            else:
                self._name = line.strip(TRIM)
            return True
        if PROSE_VERB.match(line) or len(words) >= PROSE_WORDS or line.rstrip().endswith((".", "!", "?")) or find_amounts(line):
            self._aside.append(line)
            return True
        return False

    def _stands_alone(self, piece: str) -> bool:
        found = self._index.exact(piece)
        return found is not None and not found.note.startswith('"')

    def _line(self, item: Item) -> tuple[ReadLine, Fraction]:
        """One item as a line, and its value before it was asked about."""
        item, strength = self._with_strength(item)
        match, misfit = self._match(item, strength)
        chosen, notes = choose(item.amounts)
        notes = [*([match.note] if match.note else []), *notes, *misfit]
        rate = self._rate if MARK in item.text else ""
        if rate and chosen is not None and not chosen.asked:
            chosen = replace(chosen, asked=f"{chosen.amount} {chosen.unit} {rate} goes by another amount", amount="0")
        amount, unit, asked = _amount_of(chosen)
        notes += asked
        text = " ".join(item.text.replace(MARK, rate).split())
        if unit == "oz" and match.ingredient and self._forms.get(match.ingredient) in LIQUID_FORMS:
            notes.append("oz of a liquid read as weight; write fl oz for volume")
        comments = [comment for comment in item.comments if plain(comment) and not match.note.startswith('"')]
        notes += [f"left aside: ({comment})" for comment in comments]
        unknown = item.name.replace(MARK, "").strip() if match.ingredient is None else None
        if unknown is not None:
            notes.append(f'"{unknown}" is not known')
        read = ReadLine(text, match.ingredient, amount, unit, self._phase, tuple(notes), match.suggestions, unknown_name=unknown)
        return read, chosen.value if chosen else Fraction(0)

    def _with_strength(self, item: Item) -> tuple[Item, float | None]:
        """Part a strength from the amounts: "20 g isopropyl alcohol (70%)", "30 g SLES 28 %", "20 g 91 alcohol"."""
        numbers = [amount for amount in item.amounts if amount.unit in {"pct", ""} and not amount.asked]
        others = [amount for amount in item.amounts if (amount.unit not in {"pct", ""} or amount.asked) and not amount.is_aside]
        inside = [a for comment in item.comments for a in find_amounts(comment) if a.unit == "pct"]
        ingredient = self._index.match(item.name).ingredient if numbers or inside else None
        if ingredient is None or self._index.at_strength(ingredient, 0.0) is None:
            return item, None
        if inside and item.amounts:
            kept = tuple(comment for comment in item.comments if not find_amounts(comment))
            return replace(item, comments=kept), float(inside[0].value)
        for amount in numbers:
            found = self._index.at_strength(ingredient, float(amount.value))
            certain = found is not None and found.ingredient is not None
            if (others and (amount.unit == "pct" or certain)) or (certain and amount.unit == "pct" and "alcohol" in ingredient):
                return replace(item, amounts=tuple(a for a in item.amounts if a is not amount)), float(amount.value)
        return item, None

    def _match(self, item: Item, strength: float | None) -> tuple[NameMatch, list[str]]:
        """Return the ingredient of an item, and what its comments say against it."""
        match = self._named(item)
        if match.ingredient is None:
            return match, []
        if strength is not None and (stronger := self._index.at_strength(match.ingredient, strength)) is not None:
            return stronger, []
        behind = item.name.partition(",")[2] if self._index.exact(item.name) is None else ""
        wrong = next((w for text in (*item.comments, behind) if (w := self._misfit(match.ingredient, text))), "")
        if wrong:
            return NameMatch(
                None,
                f'"{wrong}" does not fit {match.ingredient.replace("-", " ")}',
                (match.ingredient, *self._index.nearest(item.name))[:3],
            ), []
        return match, []

    def _misfit(self, ingredient: str, comment: str) -> str:
        negated = re.match(r"^\W*(?:not|no|never|without|nicht|sans)\b", comment, re.IGNORECASE)
        return "" if negated else self._index.contradiction(ingredient, comment)

    def _named(self, item: Item) -> NameMatch:
        said = [comment for comment in item.comments if not re.match(r"^\W*(?:not|no|never|without)\b", comment, re.IGNORECASE)]
        for comment in said:
            found = self._index.exact(f"{item.name} {comment}")
            if found is not None:
                return found
        match = self._index.match(item.name)
        if match.ingredient is not None or match.note:
            return match
        if (same := self._two_names(item.name)) is not None:
            return same
        for shorter in (item.name.split(",")[0], AFTERTHOUGHT.sub("", item.name), *said):
            if shorter != item.name:
                found = self._index.match(shorter)
                if found.ingredient:
                    return found
        return match

    def _two_names(self, name: str) -> NameMatch | None:
        """Read "corn starch / cornflour" where both names lead to one ingredient; else offer both."""
        parts = [part for part in re.split(r"/|\bor\b|\boder\b|\bou\b", name) if part.strip(TRIM)]
        if not 1 < len(parts) <= MOST_NAMES:
            return None
        found = [self._index.match(part) for part in parts]
        ids = tuple(dict.fromkeys(each.ingredient for each in found if each.ingredient))
        if len(ids) == 1 and all(each.ingredient for each in found):
            return found[0]
        suggestions = tuple(dict.fromkeys((*ids, *self._index.nearest(name))))[:3]
        return NameMatch(None, suggestions=suggestions) if ids else None


def _amount_of(chosen: FoundAmount | None) -> tuple[str, str, list[str]]:
    """Amount and unit as they go into the line, and the notes; what cannot be taken becomes 0 g and is asked for."""
    if chosen is None:
        return "0", "g", [NO_AMOUNT]
    if chosen.asked:
        return "0", "g", [*chosen.notes, f"{chosen.asked}; enter the amount"]
    if chosen.unit == "container":
        return (
            "0",
            "g",
            [
                *chosen.notes,
                f"how much each of {chosen.amount} holds is not said; enter the amount"
                if chosen.amount != "1"
                else "how much it holds is not said; enter the amount",
            ],
        )
    return chosen.amount, chosen.unit, list(chosen.notes)


def _settle_commas(lines: list[ReadLine]) -> list[ReadLine]:
    """Ask about "1,500" where another line writes decimals with a comma: it may be one and a half there."""
    if not any(DECIMAL_COMMA.search(line.text) for line in lines):
        return lines
    asked = "the other lines write decimals with a comma; enter the amount"
    return [
        replace(line, amount="0", unit="g", notes=(*line.notes, asked)) if any(THOUSANDS in note for note in line.notes) else line
        for line in lines
    ]


def _settle_bare_numbers(lines: list[ReadLine]) -> list[ReadLine]:
    """Give numbers without unit one: grams beside weights, else parts; large ones, or those among cups, are asked about."""
    bare = [line for line in lines if line.unit == ""]
    if not bare:
        return lines
    weighed = any(line.unit in {"g", "kg", "oz", "lb"} and line.amount != "0" for line in lines)
    measured = any(line.unit not in {"", "part"} and line.amount != "0" for line in lines)
    large = any(_value(line.amount) > LARGEST_PART for line in bare)
    settled = []
    for line in lines:
        if line.unit:
            settled.append(line)
        elif weighed:
            settled.append(replace(line, unit="g", notes=(*line.notes, "no unit given, grams taken")))
        elif measured:
            asked = f"{line.amount} has no unit; enter the amount"
            settled.append(replace(line, amount="0", unit="g", notes=(*line.notes, asked)))
        elif large:
            asked = "no unit given: are these grams? grams taken until you say otherwise"
            settled.append(replace(line, unit="g", notes=(*line.notes, asked)))
        else:
            settled.append(replace(line, unit="part", notes=(*line.notes, "no unit given, parts taken")))
    return settled


def _value(amount: str) -> Fraction:
    whole, _space, rest = amount.partition(" ")
    return Fraction(whole) + (Fraction(rest) if rest else 0)
