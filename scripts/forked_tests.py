"""Runs of pytest on a copy of the project, forked off a process that has imported what is not ours: it starts in a second."""

from __future__ import annotations

import multiprocessing
import os
import sys
from pathlib import Path

import pytest

NOT_OURS = "pytest numpy scipy.optimize scipy.stats flask.testing sqlalchemy.orm alembic.context pydantic".split()
TIMED_OUT = -1

_forks = multiprocessing.get_context("forkserver")
_forks.set_forkserver_preload(NOT_OURS)


def _run(copy: Path, arguments: list[str], said: Path, environment: dict[str, str]) -> None:
    os.setsid()
    os.chdir(copy)
    os.environ.update(environment, PYTHONPATH=f"{copy / 'src'}:{copy}", PYTHONDONTWRITEBYTECODE="1")
    sys.dont_write_bytecode = True
    sys.path[:0] = [str(copy / "src"), str(copy)]
    with said.open("w", encoding="utf-8") as file:
        os.dup2(file.fileno(), 1)
        os.dup2(file.fileno(), 2)
        sys.exit(pytest.main(["--no-header", *arguments]))


def run_tests(copy: Path, arguments: list[str], seconds: float, **environment: str) -> tuple[int, str]:
    """Run pytest on a copy; return its exit code, or TIMED_OUT after so many seconds by the clock, and what it printed."""
    said = copy / "said.txt"
    run = _forks.Process(target=_run, args=(copy, arguments, said, environment))
    run.start()
    run.join(seconds)
    late = run.is_alive()
    if late:
        run.kill()
        run.join()
    text = said.read_text(encoding="utf-8") if said.exists() else ""
    return (TIMED_OUT if late else run.exitcode or 0), text
