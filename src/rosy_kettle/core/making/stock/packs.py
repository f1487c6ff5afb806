"""The cheapest packs that cover what is missing, with what suppliers ask for delivery: an integer program."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal

import numpy as np

__all__ = ["Delivery", "Offer", "Purchase", "cheapest_packs"]

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
class Delivery:
    """What a supplier asks for bringing it, and from which sum on it asks nothing."""

    supplier: str
    fee: Decimal
    free_from: Decimal | None
    """None: the fee is always asked."""
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


def cheapest_packs(
    needs_g: Mapping[str, float], offers: Sequence[Offer], deliveries: Sequence[Delivery] = ()
) -> tuple[list[Purchase], list[Delivery], dict[str, float]]:
    """Return what to buy, which deliveries have to be paid, and what nobody offers.

    Parameters
    ----------
    needs_g : Mapping
        What is missing by ingredient [g]
    offers : Sequence
        Packs there are; of one ingredient they are weighed against each other in one currency, the one most offers are in
    deliveries : Sequence
        What suppliers ask for delivery; who is not among them asks nothing

    Returns
    -------
    tuple
        Whole packs that cover every need at the least cost, delivery counted, of equal cost with the least left over; the
        deliveries that are paid; needs without an offer [g]
    """
    open_g: dict[str, float] = {}
    used: list[Offer] = []
    needed: dict[str, float] = {}
    for ingredient, need_g in needs_g.items():
        if need_g <= 0:
            continue
        own = _in_one_currency([offer for offer in offers if offer.ingredient == ingredient and offer.pack_g > 0])
        if own:
            used += own
            needed[ingredient] = need_g
        else:
            open_g[ingredient] = need_g
    if not used:
        return [], [], open_g
    asked = [each for each in deliveries if any(_brings(each, offer) for offer in used)]
    counts, paid = _solve(needed, used, asked)
    bought = [Purchase(offer, count) for offer, count in zip(used, counts, strict=True) if count > 0]
    return bought, paid, open_g


def _in_one_currency(offers: Sequence[Offer]) -> list[Offer]:
    """Offers in the currency that most of them are in: prices of two currencies are not compared without a rate."""
    currencies = [offer.currency for offer in offers]
    most = max(dict.fromkeys(currencies), key=currencies.count, default="")
    return [offer for offer in offers if offer.currency == most]


def _brings(delivery: Delivery, offer: Offer) -> bool:
    return delivery.supplier == offer.supplier and delivery.currency == offer.currency


def _solve(needed: Mapping[str, float], offers: Sequence[Offer], asked: Sequence[Delivery]) -> tuple[list[int], list[Delivery]]:
    """Whole counts of every offer, and the deliveries paid for.

    Two zero-or-one numbers stand for each delivery: whether anything is bought there, and whether the sum for which it is free
    is reached.
    """
    packs, sellers = len(offers), len(asked)
    masses = np.array([offer.pack_g for offer in offers])
    price = np.array([float(offer.price) for offer in offers])
    tie = 1e-6 * max(float(price.max()), 1e-3) * masses / masses.max()
    fees = np.array([float(each.fee) for each in asked])
    cost = np.concatenate([price + tie, fees, -fees])
    from scipy.optimize import Bounds, LinearConstraint, milp  # here: scipy takes a third of a second that starting does not need

    rows: list[LinearConstraint] = []
    for ingredient, need_g in needed.items():
        row = np.zeros(len(cost))
        row[:packs] = [offer.pack_g if offer.ingredient == ingredient else 0.0 for offer in offers]
        rows.append(LinearConstraint(row[None, :], lb=need_g))
    for at, delivery in enumerate(asked):
        own = np.array([1.0 if _brings(delivery, offer) else 0.0 for offer in offers])
        bought, spent, free = np.zeros(len(cost)), np.zeros(len(cost)), np.zeros(len(cost))
        bought[:packs], bought[packs + at] = own, -MOST_PACKS * max(1.0, own.sum())
        rows.append(LinearConstraint(bought[None, :], ub=0.0))
        spent[:packs], spent[packs + sellers + at] = own * price, -float(delivery.free_from or 0)
        rows.append(LinearConstraint(spent[None, :], lb=0.0))
        free[packs + at], free[packs + sellers + at] = 1.0, -1.0
        rows.append(LinearConstraint(free[None, :], lb=0.0))
    never_free = [0.0 if each.free_from is None else 1.0 for each in asked]
    most = np.concatenate([np.full(packs, float(MOST_PACKS)), np.ones(sellers), np.array(never_free)])
    found = milp(cost, integrality=np.ones(len(cost)), bounds=Bounds(0, most), constraints=rows, options={"mip_rel_gap": 0.0})
    if found.x is None:
        return [0] * packs, []
    whole = [round(value) for value in found.x]
    paid = [each for at, each in enumerate(asked) if whole[packs + at] and not whole[packs + sellers + at]]
    return whole[:packs], paid
