"""150 recipe texts: nothing silently wrong, nearly all right, the rest asked."""

from __future__ import annotations

import pytest

from rosy_kettle.core.amounts import parse_amount
from rosy_kettle.reader import ReadLine
from rosy_kettle.reference import load_tables
from rosy_kettle.usecases.formulas.parse_recipe import parse_recipe
from tests.reader.texts import TEXTS

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
