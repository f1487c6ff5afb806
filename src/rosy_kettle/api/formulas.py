"""Formulas: list, open, save, versions, delete and bring back, run sheet."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.evaluations import RunSheetAnswer
from rosy_kettle.api.schemas.formulas import (
    Branch,
    ComparisonAnswer,
    ComparisonQuery,
    FormulaAnswer,
    FormulaList,
    FormulaPath,
    FormulaQuery,
    FormulaSave,
    RunSheetQuery,
    VersionKeep,
    VersionPath,
    VersionSummary,
)
from rosy_kettle.api.studio import current_keeper, current_studio
from rosy_kettle.core.change.why.compare import compare
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.plan import make_run_sheet
from rosy_kettle.files import FormulaFile, formula_to_file
from rosy_kettle.store.formulas import (
    FormulaRow,
    delete_formula,
    find_formula,
    find_version,
    keep_version,
    record_of,
    restore_formula,
)
from rosy_kettle.store.glances import PageOfFormulas, count_formulas
from rosy_kettle.usecases.formulas.check_formula import check_formula
from rosy_kettle.usecases.formulas.list_formulas import glance_at_formulas
from rosy_kettle.usecases.formulas.save_formula import store_formula, store_new_formula
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["blueprint"]

MOST_DIGITS = 17  # of a row's number
blueprint = part("formulas", __name__, "/api/formulas", (404, 409, 422))


def _answer(row: FormulaRow) -> FormulaAnswer:
    return FormulaAnswer(
        id=row.id,
        revision=row.revision,
        updated_at=row.updated_at,
        version=row.working.number,
        versions=[
            VersionSummary(number=v.number, note=v.note, created_at=v.created_at, frozen_at=v.frozen_at) for v in row.versions
        ],
        formula=formula_to_file(record_of(row)),
    )


@blueprint.get("", summary="Formulas, last changed first", responses={200: FormulaList})
def list_(query: FormulaQuery) -> Response:
    keeper = current_keeper()
    keeper.settle()
    ask = PageOfFormulas(query.q, _parse_cursor(query.cursor), query.limit + 1)
    with current_studio().reading() as session:
        found = glance_at_formulas(session, ask)
        in_all, off = count_formulas(session)
    shown = found[: query.limit]
    more = len(found) > query.limit
    last = f"{shown[-1].updated_at.isoformat()}~{shown[-1].id}" if more else None
    return respond(FormulaList(formulas=shown, next=last, in_all=in_all, off=off, waiting=keeper.waiting()))


def _parse_cursor(cursor: str | None) -> tuple[datetime, int] | None:
    if cursor is None:
        return None
    at, _, number = cursor.replace(" ", "+").partition("~")
    try:
        moment = datetime.fromisoformat(at)
    except ValueError:
        moment = None
    if moment is None or moment.tzinfo is None or not (number.isascii() and number.isdecimal() and len(number) < MOST_DIGITS):
        raise InputError("The cursor is none this list has given; begin at the first page.", quantity="cursor")
    return moment, int(number)


@blueprint.post("", summary="Store a new formula", responses={201: FormulaAnswer})
def create(body: FormulaFile) -> Response:
    with current_studio().writing() as session:
        tables = studio_tables(session)
        row = store_new_formula(session, check_formula(body, tables), tables)
        answer = _answer(row)
    return respond(answer, 201)


@blueprint.get("/<int:formula_id>", summary="One formula", responses={200: FormulaAnswer})
def read(path: FormulaPath) -> Response:
    with current_studio().reading() as session:
        return respond(_answer(find_formula(session, path.formula_id)))


@blueprint.put("/<int:formula_id>", summary="Save what is being worked on", responses={200: FormulaAnswer})
def save(path: FormulaPath, body: FormulaSave) -> Response:
    with current_studio().writing() as session:
        tables = studio_tables(session)
        row = store_formula(session, path.formula_id, body.revision, check_formula(body.formula, tables), tables)
        answer = _answer(row)
    return respond(answer)


@blueprint.delete("/<int:formula_id>", summary="Put a formula aside", responses={204: None})
def delete(path: FormulaPath) -> Response:
    with current_studio().writing() as session:
        delete_formula(session, path.formula_id)
    return Response(status=204)


@blueprint.post("/<int:formula_id>/restore", summary="Bring a deleted formula back", responses={200: FormulaAnswer})
def restore(path: FormulaPath) -> Response:
    with current_studio().writing() as session:
        answer = _answer(restore_formula(session, path.formula_id))
    return respond(answer)


@blueprint.post("/<int:formula_id>/versions", summary="Keep the version being worked on", responses={201: FormulaAnswer})
def keep(path: FormulaPath, body: VersionKeep) -> Response:
    with current_studio().writing() as session:
        answer = _answer(keep_version(session, path.formula_id, body.note))
    return respond(answer, 201)


@blueprint.get("/<int:formula_id>/run-sheet", summary="Weigh-out and steps for some pieces", responses={200: RunSheetAnswer})
def run_sheet(path: FormulaPath, query: RunSheetQuery) -> Response:
    with current_studio().reading() as session:
        formula = record_of(find_formula(session, path.formula_id))
        tables = studio_tables(session)
    return respond(make_run_sheet(formula, tables, query.pieces, query.piece_mass_g, query.tool, query.scoop_fill))


@blueprint.get("/<int:formula_id>/versions/<int:number>", summary="One version of a formula", responses={200: FormulaFile})
def version(path: VersionPath) -> Response:
    with current_studio().reading() as session:
        row = find_formula(session, path.formula_id)
        return respond(formula_to_file(record_of(row, find_version(row, path.number))))


@blueprint.get("/<int:formula_id>/comparison", summary="Two versions side by side", responses={200: ComparisonAnswer})
def comparison(path: FormulaPath, query: ComparisonQuery) -> Response:
    with current_studio().reading() as session:
        row = find_formula(session, path.formula_id)
        first, second = (record_of(row, find_version(row, number)) for number in (query.first, query.second))
        tables = studio_tables(session)
    return respond(compare(first, second, tables))


@blueprint.post(
    "/<int:formula_id>/versions/<int:number>/branch", summary="Begin a formula from a version", responses={201: FormulaAnswer}
)
def branch(path: VersionPath, body: Branch) -> Response:
    with current_studio().writing() as session:
        row = find_formula(session, path.formula_id)
        start = replace(record_of(row, find_version(row, path.number)), name=body.name)
        return respond(_answer(store_new_formula(session, start, studio_tables(session))), 201)
