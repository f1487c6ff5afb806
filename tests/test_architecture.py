"""The arrows between folders, as ARCHITECTURE.md draws them."""

from __future__ import annotations

import ast
import re
import sys
from pathlib import Path

import pytest

SOURCE = Path(__file__).parent.parent / "src" / "rosy_kettle"
WEB = SOURCE.parents[1] / "web" / "src"
STANDARD = set(sys.stdlib_module_names)
NO_IO = {
    "asyncio", "csv", "http", "io", "logging", "os", "pathlib", "random", "secrets", "shutil", "socket", "sqlite3",
    "subprocess", "sys", "tempfile", "threading", "time", "urllib",
}  # fmt: skip
OWN = "rosy_kettle"
MAY_IMPORT = {
    "core": {"numpy", "scipy", f"{OWN}.core"},
    "reference": {f"{OWN}.core", f"{OWN}.reference"},
    "reader": {"rapidfuzz", f"{OWN}.core", f"{OWN}.reference", f"{OWN}.reader"},
    "files": {"openpyxl", "pydantic", f"{OWN}.core", f"{OWN}.files"},
    "store": {"alembic", "platformdirs", "sqlalchemy", f"{OWN}.core", f"{OWN}.store"},
    "devices": {"serial", f"{OWN}.core", f"{OWN}.devices"},
    "papers": {"PIL", "icalendar", "reportlab", f"{OWN}.core", f"{OWN}.papers"},
    "usecases": {
        "sqlalchemy", f"{OWN}.core", f"{OWN}.reference", f"{OWN}.reader", f"{OWN}.files", f"{OWN}.store", f"{OWN}.devices",
        f"{OWN}.usecases",
    },
}  # fmt: skip


def imports_of(path: Path) -> set[str]:
    names: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            names |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            assert node.level == 0, f"{path} imports relatively"
            names.add(node.module or "")
    return names


def allowed(name: str, folder: str) -> bool:
    top = name.split(".", maxsplit=1)[0]
    if top == "__future__":
        return True
    if top in STANDARD:
        return folder != "core" or top not in NO_IO
    return any(name == may or name.startswith(f"{may}.") for may in MAY_IMPORT[folder])


@pytest.mark.parametrize("folder", sorted(MAY_IMPORT))
def test_folder_imports_only_what_its_arrow_allows(folder: str) -> None:
    files = list((SOURCE / folder).rglob("*.py"))
    assert files
    wrong = [
        f"{path.relative_to(SOURCE)} imports {name}" for path in files for name in imports_of(path) if not allowed(name, folder)
    ]
    assert wrong == []


def test_the_walk_sees_a_forbidden_import(tmp_path: Path) -> None:
    bad = tmp_path / "bad.py"
    bad.write_text("import flask\nfrom rosy_kettle.store import Studio\nimport os\n", encoding="utf-8")
    assert {name for name in imports_of(bad) if not allowed(name, "core")} == {"flask", "rosy_kettle.store", "os"}


def test_every_module_lists_its_public_names() -> None:
    missing = []
    for path in (SOURCE / "core").rglob("*.py"):
        tree = ast.parse(path.read_text(encoding="utf-8"))
        public = {n.name for n in tree.body if isinstance(n, ast.FunctionDef | ast.ClassDef) and not n.name.startswith("_")}
        listed = any(isinstance(n, ast.Assign) and getattr(n.targets[0], "id", "") == "__all__" for n in tree.body)
        if public and not listed:
            missing.append(str(path))
    assert missing == []


CORE_LAYERS = (
    {"errors", "parameters"}, {"deadline", "odd_values", "records", "words"}, {"amounts", "mixing"}, {"models"}, {"safety"}, {"readings"}, {"change"},
    {"making"}, {"learning"}, {"clinic"}, {"practice"},
)  # fmt: skip
"""From the ground up: a layer knows the layers below it, and nothing of its own but itself."""


def test_pages_ask_the_studio_through_the_one_client() -> None:
    """No page knows an address of the studio or fetches by itself: `web/src/api` does, typed by the description."""
    pages = [path for part in ("features", "ui", "lib") for path in (WEB / part).rglob("*.ts*") if ".test." not in path.name]
    assert len(pages) > 150
    asking = re.compile(r"""["'`]/api/|(?<![\w.])fetch\(|new (?:EventSource|XMLHttpRequest)\b""")
    assert [path.name for path in pages if asking.search(path.read_text(encoding="utf-8"))] == []


def test_core_is_built_in_layers() -> None:
    level = {name: at for at, names in enumerate(CORE_LAYERS) for name in names}
    core = SOURCE / "core"
    found = {path.relative_to(core).parts[0].removesuffix(".py") for path in core.rglob("*.py")} - {"__init__"}
    assert found <= set(level)
    wrong = []
    for path in core.rglob("*.py"):
        own = path.relative_to(core).parts[0].removesuffix(".py")
        for name in imports_of(path):
            parts = name.removeprefix(f"{OWN}.core.").split(".") if name.startswith(f"{OWN}.core.") else []
            if parts and parts[0] != own and level[parts[0]] >= level[own]:
                wrong.append(f"{path.relative_to(core)} imports {name}")
    assert wrong == []


def test_no_subject_of_the_models_knows_one_that_knows_it() -> None:
    models = SOURCE / "core" / "models"
    known: dict[str, set[str]] = {}
    for path in models.rglob("*.py"):
        subject = path.relative_to(models).parts[0]
        for name in imports_of(path):
            if name.startswith(f"{OWN}.core.models."):
                known.setdefault(subject, set()).add(name.split(".")[3])
    order: list[str] = []
    while left := {name for name in known if name not in order}:
        free = {name for name in left if not (known[name] - {name} - set(order)) & left}
        assert free, f"a circle among {sorted(left)}"
        order += sorted(free)
