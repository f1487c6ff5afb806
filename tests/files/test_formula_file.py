"""The formula file: what is read, what is refused, in which words."""

from __future__ import annotations

import json

import pytest

from rosy_kettle.core.errors import InputError
from rosy_kettle.files import formula_from_file, formula_to_file, read_formula_json
from rosy_kettle.reference import load_tables
from rosy_kettle.usecases.formulas.check_formula import check_formula

HEAD = {"format": "rosy-kettle/formula", "version": 1, "name": "Example"}


def text_of(**changes: object) -> str:
    return json.dumps(HEAD | changes)


def with_line(**line: object) -> str:
    return text_of(portions=[{"name": "body", "lines": [{"ingredient": "baking-soda", "amount": "1", "unit": "g"} | line]}])


def test_only_the_head_is_needed() -> None:
    formula = formula_from_file(read_formula_json(text_of()))
    assert (formula.batch_g, formula.room.temperature_c, formula.use.tub_l) == (1000, 21, 150)
    assert check_formula(read_formula_json(text_of()), load_tables()).method == "betaine-dough"


def test_a_partly_given_object_keeps_the_other_defaults() -> None:
    formula = formula_from_file(read_formula_json(text_of(use={"tub_l": 70})))
    assert (formula.use.tub_l, formula.use.bath_c, formula.use.hardness) == (70, 38, "moderate")


def test_a_file_survives_the_round_trip() -> None:
    text = text_of(
        method="melt", batch_g=500, piece={"mass_g": 20}, product={"markets": ["EU"]},
        portions=[
            {"name": "body", "share_pct": 80, "lines": [{"ingredient": "cocoa-butter", "amount": "2/3", "unit": "cup", "locked": True}]},
            {"name": "drizzle", "mass_g": 30, "split": "wet", "lines": [{"ingredient": None, "amount": "1", "unit": "g", "text": "?"}]},
        ],
    )  # fmt: skip
    once = formula_from_file(read_formula_json(text))
    assert formula_from_file(formula_to_file(once)) == once


def test_a_byte_order_mark_is_no_fault() -> None:
    assert read_formula_json(b"\xef\xbb\xbf" + text_of().encode()).name == "Example"


def test_plain_numbers_are_taken_as_amounts() -> None:
    file = read_formula_json(with_line(amount=218))
    assert file.portions[0].lines[0].amount == "218"


@pytest.mark.parametrize(
    ("text", "sentence"),
    [
        ('{"format": ', "broken JSON at line 1, column"),
        ("[]", "one JSON object"),
        ('{"version": 1}', 'field "format" is missing'),
        (text_of(version=2), 'field "version" is wrong'),
        (text_of(format="else"), 'field "format" is wrong'),
        (text_of(method="alchemy"), 'field "method" is wrong'),
        (text_of(batch_g="much"), 'field "batch_g" is wrong'),
        (text_of(batch_g=-1), 'field "batch_g" is wrong'),
        ('{"format": "rosy-kettle/formula", "version": 1, "name": "x", "batch_g": NaN}', "NaN is not a number"),
        ('{"format": "rosy-kettle/formula", "version": 1, "name": "x", "batch_g": Infinity}', "Infinity is not a number"),
        (with_line(amount=["a"]), r'Line 1 \(baking-soda\): the field "amount" is wrong'),
        (with_line(amount=True), r'Line 1 \(baking-soda\): the field "amount" is wrong'),
        (with_line(locked="yes"), r'Line 1 \(baking-soda\): the field "locked" is wrong'),
        (text_of(use={"hardness": "wet"}), 'field "hardness" is wrong'),
        (text_of(room={"humidity_pct": 140}), 'field "humidity_pct" is wrong'),
        (text_of(name="x" * 1_000_001), "larger than 1 MB"),
        (text_of(portions=[{"lines": [{}] * 2001}]), "more than 2 000 lines"),
    ],
)
def test_what_is_refused_is_refused_in_one_sentence(text: str, sentence: str) -> None:
    with pytest.raises(InputError, match=sentence) as caught:
        check_formula(read_formula_json(text), load_tables())
    assert "\n" not in caught.value.message
    assert caught.value.message.endswith(".")
    assert caught.value.message[0].isupper()
