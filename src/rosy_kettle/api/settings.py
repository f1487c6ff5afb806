"""Settings of the studio."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.settings import StudioAnswer, StudioSave
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.stock.packs import Delivery
from rosy_kettle.core.records import Rate
from rosy_kettle.usecases.studio.studio_settings import OpenHours, StudioSettings, change_settings, studio_settings

__all__ = ["blueprint"]

blueprint = part("settings", __name__, "/api/settings", (422,))


@blueprint.get("", summary="What the maker has said of the studio", responses={200: StudioAnswer})
def read() -> Response:
    return _told()


@blueprint.put("", summary="Say it otherwise", responses={200: StudioAnswer})
def change(body: StudioSave) -> Response:
    wrong = next((day for day in body.week if day.to_h < day.from_h), None)
    if wrong is not None:
        raise InputError(f"A day that opens at {wrong.from_h} cannot close at {wrong.to_h}.", quantity="week")
    said = body.model_dump(exclude={"week", "rates", "deliveries"})
    rates = tuple(Rate(each.currency, each.per_usd, each.on.isoformat()) for each in body.rates)
    if len({each.currency for each in rates}) < len(rates):
        raise InputError("A currency has two rates; keep one of them.", quantity="rates")
    week = tuple(OpenHours(day.from_h, day.to_h) for day in body.week)
    with current_studio().writing() as session:
        change_settings(
            session,
            StudioSettings(
                **{**said, "markets": tuple(body.markets)},
                week=week,
                rates=rates,
                deliveries=tuple(Delivery(**each.model_dump()) for each in body.deliveries),
            ),
        )
    return _told()


def _told() -> Response:
    with current_studio().reading() as session:
        settings = studio_settings(session)
    return respond(StudioAnswer(settings=settings))
