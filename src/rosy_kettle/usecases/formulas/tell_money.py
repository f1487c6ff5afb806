"""Price, cost and margin of a formula, by the studio's prices and by the lots that stand on the shelf."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from decimal import Decimal

from sqlalchemy.orm import Session

from rosy_kettle.core.amounts.resolve import weigh_formula
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.stock.lots import draw_from_lots
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.models.cost.margin import Dear, SizeCost, cost_at_size, dearest
from rosy_kettle.core.records import Formula, Ingredient, Tables
from rosy_kettle.store.lots import lots_of_ingredients
from rosy_kettle.usecases.pantry.keep_lots import cost_of_mass, record_of_lot

__all__ = ["LotCost", "Money", "tell_money"]

SIZES = (0.25, 0.5, 1.0, 2.0, 4.0, 8.0, 16.0)
"""Of the batch as written: what is asked about where nobody names a size."""
MOST_SIZES = 40
LARGEST_G = 1e6
DEAREST = 3


@dataclass(frozen=True, slots=True)
class LotCost:
    """What the ingredients of the batch as written cost by the lots it would be made from now."""

    cost: dict[str, Decimal]
    """By the currency the lots were paid in."""
    not_priced: tuple[str, ...]
    """Ingredients whose lots have no price, or that are in no lot."""


@dataclass(frozen=True, slots=True)
class Money:
    """All that is said of the money of a formula."""

    currency: str
    note: str
    written_g: float
    piece_mass_g: float
    price: Decimal
    written: SizeCost | None
    """A piece of the batch as written; None where nothing is left to sell."""
    sizes: tuple[SizeCost, ...]
    dearest: tuple[Dear, ...]
    lots: LotCost


def tell_money(session: Session, formula: Formula, tables: Tables, sizes_g: Sequence[float]) -> Money:
    """Return cost and margin at some sizes of the batch; without sizes, at a quarter to sixteen times the batch as written.

    Raises
    ------
    InputError
        If a size is none, there are too many of them, or more minutes are fixed than there are.
    MissingDataError
        If an ingredient has no price at all, or none in the studio's currency.
    """
    making = formula.making
    if making.fixed_minutes > making.labour_minutes:
        raise InputError(
            f"Of {making.labour_minutes} minutes a batch, {making.fixed_minutes} cannot be the same for every size.",
            quantity="fixed_minutes",
        )
    if len(sizes_g) > MOST_SIZES or any(not 0 < size_g <= LARGEST_G for size_g in sizes_g):
        raise InputError(f"Ask for at most {MOST_SIZES} sizes above 0 g and up to 1000000 g.", quantity="batch_g")
    lines, _missing = weigh_formula(formula, tables)
    weighed = [(line.ingredient, line.mass_g) for line in lines]
    written_g = sum(mass_g for _, mass_g in weighed)
    assumed = setting_of(formula, tables, written_g).assumed
    asked = sizes_g or [factor * written_g for factor in SIZES]

    def at(size_g: float) -> SizeCost | None:
        return cost_at_size(weighed, tables.prices, size_g, assumed.piece_mass_g, assumed.loss_fraction, making)

    return Money(
        tables.prices.currency, tables.prices.note, written_g, assumed.piece_mass_g, making.price_per_piece, at(written_g),
        tuple(each for each in map(at, asked) if each is not None), tuple(dearest(weighed, tables.prices)[:DEAREST]),
        _by_lots(session, weighed),
    )  # fmt: skip


def _by_lots(session: Session, weighed: Sequence[tuple[Ingredient, float]]) -> LotCost:
    today = datetime.now(UTC).date()
    taken: dict[str, float] = {}
    names = {item.id: item.short_name for item, _ in weighed}
    for item, mass_g in weighed:
        taken[item.id] = taken.get(item.id, 0.0) + mass_g
    cost: dict[str, Decimal] = {}
    not_priced: list[str] = []
    for id_, rows in lots_of_ingredients(session, list(taken)).items():
        by_id = {row.id: row for row in rows}
        draws = draw_from_lots([record_of_lot(row) for row in rows], taken[id_], today)
        parts = [(by_id[draw.lot_id], cost_of_mass(by_id[draw.lot_id], draw.mass_g)) for draw in draws]
        if not parts or any(part is None for _, part in parts):
            not_priced.append(names[id_])
        for row, part in parts:
            if part is not None:
                cost[row.currency] = cost.get(row.currency, Decimal(0)) + part
    return LotCost(cost, tuple(not_priced))
