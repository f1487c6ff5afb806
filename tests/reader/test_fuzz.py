"""Twenty thousand texts from a grammar, and as many as hypothesis likes: no stumble, no amount lost."""

from __future__ import annotations

import contextlib
import random
import re
import time
from fractions import Fraction

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.errors import InputError
from rosy_kettle.reader import ReadRecipe, read_recipe
from rosy_kettle.reference import load_tables
from rosy_kettle.usecases.formulas.parse_recipe import name_index, parse_recipe

FORMS = {id_: item.form for id_, item in load_tables().ingredients.items()}
INDEX = name_index(load_tables())
NAMES = {
    "baking soda": "baking-soda", "bicarb": "baking-soda", "citric acid": "citric-acid-anhydrous", "kaolin": "kaolin",
    "glycerin": "glycerin", "cocoa butter": "cocoa-butter", "Natron": "baking-soda", "corn starch": "corn-starch",
}  # fmt: skip
UNITS = {
    "g": "g", "grams": "g", "kg": "kg", "oz": "oz", "lb": "lb", "cups": "cup", "cup": "cup", "tbsp": "tbsp", "T": "tbsp", "TB": "tbsp",
    "tsp": "tsp", "ml": "ml", "EL": "tbsp", "TL": "tsp", "fl oz": "floz",
}  # fmt: skip
NUMBERS: list[tuple[str, Fraction]] = [
    ("1 and 1/2", Fraction(3, 2)), ("2 & 1/4", Fraction(9, 4)), ("1+1/2", Fraction(3, 2)), ("3-1/2", Fraction(7, 2)), ("1½", Fraction(3, 2)),
    ("1-½", Fraction(3, 2)), ("2 ⅔", Fraction(8, 3)), ("3/4", Fraction(3, 4)), ("7", Fraction(7)), ("12", Fraction(12)), ("0.75", Fraction(3, 4)),
    ("0,75", Fraction(3, 4)), (".5", Fraction(1, 2)), ("1·5", Fraction(3, 2)), ("one and a half", Fraction(3, 2)), ("two", Fraction(2)),
    ("eleven", Fraction(11)), ("two and three quarters", Fraction(11, 4)), ("three quarters of a", Fraction(3, 4)), ("1/2 of a", Fraction(1, 2)),
    ("15", Fraction(15)), ("2 x 3", Fraction(6)), ("1 to 2", Fraction(3, 2)), ("2–4", Fraction(3)),
]  # fmt: skip
LARGE = [
    ("1 000", Fraction(1000)),
    ("1'200", Fraction(1200)),
    ("2 500", Fraction(2500)),
    ("1,250", Fraction(1250)),
    ("1.250,5", Fraction("1250.5")),
]
PATTERNS = [
    "{n} {u} {name}",
    "{n} {u} of {name}",
    "- {n} {u} {name}",
    "{name} {n} {u}",
    "{name}: {n} {u}",
    "{name} ({n} {u})",
    "• {name}, {n} {u}",
    "{n} {u} {name} (not baking powder)",
]
JUNK = [
    *list("()[]/-–+&,.;:|%'’½⅔ \t0123456789abcdefghijklT°€$#~²①"),
    "cup",
    " and ",
    " to ",
    "1/0",
    "1.200",
    "  ",
    "\n",
    "of a ",
    "<li>",
    "x 2",
    "each",
]


def read(text: str) -> ReadRecipe:
    return read_recipe(text, INDEX, FORMS)


def value(amount: str) -> Fraction:
    return sum((Fraction(part) for part in amount.split()), Fraction(0))


def test_fifteen_thousand_items_keep_their_amounts() -> None:
    dice = random.Random(9)
    for _ in range(15_000):
        unit = dice.choice(list(UNITS))
        number, meant = dice.choice(LARGE if UNITS[unit] in {"g", "ml"} and dice.random() < 0.4 else NUMBERS)
        name = dice.choice(list(NAMES))
        if number.endswith(" a") and unit not in {"cup", "tbsp", "tsp"}:
            continue
        text = dice.choice(PATTERNS).format(n=number, u=unit, name=name)
        lines = read(text).lines
        assert len(lines) == 1, (text, lines)
        found = lines[0]
        assert (found.ingredient, found.unit) == (NAMES[name], UNITS[unit]), (text, found)
        assert abs(value(found.amount) - meant) < Fraction(1, 10**9), (text, found)


def test_five_thousand_heaps_of_signs_are_read_without_a_stumble() -> None:
    dice = random.Random(10)
    for _ in range(5_000):
        text = "".join(dice.choice(JUNK) for _ in range(dice.randrange(1, 40)))
        for line in read(text).lines:
            assert line.unit == "" or value(line.amount) >= 0, text


@given(st.text(max_size=300))
@settings(max_examples=300, deadline=None)
def test_any_text_is_read_and_what_is_written_can_be_weighed(text: str) -> None:
    parse_recipe(text, load_tables())


def test_no_number_is_dropped_without_a_word() -> None:
    dice = random.Random(11)
    for _ in range(2_000):
        first, second, extra = (dice.randrange(1, 900) for _ in range(3))
        text = dice.choice([
            f"{first} g kaolin {extra}", f"{first} g kaolin, {second} g bicarb", f"{first} g kaolin ({extra} ml)", f"kaolin {first} / {extra}",
            f"Mix {first} g kaolin for {extra} minutes", f"{first} g kaolin and {second} g citric acid at {extra} °C", f"{extra} {first} g kaolin",
        ])  # fmt: skip
        read_back = read(text)
        told = " ".join([*(f"{line.amount} {' '.join(line.notes)}" for line in read_back.lines), *read_back.aside])
        told_numbers = {Fraction(number) for number in re.findall(r"\d+(?:\.\d+)?", told)}
        for number in map(Fraction, re.findall(r"\d+", text)):
            over = {Fraction(first, extra), Fraction(first * 1000 + extra)}
            joined = {Fraction(f"{float(each):.12g}") for each in over} | {Fraction(extra * 1000 + first), Fraction(first, 1)}
            assert number in told_numbers or told_numbers & joined, (text, told)


@pytest.mark.clock
def test_a_hundred_kilobytes_of_anything_are_read_in_two_seconds() -> None:
    """Of processor time, which other work on the machine does not lengthen."""
    for part in (" ", "(", "a ", "1 ", "1/2 ", "soda, ", "and ", "9", "200 g soda, "):
        for text in (part * (100_000 // len(part)), "\n".join([part * (2_900 // len(part))] * 34)):
            began = time.process_time()
            with contextlib.suppress(InputError):  # more things than a formula may hold, said early
                read(text)
            assert time.process_time() - began < 2.0, (part, len(text.splitlines()))
