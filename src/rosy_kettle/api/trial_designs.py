"""Designs of mini-batches."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.trial_designs import (
    AmendSave,
    DesignAnswer,
    DesignList,
    DesignPath,
    DesignQuery,
    DesignSave,
    PouredAnswer,
    ResultPath,
    ResultSave,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.usecases.learning.pour_winner import pour_winner
from rosy_kettle.usecases.learning.run_trials import (
    DesignAsk,
    TrialDesign,
    amend_result,
    design_from_formula,
    look_at_design,
    look_at_designs,
    read_back,
)

__all__ = ["blueprint"]

blueprint = part("trials", __name__, "/api/trial-designs", (404, 409, 422))


@blueprint.get("", summary="Designs of mini-batches, the newest first", responses={200: DesignList})
def list_(query: DesignQuery) -> Response:
    with current_studio().reading() as session:
        found = look_at_designs(session, query=query.q, before=query.cursor, limit=query.limit + 1)
        shown = [_answer(each) for each in found[: query.limit]]
    return respond(DesignList(items=shown, next=shown[-1].id if len(found) > query.limit else None))


@blueprint.post("", summary="Design mini-batches from a formula", responses={201: DesignAnswer})
def design(body: DesignSave) -> Response:
    bounds = [(each.ingredient, each.low_pct, each.high_pct) for each in body.bounds]
    ask = DesignAsk(body.formula_id, body.reading, body.wanted, bounds, body.trials, body.batch_g, body.key)
    with current_studio().writing() as session:
        design_id = design_from_formula(session, ask)
    return _told(design_id, 201)


@blueprint.get("/<int:design_id>", summary="One design as it stands", responses={200: DesignAnswer})
def read(path: DesignPath) -> Response:
    return _told(path.design_id)


@blueprint.post("/<int:design_id>/results", summary="Read a trial back", responses={201: DesignAnswer})
def result(path: DesignPath, body: ResultSave) -> Response:
    with current_studio().writing() as session:
        read_back(session, path.design_id, body.trial, body.value)
    return _told(path.design_id, 201)


@blueprint.post(
    "/<int:design_id>/results/<int:result_id>", summary="Amend a result, or leave it out", responses={200: DesignAnswer}
)
def amend(path: ResultPath, body: AmendSave) -> Response:
    with current_studio().writing() as session:
        amend_result(session, path.design_id, path.result_id, body.value)
    return _told(path.design_id)


@blueprint.post(
    "/<int:design_id>/poured", summary="Pour the best mixture into a version of its formula", responses={201: PouredAnswer}
)
def pour(path: DesignPath) -> Response:
    with current_studio().writing() as session:
        poured = pour_winner(session, path.design_id)
    return respond(PouredAnswer(formula_id=poured.formula_id, version=poured.version, note=poured.note), 201)


def _told(design_id: int, status: int = 200) -> Response:
    with current_studio().reading() as session:
        return respond(_answer(look_at_design(session, design_id)), status)


def _answer(each: TrialDesign) -> DesignAnswer:
    row = each.row
    return DesignAnswer(
        id=row.id, formula_id=row.formula_id, trials_formula_id=row.trials_formula_id, name=row.name, reading=row.reading,
        label=each.reading.label, unit=each.reading.unit, wanted=row.wanted, batch_g=row.batch_g, degree=row.degree,
        efficiency=row.efficiency, designed_at=row.designed_at, bounds=list(each.bounds), trials=list(each.trials),
        response=each.response, warning=each.warning,
    )  # fmt: skip
