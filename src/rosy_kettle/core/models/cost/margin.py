"""What a piece costs all in, what is left of its price, and how both move with the size of the batch."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from rosy_kettle.core.models.cost.formula_cost import MINUTES_PER_HOUR, formula_cost, price_per_kg
from rosy_kettle.core.records import Ingredient, Making, Prices

__all__ = ["Dear", "SizeCost", "cost_at_size", "dearest"]


@dataclass(frozen=True, slots=True)
class Dear:
    """An ingredient of the batch with what it takes of the money."""

    ingredient: str
    name: str
    mass_g: float
    cost: Decimal
    share: Decimal
    """Of what all ingredients cost [-]."""
    per_gram: Decimal


@dataclass(frozen=True, slots=True)
class SizeCost:
    """One piece of a batch of some size, its cost in parts that sum to the whole."""

    batch_g: float
    pieces: Decimal
    ingredients: Decimal
    packaging: Decimal
    labour: Decimal
    overhead: Decimal
    whole: Decimal
    margin: Decimal | None
    """What is left of the price; None without a price."""
    margin_pct: Decimal | None


def dearest(weighed: Sequence[tuple[Ingredient, float]], prices: Prices) -> list[Dear]:
    """Return the ingredients by what they take of the money, dearest first.

    Parameters
    ----------
    weighed : Sequence
        Ingredient and mass of each line [g]
    prices : Prices
        What ingredients cost the studio

    Returns
    -------
    list of Dear
        One entry an ingredient; empty where nothing is weighed

    Raises
    ------
    MissingDataError
        If an ingredient has no price at all.
    """
    taken: dict[str, float] = {}
    items = {item.id: item for item, _ in weighed}
    for item, mass_g in weighed:
        taken[item.id] = taken.get(item.id, 0.0) + mass_g
    per_gram = {id_: price_per_kg(items[id_], prices, mass_g)[0] / 1000 for id_, mass_g in taken.items()}
    costs = {id_: per_gram[id_] * Decimal(mass_g) for id_, mass_g in taken.items()}
    whole = sum(costs.values(), Decimal(0))
    return [
        Dear(id_, items[id_].short_name, taken[id_], costs[id_], costs[id_] / whole if whole else Decimal(0), per_gram[id_])
        for id_ in sorted(taken, key=lambda id_: -costs[id_])
    ]


def cost_at_size(
    weighed: Sequence[tuple[Ingredient, float]],
    prices: Prices,
    batch_g: float,
    piece_mass_g: float,
    loss_fraction: float,
    making: Making,
) -> SizeCost | None:
    """Return what a piece costs when the formula is made as large as asked; None where nothing is left to sell.

    Ingredients follow the price that such an amount is bought at. The minutes that a batch takes whatever its size are spread
    over its pieces; the other minutes grow with it.

    Parameters
    ----------
    weighed : Sequence
        Ingredient and mass of each line of the formula as written [g]
    prices : Prices
        What ingredients cost the studio
    batch_g : float
        Mass of the batch asked about [g]
    piece_mass_g : float
        Mass of a piece [g]
    loss_fraction : float
        Share of the batch that never becomes a piece [-]
    making : Making
        Packaging, labour, overhead and the price of a piece

    Returns
    -------
    SizeCost or None
        Exact decimals

    Raises
    ------
    MissingDataError
        If an ingredient has no price at all.
    """
    written_g = sum(mass_g for _, mass_g in weighed)
    if written_g <= 0 or batch_g <= 0:
        return None
    factor = batch_g / written_g
    scaled = [(item, mass_g * factor) for item, mass_g in weighed]
    minutes = making.fixed_minutes + (making.labour_minutes - making.fixed_minutes) * Decimal(factor)
    cost = formula_cost(scaled, prices, piece_mass_g, piece_mass_g, loss_fraction, replace(making, labour_minutes=minutes))
    if cost.piece is None or cost.full_piece is None:
        return None
    pieces = Decimal(batch_g) * (1 - Decimal(loss_fraction)) / Decimal(piece_mass_g)
    labour = minutes * making.labour_per_hour / MINUTES_PER_HOUR / pieces
    before = cost.piece + making.packaging_per_piece + labour
    price = making.price_per_piece
    margin = price - cost.full_piece if price > 0 else None
    return SizeCost(
        batch_g, pieces, cost.piece, making.packaging_per_piece, labour, cost.full_piece - before, cost.full_piece, margin,
        None if margin is None else 100 * margin / price,
    )  # fmt: skip
