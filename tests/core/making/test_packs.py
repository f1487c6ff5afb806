"""Cheapest packs against enumeration."""

from __future__ import annotations

from decimal import Decimal
from itertools import product

from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.making.stock.packs import Delivery, Offer, cheapest_packs


def offer(pack_g: float, price: str, ingredient: str = "soda", currency: str = "USD") -> Offer:
    return Offer(ingredient, "", pack_g, Decimal(price), currency)


@settings(max_examples=60, deadline=None)
@given(st.lists(st.tuples(st.integers(50, 900), st.integers(1, 40)), min_size=1, max_size=3), st.integers(1, 2000))
def test_packs_are_as_cheap_as_any(rows: list[tuple[int, int]], need_g: int) -> None:
    offers = [offer(mass, str(price)) for mass, price in rows]
    bought, _paid, missing = cheapest_packs({"soda": float(need_g)}, offers)
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
    bought, _paid, missing = cheapest_packs(
        {"soda": 1100.0, "moon": 5.0}, [offer(1000, "9"), offer(250, "3"), offer(1000, "1", currency="EUR")]
    )
    assert {each.offer.pack_g: each.packs for each in bought} == {1000: 1, 250: 1}
    assert missing == {"moon": 5.0}
    assert cheapest_packs({"soda": 0.0}, []) == ([], [], {})


def test_of_two_ways_that_cost_the_same_the_less_is_bought() -> None:
    """What is left over keeps no better for having been bought (common practice)."""
    bought, _paid, _missing = cheapest_packs({"soda": 400.0}, [offer(500, "6"), offer(1000, "6"), offer(800, "6")])
    assert [(each.offer.pack_g, each.packs) for each in bought] == [(500, 1)]


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.tuples(st.integers(100, 900), st.integers(1, 30), st.sampled_from(["A", "B"])), min_size=1, max_size=4),
    st.integers(1, 1500), st.integers(1, 12), st.integers(10, 60),
)  # fmt: skip
def test_deliveries_are_weighed_against_packs(rows: list[tuple[int, int, str]], need_g: int, fee: int, free_from: int) -> None:
    """Against every count of every pack: A brings for a fee that falls away from a sum on, B always asks 2."""
    offers = [Offer("soda", seller, mass, Decimal(price), "USD") for mass, price, seller in rows]
    asked = [Delivery("A", Decimal(fee), Decimal(free_from), "USD"), Delivery("B", Decimal(2), None, "USD")]
    bought, paid, _missing = cheapest_packs({"soda": float(need_g)}, offers, asked)

    def total(counts: tuple[int, ...]) -> int:
        spent = {"A": 0, "B": 0}
        for count, (_mass, price, seller) in zip(counts, rows, strict=True):
            spent[seller] += count * price
        a_fee = fee if any(c for c, row in zip(counts, rows, strict=True) if row[2] == "A") and spent["A"] < free_from else 0
        b_fee = 2 if any(c for c, row in zip(counts, rows, strict=True) if row[2] == "B") else 0
        return spent["A"] + spent["B"] + a_fee + b_fee

    most = [
        min(need_g // mass + 2 + free_from // price, 12) if seller == "A" else need_g // mass + 2 for mass, price, seller in rows
    ]
    covers = (
        counts for counts in product(*(range(each) for each in most))
        if sum(count * mass for count, (mass, _p, _s) in zip(counts, rows, strict=True)) >= need_g
    )  # fmt: skip
    best = min(map(total, covers), default=None)
    found = sum(each.cost for each in bought) + sum(each.fee for each in paid)
    if best is not None:
        assert found <= best
    counts = tuple(next((each.packs for each in bought if each.offer is offer), 0) for offer in offers)
    assert found == total(counts)
