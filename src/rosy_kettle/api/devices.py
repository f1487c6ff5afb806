"""Devices: their readings as a stream, and the drawer of the simulated ones."""

from __future__ import annotations

import json
import time
from itertools import takewhile
from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, Field

from rosy_kettle.api.batches import current_devices
from rosy_kettle.api.guests import still_in
from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.common import Request
from rosy_kettle.api.schemas.common import Response as Answer
from rosy_kettle.core.errors import ConflictError

__all__ = ["MOST_LISTENERS", "blueprint"]

blueprint = part("devices", __name__, "/api/devices", (409, 422))
STREAM = file_of("text/event-stream", "Events of devices")


MOST_LISTENERS = 10
"""Pages that listen at once: each holds a thread, and the server has so many more than it works with (decision 0008)."""


class StreamQuery(BaseModel):
    """Which batch to hear of as well."""

    batch: int | None = None


class DrawerAct(Request):
    """What a user of the drawer does to a stand-in."""

    act: Literal["pour", "clear", "heat", "cool", "temperature", "breathe", "humidity", "unplug", "plug"]
    device: Literal["scale", "thermometer", "hygrometer"] = "scale"
    value: Annotated[float, Field(ge=-100_000, le=100_000, allow_inf_nan=False)] = 0.0
    seconds: Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)] = 0.0


class DeviceList(Answer):
    """What every device says now."""

    readings: list[DeviceAnswer]
    stand_ins: bool
    """Whether there are stand-ins: devices that measure nothing."""
    simulated_scale: bool
    clock_rate: float


class DeviceAnswer(Answer):
    """One reading."""

    device: str
    value: float | None
    unit: str
    stable: bool
    fault: str
    at_ms: float
    source: Literal["device", "stand-in"]


@blueprint.get("", summary="What the devices say now", responses={200: DeviceList})
def list_() -> Response:
    return _now()


@blueprint.post("/scale/zero", summary="Zero the scale", responses={200: DeviceList})
def zero() -> Response:
    current_devices().zero()
    return _now()


@blueprint.post("/drawer", summary="Do something to a simulated device", responses={200: DeviceList})
def drawer(body: DrawerAct) -> Response:
    devices = current_devices()
    if not devices.has_stand_ins():
        raise ConflictError("There are no stand-in devices; switch them on under Settings.", noun="devices", reason="off")
    bench_s, real_s = devices.clock.now(), time.time()
    match body.act:
        case "pour":
            devices.simulated_scale.pour(body.value, body.seconds, real_s)
        case "clear":
            devices.simulated_scale.clear()
        case "heat":
            devices.bowl.warm(abs(body.value), body.seconds, bench_s)
        case "cool":
            devices.bowl.warm(-abs(body.value), body.seconds, bench_s)
        case "temperature":
            devices.bowl.set_temperature(body.value, bench_s)
        case "breathe":
            devices.hygrometer.breathe(bench_s)
        case "humidity":
            devices.hygrometer.room_pct = min(99.0, max(1.0, body.value))
        case "unplug" | "plug":
            devices.plug(body.device, plugged=body.act == "plug")
    return _now()


@blueprint.get("/stream", summary="Readings as they change, ten times a second at most, as server-sent events", responses=STREAM)
def stream(query: StreamQuery) -> Response:
    devices = current_devices()
    listening = devices.listen(query.batch, MOST_LISTENERS)
    if listening is None:
        raise ConflictError("Too many pages listen to the devices; close one.", noun="stream", reason="full")
    may_hear = still_in()
    heard = takewhile(lambda _news: may_hear(), listening)
    events = (f"data: {json.dumps(news)}\n\n" for news in heard)
    headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
    answer = Response(events, mimetype="text/event-stream", headers=headers)
    answer.call_on_close(listening.close)
    return answer


def _now() -> Response:
    devices = current_devices()
    return respond(DeviceList(
        readings=[DeviceAnswer(**reading) for reading in devices.readings()],
        stand_ins=devices.has_stand_ins(), simulated_scale=devices.scale is devices.simulated_scale,
        clock_rate=devices.clock.rate,
    ))  # fmt: skip
