"""Pasted recipe text → a formula file and the notes of what was guessed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import Formula, Line, Portion, Tables
from rosy_kettle.reader import NameIndex, ReadRecipe, is_line_table, read_recipe, table_as_recipes
from rosy_kettle.reference import Synonym, load_synonyms
from rosy_kettle.reference.loader import table_rows

__all__ = ["formula_of", "name_index", "notes_of", "parse_recipe"]

LONGEST_TEXT = 1_000_000  # characters
MOST_LINES = 2_000


def name_index(tables: Tables, learned: Iterable[Synonym] = ()) -> NameIndex:
    """Return the index of all names: reference, everyday and learned."""
    look_alikes = [row["phrase"] for row in table_rows("look_alikes")]
    return NameIndex(tables.ingredients, load_synonyms(), look_alikes, learned)


def parse_recipe(text: str, tables: Tables, learned: Iterable[Synonym] = ()) -> ReadRecipe:
    """Read recipe text, or lines saved as a table, line by line; nothing is dropped.

    Raises
    ------
    InputError
        If the text is over 1 MB or over 2 000 lines.
    """
    if len(text.encode()) > LONGEST_TEXT:
        raise InputError("The text is larger than 1 MB; paste one recipe at a time.", quantity="text")
    if text.count("\n") > MOST_LINES:
        raise InputError("The text has more than 2 000 lines; paste one recipe at a time.", quantity="text")
    forms = {id_: item.form for id_, item in tables.ingredients.items()}
    index = name_index(tables, learned)
    if not is_line_table(text):
        return read_recipe(text, index, forms)
    read = {portion: read_recipe(lines, index, forms) for portion, lines in table_as_recipes(text).items()}
    lines = tuple(replace(line, portion=portion) for portion, recipe in read.items() for line in recipe.lines)
    return ReadRecipe("Formula from a table", lines, tuple(line for recipe in read.values() for line in recipe.aside))


def formula_of(recipe: ReadRecipe, method: str) -> Formula:
    """Return the formula that was read, unknown lines included."""
    portions: dict[str, list[Line]] = {}
    for line in recipe.lines:
        made = Line(
            ingredient=line.ingredient, amount=line.amount, unit=line.unit, text=line.text, phase=line.phase,
            notes=line.notes, suggestions=line.suggestions,
        )  # fmt: skip
        portions.setdefault(line.portion or "body", []).append(made)
    read = tuple(Portion(name, tuple(lines)) for name, lines in portions.items())
    return Formula(name=recipe.name, portions=read or (Portion("body", ()),), method=method)


def notes_of(recipe: ReadRecipe) -> list[str]:
    """Return everything that was guessed or asked, each with its line number."""
    notes = [f"Line {index + 1} ({line.text}): {note}" for index, line in enumerate(recipe.lines) for note in line.notes]
    return notes + [f"Not read as an ingredient: {line}" for line in recipe.aside]
