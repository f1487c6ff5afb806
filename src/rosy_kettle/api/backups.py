"""Backups, and the studio out and in as a zip."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path

from flask import Response, current_app, request, send_file

from rosy_kettle.api.part import file_of, part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.backups import (
    BackupAnswer,
    BackupList,
    BackupPath,
    DifferenceAnswer,
    ImportedAnswer,
    ImportQuery,
    RestoredAnswer,
    TransferAnswer,
    WarningList,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.api.transfer import Transfer
from rosy_kettle.core.errors import InputError
from rosy_kettle.store.backups import Backup, backup_folder, begin_anew, bring_back, list_backups, make_backup
from rosy_kettle.store.leftovers import temporary_prefix
from rosy_kettle.usecases.studio.exchange.export_studio import export_studio
from rosy_kettle.usecases.studio.exchange.import_studio import import_studio

__all__ = ["LARGEST_ZIP_BYTES", "blueprint"]

blueprint = part("backups", __name__, "/api", (404, 409, 422))
LARGEST_ZIP_BYTES = 300_000_000  # a larger one is taken in by the command line


def _transfer() -> Transfer:
    transfer: Transfer = current_app.extensions["transfer"]
    return transfer


@blueprint.get("/backups", summary="Backups, the newest first", responses={200: BackupList})
def list_() -> Response:
    return respond(BackupList(items=[_told(each) for each in list_backups(backup_folder(current_studio().path))]))


@blueprint.get("/backups/warnings", summary="What is to be said of the studio, quietly", responses={200: WarningList})
def warnings() -> Response:
    return respond(WarningList(items=list(current_app.extensions["warnings"]())))


@blueprint.post("/backups", summary="Make a backup now", responses={201: BackupAnswer})
def make() -> Response:
    return respond(_told(make_backup(current_studio(), by_hand=True)), 201)


@blueprint.get("/backups/<string:name>", summary="One backup as a file", responses=file_of("application/vnd.sqlite3", "A studio"))
def read(path: BackupPath) -> Response:
    file = backup_folder(current_studio().path) / path.name
    if not file.exists():
        raise InputError(f'There is no backup "{path.name}".', quantity="name")
    answer: Response = send_file(file, mimetype="application/vnd.sqlite3", as_attachment=True, download_name=path.name)
    return answer


@blueprint.post("/backups/<string:name>/restore", summary="Bring a backup back", responses={200: RestoredAnswer})
def restore(path: BackupPath) -> Response:
    return respond(RestoredAnswer(kept=bring_back(current_studio(), path.name)))


@blueprint.delete("/studio", summary="Begin with an empty studio; what was here is kept", responses={200: RestoredAnswer})
def anew() -> Response:
    return respond(RestoredAnswer(kept=begin_anew(current_studio())))


@blueprint.get("/studio.zip", summary="The whole studio as open files", responses=file_of("application/zip", "A studio zip"))
def export() -> Response:
    transfer = _transfer()
    with transfer.begin("export"), tempfile.TemporaryDirectory(prefix=temporary_prefix("export", os.getpid())) as folder:
        path = Path(folder) / "studio.zip"
        export_studio(current_studio(), path, transfer.report, transfer.stopped)
        # The file is opened before its folder goes; what is open stays readable until it is closed.
        answer: Response = send_file(
            path.open("rb"), mimetype="application/zip", as_attachment=True,
            download_name=f"rosy-kettle-{datetime.now(UTC):%Y-%m-%d}.zip",
        )  # fmt: skip
        return answer


@blueprint.post("/studio.zip", summary="Take a studio zip in", responses={200: ImportedAnswer})
def take_in(query: ImportQuery) -> Response:
    request.max_content_length = LARGEST_ZIP_BYTES
    transfer = _transfer()
    with transfer.begin("import"), _sent() as path:
        found = import_studio(current_studio(), path, merge=query.merge, report=transfer.report, stopped=transfer.stopped)
    return respond(ImportedAnswer(
        made_at=found.made_at, taken=dict(found.taken), photos=found.photos,
        differences=[
            DifferenceAnswer(noun=each.noun, name=each.name, here=each.here, there=each.there, done=each.done)
            for each in found.differences
        ],
    ))  # fmt: skip


@blueprint.get("/studio.zip/progress", summary="How far the running export or import is", responses={200: TransferAnswer})
def progress() -> Response:
    return _progress()


def _progress() -> Response:
    transfer = _transfer()
    return respond(TransferAnswer(running=transfer.running, kind=transfer.kind, done=transfer.done, whole=transfer.whole))


@blueprint.delete("/studio.zip/progress", summary="Stop it", responses={200: TransferAnswer})
def stop() -> Response:
    _transfer().stop()
    return _progress()


@contextmanager
def _sent() -> Iterator[Path]:
    """Keep what was sent in a file for as long as it is needed."""
    sent = request.files.get("file")
    if sent is None:
        raise InputError("No file was sent; choose a studio zip.", quantity="file")
    with tempfile.TemporaryDirectory(prefix=temporary_prefix("import", os.getpid())) as folder:
        path = Path(folder) / "sent.zip"
        sent.save(path)
        yield path


def _told(backup: Backup) -> BackupAnswer:
    return BackupAnswer(name=backup.name, made_at=backup.made_at, size_bytes=backup.size_bytes, by_hand=backup.by_hand)
