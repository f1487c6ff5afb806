"""Decimal signs: a number written either way is read back exactly once the table shows its sign, and never off by a thousand."""

from __future__ import annotations

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rosy_kettle.reader.decimal_signs import DECIMAL_SIGNS, decimal_sign_of, read_number, two_ways

VALUES = st.decimals(min_value=0, max_value=999_999, places=3).map(lambda value: value.normalize() + 0)
PLACES = st.integers(0, 4)


def written(value: Decimal, sign: str, places: int, *, grouped: bool) -> str:
    """As a spreadsheet of a country writes it: thousands grouped by the other sign, or not."""
    text = f"{value:,.{places}f}" if grouped else f"{value:.{places}f}"
    return text if sign == "." else text.replace(",", "\0").replace(".", ",").replace("\0", ".")


@given(value=VALUES, sign=st.sampled_from(DECIMAL_SIGNS), places=PLACES, grouped=st.booleans())
def test_a_number_is_read_back_by_its_tables_sign(value: Decimal, sign: str, places: int, *, grouped: bool) -> None:
    rounded = Decimal(f"{value:.{places}f}")
    assert read_number(f"{written(rounded, sign, places, grouped=grouped)} kg", sign) == rounded


@given(values=st.lists(VALUES, min_size=1, max_size=8), sign=st.sampled_from(DECIMAL_SIGNS), grouped=st.booleans())
def test_a_column_with_two_decimals_tells_its_sign(values: list[Decimal], sign: str, *, grouped: bool) -> None:
    column = [written(value, sign, 2, grouped=grouped) for value in values]
    assert decimal_sign_of(column) == sign
    assert not any(two_ways(cell) for cell in column)


@given(value=VALUES, sign=st.sampled_from(DECIMAL_SIGNS), places=PLACES, grouped=st.booleans())
def test_what_could_be_off_by_a_thousand_is_seen(value: Decimal, sign: str, places: int, *, grouped: bool) -> None:
    """Where the two signs give different numbers, either the number shows its own, or it is to be asked about."""
    text = written(value, sign, places, grouped=grouped)
    one, other = (read_number(text, each) for each in DECIMAL_SIGNS)
    assert (one == other) or two_ways(text)
    if not two_ways(text):
        assert one == other == Decimal(f"{value:.{places}f}")


@pytest.mark.parametrize("text", ["", "kg", "-", "none", "€"])
def test_no_number_is_none(text: str) -> None:
    assert read_number(text, ".") is None
    assert not two_ways(text)


@pytest.mark.parametrize(("cells", "sign"), [
    (["1,250", "0,5"], ","), (["1,250", "3.50"], "."), (["1,250", "2"], None), (["1,5", "1.5"], None), ([], None),
    (["1.000.000"], ","), (["1,000,000"], "."), (["0.125"], "."), (["0,125"], ","),
])  # fmt: skip
def test_a_table_shows_its_sign_or_it_does_not(cells: list[str], sign: str | None) -> None:
    assert decimal_sign_of(cells) == sign
