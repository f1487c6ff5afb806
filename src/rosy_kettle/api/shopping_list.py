"""The shopping list of the open orders."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.shopping_list import (
    BuyAnswer,
    DeliveryAnswer,
    LackingAnswer,
    ShoppingAnswer,
    StandInList,
    StandInQuery,
)
from rosy_kettle.api.studio import current_studio, kept_answers
from rosy_kettle.core.making.stock.packs import Purchase
from rosy_kettle.files.spreadsheet import to_csv
from rosy_kettle.usecases.week.shopping_list import ShoppingList, shopping_list
from rosy_kettle.usecases.week.stand_ins import stand_ins

__all__ = ["blueprint"]

blueprint = part("shopping_list", __name__, "/api", (404, 422))
HEADINGS = ("Ingredient", "Needed g", "On hand g", "Short g", "Supplier", "Pack g", "Packs", "Cost", "Currency")


@blueprint.get("/shopping-list", summary="What the open orders lack, in the cheapest packs", responses={200: ShoppingAnswer})
def read() -> Response:
    found = _found()
    return respond(ShoppingAnswer(
        items=[
            LackingAnswer(
                ingredient=line.ingredient, name=line.name, needed_g=line.needed_g, on_hand_g=line.on_hand_g,
                short_g=line.short_g, packs=[_buy(purchase) for purchase in line.packs],
            )
            for line in found.lines
        ],
        next=None, cost={currency: f"{value:.2f}" for currency, value in found.cost.items()}, orders=found.orders,
        left_out=list(found.left_out),
        deliveries=[
            DeliveryAnswer(supplier=each.supplier, fee=f"{each.fee:.2f}", currency=each.currency) for each in found.deliveries
        ],
    ))  # fmt: skip


@blueprint.get("/shopping-list/substitutes", summary="What is there in its place", responses={200: StandInList})
def read_stand_ins(query: StandInQuery) -> Response:
    with current_studio().reading() as session:
        return respond(StandInList(items=stand_ins(session, query.ingredient), next=None))


@blueprint.get("/shopping-list.csv", summary="The same as a table", responses=file_of("text/csv", "CSV"))
def table() -> Response:
    rows = []
    for line in _found().lines:
        on_hand = "not known" if line.on_hand_g is None else f"{line.on_hand_g:.1f}"
        start = [line.name, f"{line.needed_g:.1f}", on_hand, f"{line.short_g:.1f}"]
        rows += [
            [*start, p.offer.supplier, f"{p.offer.pack_g:.0f}", str(p.packs), f"{p.cost:.2f}", p.offer.currency]
            for p in line.packs
        ] or [[*start, "", "", "", "", ""]]
    response = Response(to_csv(HEADINGS, rows), mimetype="text/csv")
    response.headers["Content-Disposition"] = 'attachment; filename="shopping-list.csv"'
    return response


def _found() -> ShoppingList:
    studio = current_studio()

    def work() -> ShoppingList:
        with studio.reading() as session:
            return shopping_list(session)

    return kept_answers().get("shopping list", work)


def _buy(purchase: Purchase) -> BuyAnswer:
    offer = purchase.offer
    return BuyAnswer(
        supplier=offer.supplier, pack_g=offer.pack_g, packs=purchase.packs, price=f"{offer.price:.2f}",
        cost=f"{purchase.cost:.2f}", currency=offer.currency,
    )  # fmt: skip
