"""Margins worked by hand with Python's decimal; nothing goes through a binary fraction."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal

import pytest

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.models.cost.margin import cost_at_size, dearest
from rosy_kettle.core.records import Making, PriceBreak, Prices, Tables

PRICES = Prices(own={"baking-soda": Decimal("4.00"), "slsa-fine": Decimal("25.00")})
MAKING = Making(
    packaging_per_piece=Decimal("0.25"), labour_minutes=Decimal(60), fixed_minutes=Decimal(20), labour_per_hour=Decimal(18),
    overhead_pct=Decimal(10), price_per_piece=Decimal("3.50"),
)  # fmt: skip


def weighed(tables: Tables) -> list[tuple[object, float]]:
    return [(tables.ingredients["baking-soda"], 800.0), (tables.ingredients["slsa-fine"], 200.0)]


def test_a_piece_by_hand(tables: Tables) -> None:
    """1 000 g, 20 pieces of 50 g: 3.20 + 5.00 = 8.20 or 0.41 a piece; an hour at 18 is 0.90; (0.41 + 0.25 + 0.90) × 1.1 = 1.716."""
    at = cost_at_size(weighed(tables), PRICES, 1000.0, 50.0, 0.0, MAKING)
    assert at is not None
    assert (at.ingredients, at.labour, at.whole) == (Decimal("0.41"), Decimal("0.9"), Decimal("1.716"))
    assert at.margin == Decimal("1.784")
    assert at.margin_pct == pytest.approx(Decimal("50.971"), abs=Decimal("0.001"))
    assert at.ingredients + at.packaging + at.labour + at.overhead == at.whole


def test_minutes_that_stay_the_same_thin_out(tables: Tables) -> None:
    """Four times the batch: 20 + 4 × 40 = 180 minutes over 80 pieces is 54.00 / 80 = 0.675."""
    at = cost_at_size(weighed(tables), PRICES, 4000.0, 50.0, 0.0, MAKING)
    assert at is not None
    assert at.labour == Decimal("0.675")


def test_a_larger_batch_reaches_a_larger_pack(tables: Tables) -> None:
    breaks = {"slsa-fine": (PriceBreak(Decimal(1), Decimal("15.00")),)}
    at = cost_at_size(weighed(tables), replace(PRICES, breaks=breaks), 5000.0, 50.0, 0.0, MAKING)
    assert at is not None
    assert at.ingredients == (Decimal("4.000") * 4 + Decimal("1.000") * 15) / 100


def test_the_dearest_come_first_and_share_the_whole(tables: Tables) -> None:
    first, second = dearest(weighed(tables), PRICES)
    assert (first.ingredient, first.cost, first.per_gram) == ("slsa-fine", Decimal("5.00"), Decimal("0.025"))
    assert first.share + second.share == 1


def test_a_reference_price_without_a_rate_is_not_told(tables: Tables) -> None:
    euros = Prices(own={"baking-soda": Decimal("4.00")}, currency="EUR", reference_rate=None)
    with pytest.raises(MissingDataError, match="type a rate for EUR"):
        dearest(weighed(tables), euros)


def test_nothing_to_sell_has_no_cost(tables: Tables) -> None:
    assert cost_at_size([], PRICES, 1000.0, 50.0, 0.0, MAKING) is None
    assert cost_at_size(weighed(tables), PRICES, 1000.0, 50.0, 1.0, MAKING) is None
