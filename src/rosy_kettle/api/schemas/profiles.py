"""Profiles: named target bands."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.changes import BandAsk
from rosy_kettle.api.schemas.common import Request, Response
from rosy_kettle.files.formula_file import HardnessId
from rosy_kettle.usecases.profiles.read_profiles import Profile

__all__ = ["ProfileList", "ProfilePath", "ProfileSave"]


class ProfilePath(BaseModel):
    """Which profile."""

    profile_id: Annotated[str, Field(max_length=80)]


class SettingsSave(Request):
    """What a profile assumes beside its bands; null leaves it to the formula."""

    markets: list[Literal["US", "EU", "UK"]] | None = None
    youngest_user_months: Annotated[float, Field(ge=0, le=1440, allow_inf_nan=False)] | None = None
    tub_l: Annotated[float, Field(gt=0, le=2000, allow_inf_nan=False)] | None = None
    dose_g: Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)] | None = None
    hardness: HardnessId | None = None
    room_c: Annotated[float, Field(ge=-20, le=60, allow_inf_nan=False)] | None = None
    humidity_pct: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None


class ProfileSave(Request):
    """A profile as it is wanted."""

    name: Annotated[str, Field(max_length=80)]
    summary: Annotated[str, Field(max_length=200)] = ""
    ledger_profile: Literal["adult", "family", "sensitive", "children"] = "adult"
    bands: Annotated[list[BandAsk], Field(max_length=30)] = []
    settings: SettingsSave = SettingsSave()


class ProfileList(Response):
    """All profiles, ready-made ones first."""

    profiles: list[Profile]
