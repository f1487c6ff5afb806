"""Cheapest packs against enumeration."""

from __future__ import annotations

from decimal import Decimal
from itertools import product

from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.making.stock.packs import Offer, cheapest_packs


def offer(pack_g: float, price: str, ingredient: str = "soda", currency: str = "USD") -> Offer:
    return Offer(ingredient, "", pack_g, Decimal(price), currency)


@settings(max_examples=60, deadline=None)
@given(st.lists(st.tuples(st.integers(50, 900), st.integers(1, 40)), min_size=1, max_size=3), st.integers(1, 2000))
def test_packs_are_as_cheap_as_any(rows: list[tuple[int, int]], need_g: int) -> None:
    offers = [offer(mass, str(price)) for mass, price in rows]
    bought, missing = cheapest_packs({"soda": float(need_g)}, offers)
    assert missing == {}
    assert sum(each.packs * each.offer.pack_g for each in bought) >= need_g
    most = [need_g // mass + 2 for mass, _price in rows]
    best = min(
        sum(count * price for count, (_mass, price) in zip(counts, rows, strict=True))
        for counts in product(*(range(each) for each in most))
        if sum(count * mass for count, (mass, _price) in zip(counts, rows, strict=True)) >= need_g
    )
    assert sum(each.cost for each in bought) == best


def test_large_packs_break_even_by_hand_and_what_nobody_sells_is_said() -> None:
    """By hand: 1100 g from packs of 1 kg at 9 and 250 g at 3 is one of each, 12; two large ones are 18, five small ones 15."""
    bought, missing = cheapest_packs(
        {"soda": 1100.0, "moon": 5.0}, [offer(1000, "9"), offer(250, "3"), offer(1000, "1", currency="EUR")]
    )
    assert {each.offer.pack_g: each.packs for each in bought} == {1000: 1, 250: 1}
    assert missing == {"moon": 5.0}
    assert cheapest_packs({"soda": 0.0}, []) == ([], {})
