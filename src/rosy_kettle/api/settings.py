"""Settings of the studio."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.settings import StudioAnswer, StudioSave
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.stock.packs import Delivery
from rosy_kettle.core.records import OwnTool, Rate, Room, Tolerance, Tub
from rosy_kettle.usecases.studio.studio_settings import OpenHours, StudioSettings, change_settings, studio_settings
from rosy_kettle.usecases.studio.studio_zone import zone_named

__all__ = ["blueprint"]

blueprint = part("settings", __name__, "/api/settings", (422,))
MONTHS = 12


@blueprint.get("", summary="What the maker has said of the studio", responses={200: StudioAnswer})
def read() -> Response:
    return _told()


@blueprint.put("", summary="Say it otherwise", responses={200: StudioAnswer})
def change(body: StudioSave) -> Response:
    _check(body)
    with current_studio().writing() as session:
        change_settings(session, _said(body))
    return _told()


def _check(body: StudioSave) -> None:
    """Refuse what cannot be meant together."""
    wrong = next((day for day in body.week if day.to_h < day.from_h), None)
    if wrong is not None:
        raise InputError(f"A day that opens at {wrong.from_h} cannot close at {wrong.to_h}.", quantity="week")
    if body.zone:
        zone_named(body.zone)
    if len({each.currency for each in body.rates}) < len(body.rates):
        raise InputError("A currency has two rates; keep one of them.", quantity="rates")
    names = [each.name for each in body.tubs] + [each.name for each in body.tools]
    if not all(name.strip() for name in names):
        raise InputError("A tub or a tool has no name; give it one.", quantity="tubs")
    if len({each.name for each in body.tubs}) < len(body.tubs):
        raise InputError("Two tubs have the same name; call one of them otherwise.", quantity="tubs")
    if len({each.id for each in body.tools}) < len(body.tools) or len({each.name for each in body.tools}) < len(body.tools):
        raise InputError("Two tools have the same name; call one of them otherwise.", quantity="tools")
    if body.rooms and len(body.rooms) != MONTHS:
        raise InputError("The workshop's air is given for all twelve months, or for none.", quantity="rooms")


def _said(body: StudioSave) -> StudioSettings:
    plain = body.model_dump(exclude={"markets", "week", "rates", "deliveries", "tubs", "tools", "tolerance", "rooms"})
    return StudioSettings(
        **plain, markets=tuple(body.markets), week=tuple(OpenHours(day.from_h, day.to_h) for day in body.week),
        rates=tuple(Rate(each.currency, each.per_usd, each.on.isoformat()) for each in body.rates),
        deliveries=tuple(Delivery(**each.model_dump()) for each in body.deliveries),
        tubs=tuple(Tub(**each.model_dump()) for each in body.tubs),
        tools=tuple(OwnTool(**each.model_dump()) for each in body.tools), tolerance=Tolerance(**body.tolerance.model_dump()),
        rooms=tuple(Room(**each.model_dump()) for each in body.rooms),
    )  # fmt: skip


def _told() -> Response:
    with current_studio().reading() as session:
        settings = studio_settings(session)
    return respond(StudioAnswer(settings=settings))
