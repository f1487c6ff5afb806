"""The cheapest packs that cover what is missing: whole packs of several sizes, an integer program."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

__all__ = ["Offer", "Purchase", "cheapest_packs"]

MOST_PACKS = 200


@dataclass(frozen=True, slots=True)
class Offer:
    """A pack that can be bought."""

    ingredient: str
    supplier: str
    pack_g: float
    price: Decimal
    currency: str


@dataclass(frozen=True, slots=True)
class Purchase:
    """How many of a pack to buy."""

    offer: Offer
    packs: int

    @property
    def cost(self) -> Decimal:
        """What they cost, in the offer's currency."""
        return self.offer.price * self.packs


def cheapest_packs(needs_g: Mapping[str, float], offers: Sequence[Offer]) -> tuple[list[Purchase], dict[str, float]]:
    """Return what to buy, and what nobody offers.

    Parameters
    ----------
    needs_g : Mapping
        What is missing by ingredient [g]
    offers : Sequence
        Packs there are; of one ingredient they are weighed against each other in one currency, the one most offers are in

    Returns
    -------
    tuple
        Whole packs that cover every need at the least cost, of equal cost with the least left over; needs without an offer [g]
    """
    bought: list[Purchase] = []
    open_g: dict[str, float] = {}
    for ingredient, need_g in needs_g.items():
        if need_g <= 0:
            continue
        own = _in_one_currency([offer for offer in offers if offer.ingredient == ingredient and offer.pack_g > 0])
        if own:
            bought += _packs(need_g, own)
        else:
            open_g[ingredient] = need_g
    return bought, open_g


def _in_one_currency(offers: Sequence[Offer]) -> list[Offer]:
    """Offers in the currency that most of them are in: prices of two currencies are not compared without a rate."""
    currencies = [offer.currency for offer in offers]
    most = max(dict.fromkeys(currencies), key=currencies.count, default="")
    return [offer for offer in offers if offer.currency == most]


def _packs(need_g: float, offers: Sequence[Offer]) -> list[Purchase]:
    masses = np.array([offer.pack_g for offer in offers])
    cost = np.array([float(offer.price) for offer in offers])
    tie = 1e-6 * max(float(cost.max()), 1e-3) * masses / masses.max()
    found = milp(
        cost + tie, integrality=np.ones(len(offers)), bounds=Bounds(0, MOST_PACKS),
        constraints=[LinearConstraint(masses[None, :], lb=need_g)], options={"mip_rel_gap": 0.0},
    )  # fmt: skip
    counts = np.zeros(len(offers)) if found.x is None else np.round(found.x)
    return [Purchase(offer, int(count)) for offer, count in zip(offers, counts, strict=True) if count > 0]
