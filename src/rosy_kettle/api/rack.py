"""The rack: trays, weigh-ins, tasks, air; and its calendar."""

from __future__ import annotations

from datetime import UTC, datetime

from flask import Response
from sqlalchemy.orm import Session

from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.happenings import coming_of, name_of
from rosy_kettle.api.schemas.rack import (
    AirAnswer,
    AirList,
    AirQuery,
    AirSave,
    AirTypedAnswer,
    CalendarQuery,
    PlaceAnswer,
    PlacePath,
    PlaceSave,
    RackList,
    RackQuery,
    TrayAnswer,
    TrayEventSave,
    TrayPath,
    TraySave,
    WeighInList,
    WeighInSave,
)
from rosy_kettle.api.studio import current_studio, kept_answers
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.week.clock_hours import tonight
from rosy_kettle.store.rack import latest_air, list_places, set_place, trays_taken
from rosy_kettle.usecases.happen import Coming
from rosy_kettle.usecases.rack.log_air import air_typed_last, log_air, read_air
from rosy_kettle.usecases.rack.run_rack import SetOut, Tray, let_tray_happen, look_at_tray, look_at_trays, set_out
from rosy_kettle.usecases.rack.tell_calendar import tell_calendar
from rosy_kettle.usecases.studio.studio_zone import studio_zone

__all__ = ["blueprint"]

LIGHTEST_PAN_G = 0.01  # a pan that weighs no more than its tare says nothing
blueprint = part("rack", __name__, refusals=(404, 409, 422))


@blueprint.get("/rack", summary="Trays on the rack, or those wrapped, the newest first", responses={200: RackList})
def list_(query: RackQuery) -> Response:
    return _rack(query)


def _rack(query: RackQuery) -> Response:
    now = datetime.now(UTC)
    with current_studio().reading() as session:
        trays = look_at_trays(session, wrapped=query.wrapped, query=query.q, before=query.cursor, limit=query.limit + 1)
        more = len(trays) > query.limit
        shown = trays[: query.limit]
        return respond(RackList(
            items=[_tray(each) for each in shown], next=shown[-1].row.id if more else None, places=_places(session),
            now=now, tonight_at=tonight(now, studio_zone(session, query.zone)),
        ))  # fmt: skip


@blueprint.post("/rack", summary="Set pieces out on a tray", responses={201: TrayAnswer})
def put_out(body: TraySave) -> Response:
    ask = SetOut(body.pieces, body.batch_id, body.name, body.formula_id, body.place, body.trays, body.set_out_at, body.key)
    with current_studio().writing() as session:
        tray_id = set_out(session, ask)
    return _answer(tray_id, 201)


@blueprint.get("/rack/<int:tray_id>", summary="One tray as it stands", responses={200: TrayAnswer})
def read(path: TrayPath) -> Response:
    return _answer(path.tray_id)


@blueprint.post(
    "/rack/<int:tray_id>/events", summary="Let one thing happen to a tray", responses={200: TrayAnswer, 201: TrayAnswer}
)
def happen(path: TrayPath, body: TrayEventSave) -> Response:
    with current_studio().writing() as session:
        new = let_tray_happen(session, path.tray_id, coming_of(body))
    return _answer(path.tray_id, 201 if new else 200)


@blueprint.get("/rack/<int:tray_id>/weigh-ins", summary="What was weighed of a tray", responses={200: WeighInList})
def weigh_ins(path: TrayPath) -> Response:
    with current_studio().reading() as session:
        return respond(WeighInList(items=list(look_at_tray(session, path.tray_id).state.weighings), next=None))


@blueprint.post("/rack/<int:tray_id>/weigh-ins", summary="Keep a weigh-in", responses={200: TrayAnswer, 201: TrayAnswer})
def weigh(path: TrayPath, body: WeighInSave) -> Response:
    mass_g = body.mass_g - body.tare_g
    if mass_g < LIGHTEST_PAN_G:
        raise InputError("The pan weighs no more than its tare; put the pieces on it.", quantity="mass_g", value=body.mass_g)
    if body.at is not None and body.at > datetime.now(UTC):
        raise InputError("A weigh-in is kept when it was, not later than now.", quantity="at")
    data = {
        "mass_g": mass_g, "pieces": body.pieces, "step_g": body.scale_step_g, "source": body.source,
        "temperature_c": body.temperature_c, "humidity_pct": body.humidity_pct,
        "at": None if body.at is None else body.at.astimezone(UTC).isoformat(),
    }  # fmt: skip
    said = {key: value for key, value in data.items() if value is not None}
    with current_studio().writing() as session:
        coming = Coming(body.after, "weighed", said, name_of(body.id), body.made_at)
        new = let_tray_happen(session, path.tray_id, coming)
    return _answer(path.tray_id, 201 if new else 200)


@blueprint.put("/rack-places/<string:place>", summary="How many trays a place holds", responses={200: RackList})
def keep_place(path: PlacePath, body: PlaceSave) -> Response:
    with current_studio().writing() as session:
        set_place(session, path.place, body.trays)
    return _rack(RackQuery())


@blueprint.get("/air", summary="The air of a place", responses={200: AirList})
def air(query: AirQuery) -> Response:
    with current_studio().reading() as session:
        rows = read_air(session, query.place, query.days)
        items = [AirAnswer(at=r.at, temperature_c=r.temperature_c, humidity_pct=r.humidity_pct, source=r.source) for r in rows]
        return respond(AirList(items=items, next=None))


@blueprint.get("/air/typed", summary="The air that was typed last", responses={200: AirTypedAnswer})
def typed_air() -> Response:
    with current_studio().reading() as session:
        return respond(air_typed_last(session))


@blueprint.post("/air", summary="Log the air of a place", responses={201: AirList})
def keep_air(body: AirSave) -> Response:
    with current_studio().writing() as session:
        log_air(session, body.place, body.temperature_c, body.humidity_pct, body.at, body.source)
        rows = read_air(session, body.place, 7.0)
        items = [AirAnswer(at=r.at, temperature_c=r.temperature_c, humidity_pct=r.humidity_pct, source=r.source) for r in rows]
    return respond(AirList(items=items, next=None), 201)


@blueprint.get(
    "/calendar.ics",
    summary="Tasks of the rack, days of orders and hours at the bench as iCalendar",
    responses=file_of("text/calendar", "RFC 5545"),
)
def calendar(query: CalendarQuery) -> Response:
    from rosy_kettle.papers.calendar import calendar_of  # here: the paper packages are a tenth of the start

    now = datetime.now(UTC)
    studio = current_studio()
    with studio.reading() as session:
        zone = studio_zone(session, query.zone, query.utc_offset_min)

    def work() -> bytes:
        with studio.reading() as session:
            return calendar_of(tell_calendar(session, now, zone))

    text = kept_answers().get(("calendar", f"{zone}", f"{now:%Y-%m-%dT%H}"), work)
    return Response(text, mimetype="text/calendar", headers={"Content-Disposition": 'attachment; filename="rosy-kettle.ics"'})


def _answer(tray_id: int, status: int = 200) -> Response:
    with current_studio().reading() as session:
        return respond(_tray(look_at_tray(session, tray_id)), status)


def _tray(tray: Tray) -> TrayAnswer:
    row = tray.row
    return TrayAnswer(
        id=row.id, batch_id=row.batch_id, name=row.name, place=row.place, pieces=row.pieces, trays=row.trays,
        set_out_at=row.set_out_at, wrapped_at=row.wrapped_at, state=tray.state, reading=tray.reading,
    )  # fmt: skip


def _places(session: Session) -> list[PlaceAnswer]:
    taken = trays_taken(session)
    found = []
    for place in list_places(session):
        logged = latest_air(session, place.name)
        found.append(PlaceAnswer(
            name=place.name, trays=place.trays, taken=taken.get(place.name, 0),
            temperature_c=logged and logged.temperature_c, humidity_pct=logged and logged.humidity_pct,
            air_at=logged and logged.at,
        ))  # fmt: skip
    return found
