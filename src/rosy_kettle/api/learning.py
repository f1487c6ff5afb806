"""Learning: factors, accepted one by one and put back."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response, current_app

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.backups import TransferAnswer
from rosy_kettle.api.schemas.learning import FactorAnswer, FactorPath, FactorSave, LearningAnswer
from rosy_kettle.api.studio import current_studio, kept_answers
from rosy_kettle.store.learnt_factors import accept_factor, put_factor_back
from rosy_kettle.usecases.learning.learn_from_studio import Learning, factor_to_use, look_at_learning
from rosy_kettle.usecases.learning.learner import Learner

__all__ = ["blueprint"]

blueprint = part("learning", __name__, "/api/learning", (404, 422))


@blueprint.get("", summary="What the studio's own work makes of the defaults", responses={200: LearningAnswer})
def read() -> Response:
    _learner().read_up()
    return _told()


@blueprint.get("/progress", summary="How much of the studio's work is read", responses={200: TransferAnswer})
def progress() -> Response:
    return _progress()


@blueprint.delete("/progress", summary="Stop reading; what is read is kept", responses={200: TransferAnswer})
def hold() -> Response:
    _learner().hold()
    return _progress()


@blueprint.post("/progress", summary="Go on reading", responses={200: TransferAnswer})
def go_on() -> Response:
    _learner().go_on()
    return _progress()


@blueprint.put("/<string:factor>", summary="Use a factor from now on, or the default again", responses={200: LearningAnswer})
def change(path: FactorPath, body: FactorSave) -> Response:
    studio = current_studio()
    factor = None
    if body.accepted:
        _learner().read_up()
        with studio.reading() as session:  # worked out before the studio is locked for writing
            factor = factor_to_use(session, path.factor)
    with studio.writing() as session:
        if factor is None:
            put_factor_back(session, path.factor)
        else:
            accept_factor(session, factor.id, factor.yours, factor.message)
    return _told()


def _told() -> Response:
    studio = current_studio()

    def work() -> Learning:
        with studio.reading() as session:
            return look_at_learning(session)

    learning = kept_answers().get("learning", work)
    factors, seen = [FactorAnswer(**asdict(each.factor), used=each.used) for each in learning.factors], learning.seen
    return respond(LearningAnswer(
        factors=factors, errors=list(learning.errors), set_aside=list(learning.set_aside), batches=seen["felt"],
        trays=seen["dried"], tests=seen["foam"], ropes=seen["rope"], shaped=seen["pieces"] + seen["yield"],
        drops=seen["scratch"], waiting=learning.waiting, reading=_learner().running,
    ))  # fmt: skip


def _learner() -> Learner:
    learner: Learner = current_app.extensions["learner"]
    return learner


def _progress() -> Response:
    learner = _learner()
    return respond(TransferAnswer(running=learner.running, kind="learning", done=learner.done, whole=learner.whole))
