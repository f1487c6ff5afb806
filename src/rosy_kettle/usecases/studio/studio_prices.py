"""The studio's prices in the studio's currency: what was typed in another one is converted by a rate typed by hand."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal

from sqlalchemy.orm import Session

from rosy_kettle.core.records import REFERENCE_CURRENCY, PriceBreak, Prices, Rate
from rosy_kettle.store.ingredients import breaks_of, list_prices
from rosy_kettle.usecases.studio.studio_settings import StudioSettings

__all__ = ["studio_prices"]


def studio_prices(session: Session, settings: StudioSettings) -> Prices:
    """Return own prices and the rate of the reference bands in the currency of the settings.

    A price without a rate is not told at all: it stands in ``unsaid`` with the reason, and nothing falls back on another.
    """
    currency = settings.currency
    own: dict[str, Decimal] = {}
    breaks: dict[str, tuple[PriceBreak, ...]] = {}
    unsaid: dict[str, str] = {}
    for row in list_prices(session):
        if row.price_per_kg is None:
            unsaid[row.ingredient_id] = "its price cannot be read; type it anew"
            continue
        rate = _rate(settings.rates, row.currency, currency)
        if rate is None:
            unsaid[row.ingredient_id] = (
                f"its price is in {row.currency}; type rates for {row.currency} and {currency} in Settings, or the price anew"
            )
            continue
        own[row.ingredient_id] = row.price_per_kg * rate
        if row.breaks:
            breaks[row.ingredient_id] = tuple(
                PriceBreak(each.from_kg, each.price_per_kg * rate) for each in breaks_of(row)
            )  # fmt: skip
    return Prices(
        own, breaks, currency, _rate(settings.rates, REFERENCE_CURRENCY, currency), unsaid, _note(settings.rates, currency)
    )


def _rate(rates: Sequence[Rate], from_currency: str, to_currency: str) -> Decimal | None:
    """Return what one unit of a currency costs in another; exactly 1 where both are the same."""
    if from_currency == to_currency:
        return Decimal(1)
    per_usd = {REFERENCE_CURRENCY: Decimal(1)} | {each.currency: each.per_usd for each in rates}
    if from_currency not in per_usd or to_currency not in per_usd:
        return None
    return per_usd[to_currency] / per_usd[from_currency]


def _note(rates: Sequence[Rate], currency: str) -> str:
    rate = next((each for each in rates if each.currency == currency), None)
    if rate is None or currency == REFERENCE_CURRENCY:
        return ""
    return (
        f"Reference prices are in {REFERENCE_CURRENCY}, taken at "
        f"{rate.per_usd.normalize():f} {currency} a dollar as typed on {rate.on}."
    )
