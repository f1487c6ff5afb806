"""What ingredients cost the studio, and in which money."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from decimal import Decimal
from types import MappingProxyType

__all__ = ["REFERENCE_CURRENCY", "PriceBreak", "Prices", "Rate"]

REFERENCE_CURRENCY = "USD"
"""The currency of the reference price bands."""


@dataclass(frozen=True, slots=True)
class PriceBreak:
    """A price that holds from some amount on."""

    from_kg: Decimal
    price_per_kg: Decimal


@dataclass(frozen=True, slots=True)
class Rate:
    """What one US dollar costs in another currency, as the maker typed it on a day."""

    currency: str
    per_usd: Decimal
    on: str
    """The day it was typed, ISO 8601."""


@dataclass(frozen=True, slots=True)
class Prices:
    """The studio's own prices stand over the reference bands."""

    own: Mapping[str, Decimal] = field(default_factory=lambda: MappingProxyType({}))
    """By ingredient id [currency/kg]."""
    breaks: Mapping[str, tuple[PriceBreak, ...]] = field(default_factory=lambda: MappingProxyType({}))
    """What larger amounts cost, by ingredient id, smallest amount first [currency/kg]."""
    currency: str = REFERENCE_CURRENCY
    reference_rate: Decimal | None = Decimal(1)
    """What the reference bands are multiplied with; None where no rate was typed, and they cannot be used."""
    unsaid: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    """Why an own price cannot be told in this currency, by ingredient id."""
    note: str = ""
    """Which rate stands behind converted prices, one sentence; empty where nothing is converted."""
