"""Photos of batches and of tests in the tub: each comes with its event or not at all, and is shown only under its own noun."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from typing import Annotated

from flask import Response, request, send_from_directory
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from rosy_kettle.api.batches import current_devices, record_answer
from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.batches import BatchPath
from rosy_kettle.api.schemas.tub_tests import TestPath
from rosy_kettle.api.studio import current_studio
from rosy_kettle.api.tub_tests import test_answer
from rosy_kettle.core.errors import InputError, NotFoundError
from rosy_kettle.store.batches import list_events
from rosy_kettle.store.photos import keep_photo, photo_folder, settle_photo
from rosy_kettle.store.tub_tests import list_tub_test_events
from rosy_kettle.usecases.batches import run_batch
from rosy_kettle.usecases.tub.run_test import let_test_happen, look_at_test

__all__ = ["blueprint"]

blueprint = part("photos", __name__, refusals=(404, 409, 422))
LARGEST_PHOTO_BYTES = 20_000_000
JPEG = file_of("image/jpeg", "A photo")
Name = Annotated[str, Field(pattern=r"^[0-9a-f]{32}\.jpg$")]


class PhotoPath(BatchPath):
    """Which photo of which batch."""

    name: Name


class TestPhotoPath(TestPath):
    """Which photo of which test in the tub."""

    name: Name


class PhotoQuery(BaseModel):
    """After which event it was taken."""

    after: int


@blueprint.post("/batches/<int:batch_id>/photos", summary="Keep a photo of a batch, made smaller")
def add_photo(path: BatchPath, query: PhotoQuery) -> Response:
    clock = current_devices().clock
    _keep(lambda session, data: run_batch.let_happen(session, path.batch_id, query.after, "photo", data, clock))
    return respond(record_answer(path.batch_id), 201)


@blueprint.get("/batches/<int:batch_id>/photos/<string:name>", summary="One photo of a batch", responses=JPEG)
def photo(path: PhotoPath) -> Response:
    with current_studio().reading() as session:
        names = {event.data.get("name") for event in list_events(session, path.batch_id) if event.kind == "photo"}
    return _shown(path.name, names)


@blueprint.post("/tub-tests/<int:test_id>/photos", summary="Keep a photo of a test, made smaller")
def add_test_photo(path: TestPath, query: PhotoQuery) -> Response:
    _keep(lambda session, data: let_test_happen(session, path.test_id, query.after, "photo", data))
    with current_studio().reading() as session:
        return respond(test_answer(look_at_test(session, path.test_id)), 201)


@blueprint.get("/tub-tests/<int:test_id>/photos/<string:name>", summary="One photo of a test", responses=JPEG)
def test_photo(path: TestPhotoPath) -> Response:
    with current_studio().reading() as session:
        happened = list_tub_test_events(session, [path.test_id])[path.test_id]
    return _shown(path.name, {event.data.get("name") for event in happened if event.kind == "photo"})


def _keep(let_happen: Callable[[Session, dict[str, str]], None]) -> None:
    """Take the photo that was sent, made smaller: on disk before its event commits, under its own name after it."""
    from rosy_kettle.papers import smaller_photo  # here: the paper packages are a tenth of the start

    request.max_content_length = LARGEST_PHOTO_BYTES
    sent = request.files.get("photo")
    if sent is None:
        raise InputError("No photo was sent; choose a file.", quantity="photo")
    data, name = smaller_photo(sent.read()), f"{uuid.uuid4().hex}.jpg"
    studio, waiting = current_studio(), None
    try:
        with studio.writing() as session:
            let_happen(session, {"name": name})
            waiting = keep_photo(studio.path, name, data)
    except BaseException:
        if waiting is not None:
            waiting.unlink(missing_ok=True)  # its event was not committed
        raise
    settle_photo(waiting)


def _shown(name: str, own: set[str | None]) -> Response:
    if name not in own:
        raise NotFoundError("There is no such photo here.", noun="photo", id=name)
    return send_from_directory(photo_folder(current_studio().path), name)
