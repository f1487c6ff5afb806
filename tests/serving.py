"""Studios served in processes of their own, and fixtures that start them: the one module all tests share for it."""

from __future__ import annotations

import fcntl
import http.client
import json
import os
import re
import shutil
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import closing, suppress
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest

from rosy_kettle.store import open_studio
from rosy_kettle.store.session import FILE_NAME
from rosy_kettle.usecases.studio.keep_up import keep_up
from rosy_kettle.usecases.studio.seed_demo import seed_demo

ROOT = Path(__file__).parent.parent
FAST = ("--clock-rate", "120")


class Nursery:
    """Forks served studios off a process that has everything imported."""

    def __init__(self) -> None:
        command = [sys.executable, "-m", "tests.nursery"]
        self._process = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True, cwd=ROOT)

    def serve(self, folder: Path, *options: str, declaring: bool = False, demo: bool = True) -> tuple[int, int]:
        """Serve a folder, with one more reading declared, or without the demo, if wanted; return process and port once it answers."""
        assert self._process.stdin is not None
        assert self._process.stdout is not None
        said = folder / "said.txt"
        said.unlink(missing_ok=True)
        asked = {
            "folder": str(folder),
            "arguments": [*(["--seed-demo"] if demo else []), *options],
            "said": str(said),
            "declaring": declaring,
        }
        self._process.stdin.write(json.dumps(asked) + "\n")
        self._process.stdin.flush()
        pid, until = int(self._process.stdout.readline()), time.monotonic() + 60
        while not (found := re.search(r":(\d+)\n", said.read_text() if said.exists() else "")):
            assert time.monotonic() < until, f"no server in {folder}"
            time.sleep(0.01)
        return pid, int(found[1])

    def close(self) -> None:
        self._process.communicate()


@dataclass
class Server:
    """A served studio that can be killed and started again on the same data."""

    folder: Path
    nursery: Nursery
    pid: int
    port: int
    options: tuple[str, ...] = ()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def kill(self) -> None:
        """kill -9; return when the process is gone."""
        with suppress(ProcessLookupError):
            os.kill(self.pid, signal.SIGKILL)
            while True:
                os.kill(self.pid, 0)
                time.sleep(0.005)

    def start_again(self) -> None:
        self.pid, self.port = self.nursery.serve(self.folder, "--port", str(self.port), *self.options)

    def ask(self, method: str, path: str, body: Any = None, headers: dict[str, str] | None = None) -> tuple[int, Any]:
        """Ask as a plain HTTP client does; return the status and what the JSON of the answer holds."""
        return ask(self.port, method, path, body, headers)


def ask(port: int, method: str, path: str, body: Any = None, headers: dict[str, str] | None = None) -> tuple[int, Any]:
    data = None if body is None else json.dumps(body).encode()
    with closing(http.client.HTTPConnection("127.0.0.1", port, timeout=60)) as connection:
        connection.request(method, path, data, {"Content-Type": "application/json", **(headers or {})})
        answer = connection.getresponse()
        return answer.status, json.loads(answer.read() or b"null")


def yardstick_s() -> float:
    """Processor time of a fixed piece of work [s]: a quarter of a second where the figures of docs/reliability.md were taken."""
    began = time.process_time()
    assert sum(at * at for at in range(3_000_000)) > 0
    return time.process_time() - began


@pytest.fixture(scope="session")
def nursery() -> Iterator[Nursery]:
    started = Nursery()
    yield started
    started.close()


def served(nursery: Nursery, folder: Path, *options: str) -> Iterator[Server]:
    """Serve a folder with the demo studio until the test is over."""
    server = Server(folder, nursery, *nursery.serve(folder, *options), options)
    yield server
    server.kill()


@pytest.fixture(scope="session")
def seeded(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo studio, put in once for all workers; every server starts on a copy of its own."""
    own = tmp_path_factory.getbasetemp()
    folder = (own.parent if "PYTEST_XDIST_WORKER" in os.environ else own) / "seeded-for-all"
    folder.mkdir(exist_ok=True)
    with (folder / "lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not (folder / "done").exists():
            studio = open_studio(folder)
            seed_demo(studio)
            keep_up(studio)  # so that no server has to begin with it
            studio.close()
            (folder / "done").touch()
    return folder / FILE_NAME


@pytest.fixture
def server(tmp_path: Path, seeded: Path, nursery: Nursery) -> Iterator[Server]:
    shutil.copy(seeded, tmp_path)
    yield from served(nursery, tmp_path)


@pytest.fixture
def empty_server(tmp_path: Path, nursery: Nursery) -> Iterator[Server]:
    """A studio with nothing in it, and so without devices; its clock is quick."""
    server = Server(tmp_path, nursery, *nursery.serve(tmp_path, *FAST, demo=False), FAST)
    yield server
    server.kill()


@pytest.fixture
def fast_server(tmp_path: Path, seeded: Path, nursery: Nursery) -> Iterator[Server]:
    """A studio whose bench clock runs two hours a minute."""
    shutil.copy(seeded, tmp_path)
    yield from served(nursery, tmp_path, *FAST)


@pytest.fixture
def declaring_server(tmp_path: Path, seeded: Path, nursery: Nursery) -> Iterator[Server]:
    """A studio whose program has one more reading declared (tests/declared_reading.py)."""
    shutil.copy(seeded, tmp_path)
    server = Server(tmp_path, nursery, *nursery.serve(tmp_path, declaring=True))
    yield server
    server.kill()


@pytest.fixture(scope="session")
def shared_server(tmp_path_factory: pytest.TempPathFactory, seeded: Path, nursery: Nursery) -> Iterator[Server]:
    """One studio for tests that only look."""
    folder = tmp_path_factory.mktemp("studio")
    shutil.copy(seeded, folder)
    yield from served(nursery, folder)
