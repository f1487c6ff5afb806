"""Levers, explanations, balances, substitutes and charts of a formula as it is typed."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import keys_not_understood, respond, told_with
from rosy_kettle.api.schemas.changes import (
    BalanceAnswer,
    BalanceAsk,
    BalanceTold,
    ChartsAnswer,
    ChartsAsk,
    ChartsTold,
    ExplanationAnswer,
    LeverList,
    ReadingAsk,
    SubstituteAsk,
    SubstituteList,
    SwapAnswer,
    SwapAsk,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.change.balance import BalanceProblem, balance
from rosy_kettle.core.change.balance.problem import target_of
from rosy_kettle.core.change.balance.substitute import substitutes, swap_in, with_substitute
from rosy_kettle.core.change.balance.task import with_masses_at
from rosy_kettle.core.change.why import constants_of, contributions, levers
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.learning.apply import reaches
from rosy_kettle.core.readings.charts import charts_of
from rosy_kettle.core.readings.registry import declared
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.files import FormulaFile, formula_to_file
from rosy_kettle.store.learnt_factors import list_accepted
from rosy_kettle.usecases.formulas.check_formula import check_formula
from rosy_kettle.usecases.formulas.judge_formula import dated
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["blueprint"]

blueprint = part("changes", __name__, refusals=(422,))


def _checked(file: FormulaFile) -> tuple[Formula, Tables]:
    with current_studio().reading() as session:
        tables = studio_tables(session)
    return dated(check_formula(file, tables)), tables


@blueprint.post("/levers", summary="Single changes that bring a reading where it is wanted", responses={200: LeverList})
def find_levers(body: ReadingAsk) -> Response:
    formula, tables = _checked(body.formula)
    found = levers(formula, tables, _known(body.reading), body.low, body.high, portion=body.portion)
    return respond(LeverList(levers=list(found), not_understood=keys_not_understood(body)))


@blueprint.post("/explanations", summary="What a reading is made of", responses={200: ExplanationAnswer})
def explain(body: ReadingAsk) -> Response:
    formula, tables = _checked(body.formula)
    reading = _known(body.reading)
    page = declared()[reading].page if reading in declared() else "overview"
    constants = list(constants_of(reading, tables.parameters))
    return respond(
        ExplanationAnswer(
            contributions=list(contributions(formula, tables, reading, body.portion)),
            constants=constants,
            page=page,
            learnt=[*_learnt(reading), *_by_sheet(formula, tables)],
            not_understood=keys_not_understood(body),
        )
    )


@blueprint.post("/balances", summary="The least change that meets wanted bands", responses={200: BalanceAnswer})
def find_balance(body: BalanceAsk) -> Response:
    formula, tables = _checked(body.formula)
    targets = tuple(target_of(band.reading, band.low, band.high) for band in body.targets)
    bounds = {name: (low, high) for name, (low, high) in body.bounds_g.items()}
    problem = BalanceProblem(
        formula, targets, body.objective, frozenset(body.locks), bounds, frees=frozenset(body.frees), guarded=body.guarded
    )
    return respond(told_with(BalanceTold, balance(problem, tables), body))


@blueprint.post("/substitutes", summary="What could stand in for a line", responses={200: SubstituteList})
def find_substitutes(body: SubstituteAsk) -> Response:
    formula, tables = _checked(body.formula)
    found = substitutes(formula, tables, body.position, body.held)
    return respond(SubstituteList(substitutes=list(found), not_understood=keys_not_understood(body)))


@blueprint.post("/swaps", summary="Swap one line and balance with least change", responses={200: SwapAnswer})
def swap(body: SwapAsk) -> Response:
    formula, tables = _checked(body.formula)
    result = swap_in(formula, tables, body.position, body.ingredient, body.held)
    line = next(each for each in result.lines if each.position == body.position)
    swapped = with_substitute(formula, body.position, body.ingredient, line.after_g)
    masses = {each.position: each.after_g for each in result.changes if each.position != body.position}
    file = formula_to_file(with_masses_at(swapped, masses))
    return respond(SwapAnswer(result=result, formula=file, not_understood=keys_not_understood(body)))


@blueprint.post("/charts", summary="Curves behind the readings", responses={200: ChartsAnswer})
def draw(body: ChartsAsk) -> Response:
    formula, tables = _checked(body.formula)
    if body.portion >= max(1, len(formula.portions)):
        raise InputError(f"There is no portion {body.portion + 1}.", quantity="portion", value=body.portion)
    return respond(told_with(ChartsTold, charts_of(formula, tables, body.portion), body))


def _learnt(reading: str) -> list[str]:
    """Say which accepted factors move a reading, in the sentences they were accepted by."""
    with current_studio().reading() as session:
        return [row.said for row in list_accepted(session) if reaches(row.id, reading)]


def _by_sheet(formula: Formula, tables: Tables) -> list[str]:
    """Say which ingredients of a formula are judged by the sheet of their lot."""
    return [said for id_, said in tables.sheets.items() if id_ in {line.ingredient for line in formula.lines}]


def _known(reading: str) -> str:
    return target_of(reading, 0.0, None).reading
