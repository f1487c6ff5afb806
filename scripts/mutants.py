"""Turn one figure or sign of the core at a time and see whether a test notices: make mutants.

A seeded choice of places; each mutant runs the tests of the core and of science in a process of its own until one fails. What
survives is printed with its place, to be killed with a fact or to be explained in docs/science/checks.md.
"""

from __future__ import annotations

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parent.parent
CORE = Path("src/rosy_kettle/core")
LAW = ("safety",)
"""Folders whose lines are law and cautions: every mutant there must be killed."""
TESTS = (
    "tests/core/test_boundaries.py", "tests/science/test_worked_examples.py", "tests/science/test_handbook_values.py",
    "tests/core/test_rules.py", "tests/core/test_dough.py", "tests/core/test_tub_readings.py", "tests/core", "tests/science",
)  # fmt: skip
"""The quick and sharp ones first."""
SECONDS = 600
TURNED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.GtE, ast.LtE: ast.Gt, ast.Gt: ast.LtE, ast.GtE: ast.Lt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
}  # fmt: skip
SIGNS: dict[type[ast.operator], type[ast.operator]] = {ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult}
TIMES = 1.3


@dataclass(frozen=True)
class Place:
    """One node of one file that can be turned."""

    path: Path
    node: int
    line: int
    what: str


def turn(node: ast.AST) -> str:
    """Turn a node in place and say what was done; "" where there is nothing to turn."""
    if isinstance(node, ast.Constant) and isinstance(node.value, float) and node.value not in {0.0, 1.0}:
        before, node.value = node.value, node.value * TIMES
        return f"{before:g} × {TIMES}"
    if isinstance(node, ast.Compare) and type(node.ops[0]) in TURNED:
        before_op = type(node.ops[0])
        node.ops[0] = TURNED[before_op]()
        return f"{before_op.__name__} → {TURNED[before_op].__name__}"
    if isinstance(node, ast.BinOp) and type(node.op) in SIGNS and not isinstance(node.left, ast.Constant | ast.JoinedStr):
        before_sign = type(node.op)
        node.op = SIGNS[before_sign]()
        return f"{before_sign.__name__} → {SIGNS[before_sign].__name__}"
    return ""


def skipped(tree: ast.Module) -> set[int]:
    """Ids of nodes whose turning says nothing: ranges of constants, docstrings, annotations, sentences."""
    found: set[int] = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "parameter":
            found |= {id(each) for argument in node.args[1:] for each in ast.walk(argument)}
        if isinstance(node, ast.JoinedStr):
            found |= {id(each) for each in ast.walk(node)}
        if isinstance(node, ast.AnnAssign):
            found |= {id(each) for each in ast.walk(node.annotation)}
    return found


def places_in(path: Path) -> list[Place]:
    tree = ast.parse((ROOT / path).read_text(encoding="utf-8"))
    left_out = skipped(tree)
    found = []
    for number, node in enumerate(ast.walk(tree)):
        if id(node) not in left_out and (what := turn(node)):
            found.append(Place(path, number, getattr(node, "lineno", 0), what))
    return found


def mutated(place: Place) -> str:
    tree = ast.parse((ROOT / place.path).read_text(encoding="utf-8"))
    turn(list(ast.walk(tree))[place.node])
    return ast.unparse(tree)


def killed(place: Place, copy: Path) -> str:
    """Run the tests on a copy with one mutant; return the test that noticed, or ""."""
    target = copy / place.path
    sound = target.read_text(encoding="utf-8")
    target.write_text(mutated(place), encoding="utf-8")
    environment = os.environ | {"PYTHONPATH": f"{copy / 'src'}:{copy}", "PYTHONDONTWRITEBYTECODE": "1"}
    try:
        done = subprocess.run(
            [sys.executable, "-m", "pytest", "-x", "-q", "--no-header", *TESTS], cwd=copy, env=environment,
            capture_output=True, text=True, timeout=SECONDS, check=False,
        )  # fmt: skip
    except subprocess.TimeoutExpired:
        return "ran out of time"
    finally:
        target.write_text(sound, encoding="utf-8")
    if done.returncode == 0:
        return ""
    failed = [line for line in done.stdout.splitlines() if line.startswith(("FAILED", "ERROR"))]
    return failed[0][:160] if failed else "the tests did not run"


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--mutants", type=int, default=200)
    asked.add_argument("--seed", type=int, default=20)
    options = asked.parse_args()
    every = [place for path in sorted((ROOT / CORE).rglob("*.py")) for place in places_in(path.relative_to(ROOT))]
    chosen = random.Random(options.seed).sample(every, min(options.mutants, len(every)))  # noqa: S311 - the same places each time
    survivors: list[Place] = []
    with tempfile.TemporaryDirectory() as name:
        copy = Path(name)
        for part in ("src", "tests", "scripts"):
            shutil.copytree(ROOT / part, copy / part, ignore=shutil.ignore_patterns("static", "__pycache__"))
        shutil.copy(ROOT / "pyproject.toml", copy)
        for at, place in enumerate(chosen, start=1):
            noticed = killed(place, copy)
            survivors += [] if noticed else [place]
            print(f"{at}/{len(chosen)} {place.path}:{place.line} {place.what}: {noticed or 'SURVIVED'}", flush=True)
    share = 1 - len(survivors) / len(chosen)
    law = [place for place in survivors if place.path.relative_to(CORE).parts[0] in LAW]
    print(f"{len(every)} places; {len(chosen)} turned; {100 * share:.0f} % noticed; {len(law)} of law or caution were not")
    sys.exit(1 if law or share < 0.9 else 0)  # noqa: PLR2004 - what is promised


if __name__ == "__main__":
    main()
