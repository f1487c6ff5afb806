"""What the open orders lack."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Response
from rosy_kettle.usecases.week.stand_ins import StandInsForOrder

__all__ = ["BuyAnswer", "DeliveryAnswer", "LackingAnswer", "ShoppingAnswer", "StandInList", "StandInQuery"]


class BuyAnswer(Response):
    """Packs of one size to buy."""

    supplier: str
    pack_g: float
    packs: int
    price: str
    cost: str
    currency: str


class LackingAnswer(Response):
    """One ingredient that is short."""

    ingredient: str
    name: str
    needed_g: float
    on_hand_g: float | None
    short_g: float
    packs: list[BuyAnswer]


class DeliveryAnswer(Response):
    """A delivery that is paid for."""

    supplier: str
    fee: str
    currency: str


class ShoppingAnswer(Response):
    """What to buy."""

    items: list[LackingAnswer]
    next: int | None
    cost: dict[str, str]
    orders: int
    left_out: list[str]
    deliveries: list[DeliveryAnswer]


class StandInQuery(BaseModel):
    """What is short."""

    ingredient: Annotated[str, Field(min_length=1, max_length=80)]


class StandInList(Response):
    """What could stand in for it, by open order."""

    items: list[StandInsForOrder]
    next: int | None
