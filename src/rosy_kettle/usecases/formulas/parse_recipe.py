"""Pasted recipe text → a formula file and the notes of what was guessed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import MOST_LINES, Formula, Line, Piece, Portion, Tables
from rosy_kettle.reader import NameIndex, ReadLine, ReadRecipe, is_line_table, plain_text, read_recipe, table_as_recipes
from rosy_kettle.reference import Synonym, load_strengths, load_synonyms
from rosy_kettle.reference.loader import table_rows

__all__ = ["formula_of", "name_index", "notes_of", "parse_recipe"]

LONGEST_TEXT = 1_000_000  # characters
LIQUID_COLOUR = "liquid-colour-water"
LONGEST_LINE_TEXT, LONGEST_PHASE = 500, 100  # characters, as the formula file holds them


def name_index(tables: Tables, learned: Iterable[Synonym] = ()) -> NameIndex:
    """Return the index of all names: reference, everyday and learned."""
    look_alikes = [row["phrase"] for row in table_rows("look_alikes")]
    return NameIndex(tables.ingredients, load_synonyms(), look_alikes, learned, load_strengths())


def parse_recipe(text: str, tables: Tables, learned: Iterable[Synonym] = ()) -> ReadRecipe:
    """Read recipe text, or lines saved as a table, line by line; nothing is dropped.

    Every line that comes back can be weighed, or asks for its amount.

    Raises
    ------
    InputError
        If the text is over 1 MB or over 2 000 lines.
    """
    if len(text.encode()) > LONGEST_TEXT:
        raise InputError("The text is larger than 1 MB; paste one recipe at a time.", quantity="text")
    text = plain_text(text)
    if len(text.splitlines()) > MOST_LINES:
        raise InputError("The text has more than 2 000 lines; paste one recipe at a time.", quantity="text")
    forms = {id_: item.form for id_, item in tables.ingredients.items()}
    index = name_index(tables, learned)
    if not is_line_table(text):
        read = read_recipe(text, index, forms)
        others = tuple(replace(each, lines=_weighable(each.lines, tables)) for each in read.others)
        return replace(read, lines=_weighable(read.lines, tables), others=others)
    parts = {portion: read_recipe(lines, index, forms) for portion, lines in table_as_recipes(text).items()}
    lines = tuple(replace(line, portion=portion) for portion, recipe in parts.items() for line in recipe.lines)
    aside = tuple(line for recipe in parts.values() for line in recipe.aside)
    return ReadRecipe("Formula from a table", _weighable(lines, tables), aside)


def _weighable(lines: tuple[ReadLine, ...], tables: Tables) -> tuple[ReadLine, ...]:
    """Turn amounts that a formula cannot hold (drops of a powder, parts beside weights) into asked ones."""
    found = list(lines)
    for _ in range(len(found)):
        try:
            weigh_formula(formula_of(ReadRecipe("", tuple(found), ())), tables)
        except InputError as error:
            at = int(str(error.facts.get("line", 1))) - 1
            if (coloured := _drops_of_dye(found[at], tables)) is not None:
                found[at] = coloured
                continue
            line, reason = found[at], error.message.partition(": ")[2].rstrip(".")
            asked = f"{line.amount} {line.unit} cannot be taken: {reason}; enter the amount"
            found[at] = replace(line, amount="0", unit="g", notes=(*line.notes, asked))
        else:
            break
    return tuple(found)


def _drops_of_dye(line: ReadLine, tables: Tables) -> ReadLine | None:
    """Return a line that counts drops of a dye as drops of a liquid colour, asked; None for another line."""
    if line.unit != "drop" or line.ingredient is None or line.ingredient == LIQUID_COLOUR:
        return None
    if not tables.ingredients[line.ingredient].has("dye"):
        return None
    asked = "drops of a dye weighed as a liquid colour: is it one? Else choose the dye and enter its grams"
    kinds = tuple(dict.fromkeys((LIQUID_COLOUR, line.ingredient, *line.suggestions)))[:3]
    return replace(line, ingredient=LIQUID_COLOUR, notes=(*line.notes, asked), suggestions=kinds)


def formula_of(recipe: ReadRecipe, method: str = "") -> Formula:
    """Return the formula that was read, unknown lines included."""
    portions: dict[str, list[Line]] = {}
    for line in recipe.lines:
        made = Line(
            ingredient=line.ingredient, amount=line.amount, unit=line.unit,
            text=line.text[:LONGEST_LINE_TEXT], phase=line.phase[:LONGEST_PHASE], notes=line.notes, suggestions=line.suggestions,
        )  # fmt: skip
        portions.setdefault(line.portion or "body", []).append(made)
    read = tuple(Portion(name, tuple(lines)) for name, lines in portions.items())
    piece = Piece(wished_pieces=recipe.pieces)
    return Formula(name=recipe.name, portions=read or (Portion("body", ()),), method=method, piece=piece)


def notes_of(recipe: ReadRecipe) -> list[str]:
    """Return everything that was guessed or asked, each with its line number."""
    notes = [f"Line {index + 1} ({line.text}): {note}" for index, line in enumerate(recipe.lines) for note in line.notes]
    notes += [f"Makes {recipe.pieces} pieces: kept as the wished number, not as a line."] if recipe.pieces else []
    if recipe.others:
        names = ", ".join(f'"{each.name}"' for each in recipe.others)
        notes.append(f"The text holds {len(recipe.others) + 1} recipes; this is the first, under others stand {names}.")
    return notes + [f"Not read as an ingredient: {line}" for line in recipe.aside]
