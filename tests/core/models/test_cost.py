"""Money: decimal from end to end."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from decimal import Decimal

import pytest

from rosy_kettle.core.models.cost.formula_cost import formula_cost, shown
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Line, Portion, PriceBreak, Prices, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula

Judge = Callable[[Formula], Evaluation]


def test_reference_prices_are_the_middle_of_the_band(judge: Judge) -> None:
    """Baking soda 2 to 6 USD a kg: a kilo costs 4.00."""
    cost = judge(make_formula(baking_soda=1000)).cost
    assert (cost.batch, cost.basis, cost.currency) == ("4.00", "reference", "USD")


def test_own_prices_stand_over_the_band(tables: Tables) -> None:
    own = replace(tables, prices=Prices(own={"baking-soda": Decimal("2.40")}))
    assert evaluate(make_formula(baking_soda=500), own).cost.batch == "1.20"
    assert evaluate(make_formula(baking_soda=500), own).cost.basis == "studio"
    assert evaluate(make_formula(baking_soda=500, kaolin=10), own).cost.basis == "mixed"


def test_larger_amounts_cost_what_they_cost(tables: Tables) -> None:
    """4.00 a kg, from 5 kg 3.00, from 25 kg 2.00; two lines of one ingredient are bought together."""
    breaks = {"baking-soda": (PriceBreak(Decimal(5), Decimal(3)), PriceBreak(Decimal(25), Decimal(2)))}
    own = replace(tables, prices=Prices(own={"baking-soda": Decimal(4)}, breaks=breaks))
    for grams, money in ((4999, "20.00"), (5000, "15.00"), (30_000, "60.00")):
        assert evaluate(make_formula(baking_soda=grams), own).cost.batch == money
    lines = (Line("baking-soda", "3", "kg"), Line("baking-soda", "2", "kg"))
    assert evaluate(Formula("x", (Portion("body", lines),)), own).cost.batch == "15.00"


def test_a_piece_carries_its_share_and_the_loss(tables: Tables) -> None:
    """1 100 g at 4.00 a kg = 4.40; 4 % lost; 57 g of 1 056 g = 0.2375; half a piece a bath."""
    cost = formula_cost([(tables.ingredients["baking-soda"], 1100.0)], Prices(), 57.0, 28.5, 0.04)
    assert cost.batch == Decimal("4.40")
    assert shown(cost.piece) == "0.24"
    assert cost.piece is not None
    assert cost.bath == pytest.approx(cost.piece / 2)


def test_money_never_turns_into_binary_fractions(tables: Tables) -> None:
    own = Prices(own={"baking-soda": Decimal("0.10"), "kaolin": Decimal("0.20")})
    cost = formula_cost([(tables.ingredients["baking-soda"], 1000.0), (tables.ingredients["kaolin"], 1000.0)], own, 50, 50, 0)
    assert cost.batch == Decimal("0.30")


def test_half_a_cent_rounds_up() -> None:
    assert shown(Decimal("0.125")) == "0.13"
    assert shown(None) is None


def test_no_price_at_all_is_said(tables: Tables) -> None:
    bare = replace(tables.ingredients["kaolin"], price_band_usd_per_kg_lo=None)
    bent = replace(tables, ingredients=dict(tables.ingredients) | {"kaolin": bare})
    result = evaluate(make_formula(kaolin=10), bent)
    assert (result.cost.batch, result.cost.piece) == (None, None)
    assert ("cost", "kaolin", "price_per_kg") in {(m.reading, m.ingredient, m.property) for m in result.missing}
