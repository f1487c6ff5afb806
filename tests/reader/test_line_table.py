"""Tables of lines are read back as they were saved."""

from __future__ import annotations

import pytest

from rosy_kettle.reader import is_line_table, table_as_recipes
from rosy_kettle.reference import load_tables
from rosy_kettle.usecases.formulas.parse_recipe import formula_of, parse_recipe


@pytest.mark.parametrize("separator", [",", ";", "\t"])
def test_a_table_is_known_by_its_heading(separator: str) -> None:
    text = separator.join(["Ingredient", "Amount", "Unit"]) + "\n" + separator.join(["glycerin", "46", "g"])
    assert is_line_table(text)
    assert table_as_recipes(text) == {"": "46 g glycerin"}


def test_prose_is_no_table() -> None:
    assert not is_line_table("1 cup baking soda, 2 tbsp glycerin")
    assert not is_line_table("")


def test_every_reference_ingredient_comes_back_from_its_id() -> None:
    tables = load_tables()
    ids = [id_ for id_, item in tables.ingredients.items() if item.role != "fragrance"]
    text = "portion,ingredient,amount,unit\n" + "".join(f"body,{id_},10,g\n" for id_ in ids)
    read = parse_recipe(text, tables)
    assert len(read.lines) == len(ids)
    wrong = {(id_, line.ingredient) for id_, line in zip(ids, read.lines, strict=True) if line.ingredient != id_}
    assert wrong == set()


def test_rows_come_back_to_the_portions_they_name() -> None:
    table = "portion;ingredient;amount\nbody;kaolin;20\nstripe;glycerin;5\nbody;cocoa-butter;12,5\n;water;3\n"
    formula = formula_of(parse_recipe(table, load_tables()))
    lines = [(part.name, [(line.ingredient, line.amount) for line in part.lines]) for part in formula.portions]
    assert lines == [
        ("body", [("kaolin", "20"), ("cocoa-butter", "12.5"), ("distilled-water", "3")]),
        ("stripe", [("glycerin", "5")]),
    ]


def test_missing_cells_are_asked_not_dropped() -> None:
    read = parse_recipe('ingredient,amount\n"Grandmother\'s powder",3\nkaolin,\n', load_tables())
    assert [(line.ingredient, line.amount) for line in read.lines] == [(None, "3"), ("kaolin", "0")]
