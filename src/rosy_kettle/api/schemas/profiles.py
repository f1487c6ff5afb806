"""Profiles: named target bands."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.changes import BandAsk
from rosy_kettle.api.schemas.common import Request, Response
from rosy_kettle.usecases.read_profiles import Profile

__all__ = ["ProfileList", "ProfilePath", "ProfileSave"]


class ProfilePath(BaseModel):
    """Which profile."""

    profile_id: Annotated[str, Field(max_length=80)]


class ProfileSave(Request):
    """A profile as it is wanted."""

    name: Annotated[str, Field(max_length=80)]
    summary: Annotated[str, Field(max_length=200)] = ""
    ledger_profile: Literal["adult", "family", "sensitive", "children"] = "adult"
    bands: Annotated[list[BandAsk], Field(max_length=30)] = []


class ProfileList(Response):
    """All profiles, ready-made ones first."""

    profiles: list[Profile]
