"""The equilibrium, closed and aired, against PHREEQC on the same case: make bench."""

from __future__ import annotations

import pytest
from phreeqc import Phreeqc
from pytest_benchmark.fixture import BenchmarkFixture

from rosy_kettle.core.models.bath.equilibrium import BathIons, Constants, constants_at, solve_aired, solve_closed
from rosy_kettle.core.records import Tables

pytestmark = pytest.mark.clock

SODA, CITRIC = 60 / 84.007 / 150, 30 / 192.124 / 150
RUN = (
    f"SOLUTION 1\n temp 38\n pH 7 charge\nREACTION 1\n NaHCO3 {SODA}\n H3Citrate {CITRIC}\n 1.0\n"
    "{phase}SELECTED_OUTPUT\n -reset false\n -pH true\nEND\n"
)


@pytest.mark.benchmark(group="equilibrium")
def test_both_answers_by_the_core(benchmark: BenchmarkFixture, tables: Tables) -> None:
    constants = constants_at(38, tables.carbonate, dict(tables.acid_systems))
    ions = BathIons(SODA, SODA, (("citric", CITRIC),), 0.0)

    def both(at: Constants) -> tuple[float, float]:
        fresh = solve_closed(ions, SODA, at)
        return fresh.ph, solve_aired(ions, at, fresh).ph

    assert benchmark(both, constants)[0] == pytest.approx(6.185, abs=0.03)


@pytest.mark.benchmark(group="equilibrium")
def test_both_answers_by_phreeqc(benchmark: BenchmarkFixture) -> None:
    engine = Phreeqc()
    engine.LoadBuiltInDatabase("minteq.v4.dat")

    def both() -> float:
        engine.RunString(RUN.format(phase=""))
        closed = engine.GetSelectedOutput()["pH"][-1]
        engine.RunString(RUN.format(phase="EQUILIBRIUM_PHASES 1\n CO2(g) -3.376751 10\n"))
        return float(closed)

    assert benchmark(both) == pytest.approx(6.185, abs=0.005)
