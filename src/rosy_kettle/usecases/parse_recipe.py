"""Pasted recipe text → a formula file and the notes of what was guessed."""

from __future__ import annotations

from collections.abc import Iterable

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import Formula, Line, Portion, Tables
from rosy_kettle.reader import NameIndex, ReadRecipe, is_line_table, read_recipe, table_as_recipe
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
    if is_line_table(text):
        text = table_as_recipe(text)
    return read_recipe(text, name_index(tables, learned), forms)


def formula_of(recipe: ReadRecipe, method: str) -> Formula:
    """Return the formula that was read, unknown lines included."""
    lines = tuple(
        Line(
            ingredient=line.ingredient, amount=line.amount, unit=line.unit, text=line.text, phase=line.phase,
            notes=line.notes, suggestions=line.suggestions,
        )
        for line in recipe.lines
    )  # fmt: skip
    return Formula(name=recipe.name, portions=(Portion("body", lines),), method=method)


def notes_of(recipe: ReadRecipe) -> list[str]:
    """Return everything that was guessed or asked, each with its line number."""
    notes = [f"Line {index + 1} ({line.text}): {note}" for index, line in enumerate(recipe.lines) for note in line.notes]
    return notes + [f"Not read as an ingredient: {line}" for line in recipe.aside]
