"""The wheel carries all it needs: installed in an empty environment it serves the built pages."""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import sysconfig
import time
import urllib.request
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
STATIC = ROOT / "src/rosy_kettle/api/static/index.html"


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def get(url: str) -> bytes:
    with urllib.request.urlopen(url, timeout=5) as answer:
        data: bytes = answer.read()
        return data


@pytest.fixture(scope="module")
def installed(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A fresh environment with the wheel; what it depends on is lent from here, for nothing is fetched in a test."""
    assert STATIC.exists()
    folder = tmp_path_factory.mktemp("wheel")
    build = folder / "source"
    pip = [sys.executable, "-m", "pip", "--quiet", "--disable-pip-version-check"]
    options = ["--no-deps", "--no-build-isolation", "--wheel-dir", str(folder)]
    copied = ("pyproject.toml", "README.md", "LICENSE")
    build.mkdir()
    for name in copied:
        (build / name).write_bytes((ROOT / name).read_bytes())
    (build / "src").symlink_to(ROOT / "src")
    subprocess.run([*pip, "wheel", *options, str(build)], check=True)
    subprocess.run([sys.executable, "-m", "venv", "--without-pip", str(folder / "env")], check=True)
    site = next((folder / "env/lib").glob("python*/site-packages"))
    wheel = next(folder.glob("*.whl"))
    subprocess.run([*pip, "install", "--no-deps", "--no-index", "--target", str(site), str(wheel)], check=True)
    (site / "lent.pth").write_text(sysconfig.get_path("purelib") + "\n", encoding="utf-8")
    return folder / "env/bin/python"


def test_it_serves_the_built_pages_and_answers(installed: Path, tmp_path: Path) -> None:
    port = free_port()
    command = [str(installed), "-c", "from rosy_kettle.cli import main; main()", "serve", "--port", str(port)]
    environment = {**os.environ, "ROSY_KETTLE_DATA": str(tmp_path), "PYTHONPATH": ""}
    with subprocess.Popen(command, env=environment, cwd=tmp_path, stdout=subprocess.DEVNULL) as server:
        try:
            until = time.monotonic() + 60
            while time.monotonic() < until:
                try:
                    health = json.loads(get(f"http://127.0.0.1:{port}/api/health"))
                    break
                except OSError:
                    time.sleep(0.2)
            assert health["status"] == "ok"
            assert b'<div id="root">' in get(f"http://127.0.0.1:{port}/")
            assert json.loads(get(f"http://127.0.0.1:{port}/api/practice-runs/bowls"))["items"]
        finally:
            server.terminate()


def test_it_is_the_installed_package_that_ran(installed: Path, tmp_path: Path) -> None:
    said = subprocess.run(
        [str(installed), "-c", "import rosy_kettle; print(rosy_kettle.__file__)"], cwd=tmp_path, check=True, capture_output=True,
        env={**os.environ, "PYTHONPATH": ""}, text=True,
    ).stdout  # fmt: skip
    assert str(installed.parents[1]) in said
