"""Turn one figure or sign of the core at a time and see whether a test notices: make mutants.

A seeded choice of places; each mutant runs, in a process of its own and until one fails, the tests that come through its
function (found once, by scripts/touches.py). What survives is printed with its place, to be killed with a fact or to be
explained in docs/science/checks.md.
"""

from __future__ import annotations

import argparse
import ast
import json
import os
import queue
import random
import shutil
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from scripts.forked_tests import TIMED_OUT, run_tests

ROOT = Path(__file__).parent.parent
CORE = Path("src/rosy_kettle/core")
LAW = ("safety",)
"""Folders whose lines are law and cautions: every mutant there must be killed."""
TESTS = tuple(path for folder in ("core", "science", "api", "files") for path in (ROOT / "tests" / folder).rglob("test_*.py"))
"""All that call the core without a browser or a process of their own."""
LONGEST_S = 60.0
"""How long the tests of one mutant may take together, by what they took on sound code; the quickest come first."""
SECONDS, ALL_SECONDS = 180, 2_400
"""How long the tests of one mutant may run by the clock, and how long all of them, once, to see where they come through."""
TURNED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.GtE, ast.LtE: ast.Gt, ast.Gt: ast.LtE, ast.GtE: ast.Lt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
}  # fmt: skip
SIGNS: dict[type[ast.operator], type[ast.operator]] = {ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult}
TIMES = 1.3
ROUNDING = 1e-6
"""What is smaller is a tolerance of rounding: it says nothing of baths."""
DRAWN = ("scale",)
"""Arguments of a declared reading that say how it is drawn."""


@dataclass(frozen=True)
class Place:
    """One node of one file that can be turned."""

    path: Path
    node: int
    line: int
    what: str
    function: int
    """First line of the function it stands in, a decorator's line where there is one; 0 at the level of the module."""


def turn(node: ast.AST) -> str:
    """Turn a node in place and say what was done; "" where there is nothing to turn."""
    if (
        isinstance(node, ast.Constant)
        and isinstance(node.value, float)
        and node.value not in {0.0, 1.0}
        and abs(node.value) > ROUNDING
    ):
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
    """Ids of nodes whose turning says nothing: ranges of constants, ends of drawn scales, docstrings, annotations, sentences."""
    found: set[int] = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "parameter":
            found |= {id(each) for argument in node.args[1:] for each in ast.walk(argument)}
        if isinstance(node, ast.JoinedStr):
            found |= {id(each) for each in ast.walk(node)}
        if isinstance(node, ast.keyword) and node.arg in DRAWN:
            found |= {id(each) for each in ast.walk(node.value)}
        if isinstance(node, ast.AnnAssign):
            found |= {id(each) for each in ast.walk(node.annotation)}
    return found


def places_in(path: Path) -> list[Place]:
    tree = ast.parse((ROOT / path).read_text(encoding="utf-8"))
    left_out, functions = skipped(tree), functions_of(tree)
    found = []
    for number, node in enumerate(ast.walk(tree)):
        if id(node) not in left_out and (what := turn(node)):
            found.append(Place(path, number, getattr(node, "lineno", 0), what, functions.get(id(node), 0)))
    return found


def functions_of(tree: ast.Module) -> dict[int, int]:
    """First line of the innermost function around each node."""
    around: dict[int, int] = {}
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef):
            line = min([node.lineno, *(each.lineno for each in node.decorator_list)])
            around |= {id(each): line for part in node.body for each in ast.walk(part)}
    return around


def mutated(place: Place) -> str:
    tree = ast.parse((ROOT / place.path).read_text(encoding="utf-8"))
    turn(list(ast.walk(tree))[place.node])
    return ast.unparse(tree)


class Tests:
    """The tests that come through a place, the quickest first."""

    def __init__(self, copies: list[Path]) -> None:
        self._free: queue.Queue[Path] = queue.Queue()
        for copy in copies:
            self._free.put(copy)
        with ThreadPoolExecutor(len(copies)) as hands:
            found = hands.map(self._touched, (sorted(TESTS)[hand :: len(copies)] for hand in range(len(copies))))
        self._touches: dict[str, dict[str, Any]] = {name: test for each in found for name, test in each.items()}

    def _touched(self, part: list[Path]) -> dict[str, dict[str, Any]]:
        copy = self._free.get()
        file = copy / "touches.json"
        names = [str(each.relative_to(ROOT)) for each in part]
        _, said = run_tests(copy, ["-p", "scripts.touches", "-q", *names], ALL_SECONDS, TOUCHES=str(file))
        self._free.put(copy)
        if not file.exists():
            sys.exit(said)
        touched: dict[str, dict[str, Any]] = json.loads(file.read_text(encoding="utf-8"))
        return touched

    def through(self, place: Place) -> list[str]:
        """Ids of the tests that enter the place's function; for a constant of a module, all of the files that enter its folder.

        A test may look at a constant and enter nothing: those in the folder of the same name are taken too.
        """
        path = str(place.path.relative_to(CORE))
        wanted = {f"{path}:{place.function}"} if place.function else set()
        folders = {Path(path).stem, "parameters"} if Path(path).parent.name == "parameters" else {Path(path).parent.name}
        near = {name.partition("::")[0] for name, test in self._touches.items() if folders & _folders([name, *test["functions"]])}

        def enters(name: str, test: dict[str, Any]) -> bool:
            return bool(wanted & set(test["functions"])) if wanted else name.partition("::")[0] in near

        found = sorted((test["seconds"], name) for name, test in self._touches.items() if enters(name, test))
        chosen, left = [], LONGEST_S
        for seconds, name in found:
            left -= seconds
            if left < 0 and chosen:
                break
            chosen.append(name)
        return chosen

    def notice(self, place: Place) -> str:
        """Run the tests with one mutant in a copy; return the test that noticed, or ""."""
        names = self.through(place)
        if not names:
            return ""
        copy = self._free.get()
        target = copy / place.path
        sound = target.read_text(encoding="utf-8")
        target.write_text(mutated(place), encoding="utf-8")
        code, said = run_tests(copy, ["-x", "-q", *names], SECONDS)
        target.write_text(sound, encoding="utf-8")
        self._free.put(copy)
        if code == 0:
            return ""
        failed = [line for line in said.splitlines() if line.startswith(("FAILED", "ERROR"))]
        return failed[0][:160] if failed else "ran out of time" if code == TIMED_OUT else "the tests did not run"


def _folders(names: list[str]) -> set[str]:
    """Folders that stand in ids of tests and places of functions."""
    return {part for each in names for part in Path(each.partition(":")[0]).parts[:-1]}


def copied(folder: Path) -> Path:
    """Copy what the tests of the core need."""
    for part in ("src", "tests", "scripts", "docs"):
        shutil.copytree(ROOT / part, folder / part, ignore=shutil.ignore_patterns("static", "__pycache__", "*.png"))
    shutil.copy(ROOT / "pyproject.toml", folder)
    return folder


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--mutants", type=int, default=200)
    asked.add_argument("--seed", type=int, default=20)
    asked.add_argument("--under", default=".", help="only places below this folder of the core, such as safety")
    asked.add_argument("--beside", type=int, default=os.cpu_count() or 1, help="how many mutants are run side by side")
    options = asked.parse_args()
    every = [place for path in sorted((ROOT / CORE / options.under).rglob("*.py")) for place in places_in(path.relative_to(ROOT))]
    chosen = random.Random(options.seed).sample(every, min(options.mutants, len(every)))  # noqa: S311 - the same places each time
    survivors: list[Place] = []
    with tempfile.TemporaryDirectory() as name, ThreadPoolExecutor(options.beside) as hands:
        tests = Tests([copied(Path(name) / str(number)) for number in range(options.beside)])
        for at, (place, noticed) in enumerate(zip(chosen, hands.map(tests.notice, chosen), strict=True), start=1):
            survivors += [] if noticed else [place]
            print(f"{at}/{len(chosen)} {place.path}:{place.line} {place.what}: {noticed or 'SURVIVED'}", flush=True)
    share = 1 - len(survivors) / len(chosen)
    law = [place for place in survivors if place.path.relative_to(CORE).parts[0] in LAW]
    print(f"{len(every)} places; {len(chosen)} turned; {100 * share:.0f} % noticed; {len(law)} of law or caution were not")
    sys.exit(1 if law or share < 0.9 else 0)  # noqa: PLR2004 - what is promised


if __name__ == "__main__":
    main()
