"""What a formula costs: the studio's own price where there is one, else the middle of the reference band."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.records import REFERENCE_CURRENCY, Ingredient, Making, Prices

__all__ = ["FormulaCost", "formula_cost", "per_active_gram", "price_per_kg", "shown"]

CENT = Decimal("0.01")
GRAMS_PER_KG = Decimal(1000)
MINUTES_PER_HOUR = Decimal(60)
NOTHING_ELSE = Making()


@dataclass(frozen=True, slots=True)
class FormulaCost:
    """Cost of a batch, a piece and a bath, exact until shown."""

    currency: str
    batch: Decimal
    piece: Decimal | None
    bath: Decimal | None
    basis: str
    """reference, studio or mixed: whose prices were used"""
    lines: tuple[Decimal, ...]
    """Cost of each line, in the order given"""
    full_piece: Decimal | None = None
    """A piece with packaging, labour and overhead"""


def price_per_kg(
    ingredient: Ingredient,
    prices: Prices,
    mass_g: float = 0.0,
) -> tuple[Decimal, str]:
    """Return the price used for an ingredient and whose it is.

    Parameters
    ----------
    ingredient : Ingredient
        What is priced
    prices : Prices
        The studio's own prices, and the rate of the reference bands [currency/kg]
    mass_g : float
        How much of it the batch takes; the largest break that this reaches holds [g]

    Returns
    -------
    tuple
        Price [currency/kg] and "studio" or "reference"

    Raises
    ------
    MissingDataError
        If there is neither an own price nor a reference band, or no rate to tell it in the studio's currency.
    """
    if ingredient.id in prices.unsaid:
        raise MissingDataError(prices.unsaid[ingredient.id], ingredient=ingredient.id, property="price_per_kg")
    if ingredient.id in prices.own:
        price = prices.own[ingredient.id]
        for each in prices.breaks.get(ingredient.id, ()):
            if mass_g >= each.from_kg * GRAMS_PER_KG:
                price = each.price_per_kg
        return price, "studio"
    low, high = ingredient.price_band_usd_per_kg_lo, ingredient.price_band_usd_per_kg_hi
    if low is None or high is None:
        raise MissingDataError(
            f"{ingredient.short_name} has no price; enter it in the Pantry", ingredient=ingredient.id, property="price_per_kg"
        )
    if prices.reference_rate is None:
        raise MissingDataError(
            f"the reference price of {ingredient.short_name} is in {REFERENCE_CURRENCY}; "
            f"type a rate for {prices.currency} in Settings",
            ingredient=ingredient.id, property="price_per_kg",
        )  # fmt: skip
    return (low + high) / 2 * prices.reference_rate, "reference"


def formula_cost(
    weighed: Sequence[tuple[Ingredient, float]],
    prices: Prices,
    piece_mass_g: float,
    dose_g: float,
    loss_fraction: float,
    making: Making = NOTHING_ELSE,
) -> FormulaCost:
    """Return the cost of a batch, a piece and a bath.

    .. math:: c_{piece} = c_{batch} \\frac{m_{piece}}{M (1 - loss)},\\quad c_{bath} = c_{piece} \\frac{m_{dose}}{m_{piece}}

    c: costs [currency]; M, m: masses of the batch, a piece and a dose [g]; loss: the share that never becomes a piece [-].

    Parameters
    ----------
    weighed : Sequence
        Ingredient and mass of each line [g]
    prices : Prices
        What ingredients cost the studio [currency/kg]
    piece_mass_g : float
        Mass of a piece [g]
    dose_g : float
        Mass used in one bath [g]
    loss_fraction : float
        Share of the batch that never becomes a piece [-]
    making : Making
        Packaging, labour, overhead

    Returns
    -------
    FormulaCost
        Exact decimals; round only when shown

    Raises
    ------
    MissingDataError
        If an ingredient has no price at all.

    References
    ----------
    .. [1] Arithmetic. Where the studio has no price, the middle of a band of retail prices: estimate, no published source.
    """
    costs: list[Decimal] = []
    bases: set[str] = set()
    taken_g: dict[str, float] = {}
    for ingredient, mass_g in weighed:
        taken_g[ingredient.id] = taken_g.get(ingredient.id, 0.0) + mass_g
    for ingredient, mass_g in weighed:
        price, basis = price_per_kg(ingredient, prices, taken_g[ingredient.id])
        costs.append(price * Decimal(mass_g) / GRAMS_PER_KG)
        if mass_g > 0:
            bases.add(basis)
    batch = sum(costs, Decimal(0))
    sold_g = Decimal(sum(mass for _, mass in weighed)) * (1 - Decimal(loss_fraction))
    per_gram = batch / sold_g if sold_g > 0 else None
    piece = None if per_gram is None else per_gram * Decimal(piece_mass_g)
    return FormulaCost(
        currency=prices.currency,
        batch=batch,
        piece=piece,
        bath=None if per_gram is None else per_gram * Decimal(dose_g),
        basis="mixed" if len(bases) > 1 else next(iter(bases), "reference"),
        lines=tuple(costs),
        full_piece=None if piece is None else _full_piece(piece, making, sold_g / Decimal(piece_mass_g)),
    )


def per_active_gram(cost: FormulaCost, active_g: float | None) -> str | None:
    """Return what a gram of active surfactant costs, all ingredients of the batch counted.

    Parameters
    ----------
    cost : FormulaCost
        Cost of the batch
    active_g : float or None
        Active surfactant of the batch [g]

    Returns
    -------
    str or None
        Money per gram, four decimals; None without surfactant
    """
    if not active_g:
        return None
    return str((cost.batch / Decimal(active_g)).quantize(Decimal("0.0001"), rounding=ROUND_HALF_UP))


def _full_piece(ingredients: Decimal, making: Making, pieces: Decimal) -> Decimal:
    labour = making.labour_minutes * making.labour_per_hour / MINUTES_PER_HOUR / pieces
    return (ingredients + making.packaging_per_piece + labour) * (1 + making.overhead_pct / 100)


def shown(money: Decimal | None) -> str | None:
    """Return money as it is written down: two decimals, half a cent rounds up.

    Parameters
    ----------
    money : Decimal or None
        An exact amount

    Returns
    -------
    str or None
        Text with two decimals
    """
    return None if money is None else str(money.quantize(CENT, rounding=ROUND_HALF_UP))
