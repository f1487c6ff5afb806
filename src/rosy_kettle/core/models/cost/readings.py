"""Money of a formula as it is shown."""

from __future__ import annotations

from collections.abc import Sequence

from rosy_kettle.core.amounts import Weighed
from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mixing.setting import Setting, missing_of
from rosy_kettle.core.models.cost.formula_cost import formula_cost, per_active_gram, shown
from rosy_kettle.core.records.evaluation import Cost, Missing
from rosy_kettle.core.records.reading import Reading, Watched

__all__ = ["READINGS", "read_cost"]

READINGS = (
    Reading(
        "cost.full_piece", "Per piece, all in", "USD", "exact", "piece", "With packaging, labour and overhead.",
        page="money", question="cost", place=39, rests_on=("mixing",), scale=(0.0, 2.0), curve="frontier",
    ),
    Reading(
        "cost.per_active_g", "Per gram of active", "USD", "exact", "batch", "All ingredients over the active surfactant.",
        page="money", question="cost", place=40, rests_on=("mixing",), scale=(0.0, 2.0), curve="frontier",
    ),
    Reading(
        "cost.batch", "Batch", "USD", "exact", "batch", "Own prices where entered, else the middle of the reference band.",
        page="money", question="cost", place=41, rests_on=("mixing",), compute=lambda look: look.money("batch"),
        scale=(0.0, 2.0), curve="frontier",
    ),
    Reading(
        "cost.piece", "Per piece", "USD", "exact", "piece", "Batch cost over what is left after loss, times the piece.",
        page="money", question="cost", place=42, rests_on=("mixing",), compute=lambda look: look.money("piece"), aim=True,
        watched=Watched(9, 0.05), scale=(0.0, 1.5), decimals=2, desk=0, curve="frontier",
    ),
    Reading(
        "cost.bath", "Per bath", "USD", "exact", "dose", "Cost of a piece times the share of it used in one bath.",
        page="money", question="cost", place=43, rests_on=("mixing",), compute=lambda look: look.money("bath"), aim=True,
        scale=(0.0, 2.0), curve="frontier",
    ),
)  # fmt: skip
"""Declarations."""


def read_cost(
    weighed: Sequence[Weighed], setting: Setting, active_batch_g: float | None, missing: list[Missing]
) -> tuple[Cost, list[str | None]]:
    """Return the cost of batch, piece and bath, and of each line.

    Parameters
    ----------
    weighed : Sequence
        Lines in grams
    setting : Setting
        Piece, dose, prices
    active_batch_g : float or None
        Active surfactant of the batch [g]
    missing : list
        Takes what has no price

    Returns
    -------
    tuple
        Cost as text, and the cost of each line in order
    """
    assumed, formula = setting.assumed, setting.formula
    try:
        cost = formula_cost(
            [(item.ingredient, item.mass_g) for item in weighed],
            setting.tables.prices, assumed.piece_mass_g, assumed.dose_g, assumed.loss_fraction, formula.making,
        )  # fmt: skip
    except MissingDataError as error:
        missing.append(missing_of("cost", error))
        return Cost(setting.tables.prices.currency, None, None, None, "reference"), [None] * len(weighed)
    lines = [shown(line) for line in cost.lines]
    if cost.piece is None:
        missing.append(Missing("cost", None, None, "the formula is empty"))
        return Cost(cost.currency, None, None, None, cost.basis), lines
    per_active = per_active_gram(cost, active_batch_g)
    money = (shown(cost.batch), shown(cost.piece), shown(cost.bath), cost.basis, shown(cost.full_piece), per_active)
    return Cost(cost.currency, *money), lines
