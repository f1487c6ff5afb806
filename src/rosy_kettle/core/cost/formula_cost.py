"""What a formula costs: the studio's own price where there is one, else the middle of the reference band."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.records import Ingredient

__all__ = ["FormulaCost", "formula_cost", "price_per_kg"]

CENT = Decimal("0.01")
GRAMS_PER_KG = Decimal(1000)


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


def price_per_kg(ingredient: Ingredient, own: Mapping[str, Decimal]) -> tuple[Decimal, str]:
    """Return the price used for an ingredient and whose it is.

    Parameters
    ----------
    ingredient : Ingredient
        What is priced
    own : Mapping
        The studio's own prices by ingredient id [USD/kg]

    Returns
    -------
    tuple
        Price [USD/kg] and "studio" or "reference"

    Raises
    ------
    MissingDataError
        If there is neither an own price nor a reference band.
    """
    if ingredient.id in own:
        return own[ingredient.id], "studio"
    low, high = ingredient.price_band_usd_per_kg_lo, ingredient.price_band_usd_per_kg_hi
    if low is None or high is None:
        raise MissingDataError(
            f"{ingredient.short_name} has no price; enter it in the Pantry", ingredient=ingredient.id, property="price_per_kg"
        )
    return (low + high) / 2, "reference"


def formula_cost(
    weighed: Sequence[tuple[Ingredient, float]],
    own_prices: Mapping[str, Decimal],
    piece_mass_g: float,
    dose_g: float,
    loss_fraction: float,
) -> FormulaCost:
    """Return the cost of a batch, a piece and a bath.

    .. math:: c_{piece} = c_{batch} \\frac{m_{piece}}{M (1 - loss)},\\quad c_{bath} = c_{piece} \\frac{m_{dose}}{m_{piece}}

    Parameters
    ----------
    weighed : Sequence
        Ingredient and mass of each line [g]
    own_prices : Mapping
        The studio's own prices [USD/kg]
    piece_mass_g : float
        Mass of a piece [g]
    dose_g : float
        Mass used in one bath [g]
    loss_fraction : float
        Share of the batch that never becomes a piece [-]

    Returns
    -------
    FormulaCost
        Exact decimals; round only when shown

    Raises
    ------
    MissingDataError
        If an ingredient has no price at all.
    """
    costs: list[Decimal] = []
    bases: set[str] = set()
    for ingredient, mass_g in weighed:
        price, basis = price_per_kg(ingredient, own_prices)
        costs.append(price * Decimal(mass_g) / GRAMS_PER_KG)
        if mass_g > 0:
            bases.add(basis)
    batch = sum(costs, Decimal(0))
    sold_g = Decimal(sum(mass for _, mass in weighed)) * (1 - Decimal(loss_fraction))
    per_gram = batch / sold_g if sold_g > 0 else None
    return FormulaCost(
        currency="USD",
        batch=batch,
        piece=None if per_gram is None else per_gram * Decimal(piece_mass_g),
        bath=None if per_gram is None else per_gram * Decimal(dose_g),
        basis="mixed" if len(bases) > 1 else next(iter(bases), "reference"),
        lines=tuple(costs),
    )


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
