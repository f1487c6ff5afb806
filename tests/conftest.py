"""What all tests share."""

from __future__ import annotations

import gc
import shutil
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient
from flask_openapi3 import OpenAPI
from hypothesis import settings

from rosy_kettle.api import create_app, put_studio
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Line, Portion, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.reference import load_tables
from rosy_kettle.store import Studio, open_studio

pytest_plugins = ["tests.serving"]
settings.register_profile("fixed", deadline=None, derandomize=True)  # the same draws everywhere, however slow the machine
settings.load_profile("fixed")

SELDOM = 50_000  # objects made between two looks for garbage: what the imports and the collected tests hold is none
FormulaMaker = Callable[..., Formula]


def pytest_collection_finish() -> None:
    """Leave what stands for good out of every later look for garbage; the suite takes a tenth less so."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(SELDOM)


@pytest.fixture(scope="session")
def tables() -> Tables:
    return load_tables()


def make_formula(method: str = "betaine-dough", /, **grams: float) -> Formula:
    """A formula of one portion, all in grams; underscores stand for hyphens in ids."""
    lines = tuple(Line(name.replace("_", "-"), str(amount), "g") for name, amount in grams.items())
    return Formula("test", (Portion("body", lines),), method=method)


def make_lines(*lines: tuple[str | None, str, str], method: str = "betaine-dough", **settings: object) -> Formula:
    """A formula of one portion from (ingredient, amount, unit)."""
    return Formula("test", (Portion("body", tuple(Line(*line) for line in lines)),), method=method, **settings)  # type: ignore[arg-type]


@pytest.fixture
def judge(tables: Tables) -> Callable[[Formula], Evaluation]:
    return lambda formula: evaluate(formula, tables)


@pytest.fixture(scope="session")
def empty(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A studio with nothing in it, made once: that takes longer than most tests."""
    studio = open_studio(tmp_path_factory.mktemp("empty"))
    studio.close()
    return studio.path


def opened_copy(file: Path, folder: Path) -> Iterator[Studio]:
    """Open a copy of a made studio until the test is over."""
    shutil.copy(file, folder)
    opened = open_studio(folder)
    yield opened
    opened.close()


@pytest.fixture
def studio(tmp_path: Path, empty: Path) -> Iterator[Studio]:
    yield from opened_copy(empty, tmp_path)


@pytest.fixture(scope="session")
def app(tmp_path_factory: pytest.TempPathFactory, empty: Path) -> Iterator[OpenAPI]:
    """The application, made once: its hundred and fifty routes take longer to set up than most tests."""
    for studio in opened_copy(empty, tmp_path_factory.mktemp("app")):
        yield create_app(studio)


@pytest.fixture
def client(app: OpenAPI, studio: Studio) -> FlaskClient:
    put_studio(app, studio)
    return app.test_client()


@pytest.fixture
def demo_studio(tmp_path: Path, seeded: Path) -> Iterator[Studio]:
    yield from opened_copy(seeded, tmp_path)


@pytest.fixture
def demo_client(app: OpenAPI, demo_studio: Studio) -> FlaskClient:
    put_studio(app, demo_studio)
    return app.test_client()
