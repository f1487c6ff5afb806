"""How long the balancer takes on 25 lines and six targets, and what share of it the linear programs are: make bench."""

from __future__ import annotations

import statistics
import time
from typing import Any

import pytest
import scipy.optimize
from pytest_benchmark.fixture import BenchmarkFixture

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.records import Formula, Line, Portion, Tables
from tests.bench.test_bench_evaluate import TWENTY_FIVE

pytestmark = pytest.mark.clock

TARGETS = (
    "lather.score>=40", "dough.saturation=0.6..1.0", "firmness.at_20_c>=30", "feel.ring<=70", "skin.harshness_mg_l<=20", "lather.active_g>=2",
)  # fmt: skip
WITH_PH = (*TARGETS[:5], "bath.ph_stepin=6..8")
MOST_TIMES_THE_PROGRAMS = 3.0
ROUNDS = 15


def problem_of(targets: tuple[str, ...]) -> BalanceProblem:
    lines = tuple(Line(name, str(10 + 3 * index), "g") for index, name in enumerate(TWENTY_FIVE))
    return BalanceProblem(Formula("bench", (Portion("body", lines),)), tuple(parse_target(text) for text in targets))


@pytest.mark.parametrize("targets", [TARGETS, WITH_PH], ids=["without_ph", "with_ph"])
def test_balance_25_lines_6_targets(benchmark: BenchmarkFixture, tables: Tables, targets: tuple[str, ...]) -> None:
    result = benchmark.pedantic(balance, args=(problem_of(targets), tables), rounds=ROUNDS, iterations=1, warmup_rounds=2)
    assert result.status == "another-formula", "twenty-five lines by their number are no formula; more than a third of them moves"


@pytest.mark.parametrize("targets", [TARGETS, WITH_PH], ids=["without_ph", "with_ph"])
def test_balance_against_its_bare_linear_programs(
    benchmark: BenchmarkFixture,
    tables: Tables,
    targets: tuple[str, ...],
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
) -> None:
    """Each call of the solver is timed where it is made; the whole must stay within three times their sum."""
    bare, spent = scipy.optimize.linprog, [0.0]

    def timed(*args: Any, **named: Any) -> Any:
        begin = time.perf_counter()
        found = bare(*args, **named)
        spent[0] += time.perf_counter() - begin
        return found

    monkeypatch.setattr(scipy.optimize, "linprog", timed)
    problem = problem_of(targets)
    ratios = []

    def run() -> None:
        spent[0], begin = 0.0, time.perf_counter()
        balance(problem, tables)
        ratios.append((time.perf_counter() - begin) / spent[0])

    benchmark.pedantic(run, rounds=ROUNDS, iterations=1, warmup_rounds=2)
    middle = statistics.median(ratios)
    with capsys.disabled():
        print(f"\nbalance over its bare linear programs: {middle:.2f} times (limit {MOST_TIMES_THE_PROGRAMS:g})")
    assert middle <= MOST_TIMES_THE_PROGRAMS
