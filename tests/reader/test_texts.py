"""150 recipe texts: nothing silently wrong, nearly all right, the rest asked."""

from __future__ import annotations

import pytest

from rosy_kettle.core.amounts import parse_amount
from rosy_kettle.reader import ReadLine
from rosy_kettle.reference import load_tables
from rosy_kettle.usecases.formulas.parse_recipe import parse_recipe
from tests.reader.texts import TEXTS
from tests.reader.texts_more import MORE_TEXTS

ASKING = ("enter", "is not known", "no amount", "does not fit", "on file", "are these grams")


def asks(line: ReadLine) -> bool:
    return (line.ingredient is None or line.amount == "0") and any(word in " ".join(line.notes) for word in ASKING)


def fits(line: ReadLine, wish: str) -> bool:
    amount, _, rest = wish.rpartition(" ")
    if wish.startswith("? "):
        return line.ingredient is None and len(line.suggestions) == 3
    if wish.startswith("ask"):
        return asks(line) and wish in {"ask", f"ask {line.ingredient}"}
    value, _, unit = amount.rpartition(" ")
    return (line.ingredient, line.unit) == (rest, unit) and parse_amount(line.amount) == pytest.approx(parse_amount(value))


def judge(text: str, wish: str) -> str:
    """Say right, asked or wrong."""
    lines = parse_recipe(text, load_tables()).lines
    wanted = [each for each in wish.split("; ") if each]
    if len(lines) == len(wanted) and all(map(fits, lines, wanted)):
        return "right"
    return "asked" if lines and all(asks(line) or any(fits(line, each) for each in wanted) for line in lines) else "wrong"


@pytest.mark.parametrize(("text", "wish"), TEXTS, ids=[text[:40] for text, _ in TEXTS])
def test_no_text_is_silently_wrong(text: str, wish: str) -> None:
    assert judge(text, wish) != "wrong", [
        (x.ingredient, x.amount, x.unit, x.notes) for x in parse_recipe(text, load_tables()).lines
    ]


def test_nine_texts_in_ten_are_right_and_there_are_enough_of_them() -> None:
    judged = [judge(text, wish) for text, wish in TEXTS]
    assert len(judged) >= 150
    assert judged.count("right") >= 0.9 * len(judged)


@pytest.mark.parametrize(("text", "wish"), MORE_TEXTS, ids=[text[:40] for text, _ in MORE_TEXTS])
def test_no_further_text_is_silently_wrong(text: str, wish: str) -> None:
    assert judge(text, wish) != "wrong", [
        (x.ingredient, x.amount, x.unit, x.notes) for x in parse_recipe(text, load_tables()).lines
    ]


def test_of_the_further_texts_nineteen_in_twenty_are_right() -> None:
    judged = [judge(text, wish) for text, wish in MORE_TEXTS]
    assert len(judged) >= 200
    assert judged.count("right") >= 0.95 * len(judged)


ONE = "300 g baking soda\n150 g citric acid\n60 g corn starch"
SEVERAL = [
    (f"Rose scoops\n{ONE}\n\nLemon balls\n{ONE}", ["Rose scoops", "Lemon balls"]),
    (f"{ONE}\n\nRose scoops\n120 g SLSA\n40 g glycerin", ["Pasted recipe", "Rose scoops"]),
    (f"Evening calm\n\n{ONE}\n\nMorning light\n\n{ONE}", ["Evening calm", "Morning light"]),
    (f"Recipe number 1\n{ONE}\nRecipe number 2\n80 g cocoa butter\n20 g shea butter", ["Recipe number 1", "Recipe number 2"]),
    (f"Rezept 1\n{ONE}\n\nRezept 2\n{ONE}\n\nRezept 3\n{ONE}", ["Rezept 1", "Rezept 2", "Rezept 3"]),
    (f"Rose bars\n{ONE}\n\nRose topping\n20 g cocoa butter\n10 g shea butter", ["Rose bars"]),
    (f"Rose bars\n{ONE}\n\nDrizzle\n20 g cocoa butter\n10 g shea butter", ["Rose bars"]),
    (f"Rose bars\n\n{ONE}\n\nMethod\nMix it all.\nPress into moulds.", ["Rose bars"]),
]


@pytest.mark.parametrize(("text", "names"), SEVERAL)
def test_several_recipes_of_one_paste_are_read_apart(text: str, names: list[str]) -> None:
    read = parse_recipe(text, load_tables())
    told = [read, *read.others]
    assert [each.name for each in told] == names
    assert all(line.ingredient for each in told for line in each.lines)
    assert all(len(each.lines) >= 2 for each in told)
