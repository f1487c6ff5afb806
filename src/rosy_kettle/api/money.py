"""Price, cost and margin."""

from __future__ import annotations

from decimal import ROUND_HALF_UP, Decimal

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.money import DearAnswer, MoneyAnswer, MoneyAsk, SizeAnswer
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.models.cost.margin import Dear, SizeCost
from rosy_kettle.usecases.formulas.check_formula import check_formula
from rosy_kettle.usecases.formulas.tell_money import tell_money
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["blueprint"]

blueprint = part("money", __name__, "/api/money", (422,))
TENTH_OF_A_CENT = Decimal("0.001")
PER_GRAM = Decimal("0.00001")


@blueprint.post("", summary="What a piece costs, what is left of its price, what is dear", responses={200: MoneyAnswer})
def tell(body: MoneyAsk) -> Response:
    with current_studio().reading() as session:
        tables = studio_tables(session)
        money = tell_money(session, check_formula(body.formula, tables), tables, body.sizes_g)
    return respond(MoneyAnswer(
        currency=money.currency, note=money.note, written_g=money.written_g, piece_mass_g=money.piece_mass_g,
        price=str(money.price), written=None if money.written is None else _size(money.written),
        sizes=[_size(each) for each in money.sizes], dearest=[_dear(each) for each in money.dearest],
        lots={currency: _text(cost, Decimal("0.01")) for currency, cost in money.lots.cost.items()},
        not_priced=list(money.lots.not_priced),
    ))  # fmt: skip


def _size(size: SizeCost) -> SizeAnswer:
    return SizeAnswer(
        batch_g=size.batch_g, pieces=float(size.pieces), ingredients=_text(size.ingredients), packaging=_text(size.packaging),
        labour=_text(size.labour), overhead=_text(size.overhead), whole=_text(size.whole),
        margin=None if size.margin is None else _text(size.margin),
        margin_pct=None if size.margin_pct is None else float(size.margin_pct),
    )  # fmt: skip


def _dear(dear: Dear) -> DearAnswer:
    return DearAnswer(
        ingredient=dear.ingredient, name=dear.name, mass_g=dear.mass_g, cost=_text(dear.cost, Decimal("0.01")),
        share_pct=float(100 * dear.share), per_gram=_text(dear.per_gram, PER_GRAM),
    )  # fmt: skip


def _text(money: Decimal, step: Decimal = TENTH_OF_A_CENT) -> str:
    return str(money.quantize(step, rounding=ROUND_HALF_UP))
