"""Plan and bench: plans, batches, what happens to them."""

from __future__ import annotations

from flask import Response, current_app
from sqlalchemy.orm import Session

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.batches import (
    BatchAnswer,
    BatchBegin,
    BatchComparisonAnswer,
    BatchList,
    BatchPath,
    BatchQuery,
    EventSave,
    FeelList,
    HeldAnswer,
    OtherBatch,
    PlanAnswer,
    PlanSave,
    TimelineEntry,
    WaysOut,
    WaysQuery,
)
from rosy_kettle.api.schemas.formulas import FormulaPath
from rosy_kettle.api.schemas.happenings import coming_of
from rosy_kettle.api.studio import current_keeper, current_studio
from rosy_kettle.core.making.bench import FEELS
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.plan import Wish
from rosy_kettle.core.records import Room
from rosy_kettle.devices import BenchDevices
from rosy_kettle.files import formula_to_file
from rosy_kettle.store.batches import PageOfBatches, batch_begun_with, count_batches
from rosy_kettle.usecases.batches.compare_made import compare_made
from rosy_kettle.usecases.batches.follow_batch import follow_batch
from rosy_kettle.usecases.batches.happen_at_bench import let_happen
from rosy_kettle.usecases.batches.list_batches import glance_at_batches
from rosy_kettle.usecases.batches.plan_batch import PlanAsk, plan_batch
from rosy_kettle.usecases.batches.run_batch import Bench, begin_batch, begin_next_bowl, open_bench, ways_out
from rosy_kettle.usecases.batches.tell_batch import tell_batch
from rosy_kettle.usecases.batches.tell_held import ToldHeld, tell_held
from rosy_kettle.usecases.studio.studio_zone import studio_zone

__all__ = ["blueprint", "current_devices", "record_answer"]

blueprint = part("batches", __name__, refusals=(404, 409, 422))
USUAL_ROOM = Room()


def current_devices() -> BenchDevices:
    """Return the devices of the running application."""
    devices: BenchDevices = current_app.extensions["devices"]
    return devices


@blueprint.post("/formulas/<int:formula_id>/plans", summary="Plan a batch", responses={200: PlanAnswer})
def plan(path: FormulaPath, body: PlanSave) -> Response:
    with current_studio().reading() as session:
        return respond(plan_batch(session, path.formula_id, _ask(session, body)))


@blueprint.get("/batches", summary="Batches, the newest first", responses={200: BatchList})
def list_(query: BatchQuery) -> Response:
    if query.q:
        current_keeper().settle()
    ask = PageOfBatches(query.q, query.formula_id, query.cursor, query.limit + 1)
    with current_studio().reading() as session:
        found = glance_at_batches(session, ask)
        in_all, still_open = count_batches(session)
    shown = found[: query.limit]
    last = shown[-1].id if len(found) > query.limit else None
    return respond(BatchList(batches=shown, next=last, in_all=in_all, still_open=still_open))


@blueprint.get("/batches/<int:batch_id>/comparison", summary="Two batches side by side", responses={200: BatchComparisonAnswer})
def comparison(path: BatchPath, query: OtherBatch) -> Response:
    with current_studio().reading() as session:
        return respond(compare_made(session, path.batch_id, query.other))


@blueprint.get("/feels", summary="The tiles of the squeeze and drop tests", responses={200: FeelList})
def feels() -> Response:
    return respond(FeelList(feels=list(FEELS)))


@blueprint.post("/batches", summary="Begin a bowl at the bench", responses={201: BatchAnswer})
def begin(body: BatchBegin) -> Response:
    with current_studio().writing() as session:
        batch_id = batch_begun_with(session, body.key) or begin_batch(session, body.formula_id, _ask(session, body), body.key)
    return _answer(batch_id, 201)


@blueprint.post("/batches/<int:batch_id>/next-bowl", summary="Begin the next bowl of the same plan", responses={201: BatchAnswer})
def next_bowl(path: BatchPath) -> Response:
    with current_studio().writing() as session:
        batch_id = begin_next_bowl(session, path.batch_id)
    return _answer(batch_id, 201)


@blueprint.get("/batches/<int:batch_id>", summary="One batch, as planned and as made", responses={200: BatchAnswer})
def read(path: BatchPath) -> Response:
    return _answer(path.batch_id)


@blueprint.post("/batches/<int:batch_id>/events", summary="Let one thing happen", responses={200: BatchAnswer, 201: BatchAnswer})
def happen(path: BatchPath, body: EventSave) -> Response:
    devices = current_devices()
    coming = coming_of(body, hold=body.hold)
    with current_studio().writing() as session:
        new = let_happen(session, path.batch_id, coming, devices.clock)
    data = coming.data
    if new and coming.kind in {"weighed", "rescued"} and data.get("source") != "hand" and data.get("way") != "take-out":
        devices.zero()  # the next line begins at nothing
    return _answer(path.batch_id, 201 if new else 200)


@blueprint.get("/batches/<int:batch_id>/ways-out", summary="Ways out of pouring too much", responses={200: WaysOut})
def ways(path: BatchPath, query: WaysQuery) -> Response:
    with current_studio().reading() as session:
        return respond(WaysOut(ways=list(ways_out(session, path.batch_id, query.actual_g))))


def record_answer(batch_id: int) -> BatchAnswer:
    """Return a batch as it stands."""
    with current_studio().reading() as session:
        return _batch(open_bench(session, batch_id), current_devices().clock.rate)


def _answer(batch_id: int, status: int = 200) -> Response:
    devices = current_devices()
    with current_studio().reading() as session:
        bench = open_bench(session, batch_id)
        answer = _batch(bench, devices.clock.rate)
    if status != 200:  # noqa: PLR2004 - something has happened: the stand-ins follow, the other browsers hear of it
        follow_batch(bench, devices)
        devices.tell(batch_id, bench.state.seq)
    return respond(answer, status)


def _batch(bench: Bench, clock_rate: float) -> BatchAnswer:
    row = bench.row
    told = list(zip(bench.events, tell_batch(bench), strict=True))
    return BatchAnswer(
        id=row.id, formula_id=row.formula_id, version=row.version, name=row.name, method=row.method, batch_g=row.batch_g,
        pieces=sum(item["pieces"] for item in row.plan["pieces"]), pieces_now=bench.pieces_now, created_at=row.created_at,
        closed_at=row.closed_at,
        planned=formula_to_file(bench.planned), made=formula_to_file(bench.made), state=bench.state,
        bowl=row.plan["bowl"], bowls=row.plan["bowls"],
        events=[
            _told(event, text) for event, text in told
        ],
        held=[_held(each, told) for each in tell_held(bench)],
        before=bench.before, now=bench.now, so_far=bench.so_far, watch=bench.watch, feel=bench.feel, clock_rate=clock_rate,
    )  # fmt: skip


def _told(event: Event, text: str) -> TimelineEntry:
    return TimelineEntry(
        seq=event.seq, at=event.at, kind=event.kind, data=dict(event.data), text=text, id=event.id, made_at=event.made_at
    )


def _held(held: ToldHeld, told: list[tuple[Event, str]]) -> HeldAnswer:
    return HeldAnswer(
        id=held.id, kind=held.kind, text=held.text, made_at=held.made_at, at=held.at,
        beside=[_told(event, text) for event, text in told if event.seq in held.beside],
    )  # fmt: skip


def _ask(session: Session, body: PlanSave) -> PlanAsk:
    room = None
    if body.room_c is not None or body.humidity_pct is not None:
        room = Room(
            USUAL_ROOM.temperature_c if body.room_c is None else body.room_c,
            USUAL_ROOM.humidity_pct if body.humidity_pct is None else body.humidity_pct,
        )
    return PlanAsk(
        [Wish(**wish.model_dump()) for wish in body.wishes], body.mass_g, body.capacity_g, room, body.start_at, body.ready_by,
        studio_zone(session, body.zone, body.utc_offset_min), body.schools,
    )  # fmt: skip
