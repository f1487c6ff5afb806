"""A pytest plugin for make mutants: which functions of the core each test comes through, and how long it takes."""

from __future__ import annotations

import json
import os
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from types import FrameType
from typing import Any

import pytest

CORE = f"{os.sep}rosy_kettle{os.sep}core{os.sep}"
_FOUND: dict[str, dict[str, Any]] = {}
_FAILED: set[str] = set()
_KNOWN: dict[int, str] = {}


@pytest.hookimpl(hookwrapper=True)
def pytest_runtest_protocol(item: pytest.Item) -> Iterator[None]:
    """Note every function of the core that is entered while the test and its fixtures run."""
    seen: set[int] = set()

    def enter(frame: FrameType, event: str, _argument: object) -> None:
        code = frame.f_code
        if event == "call" and id(code) not in seen and CORE in code.co_filename:
            seen.add(id(code))
            _KNOWN[id(code)] = f"{code.co_filename.partition(CORE)[2]}:{code.co_firstlineno}"

    began = time.perf_counter()
    sys.setprofile(enter)
    yield
    sys.setprofile(None)
    _FOUND[item.nodeid] = {"seconds": time.perf_counter() - began, "functions": sorted({_KNOWN[each] for each in seen})}


def pytest_runtest_logreport(report: pytest.TestReport) -> None:
    """Remember what fails on sound code: it notices nothing."""
    if report.failed:
        _FAILED.add(report.nodeid)


def pytest_sessionfinish() -> None:
    """Leave what was found of the tests that pass in the file named by the environment."""
    for name in _FAILED:
        _FOUND.pop(name, None)
    Path(os.environ["TOUCHES"]).write_text(json.dumps(_FOUND), encoding="utf-8")
