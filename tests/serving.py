"""Studios served in processes of their own, and fixtures that start them: the one module all tests share for it."""

from __future__ import annotations

import http.client
import json
import shutil
import signal
import subprocess
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest
from scripts.served import start

from rosy_kettle.store import open_studio
from rosy_kettle.store.session import FILE_NAME
from rosy_kettle.usecases.seed_demo import seed_demo

FAST = ("--clock-rate", "120")


@dataclass
class Server:
    """A served studio that can be killed and started again on the same data."""

    folder: Path
    process: subprocess.Popen[str]
    port: int
    options: tuple[str, ...] = ()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def kill(self) -> None:
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()
        assert self.process.stdout is not None
        self.process.stdout.close()

    def start_again(self) -> None:
        self.process, self.port = start(self.folder, "--port", str(self.port), *self.options)

    def ask(self, method: str, path: str, body: Any = None, headers: dict[str, str] | None = None) -> tuple[int, Any]:
        """Ask as a plain HTTP client does; return the status and what the JSON of the answer holds."""
        return ask(self.port, method, path, body, headers)


def ask(port: int, method: str, path: str, body: Any = None, headers: dict[str, str] | None = None) -> tuple[int, Any]:
    data = None if body is None else json.dumps(body).encode()
    with closing(http.client.HTTPConnection("127.0.0.1", port, timeout=60)) as connection:
        connection.request(method, path, data, {"Content-Type": "application/json", **(headers or {})})
        answer = connection.getresponse()
        return answer.status, json.loads(answer.read() or b"null")


def served(folder: Path, *options: str) -> Iterator[Server]:
    """Serve a folder with the demo studio until the test is over."""
    server = Server(folder, *start(folder, "--seed-demo", *options), ("--seed-demo", *options))
    yield server
    server.kill()


@pytest.fixture(scope="session")
def seeded(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo studio, put in once; every server starts on a copy of its own."""
    folder = tmp_path_factory.mktemp("seeded")
    studio = open_studio(folder)
    seed_demo(studio)
    studio.close()
    return folder / FILE_NAME


@pytest.fixture
def server(tmp_path: Path, seeded: Path) -> Iterator[Server]:
    shutil.copy(seeded, tmp_path)
    yield from served(tmp_path)


@pytest.fixture
def fast_server(tmp_path: Path, seeded: Path) -> Iterator[Server]:
    """A studio whose bench clock runs two hours a minute."""
    shutil.copy(seeded, tmp_path)
    yield from served(tmp_path, *FAST)


@pytest.fixture(scope="session")
def shared_server(tmp_path_factory: pytest.TempPathFactory, seeded: Path) -> Iterator[Server]:
    """One studio for tests that only look."""
    folder = tmp_path_factory.mktemp("studio")
    shutil.copy(seeded, folder)
    yield from served(folder)
