"""How long one evaluation of 25 lines takes: make bench."""

from __future__ import annotations

import pytest
from pytest_benchmark.fixture import BenchmarkFixture

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Line, Portion, Tables

pytestmark = pytest.mark.clock

TWENTY_FIVE = (
    "baking-soda", "citric-acid-anhydrous", "cream-of-tartar", "slsa-fine", "corn-starch", "tapioca-starch", "kaolin", "bentonite",
    "colloidal-oat", "whole-milk-powder", "sea-salt-fine", "capb-liquid", "glycerin", "olive-oil", "avocado-oil", "castor-oil",
    "polysorbate-80", "polysorbate-20", "cocoa-butter", "shea-butter", "coconut-oil-76", "emulsifying-wax", "lavender-oil",
    "mica-pigment", "vitamin-e",
)  # fmt: skip


def test_evaluate_25_lines(benchmark: BenchmarkFixture, tables: Tables) -> None:
    lines = tuple(Line(name, str(10 + 3 * index), "g") for index, name in enumerate(TWENTY_FIVE))
    formula = Formula("bench", (Portion("body", lines),))
    result = benchmark(evaluate, formula, tables)
    assert len(result.lines) == 25
