"""Kill a served studio again and again while it is written to, and count what was acknowledged and is gone: make chaos.

Formulas, batches and photos are sent by four writers over HTTP; the server is killed at a random moment, the file is looked
at with SQLite's own integrity check, and the server is started again. Every tenth time, or as often as asked, the demo studio
is put back instead; then everything acknowledged must stand in the copy that was kept.
"""

from __future__ import annotations

import argparse
import http.client
import io
import json
import os
import secrets
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
import uuid
from contextlib import closing
from http import HTTPStatus
from pathlib import Path
from typing import Any

from PIL import Image
from scripts.served import COMMAND, largest_memory_mb, start

WRITERS = 4
LINES = [
    {"ingredient": "baking-soda", "amount": "300", "unit": "g"},
    {"ingredient": "citric-acid-anhydrous", "amount": "150", "unit": "g"},
]


def post(port: int, path: str, body: bytes, kind: str = "application/json") -> Any:
    """Return the acknowledged answer, or None where there was none."""
    try:
        with closing(http.client.HTTPConnection("127.0.0.1", port, timeout=30)) as connection:
            connection.request("POST", path, body, {"Content-Type": kind})
            answer = connection.getresponse()
            text = answer.read()
    except (OSError, http.client.HTTPException):
        return None
    if answer.status != HTTPStatus.CREATED:
        raise RuntimeError(f"{path} answered {answer.status}: {text[:300]!r}")
    return json.loads(text)


def photo() -> tuple[bytes, str]:
    buffer, edge = io.BytesIO(), uuid.uuid4().hex
    Image.new("RGB", (64, 48), "plum").save(buffer, "PNG")
    head = f'--{edge}\r\nContent-Disposition: form-data; name="photo"; filename="a.png"\r\nContent-Type: image/png\r\n\r\n'
    return head.encode() + buffer.getvalue() + f"\r\n--{edge}--\r\n".encode(), f"multipart/form-data; boundary={edge}"


def write_on(port: int, kept: dict[str, set[str]]) -> None:
    """Write until the server is gone; remember only what it acknowledged."""
    while True:
        name = uuid.uuid4().hex
        formula = {"format": "rosy-kettle/formula", "version": 1, "name": name, "portions": [{"name": "dry", "lines": LINES}]}
        saved = post(port, "/api/formulas", json.dumps(formula).encode())
        if saved is None:
            return
        kept["formulas"].add(name)
        ask = {"formula_id": saved["id"], "wishes": [{"pieces": 5}], "key": name}
        batch = post(port, "/api/batches", json.dumps(ask).encode())
        if batch is None:
            return
        kept["batches"].add(name)
        for _ in range(3):
            body, kind = photo()
            batch = post(port, f"/api/batches/{batch['id']}/photos?after={batch['state']['seq']}", body, kind)
            if batch is None:
                return
            kept["photos"].add(f"{name}:{batch['state']['seq']}")


def missing(path: Path, kept: dict[str, set[str]]) -> tuple[list[str], set[str]]:
    """Return what was acknowledged and does not stand in a studio file, and the photos its events name."""
    with closing(sqlite3.connect(path)) as connection:
        said = connection.execute("PRAGMA integrity_check").fetchone()[0]
        formulas = {row[0] for row in connection.execute("SELECT name FROM formulas")}
        keys = dict(connection.execute("SELECT id, request_key FROM batches"))
        events = connection.execute("SELECT batch_id, seq, data FROM batch_events WHERE kind = 'photo'").fetchall()
    taken = {f"{keys[batch]}:{seq}" for batch, seq, _ in events}
    gone = [*(kept["formulas"] - formulas), *(kept["batches"] - set(keys.values())), *(kept["photos"] - taken)]
    return ([f"integrity: {said}"] if said != "ok" else []) + gone, {json.loads(data)["name"] for _, _, data in events}


def reset(folder: Path) -> Path:
    """Put the demo studio back and return the copy that was kept of the former one."""
    environment = os.environ | {"ROSY_KETTLE_DATA": str(folder)}
    subprocess.run([COMMAND, "demo-reset"], check=True, env=environment, stdout=subprocess.DEVNULL)
    return max(folder.glob("studio*kept*"), key=lambda path: path.stat().st_mtime)


def look(studio: Path, kept: dict[str, set[str]], known: set[str]) -> list[str]:
    """Return what is wrong: writes that are gone, photos without a file, files that no event ever named."""
    gone, named = missing(studio, kept)
    known |= named
    folder = studio.parent / "photos"
    there = {path.name for path in folder.glob("*")} if folder.is_dir() else set()
    return [*gone, *(f"photo missing: {name}" for name in named - there), *(f"left over: {name}" for name in there - known)]


def write_and_kill(process: subprocess.Popen[str], port: int, kept: dict[str, set[str]]) -> float:
    """Write with several hands, kill the server meanwhile, and return the most memory it took [MB]."""
    writers = [threading.Thread(target=write_on, args=(port, kept), daemon=True) for _ in range(WRITERS)]
    for writer in writers:
        writer.start()
    time.sleep(0.05 + 1.45 * secrets.randbelow(1_000) / 1_000)
    memory_mb = largest_memory_mb(process.pid)
    process.send_signal(signal.SIGKILL)
    process.wait()
    for writer in writers:
        writer.join()
    return memory_mb


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--kills", type=int, default=200)
    asked.add_argument("--reset-every", type=int, default=10)
    options = asked.parse_args()
    kills, reset_every = options.kills, options.reset_every
    counted, resets, memory_mb, wrong = 0, 0, 0.0, list[str]()
    kept: dict[str, set[str]] = {"formulas": set(), "batches": set(), "photos": set()}
    with tempfile.TemporaryDirectory() as name:
        folder, known = Path(name), set[str]()
        process, port = start(folder)
        for turn in range(1, kills + 1):
            memory_mb = max(memory_mb, write_and_kill(process, port, kept))
            if turn % reset_every == 0:
                gone, named = missing(reset(folder), kept)
                wrong, known, resets = [*wrong, *gone], known | named, resets + 1
                counted += sum(map(len, kept.values()))
                kept = {"formulas": set(), "batches": set(), "photos": set()}
            process, port = start(folder)
            wrong += look(folder / "studio.sqlite3", kept, known)
            print(f"{turn} kills, {resets} resets, {len(wrong)} wrong", flush=True)
        process.terminate()
        process.wait()
    counted += sum(map(len, kept.values()))
    print(f"{counted} acknowledged writes; server at most {memory_mb:.0f} MB")
    if not counted:
        wrong.append("nothing was acknowledged, so nothing was tried")
    sys.exit("\n".join(wrong[:20]) if wrong else 0)


if __name__ == "__main__":
    main()
