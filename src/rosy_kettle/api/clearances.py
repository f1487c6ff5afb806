"""Clearances of batches: what stands against a sale, who signed, what has come up since."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.batches import BatchPath
from rosy_kettle.api.schemas.sales import (
    ClearanceAnswer,
    ClearanceList,
    ClearanceSave,
    ReopenedAnswer,
    ReopenedList,
    SignatureAnswer,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.store.clearances import ClearanceRow
from rosy_kettle.usecases.labels.clear_batch import (
    Clearance,
    clearances_of_batch,
    reopened_clearances,
    sign_clearance,
    take_back_clearance,
)

__all__ = ["blueprint"]

blueprint = part("clearances", __name__, "/api", (404, 409, 422))


@blueprint.get("/batches/<int:batch_id>/clearances", summary="What stands against a batch", responses={200: ClearanceList})
def of_batch(path: BatchPath) -> Response:
    return _of(path.batch_id)


@blueprint.post(
    "/batches/<int:batch_id>/clearances", summary="Sign a batch for a market, or take that back", responses={201: ClearanceList}
)
def say(path: BatchPath, body: ClearanceSave) -> Response:
    with current_studio().writing() as session:
        if body.state == "signed":
            sign_clearance(session, path.batch_id, body.market, body.who, body.key)
        else:
            take_back_clearance(session, path.batch_id, body.market, body.who, body.reason, body.key)
    return _of(path.batch_id, 201)


@blueprint.get("/clearances/reopened", summary="Signed, and something has come up since", responses={200: ReopenedList})
def reopened() -> Response:
    with current_studio().reading() as session:
        items = [
            ReopenedAnswer(
                batch_id=each.batch_id, name=each.name, market=each.market, who=each.signed.who, at=each.signed.at,
                blocks=list(each.blocks),
            )
            for each in reopened_clearances(session)
        ]  # fmt: skip
    return respond(ReopenedList(items=items))


def _of(batch_id: int, status: int = 200) -> Response:
    with current_studio().reading() as session:
        items = [_answer(each) for each in clearances_of_batch(session, batch_id)]
        return respond(ClearanceList(batch_id=batch_id, items=items), status)


def _answer(each: Clearance) -> ClearanceAnswer:
    return ClearanceAnswer(
        market=each.market, clean=each.clean, blocks=list(each.blocks),
        signed=None if each.signed is None else _signature(each.signed), history=[_signature(row) for row in each.history],
    )  # fmt: skip


def _signature(row: ClearanceRow) -> SignatureAnswer:
    return SignatureAnswer(state=row.state, who=row.who, reason=row.reason, at=row.at)
