"""How long the balancer takes on 25 lines and six targets: make bench."""

from __future__ import annotations

from pytest_benchmark.fixture import BenchmarkFixture

from rosy_kettle.core.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.records import Formula, Line, Portion, Tables
from tests.bench.test_bench_evaluate import TWENTY_FIVE

TARGETS = (
    "lather.score>=40", "dough.saturation=0.6..1.0", "firmness.at_20_c>=30", "feel.ring<=70", "skin.harshness_mg_l<=20", "lather.active_g>=2",
)  # fmt: skip


def test_balance_25_lines_6_targets(benchmark: BenchmarkFixture, tables: Tables) -> None:
    lines = tuple(Line(name, str(10 + 3 * index), "g") for index, name in enumerate(TWENTY_FIVE))
    problem = BalanceProblem(Formula("bench", (Portion("body", lines),)), tuple(parse_target(text) for text in TARGETS))
    result = benchmark.pedantic(balance, args=(problem, tables), rounds=3, iterations=1)
    assert result.status in {"solved", "infeasible"}
