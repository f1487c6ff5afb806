"""Profiles: list, make, change, take away."""

from __future__ import annotations

from flask import Response
from sqlalchemy.orm import Session

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.profiles import ProfileList, ProfilePath, ProfileSave
from rosy_kettle.api.studio import current_keeper, current_studio
from rosy_kettle.store.profiles import delete_profile
from rosy_kettle.usecases.profiles.read_profiles import (
    Band,
    ProfileSettings,
    current_profiles,
    own_id,
    read_profiles,
    save_profile,
)

__all__ = ["blueprint"]

blueprint = part("profiles", __name__, "/api/profiles", (404, 422))


@blueprint.get("", summary="All profiles", responses={200: ProfileList})
def list_() -> Response:
    current_keeper().settle()
    return respond(ProfileList(profiles=current_profiles(current_studio())))


@blueprint.post("", summary="Make a profile", responses={201: ProfileList})
def create(body: ProfileSave) -> Response:
    with current_studio().writing() as session:
        _save(session, own_id(session, body.name), body)
        return respond(ProfileList(profiles=read_profiles(session)), 201)


@blueprint.put("/<string:profile_id>", summary="Change a profile", responses={200: ProfileList})
def change(path: ProfilePath, body: ProfileSave) -> Response:
    with current_studio().writing() as session:
        _save(session, path.profile_id, body)
        return respond(ProfileList(profiles=read_profiles(session)))


@blueprint.delete("/<string:profile_id>", summary="Take an own profile away, or a change back", responses={200: ProfileList})
def remove(path: ProfilePath) -> Response:
    with current_studio().writing() as session:
        delete_profile(session, path.profile_id)
        session.flush()
        return respond(ProfileList(profiles=read_profiles(session)))


def _save(session: Session, profile_id: str, body: ProfileSave) -> None:
    given = body.settings.model_dump()
    settings = ProfileSettings(**(given | {"markets": tuple(given["markets"]) if given["markets"] else None}))
    bands = [Band(band.reading, band.low, band.high) for band in body.bands]
    save_profile(session, profile_id, body.name, body.summary, body.ledger_profile, bands, settings)
