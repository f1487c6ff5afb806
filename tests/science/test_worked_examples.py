"""The worked examples of docs/science, worked out again."""

from __future__ import annotations

import json
import re
from decimal import Decimal
from pathlib import Path
from typing import Any

import pytest

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.change.why import contributions
from rosy_kettle.core.learning.factors import learn
from rosy_kettle.core.learning.observations import Observation
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Line, Portion, Tables

PAGES = Path(__file__).parent.parent.parent / "docs" / "science"
NO_MODEL = {"overview", "checks", "bench", "constants"}  # tables, and what is decided on the other pages' models
BLOCK = re.compile(r"<!-- worked example -->.*?```json\n(.*?)\n```", re.DOTALL)


def examples() -> list[tuple[str, dict[str, Any]]]:
    return [
        (page.stem, json.loads(found)) for page in sorted(PAGES.glob("*.md")) for found in BLOCK.findall(page.read_text("utf-8"))
    ]


def test_every_page_of_a_model_has_one() -> None:
    assert {page.stem for page in PAGES.glob("*.md")} - NO_MODEL == {name for name, _ in examples()}


@pytest.mark.parametrize(("page", "example"), examples(), ids=[name for name, _ in examples()])
def test_it_comes_out_as_printed(tables: Tables, page: str, example: dict[str, Any]) -> None:
    lines = tuple(Line(name, str(grams), "g") for name, grams in example["grams"].items())
    formula = Formula(page, (Portion("body", lines),), method=example["method"])
    assert example["expect"]
    for path, printed in example["expect"].items():
        value = worked_out(formula, tables, example, path)
        if isinstance(printed, (float, dict)):
            assert value == pytest.approx(printed, rel=6e-4), path
        else:
            assert value == (tuple(printed) if isinstance(printed, list) else printed), path


def worked_out(formula: Formula, tables: Tables, example: dict[str, Any], path: str) -> Any:
    """What the page asks for: a change of the formula, a line's part in a reading, or a reading."""
    if "targets" in example:
        result = balance(BalanceProblem(formula, tuple(parse_target(each) for each in example["targets"])), tables)
        return result.status if path == "status" else {change.ingredient: change.after_g for change in result.changes}
    if "dried_times" in example:
        hours = evaluate(formula, tables).drying.hours or 0.0
        trays = [Observation("dried", formula, {"hours": times * hours}) for times in example["dried_times"]]
        return getattr(learn(trays, tables).factors[0], path)
    if "reading" in example:
        return {each.ingredient: each.adds for each in contributions(formula, tables, example["reading"])}[path]
    value: Any = evaluate(formula, tables)
    for name in path.split("."):
        value = getattr(value, name)
    return float(value) if isinstance(value, Decimal) else value
