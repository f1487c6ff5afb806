"""Figures that nobody meant to move have not moved.

Whether they are right is shown elsewhere, by facts and by others' software; this says only that a change of a figure is meant. After one
that is, `ROSY_KETTLE_KEEP_GOLDEN=1 pytest tests/core/test_golden.py` keeps the new ones, and the diff is read.
"""

from __future__ import annotations

import json
import math
import os
from collections.abc import Callable
from dataclasses import asdict, replace
from pathlib import Path
from typing import Any

import pytest

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.change.balance.substitute import substitutes
from rosy_kettle.core.change.why import contributions, levers
from rosy_kettle.core.change.why.compare import compare
from rosy_kettle.core.making.bench import FEELS
from rosy_kettle.core.making.bench.feel import answer_feel
from rosy_kettle.core.making.plan import Wish, make_run_sheet, plan_order
from rosy_kettle.core.readings.charts import charts_of
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Tables
from tests.core.test_parameters import SETTINGS, formulas, halves

KEPT = Path(__file__).parent / "golden.json"
LONG = 8  # longer lists are sampled
SAME = 2e-4  # machines round differently [-]
SEARCHED, NEARLY = frozenset({"why", "balanced"}), 5e-3  # a search ends where it is good enough [-]
FORMULAS = [*formulas(), halves()]


def figures(told: Any, path: str = "") -> dict[str, float | str]:
    """Every figure and short word of an answer by its path; sentences are told elsewhere."""
    if isinstance(told, dict):
        return {key: value for name, part in told.items() for key, value in figures(part, f"{path}.{name}").items()}
    if isinstance(told, list | tuple):
        told = told if len(told) <= LONG else told[:: len(told) // LONG]
        return {key: value for at, part in enumerate(told) for key, value in figures(part, f"{path}.{at}").items()}
    if isinstance(told, bool) or told is None or (isinstance(told, str) and (" " in told or not told)):
        return {}
    if isinstance(told, int | float):
        return {path: float(f"{told:.5g}")}
    return {path: str(told)}


def judged(tables: Tables, at: int) -> Any:
    skin = ("label", "ledger", "findings")
    answers = []
    for changes in SETTINGS[:2] if at else SETTINGS:
        answer = asdict(evaluate(replace(FORMULAS[at], **changes), tables))
        answers.append({key: part for key, part in answer.items() if key not in skin})
    return answers


def drawn(tables: Tables, at: int) -> Any:
    charts = asdict(charts_of(FORMULAS[at], tables, 0))
    return {name: part[::9] if isinstance(part, tuple) else part for name, part in charts.items()}


def planned(tables: Tables, at: int) -> Any:
    wish = Wish(tool="disher-24", pieces=20)
    return asdict(plan_order(FORMULAS[at], tables, [wish], None, 900.0, {})), asdict(make_run_sheet(FORMULAS[at], tables, 12))


def why(tables: Tables, _at: int) -> Any:
    scoop, butter = FORMULAS[1], FORMULAS[2]
    return {
        "contributions": [
            [asdict(each) for each in contributions(scoop, tables, name)] for name in ("lather.score", "drying.hours")
        ],
        "levers": [asdict(each) for each in levers(scoop, tables, "lather.score", 70.0, 85.0)],
        "compared": asdict(compare(scoop, replace(butter, method=scoop.method), tables)),
        "substitutes": [asdict(each) for each in substitutes(scoop, tables, 4)],
    }


def balanced(tables: Tables, _at: int) -> Any:
    answers = []
    for targets, objective in ((("lather.score>=72",), "least-change"), (("lather.score>=97", "feel.ring<=2"), "least-change")):
        wanted = tuple(parse_target(each) for each in targets)
        answers.append(asdict(balance(BalanceProblem(FORMULAS[1], wanted, objective), tables)))
    return [{key: part for key, part in each.items() if key not in {"readings_before", "readings_after"}} for each in answers]


def felt(tables: Tables, _at: int) -> Any:
    return [
        asdict(answer_feel(FORMULAS[1], tables, feel.state, 24.0, rested=rested)) for feel in FEELS for rested in (True, False)
    ]  # fmt: skip


CASES: dict[str, tuple[Callable[[Tables, int], Any], int]] = {
    **{f"judged {at}": (judged, at) for at in range(len(FORMULAS))},
    **{f"drawn {at}": (drawn, at) for at in (0, 2, 5)},
    **{f"planned {at}": (planned, at) for at in (1, 6)},
    "why": (why, 1), "balanced": (balanced, 1), "felt": (felt, 1),
}  # fmt: skip


@pytest.mark.parametrize("case", CASES)
def test_no_figure_has_moved_that_nobody_meant_to_move(tables: Tables, case: str) -> None:
    work, at = CASES[case]
    now = figures(work(tables, at))
    kept: dict[str, dict[str, float | str]] = json.loads(KEPT.read_text(encoding="utf-8")) if KEPT.exists() else {}
    if os.environ.get("ROSY_KETTLE_KEEP_GOLDEN"):
        KEPT.write_text(
            json.dumps(kept | {case: now}, ensure_ascii=False, indent=0, separators=(",", ":")) + "\n", encoding="utf-8"
        )
        return
    before = kept[case]
    within = NEARLY if case in SEARCHED else SAME
    pairs = {path: (before.get(path), now.get(path)) for path in before.keys() | now.keys()}
    assert {path: pair for path, pair in pairs.items() if not same(*pair, within)} == {}


def same(before: float | str | None, now: float | str | None, within: float) -> bool:
    if isinstance(before, float) and isinstance(now, float):
        return math.isclose(before, now, rel_tol=within, abs_tol=1e-9)
    return before == now
