"""Kill a served studio again and again while it is written to, and count what was acknowledged and is gone: make chaos.

Formulas, batches, photos and notes are sent by four writers over HTTP, each note under a name of its own as a tablet's queue
sends it: what was not answered when the server went is told again afterwards, and has to stand in the record once. Meanwhile a
studio zip is taken in now and then. The server is killed at a random moment, the file is looked at with SQLite's own integrity
check, and the server is started again. Every tenth time, or as often as asked, the studio is begun anew over HTTP while the
writers write, and five kills later a backup is brought back the same way; everything acknowledged must stand in the studio or in
one of the copies that were kept.
"""

from __future__ import annotations

import argparse
import http.client
import io
import json
import secrets
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
import uuid
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass, field
from datetime import UTC, datetime
from functools import partial
from http import HTTPStatus
from pathlib import Path
from typing import Any

from PIL import Image
from scripts.served import largest_memory_mb, start

from rosy_kettle.api.app import create_app
from rosy_kettle.store import open_studio

WRITERS = 4
FROM_ZIP = "taken in from a zip"
LINES = [
    {"ingredient": "baking-soda", "amount": "300", "unit": "g"},
    {"ingredient": "citric-acid-anhydrous", "amount": "150", "unit": "g"},
]


@dataclass
class Kept:
    """What was acknowledged since the beginning, and where it may stand."""

    formulas: set[str] = field(default_factory=set)
    batches: set[str] = field(default_factory=set)
    photos: set[str] = field(default_factory=set)
    notes: set[str] = field(default_factory=set)
    queue: list[tuple[int, str, str]] = field(default_factory=list)
    """Notes without an answer: number and key of the batch, name of the event."""
    copies: list[Path] = field(default_factory=list)
    resets: int = 0
    restores: int = 0
    zips: int = 0

    def count(self) -> int:
        """How many writes were acknowledged."""
        return len(self.formulas) + len(self.batches) + len(self.photos) + len(self.notes)


def ask(port: int, method: str, path: str, body: bytes = b"", kind: str = "application/json") -> tuple[int, Any]:
    """Return status and JSON of an answer; 0 where there was none."""
    try:
        with closing(http.client.HTTPConnection("127.0.0.1", port, timeout=30)) as connection:
            connection.request(method, path, body, {"Content-Type": kind})
            answer = connection.getresponse()
            text = answer.read()
    except (OSError, http.client.HTTPException):
        return 0, None
    if answer.status >= HTTPStatus.INTERNAL_SERVER_ERROR and answer.status != HTTPStatus.SERVICE_UNAVAILABLE:
        raise RuntimeError(f"{path} answered {answer.status}: {text[:300]!r}")
    return answer.status, json.loads(text or b"null")


def post(port: int, path: str, body: bytes, kind: str = "application/json") -> Any:
    """Return the acknowledged answer; None where there was none, or where the studio was another one by then."""
    status, answer = ask(port, "POST", path, body, kind)
    return answer if status in {HTTPStatus.CREATED, HTTPStatus.OK} else None


def photo() -> tuple[bytes, str]:
    buffer, edge = io.BytesIO(), uuid.uuid4().hex
    Image.new("RGB", (64, 48), "plum").save(buffer, "PNG")
    head = f'--{edge}\r\nContent-Disposition: form-data; name="photo"; filename="a.png"\r\nContent-Type: image/png\r\n\r\n'
    return head.encode() + buffer.getvalue() + f"\r\n--{edge}--\r\n".encode(), f"multipart/form-data; boundary={edge}"


def write_on(port: int, kept: Kept, ended: threading.Event) -> None:
    """Write until the server is gone; remember only what it acknowledged."""
    while not ended.is_set():
        name = uuid.uuid4().hex
        formula = {"format": "rosy-kettle/formula", "version": 1, "name": name, "portions": [{"name": "dry", "lines": LINES}]}
        saved = post(port, "/api/formulas", json.dumps(formula).encode())
        if saved is None:
            continue
        kept.formulas.add(name)
        asked = {"formula_id": saved["id"], "wishes": [{"pieces": 5}], "key": name}
        batch = post(port, "/api/batches", json.dumps(asked).encode())
        if batch is None:
            continue
        kept.batches.add(name)
        for _ in range(2):
            tell(port, kept, batch["id"], name, str(uuid.uuid4()))
            body, kind = photo()
            answer = post(port, f"/api/batches/{batch['id']}/photos?id={uuid.uuid4()}", body, kind)
            if answer is None:
                break
            kept.photos.add(answer["events"][-1]["id"])


def tell(port: int, kept: Kept, batch: int, key: str, event_id: str) -> None:
    """Tell one note as a queue does: without an answer it waits and is told again."""
    body = {"after": 0, "event": {"kind": "note", "text": key, "id": event_id, "made_at": f"{datetime.now(UTC).isoformat()}"}}
    status, answer = ask(port, "POST", f"/api/batches/{batch}/events", json.dumps(body).encode())
    if status in {HTTPStatus.CREATED, HTTPStatus.OK} and any(each["id"] == event_id for each in answer["events"]):
        kept.notes.add(event_id)
    elif status in {0, HTTPStatus.SERVICE_UNAVAILABLE}:
        kept.queue.append((batch, key, event_id))


def tell_again(port: int, kept: Kept) -> None:
    """Tell what had no answer, where its batch is still the same one."""
    waiting, kept.queue = kept.queue, []
    for batch, key, event_id in waiting:
        status, answer = ask(port, "GET", f"/api/batches/{batch}")
        if status == HTTPStatus.OK and answer["name"] == key:
            tell(port, kept, batch, key, event_id)


def take_zip_in(port: int, kept: Kept, zip_file: bytes) -> None:
    """Take a small studio in while others write: whole or not at all."""
    edge = uuid.uuid4().hex
    head = f'--{edge}\r\nContent-Disposition: form-data; name="file"; filename="a.zip"\r\nContent-Type: application/zip\r\n\r\n'
    body = head.encode() + zip_file + f"\r\n--{edge}--\r\n".encode()
    if post(port, "/api/studio.zip?merge=true", body, f"multipart/form-data; boundary={edge}") is not None:
        kept.formulas.add(FROM_ZIP)
        kept.zips += 1


def small_zip() -> bytes:
    """Return a studio of one formula as a zip."""
    with tempfile.TemporaryDirectory() as name:
        studio = open_studio(Path(name))
        client = create_app(studio).test_client()
        formula = {"format": "rosy-kettle/formula", "version": 1, "name": FROM_ZIP, "portions": [{"name": "dry", "lines": LINES}]}
        client.post("/api/formulas", json=formula)
        with client.get("/api/studio.zip") as answer:
            data: bytes = answer.data
        studio.close()
        return data


def look(studio: Path, kept: Kept) -> list[str]:
    """Return what is wrong: writes that are gone from the studio and all copies, events twice, photos without a file."""
    found, wrong = Kept(), list[str]()
    for path in [studio, *kept.copies]:
        with closing(sqlite3.connect(path)) as connection:
            said = connection.execute("PRAGMA integrity_check").fetchone()[0]
            wrong += [] if said == "ok" else [f"{path.name}: {said}"]
            found.formulas |= {row[0] for row in connection.execute("SELECT name FROM formulas")}
            found.batches |= {row[0] for row in connection.execute("SELECT request_key FROM batches")}
            events = connection.execute(
                "SELECT kind, event_id, data FROM batch_events WHERE kind IN ('photo', 'note')"
            ).fetchall()
        names = [event_id for _, event_id, _ in events]
        wrong += [f"{path.name}: {name} stands twice" for name in {each for each in names if names.count(each) > 1}]
        found.photos |= {event_id for kind, event_id, _ in events if kind == "photo"}
        found.notes |= {event_id for kind, event_id, _ in events if kind == "note"}
        there = {each.name for each in (studio.parent / "photos").glob("*")}
        wrong += [f"photo missing: {json.loads(data)['name']}" for kind, _, data in events
                  if kind == "photo" and json.loads(data)["name"] not in there]  # fmt: skip
    for noun in ("formulas", "batches", "photos", "notes"):
        wrong += [f"{noun}: {name} is gone" for name in getattr(kept, noun) - getattr(found, noun)]
    return wrong


def do_meanwhile(place: int, every: int, port: int, folder: Path, kept: Kept, zip_file: bytes) -> None:
    """While the writers write: begin anew, bring a backup back, take a zip in, or nothing, by the place in a round."""
    if place == 0:
        kept.resets += move(port, folder, kept, anew=True)
    elif place == every // 2:
        kept.restores += move(port, folder, kept, anew=False)
    elif place == 1:
        take_zip_in(port, kept, zip_file)


def move(port: int, folder: Path, kept: Kept, *, anew: bool) -> bool:
    """Begin anew, or bring the newest backup back, over HTTP; return whether it was acknowledged."""
    if anew:
        status, answer = ask(port, "DELETE", "/api/studio")
    else:
        _, made = ask(port, "GET", "/api/backups")
        if not (made and made["items"]):
            return False
        status, answer = ask(port, "POST", f"/api/backups/{made['items'][0]['name']}/restore")
    if status != HTTPStatus.OK:
        return False
    kept.copies.append(folder / "backups" / answer["kept"])
    return True


def write_and_kill(process: subprocess.Popen[str], port: int, kept: Kept, meanwhile: Callable[[], object]) -> float:
    """Write with several hands, kill the server meanwhile, and return the most memory it took [MB]."""
    ended = threading.Event()
    writers = [threading.Thread(target=write_on, args=(port, kept, ended), daemon=True) for _ in range(WRITERS)]
    for writer in writers:
        writer.start()
    time.sleep(0.05 + 0.7 * secrets.randbelow(1_000) / 1_000)
    meanwhile()
    time.sleep(0.05 + 0.7 * secrets.randbelow(1_000) / 1_000)
    memory_mb = largest_memory_mb(process.pid)
    process.send_signal(signal.SIGKILL)
    process.wait()
    ended.set()
    for writer in writers:
        writer.join()
    return memory_mb


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--kills", type=int, default=200)
    asked.add_argument("--reset-every", type=int, default=10)
    options = asked.parse_args()
    memory_mb, wrong, kept, zipped = 0.0, list[str](), Kept(), small_zip()
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        process, port = start(folder)
        for turn in range(1, options.kills + 1):
            tell_again(port, kept)
            meanwhile = partial(do_meanwhile, turn % options.reset_every, options.reset_every, port, folder, kept, zipped)
            memory_mb = max(memory_mb, write_and_kill(process, port, kept, meanwhile))
            process, port = start(folder)
            wrong = look(folder / "studio.sqlite3", kept)
            moved = f"{kept.resets} resets, {kept.restores} restores, {kept.zips} zips"
            print(f"{turn} kills, {moved}, {kept.count()} writes, {len(wrong)} wrong", flush=True)
        process.terminate()
        process.wait()
    print(f"{kept.count()} acknowledged writes, {len(kept.copies)} copies kept; server at most {memory_mb:.0f} MB")
    if not kept.count():
        wrong.append("nothing was acknowledged, so nothing was tried")
    sys.exit("\n".join(wrong[:20]) if wrong else 0)


if __name__ == "__main__":
    main()
