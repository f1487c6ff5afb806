"""Photos of batches and of tests in the tub: each comes with its event or not at all, and is shown only under its own noun."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Collection
from typing import Annotated
from uuid import UUID

from flask import Response, request, send_from_directory
from pydantic import AwareDatetime, BaseModel, Field
from sqlalchemy.orm import Session

from rosy_kettle.api.batches import current_devices, record_answer
from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.batches import BatchPath
from rosy_kettle.api.schemas.happenings import name_of
from rosy_kettle.api.schemas.tub_tests import TestPath
from rosy_kettle.api.studio import current_studio
from rosy_kettle.api.tub_tests import test_answer
from rosy_kettle.core.errors import InputError, NotFoundError
from rosy_kettle.store.photos import keep_photo, photo_folder, settle_photo
from rosy_kettle.usecases.batches.happen_at_bench import let_happen
from rosy_kettle.usecases.batches.run_batch import open_bench
from rosy_kettle.usecases.happen import Coming
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
    """After which event it was taken, its own name, and when."""

    after: Annotated[int, Field(ge=0, le=2**53)] = 0
    id: UUID | None = None
    made_at: AwareDatetime | None = None

    def coming(self, name: str) -> Coming:
        """Return the event that comes with a photo."""
        return Coming(self.after, "photo", {"name": name}, name_of(self.id), self.made_at)


@blueprint.post("/batches/<int:batch_id>/photos", summary="Keep a photo of a batch, made smaller")
def add_photo(path: BatchPath, query: PhotoQuery) -> Response:
    clock = current_devices().clock
    new = _keep(lambda session, name: let_happen(session, path.batch_id, query.coming(name), clock))
    return respond(record_answer(path.batch_id), 201 if new else 200)


@blueprint.get("/batches/<int:batch_id>/photos/<string:name>", summary="One photo of a batch", responses=JPEG)
def photo(path: PhotoPath) -> Response:
    with current_studio().reading() as session:
        names = open_bench(session, path.batch_id).state.photos
    return _shown(path.name, names)


@blueprint.post("/tub-tests/<int:test_id>/photos", summary="Keep a photo of a test, made smaller")
def add_test_photo(path: TestPath, query: PhotoQuery) -> Response:
    new = _keep(lambda session, name: let_test_happen(session, path.test_id, query.coming(name)))
    with current_studio().reading() as session:
        return respond(test_answer(look_at_test(session, path.test_id)), 201 if new else 200)


@blueprint.get("/tub-tests/<int:test_id>/photos/<string:name>", summary="One photo of a test", responses=JPEG)
def test_photo(path: TestPhotoPath) -> Response:
    with current_studio().reading() as session:
        names = look_at_test(session, path.test_id).state.photos
    return _shown(path.name, names)


def _keep(happen: Callable[[Session, str], bool]) -> bool:
    """Take the photo that was sent, made smaller: on disk before its event commits, under its own name after it.

    Returns whether it is new: one that was sent again, its answer lost, is there already.
    """
    from rosy_kettle.papers import smaller_photo  # here: the paper packages are a tenth of the start

    request.max_content_length = LARGEST_PHOTO_BYTES
    sent = request.files.get("photo")
    if sent is None:
        raise InputError("No photo was sent; choose a file.", quantity="photo")
    data, name = smaller_photo(sent.read()), f"{uuid.uuid4().hex}.jpg"
    studio, waiting = current_studio(), None
    try:
        with studio.writing() as session:
            if not happen(session, name):
                return False
            waiting = keep_photo(studio.path, name, data)
    except BaseException:
        if waiting is not None:
            waiting.unlink(missing_ok=True)  # its event was not committed
        raise
    settle_photo(waiting)
    return True


def _shown(name: str, own: Collection[str]) -> Response:
    if name not in own:
        raise NotFoundError("There is no such photo here.", noun="photo", id=name)
    return send_from_directory(photo_folder(current_studio().path), name)
