"""Pairing of devices over the network."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Number, Request, Response

__all__ = ["DeviceClaim", "DevicePath", "PairedAnswer", "PairedDeviceAnswer", "PairedDeviceList", "PairingAnswer", "PairingSave"]

Role = Literal["look", "bench", "all"]


class PairingSave(Request):
    """What the next device that pairs may do."""

    role: Role = "bench"


class PairingAnswer(Response):
    """A code for one device, where it is typed, and for how long it holds."""

    code: str
    seconds: float
    address: str
    qr: list[str]
    """The address with the code as a QR symbol, a row a text of 0 and 1."""


class DeviceClaim(Request):
    """The code as it is read off the studio's own screen, and how the device is called."""

    code: Annotated[str, Field(pattern=r"^[0-9]{8}$")]
    name: Annotated[str, Field(min_length=1, max_length=60, pattern=r"^[^\x00-\x1f\x7f]*$")]


class PairedAnswer(Response):
    """The device is paired; its cookie is set."""

    paired: Literal[True] = True


class DevicePath(BaseModel):
    """Which device."""

    device_id: Number


class PairedDeviceAnswer(Response):
    """A device that may come in."""

    id: int
    name: str
    role: Role
    paired_at: datetime


class PairedDeviceList(Response):
    """Devices, the newest first, and whether the network is served at all."""

    items: list[PairedDeviceAnswer]
    next: None = None
    lan: bool
